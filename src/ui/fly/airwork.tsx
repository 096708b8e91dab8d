'use client';
import { useRef, useState } from 'react';
import { type DetailJudged, judgeDetail, unseenName, unseenOf, worst, detailSaid } from '@/core/assess';
import { type Ask, type CaptureForm, FORM_NAME } from '@/domain/airwork';
import type { AirworkDetail } from '@/domain/capture';
import { INTERVENTIONS, say } from '@/domain/words';
import type { Folded, FoldedItem, SortiePack } from '@/offline/protocol';
import { VerdictMark } from '../shared/verdict';
import type { ViewProps } from './view';
import { AsymmetricForm, EnergyForm, NumbersForm, StallForm } from './airwork-forms';
import { HandlingForm } from './handling-form';
import { Whose, Words } from './parts';
import { useKept } from './kept';
import { PowerTable, Trials } from './found';
import { StepsForm } from './steps-form';
import { Surprise } from './surprise';

type Verdict = 'within' | 'edge' | 'outside';
type Item = SortiePack['items'][number] & { extra?: boolean };

/** What each form asks, in a line. */
const ALSO: Partial<Record<CaptureForm, string>> = {
  'steep-turn': 'set bank, speed, height; the extremes and the roll-out',
  'slow-flight': 'set speed and height; the extremes',
  stall: 'look-out, cue, recovery, height lost',
  energy: 'entry box and exit box: height, speed, heading',
  'emergency-descent': 'speed, bank, level-off',
  asymmetric: 'first cue, recovery, heading and speed held',
  flow: 'checks and systems in order',
  surprise: 'where to, held against the model of the glide',
};

/** Airwork of this lesson and what else may be flown: what was set, the extremes seen, whose it was. */
export function Airwork({ limit, ...props }: ViewProps & { limit: () => void }) {
  const { pack } = props;
  const also: CaptureForm[] = [
    'steep-turn',
    'slow-flight',
    'stall',
    'energy',
    'emergency-descent',
    ...(pack.failures?.twin ? (['asymmetric'] as const) : []),
    ...((pack.lists ?? []).some((l) => l.kind === 'flow') ? (['flow'] as const) : []),
    ...(pack.reach ? (['surprise'] as const) : []),
  ];
  const items = pack.items.filter((i) => i.where === 'flight');
  return (
    <section aria-label="Airwork" className="rows" style={{ paddingTop: 12 }}>
      <div className="head">
        <h1>Airwork</h1>
        <button type="button" className="tap push" style={{ width: 'auto' }} aria-haspopup="dialog" onClick={limit}>
          Limit exceeded
        </button>
      </div>
      <Cues pack={pack} where="flight" />
      {items.map((item) => (
        <ItemRow key={item.id} item={item} {...props} />
      ))}
      {pack.airwork ? (
        <>
          <h2 className="group">Other exercises flown</h2>
          {also.map((form) => (
            <ItemRow
              key={form}
              item={{
                id: `also:${form}`,
                title: FORM_NAME[form],
                text: ALSO[form] ?? '',
                where: 'flight',
                waivable: null,
                forms: [form],
                extra: true,
              }}
              {...props}
            />
          ))}
        </>
      ) : null}
      <h2 className="group">Power settings noted</h2>
      <PowerTable {...props} />
      <Trials {...props} />
    </section>
  );
}

/** What an answer counts for, in a line. */
function itemCounts(item: Item, verdict: Verdict, intervention: number): string {
  if (item.extra) return 'It stands in the debrief; no item of the programme asks for it.';
  if (verdict === 'outside') return `It is no evidence for ${item.id}.`;
  // Taken along before the device was told: the debrief says it.
  if (item.most === undefined) return '';
  if (intervention > item.most) return `Not counted for ${item.id}: ${INTERVENTIONS[intervention]?.word ?? ''}.`;
  return `Counts for ${item.id}${(item.needed ?? 1) > 1 ? `, which asks for ${item.needed ?? 1}` : ''}.`;
}

/** How many of the items asked were answered on this flight. */
const savedWords = (items: readonly { id: string }[], folded: Folded): string => {
  const done = items.filter((i) => folded.items.some((f) => f.data.itemId === i.id)).length;
  return items.length === 0 ? '' : `${done} of ${items.length} saved`;
};

/** Ground items, checks and flows from memory, the exchange of control. */
export function Ground(props: ViewProps) {
  const { pack } = props;
  const items = pack.items.filter((i) => i.where === 'ground');
  const lists = pack.lists ?? [];
  return (
    <section aria-label="Ground" className="rows" style={{ paddingTop: 12 }}>
      <div className="head">
        <h1>Ground</h1>
        <span className="status">{savedWords(items, props.folded)}</span>
      </div>
      <Cues pack={pack} where="ground" />
      {items.map((item) => (
        <ItemRow key={item.id} item={item} {...props} />
      ))}
      {lists.length > 0 ? (
        <>
          <h2 className="group">Recall items</h2>
          {lists.map((l) => (
            <ItemRow
              key={l.key}
              item={{
                id: `list:${l.key}`,
                title: l.title,
                text: `${l.steps.length} steps, tapped as they are said`,
                where: 'ground',
                waivable: null,
                forms: [l.kind === 'exchange' ? 'exchange' : l.kind],
                extra: true,
              }}
              only={l.key}
              {...props}
            />
          ))}
        </>
      ) : null}
      {pack.failures ? (
        <p className="mb-0" style={{ fontSize: 15 }}>
          <strong>Simulated failures:</strong> {pack.failures.words.join('; ')}.
        </p>
      ) : null}
    </section>
  );
}

/** What was asked and said on the ground: one tap, saved. Taught again is not shown yet. */
const ORAL = [
  { word: 'knew it', verdict: 'within', intervention: 0 },
  { word: 'with a prompt', verdict: 'within', intervention: 1 },
  { word: 'taught again', verdict: 'outside', intervention: 2 },
] as const;
const flownWord = (d: { verdict: string; intervention: number }): string =>
  `${say(d.verdict)}, ${INTERVENTIONS[d.intervention]?.word ?? ''}`;
const oralWord = (d: { verdict: string; intervention: number }): string =>
  ORAL.find((o) => o.verdict === d.verdict && o.intervention === d.intervention)?.word ?? flownWord(d);

/** One item: closed it says what was seen, open it is captured by its own form. */
function ItemRow({ item, only, ...props }: ViewProps & { item: Item; only?: string }) {
  const { pack, folded, saveEvent, say: tell } = props;
  const [open, setOpen] = useState(false);
  const forms = (item.forms ?? []).filter((f) =>
    f === 'plain' || f === 'surprise' ? f !== 'surprise' || pack.reach : pack.airwork,
  );
  const choices: CaptureForm[] = item.extra ? forms : [...forms, 'plain'];
  const blank: { form: CaptureForm; detail: AirworkDetail | null; tapped: Verdict | null } = {
    form: choices[0] ?? 'plain',
    detail: null,
    tapped: null,
  };
  const [half, setHalf] = useKept(`item-${pack.sortieId}-${item.id}`, blank);
  const { detail, tapped } = half;
  const form = choices.includes(half.form) ? half.form : blank.form;
  const setDetail = (d: AirworkDetail | null) => setHalf({ ...half, form, detail: d });
  const [busy, setBusy] = useState(false);
  const seen = folded.items.filter((i) => i.data.itemId === item.id);
  const last = seen[seen.length - 1];
  const judge = (d: AirworkDetail | null): DetailJudged | null =>
    d && pack.airwork
      ? judgeDetail(d, { airwork: pack.airwork.rows, edgeShare: pack.airwork.edgeShare }, pack.ktPerUnit ?? 1)
      : null;
  const judged = judge(detail);
  const computed = judged?.verdict ?? 'not-seen';
  const unseen =
    detail && pack.airwork ? unseenOf(detail, (kind) => pack.airwork?.rows.find((r) => r.kind === kind) ?? null) : [];
  const final = worst([computed, tapped ?? 'not-seen']);
  const clear = () => setHalf({ ...blank, form });
  const flying = folded.flying[pack.sortieId] ?? pack.pilotId ?? null;
  const keep = async (intervention: number, answered: AirworkDetail | null = detail) => {
    const by = judge(answered);
    const verdict = worst([by?.verdict ?? 'not-seen', tapped ?? 'not-seen']);
    if (verdict === 'not-seen') return;
    // What was not looked at is worked out again wherever the item is read.
    if (await put(verdict, intervention, say(verdict), detailSaid(by?.reasons ?? []).slice(0, 500), answered)) {
      setOpen(false);
      clear();
    }
  };
  const saving = useRef(false);
  /** Saves an answer; what is half tapped in the form is not part of it and stays. @returns it is on the device */
  const put = async (
    verdict: Verdict,
    intervention: number,
    word: string,
    note = '',
    answered: AirworkDetail | null = null,
  ): Promise<boolean> => {
    if (saving.current) return false;
    saving.current = true;
    setBusy(true);
    const saved = await saveEvent('item-observed', crypto.randomUUID(), {
      itemId: item.id,
      verdict,
      intervention,
      note,
      detail: answered,
      pilotId: flying === pack.pilotId ? null : flying,
    }).then(
      () => {
        tell(`${item.extra ? item.title : item.id} saved: ${word}. ${itemCounts(item, verdict, intervention)}`);
        return true;
      },
      () => false,
    );
    saving.current = false;
    setBusy(false);
    return saved;
  };
  const oral = item.where === 'ground' && choices.includes('plain');
  const takeBack = async (it: FoldedItem) => {
    await saveEvent('undone', it.id, {}).then(
      () => tell(`${item.title}: the last one is taken back.`),
      () => undefined,
    );
  };
  const name = item.extra ? item.title : item.id;
  return (
    <div className="rowline">
      <button type="button" className="tap left" aria-expanded={open} onClick={() => setOpen(!open)}>
        {item.extra ? null : <span className="mono">{item.id}</span>} {item.title}
        <small>
          {folded.waivers.some((w) => w.itemId === item.id)
            ? 'waived'
            : last
              ? `this flight: ${(oral ? oralWord : flownWord)(last.data)}${seen.length > 1 ? `, ${seen.length} times` : ''}`
              : item.text}
        </small>
      </button>
      {oral && !open ? (
        <div className="taps t3" role="group" aria-label={name}>
          {ORAL.map((o) => (
            <button
              key={o.word}
              type="button"
              className="tap"
              disabled={busy}
              onClick={() => void put(o.verdict, o.intervention, o.word)}
            >
              {o.word}
            </button>
          ))}
        </div>
      ) : null}
      {open ? (
        <>
          {choices.length > 1 ? (
            <div className={`taps t${Math.min(4, choices.length)}`} role="group" aria-label={`${name} form`}>
              {choices.map((f) => (
                <button
                  key={f}
                  type="button"
                  className="tap"
                  aria-pressed={form === f}
                  onClick={() => setHalf({ ...blank, form: f })}
                >
                  {FORM_NAME[f]}
                </button>
              ))}
            </div>
          ) : null}
          {form === 'surprise' ? (
            <Surprise {...props} save={(d, level) => void keep(level, d)} />
          ) : (
            <>
              <Form
                form={form}
                only={only}
                asks={item.asks ?? []}
                detail={detail}
                set={setDetail}
                judged={judged}
                {...props}
              />
              <Words
                title={`${name} how it went`}
                options={['within', 'edge', 'outside'] as const}
                now={computed === 'not-seen' ? tapped : (final as Verdict)}
                columns={3}
                name={(v) => (v === 'within' ? 'in standard' : v === 'edge' ? 'edge, just in' : 'outside')}
                choose={(v) => setHalf({ ...half, form, tapped: v })}
              />
              {unseen.length > 0 && computed !== 'outside' ? (
                <p className="mb-0 judged" role="status">
                  <VerdictMark verdict="not-seen" label="by what is tapped" /> Not judged by what is tapped:{' '}
                  {unseen.map(unseenName).join(', ')} not seen. Saved so, it is kept and counts for nothing.
                </p>
              ) : null}
              {judged && computed !== 'not-seen' ? (
                <p className="mb-0 judged">
                  <VerdictMark verdict={computed} label="by what is tapped" /> By what is tapped: {say(computed)}
                  {judged.reasons.length > 0 ? `; ${detailSaid(judged.reasons)}` : ''}. It can be made worse, not
                  better.
                </p>
              ) : null}
              <Whose
                title={`${name} who flew it`}
                now={null}
                off={final === 'not-seen' || busy}
                choose={(level) => void keep(level)}
              />
              {last ? (
                <button type="button" className="tap" style={{ width: 'auto' }} onClick={() => void takeBack(last)}>
                  Take back the last one saved
                </button>
              ) : null}
            </>
          )}
        </>
      ) : null}
    </div>
  );
}

function Form({
  form,
  only,
  asks,
  detail,
  set,
  judged,
  ...props
}: ViewProps & {
  form: CaptureForm;
  only?: string;
  asks: readonly Ask[];
  detail: AirworkDetail | null;
  set: (d: AirworkDetail | null) => void;
  judged: DetailJudged | null;
}) {
  switch (form) {
    case 'steep-turn':
    case 'slow-flight':
    case 'emergency-descent':
      return (
        <NumbersForm
          kind={form}
          pack={props.pack}
          detail={detail?.form === 'numbers' ? detail : null}
          set={set}
          judged={judged}
        />
      );
    case 'stall':
      return (
        <StallForm pack={props.pack} detail={detail?.form === 'stall' ? detail : null} set={set} judged={judged} />
      );
    case 'energy':
      return (
        <EnergyForm
          pack={props.pack}
          runwayEnd={props.runwayEnd}
          detail={detail?.form === 'energy' ? detail : null}
          set={set}
          judged={judged}
        />
      );
    case 'asymmetric':
      return (
        <AsymmetricForm
          pack={props.pack}
          detail={detail?.form === 'asymmetric' ? detail : null}
          set={set}
          judged={judged}
        />
      );
    case 'flow':
    case 'speeds':
    case 'exchange':
      return (
        <StepsForm
          form={form}
          only={only}
          pack={props.pack}
          detail={detail?.form === 'steps' || detail?.form === 'exchange' ? detail : null}
          set={set}
        />
      );
    case 'handling':
      return <HandlingForm asks={asks} detail={detail?.form === 'handling' ? detail : null} set={set} />;
    // Nothing but the verdict, or a view of their own.
    case 'plain':
    case 'power-table':
    case 'surprise':
    case 'trial':
      return null;
  }
}

/** The old habits of this pilot, as short commands: read before start-up, not in the worst second. */
function Cues({ pack, where }: { pack: SortiePack; where: 'ground' | 'flight' }) {
  const here = (pack.cues ?? []).filter((c) => c.where === where);
  if (here.length === 0) return null;
  return (
    <section aria-label="Habits to watch" className="cues">
      <h2>{where === 'ground' ? 'Watch on the ground' : 'Watch in the air'}</h2>
      <ul>
        {here.map((c) => (
          <li key={c.name}>
            <strong>
              {c.opposite ? 'Opposite' : c.action === 'drop' ? 'Drop' : 'Add'}: {c.name}.
            </strong>{' '}
            {c.cue}
          </li>
        ))}
      </ul>
    </section>
  );
}
