'use client';
import { type DetailJudged, extremeSteps, judgeQuantity, limitsFor } from '@/core/assess';
import {
  ASYMMETRIC_ITEMS,
  type AirworkKind,
  type AirworkQuantity,
  CUE_RECOVERIES,
  ENERGY_ITEMS,
  FIRST_CUES,
  IDENTIFIED,
  QUANTITY_NAME,
  STALLS,
  STALL_CUES,
  STALL_RECOVERIES,
  type Manoeuvre,
  type SeenExtreme,
} from '@/domain/airwork';
import type { AirworkDetail } from '@/domain/capture';
import type { TypeSheet } from '@/domain/sheet';
import { say } from '@/domain/words';
import type { SortiePack } from '@/offline/protocol';
import { VerdictShape } from '../shared/verdict';
import { Stepper, Words } from './parts';
import { YesNo } from './yes-no';

type Of<F extends AirworkDetail['form']> = Extract<AirworkDetail, { form: F }>;
interface FormProps<F extends AirworkDetail['form']> {
  pack: SortiePack;
  detail: Of<F> | null;
  set: (d: AirworkDetail) => void;
  judged: DetailJudged | null;
}
type Seen = Partial<Record<AirworkQuantity, SeenExtreme>>;

/**
 * The extreme of each quantity: one tap on the deviation seen, or on *inside*. Each button bears the mark it would
 * give.
 */
function Extremes({
  kind,
  item = null,
  pack,
  seen,
  set,
}: {
  kind: AirworkKind;
  item?: string | null;
  pack: SortiePack;
  seen: Seen;
  set: (s: Seen) => void;
}) {
  const row = pack.airwork?.rows.find((r) => r.kind === kind);
  if (!row || !pack.airwork) return null;
  const { edgeShare } = pack.airwork;
  const perUnit = pack.ktPerUnit ?? 1;
  return (
    <>
      {limitsFor(row, item).map((limit) => {
        // The standard speaks in knots; the buttons in whole units of the dial, not beyond the limit they stand for.
        const dial = limit.quantity === 'speed';
        const steps = extremeSteps(limit).map((x) => (dial && perUnit !== 1 ? Math.trunc(x / perUnit) : x));
        const unit = dial ? pack.unit : limit.unit === 'degrees' ? '°' : limit.unit;
        const now = seen[limit.quantity];
        const tap = (v: SeenExtreme) => {
          const { [limit.quantity]: old, ...others } = seen;
          set(old === v ? others : { ...others, [limit.quantity]: v });
        };
        const button = (v: SeenExtreme) => {
          const verdict = judgeQuantity(limit, v === 'inside' ? v : dial ? v * perUnit : v, edgeShare);
          const words = v === 'inside' ? 'inside' : `${v > 0 ? '+' : '–'}${Math.abs(v)}`;
          return (
            <button
              key={String(v)}
              type="button"
              className="tap"
              aria-pressed={now === v}
              aria-label={
                v === 'inside' ? 'inside' : `${words} ${limit.unit === 'kt' ? pack.unit : limit.unit}, ${verdict}`
              }
              onClick={() => tap(v)}
            >
              {words}
              <VerdictShape verdict={verdict} />
            </button>
          );
        };
        const below = steps.filter((x) => x < 0);
        const above = steps.filter((x) => x > 0);
        return (
          <div key={limit.quantity}>
            <h2>
              {QUANTITY_NAME[limit.quantity]}
              {limit.about === undefined ? '' : ` about ${limit.about} ${unit}`}, greatest seen, {unit}{' '}
              <span className="cite">{limit.citation}</span>
            </h2>
            <div
              className="taps extremes"
              style={{ gridTemplateColumns: `repeat(${below.length}, 1fr) 1.4fr repeat(${above.length}, 1fr)` }}
              role="group"
              aria-label={`${QUANTITY_NAME[limit.quantity]}, greatest seen`}
            >
              {below.map(button)}
              {button('inside')}
              {above.map(button)}
            </div>
          </div>
        );
      })}
    </>
  );
}

const setStart = (
  pack: SortiePack,
  q: AirworkQuantity,
  kind: AirworkKind,
): { start: number; step: number; unit: string; wrap?: number } =>
  q === 'bank'
    ? { start: pack.airwork?.rows.find((r) => r.kind === kind)?.set.bank ?? 30, step: 5, unit: '°' }
    : q === 'speed'
      ? {
          start: Math.round(
            entryOf(pack, kind as Manoeuvre)?.entryIas ??
              pack.reach?.sheet.speeds[
                kind === 'steep-turn' || kind === 'energy' ? 'va' : kind === 'slow-flight' ? 'vx' : 'vy'
              ].value ??
              80,
          ),
          step: 1,
          unit: pack.unit,
        }
      : q === 'heading' || q === 'rollOut'
        ? { start: 360, step: 10, unit: '°', wrap: 360 }
        : { start: Math.ceil(((pack.reach?.elevationFt ?? 0) + 2500) / 100) * 100, step: 100, unit: 'ft' };

/** What was set before it began. */
function SetUp({
  kind,
  pack,
  quantities,
  set,
  values,
}: {
  kind: AirworkKind;
  pack: SortiePack;
  quantities: AirworkQuantity[];
  values: Partial<Record<AirworkQuantity, number>>;
  set: (v: Partial<Record<AirworkQuantity, number>>) => void;
}) {
  return (
    <div className="taps gates">
      {quantities.map((q) => (
        <Stepper
          key={q}
          title={`Set ${QUANTITY_NAME[q]}`}
          {...setStart(pack, q, kind)}
          least={0}
          now={values[q] ?? null}
          set={(v) => {
            const { [q]: _old, ...others } = values;
            set(v === null ? others : { ...others, [q]: v });
          }}
        />
      ))}
    </div>
  );
}

const SET_UP: Partial<Record<AirworkKind, AirworkQuantity[]>> = {
  'steep-turn': ['height', 'speed', 'bank', 'heading'],
  'slow-flight': ['height', 'speed', 'heading'],
  'emergency-descent': ['speed', 'bank', 'levelOff'],
};

export function NumbersForm({ kind, pack, detail, set }: FormProps<'numbers'> & { kind: AirworkKind }) {
  const now = detail ?? { form: 'numbers' as const, kind, set: {}, seen: {} };
  return (
    <>
      <FromSheet pack={pack} item={kind as Manoeuvre} />
      <SetUp
        kind={kind}
        pack={pack}
        quantities={SET_UP[kind] ?? []}
        values={now.set}
        set={(v) => set({ ...now, set: v })}
      />
      <Extremes kind={kind} pack={pack} seen={now.seen} set={(seen) => set({ ...now, seen })} />
    </>
  );
}

export function StallForm({ pack, detail, set }: FormProps<'stall'>) {
  const now = detail ?? {
    form: 'stall' as const,
    stall: 'clean' as const,
    lookOut: null,
    cue: null,
    cueSpeed: null,
    recovery: null,
    heightLostFt: null,
    seen: {},
  };
  return (
    <>
      <Words
        title="Stall"
        options={STALLS}
        now={now.stall}
        choose={(v) => set({ ...now, stall: v ?? 'clean' })}
        columns={5}
        name={(v) => (v === 'landing' ? 'landing flap' : say(v))}
      />
      <div className="pair">
        <YesNo
          title="Look-out and checks before it"
          now={now.lookOut}
          choose={(v) => set({ ...now, lookOut: v })}
          yes="done"
          no="missed"
        />
        <Stepper
          title="Height lost"
          unit="ft"
          start={100}
          step={50}
          least={0}
          most={5000}
          now={now.heightLostFt}
          set={(v) => set({ ...now, heightLostFt: v })}
        />
      </div>
      <Words title="First cue" options={STALL_CUES} now={now.cue} choose={(v) => set({ ...now, cue: v })} columns={5} />
      <div className="pair">
        <Stepper
          title="Speed at the cue"
          unit={pack.unit}
          start={Math.round(pack.reach?.sheet.stalls[0]?.speed.value ?? 45) + 4}
          step={1}
          least={10}
          most={300}
          now={now.cueSpeed}
          set={(v) => set({ ...now, cueSpeed: v })}
        />
      </div>
      <Words
        title="Recovery"
        options={STALL_RECOVERIES}
        now={now.recovery}
        choose={(v) => set({ ...now, recovery: v })}
        columns={5}
      />
      <Extremes kind="stall" item={now.stall} pack={pack} seen={now.seen} set={(seen) => set({ ...now, seen })} />
    </>
  );
}

type Entry = NonNullable<TypeSheet['manoeuvres']>[number];
/** How the sheet enters an exercise; undefined = it does not say. */
export const entryOf = (pack: SortiePack, item: Manoeuvre): Entry | undefined =>
  pack.reach?.sheet.manoeuvres?.find((m) => m.item === item);
/** An entry in figures, to be read before it is flown. */
export const entryWords = (e: Entry, unit: string): string =>
  `${e.entryIas} ${unit}, ${e.power}${e.g === null ? '' : `, ${e.g > 0 ? '+' : ''}${e.g} g`}`;

/** What the sheet says of the entry, with where it says so; a sheet that does not say is told apart from one that does. */
function FromSheet({ pack, item }: { pack: SortiePack; item: Manoeuvre }) {
  const entry = entryOf(pack, item);
  return (
    <p className="mb-0" style={{ fontSize: 16 }}>
      {entry ? (
        <>
          <strong>Entry: {entryWords(entry, pack.unit)}.</strong> Exit: {entry.exit}.{' '}
          <span className="cite">{entry.ref}</span>
        </>
      ) : (
        'The sheet gives no entry for it: set your own, within the handbook.'
      )}
    </p>
  );
}

export function EnergyForm({ pack, detail, set, judged, runwayEnd }: FormProps<'energy'> & { runwayEnd: string }) {
  const box = { heightFt: null, speed: null, headingDeg: null };
  const now = detail ?? {
    form: 'energy' as const,
    item: 'wing-over' as const,
    reciprocal: true,
    entry: box,
    exit: box,
  };
  const height = setStart(pack, 'height', 'energy');
  const entry = entryOf(pack, now.item);
  const speed = { ...setStart(pack, 'speed', 'energy'), ...(entry ? { start: entry.entryIas } : {}) };
  const heading = Math.round((pack.runways.find((r) => r.ident === runwayEnd)?.magneticDeg ?? 360) / 5) * 5 || 360;
  const planned = { heightFt: height.start, speed: speed.start, headingDeg: heading };
  const turned = (deg: number) => (deg + (now.reciprocal ? 180 : 0)) % 360 || 360;
  const full = now.entry.heightFt !== null && now.entry.speed !== null && now.entry.headingDeg !== null;
  const sides = (which: 'entry' | 'exit') => {
    const b = now[which];
    const put = (change: Partial<typeof b>) => set({ ...now, [which]: { ...b, ...change } });
    // The exit starts from the entry: what was the same costs one tap.
    const from = which === 'exit' ? now.entry : box;
    const name = which === 'entry' ? 'Entry' : 'Exit';
    return (
      <div className="taps gates">
        <Stepper
          title={`${name} height`}
          {...height}
          start={from.heightFt ?? height.start}
          step={50}
          least={0}
          now={b.heightFt}
          set={(v) => put({ heightFt: v })}
        />
        <Stepper
          title={`${name} speed`}
          {...speed}
          start={from.speed ?? speed.start}
          now={b.speed}
          set={(v) => put({ speed: v })}
        />
        <Stepper
          title={`${name} heading`}
          unit="°"
          step={5}
          wrap={360}
          start={from.headingDeg === null ? heading : turned(from.headingDeg)}
          now={b.headingDeg}
          set={(v) => put({ headingDeg: v })}
        />
      </div>
    );
  };
  return (
    <>
      <Words
        title="Item"
        options={ENERGY_ITEMS}
        now={now.item}
        choose={(v) =>
          set({ ...now, item: v ?? 'wing-over', reciprocal: v === 'wing-over' || v === 'climbing-reversal' })
        }
        columns={5}
        hint={(v) => {
          const of = entryOf(pack, v);
          return of ? entryWords(of, pack.unit) : null;
        }}
      />
      <FromSheet pack={pack} item={now.item} />
      <div className="taps t2">
        <button type="button" className="tap" disabled={!entry} onClick={() => set({ ...now, entry: planned })}>
          Entered as planned
          <small>
            {entry
              ? `${planned.heightFt} ft, ${planned.speed} ${pack.unit}, ${planned.headingDeg}°`
              : 'the sheet gives no entry: set it below'}
          </small>
        </button>
        <button
          type="button"
          className="tap"
          disabled={!full}
          onClick={() => set({ ...now, exit: { ...now.entry, headingDeg: turned(now.entry.headingDeg ?? heading) } })}
        >
          Left as entered
          <small>{full ? 'height, speed and heading seen, nothing off' : 'first the entry'}</small>
        </button>
      </div>
      {sides('entry')}
      {sides('exit')}
      <Words
        title="Exit heading"
        options={['the same', 'the reciprocal'] as const}
        now={now.reciprocal ? 'the reciprocal' : 'the same'}
        choose={(v) => set({ ...now, reciprocal: (v ?? 'the same') === 'the reciprocal' })}
        columns={2}
      />
      {judged ? (
        <p className="mb-0 judged">
          {judged.quantities
            .filter((q) => q.deviation !== null)
            .map((q) => (
              <span key={q.quantity}>
                <VerdictShape verdict={q.verdict} /> {QUANTITY_NAME[q.quantity]} {(q.deviation ?? 0) >= 0 ? '+' : '–'}
                {Math.abs(Math.round(q.deviation ?? 0))} {q.limit.unit === 'degrees' ? '°' : q.limit.unit} of{' '}
                {q.limit.high}{' '}
              </span>
            ))}
        </p>
      ) : null}
      <p className="mb-0" style={{ fontSize: 15 }}>
        Ask how the pilot feels; a gentle g warm-up first; stop early.
      </p>
    </>
  );
}

export function AsymmetricForm({ pack, detail, set }: FormProps<'asymmetric'>) {
  const now = detail ?? {
    form: 'asymmetric' as const,
    item: 'control-speed' as const,
    heightFt: null,
    saidSimulated: null,
    firstCue: null,
    recovery: null,
    set: {},
    seen: {},
  };
  const leastFt = pack.failures?.demonstrationFt ?? 3000;
  const floor = (pack.reach?.elevationFt ?? 0) + leastFt;
  const low = now.item === 'control-speed' && now.heightFt !== null && now.heightFt < floor;
  return (
    <>
      <Words
        title="Item"
        options={ASYMMETRIC_ITEMS}
        now={now.item}
        choose={(v) => set({ ...now, item: v ?? 'control-speed' })}
        columns={5}
      />
      {pack.failures ? (
        <p className="mb-0" style={{ fontSize: 15 }}>
          {pack.failures.words.join('; ')}.
        </p>
      ) : null}
      <div className="pair">
        <YesNo
          title="The word simulated was said"
          now={now.saidSimulated}
          choose={(v) => set({ ...now, saidSimulated: v })}
        />
        <Stepper
          title="Height, QNH"
          {...setStart(pack, 'height', 'asymmetric')}
          start={Math.ceil((floor + 500) / 100) * 100}
          least={0}
          now={now.heightFt}
          set={(v) => set({ ...now, heightFt: v })}
        />
      </div>
      {low ? (
        <p role="alert" className="mb-0">
          <strong>Below {floor} ft on QNH: not here.</strong> The demonstration is complete {leastFt} ft over the ground
          or higher{pack.failures ? ` (${pack.failures.source})` : ''}. Climb first.
        </p>
      ) : null}
      <div className="pair">
        <Words
          title="First cue"
          options={FIRST_CUES}
          now={now.firstCue}
          choose={(v) => set({ ...now, firstCue: v })}
          columns={3}
        />
        <Words
          title="Recovered"
          options={CUE_RECOVERIES}
          now={now.recovery}
          choose={(v) => set({ ...now, recovery: v })}
          columns={2}
        />
      </div>
      {now.item === 'control-speed' ? null : (
        <Words
          title="Engine named as failed"
          options={IDENTIFIED}
          now={now.identified ?? null}
          choose={(v) => set({ ...now, identified: v })}
          columns={2}
        />
      )}
      <SetUp
        kind="asymmetric"
        pack={pack}
        quantities={['speed', 'heading']}
        values={now.set}
        set={(v) => set({ ...now, set: v })}
      />
      <Extremes kind="asymmetric" item={now.item} pack={pack} seen={now.seen} set={(seen) => set({ ...now, seen })} />
    </>
  );
}
