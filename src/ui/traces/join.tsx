'use client';
import FormCheckInput from 'react-bootstrap/FormCheckInput';
import Button from 'react-bootstrap/Button';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { MEASURE_UNIT, type Measure, type MeasureId } from '@/core/trace';
import { say } from '@/domain/words';
import type { ActionResult } from '../shared/forms';
import { useTap } from '../shared/use-tap';
import { VerdictShape } from '../shared/verdict';
import type { FoundEvent } from '@/domain/trace';
import { FOUND_NAME, type FoundItem, dialOff, itemText, momentOf, sureWord } from './words';
import { useClock } from './use-clock';

export interface JoinLanding {
  key: string;
  found: FoundEvent | null;
  foundIndex: number | null;
  tapped: { id: string; number: number; kind: string } | null;
  apartS: number | null;
  measures: Measure[];
  accepted: string[];
}
export interface JoinItem {
  key: string;
  found: FoundItem;
  foundIndex: number;
  tapped: { id: string; name: string; verdict: string; measured: boolean } | null;
  measurable: string;
}
interface Props {
  traceId: string;
  startUtc: string | null;
  landings: JoinLanding[];
  items: JoinItem[];
  open: boolean;
  unit: 'kt' | 'mph';
  accept: (form: {
    traceId: string;
    landings: { landingId: string; foundIndex: number; measures: MeasureId[] }[];
    items: { itemId: string; foundIndex: number }[];
  }) => Promise<ActionResult<{ accepted: number }>>;
}

const NAME: Record<MeasureId, string> = {
  speed: 'threshold speed',
  along: 'past the touchdown point',
  lateral: 'across',
  firmness: 'sink',
  drift: 'drift',
  crab: 'nose',
  swing: 'swing',
  bounce: 'bounces',
  peakG: 'greatest load',
};
const SIDES: ReadonlySet<MeasureId> = new Set(['lateral', 'drift', 'crab', 'swing']);
const valueText = (m: Measure, unit: 'kt' | 'mph'): string =>
  SIDES.has(m.id)
    ? `${Math.abs(m.value).toFixed(1)}${MEASURE_UNIT[m.id] === '\u00b0' ? '\u00b0' : ` ${MEASURE_UNIT[m.id]}`}${Math.abs(m.value) < 0.05 ? '' : m.value < 0 ? ' left' : ' right'}`
    : m.id === 'speed'
      ? dialOff(m.value, unit)
      : m.id === 'bounce'
        ? String(m.value)
        : m.id === 'peakG'
          ? `${m.value.toFixed(1)} g`
          : `${m.value < 0 ? '\u2013' : ''}${Math.abs(m.value).toFixed(0)} ${MEASURE_UNIT[m.id]}`;

/**
 * Found beside tapped, measure by measure. What is ticked and saved counts as measured and beats the eye; what is not
 * stays the eye's.
 */
export function Join({ traceId, startUtc, landings, items, open, unit, accept }: Props) {
  const clock = useClock(startUtc);
  const router = useRouter();
  const [ticked, setTicked] = useState<Record<string, MeasureId[]>>(() =>
    Object.fromEntries(
      landings.map((l) => [l.key, l.measures.filter((m) => l.accepted.includes(m.id)).map((m) => m.id)]),
    ),
  );
  const [itemTicked, setItemTicked] = useState<string[]>(() =>
    items.filter((i) => i.tapped?.measured).map((i) => i.key),
  );
  const [said, setSaid] = useState('');
  const { tap, busy, refusal } = useTap();
  const pairs = landings.filter((l) => l.found && l.tapped);
  const conflicts = pairs.reduce((n, l) => n + l.measures.filter((m) => m.conflict).length, 0);
  const change = (key: string, ids: MeasureId[]) => {
    setSaid('');
    setTicked((t) => ({ ...t, [key]: ids }));
  };
  const all = (which: (m: Measure) => boolean) => {
    setSaid('');
    setTicked(Object.fromEntries(landings.map((l) => [l.key, l.measures.filter(which).map((m) => m.id)])));
  };
  const save = async () => {
    setSaid('');
    const changed = pairs.filter(
      (l) => (ticked[l.key] ?? []).slice().sort().join() !== l.accepted.slice().sort().join(),
    );
    const sent = () =>
      accept({
        traceId,
        landings: changed.map((l) => ({
          landingId: l.tapped?.id ?? '',
          foundIndex: l.foundIndex ?? 0,
          measures: ticked[l.key] ?? [],
        })),
        items: items
          .filter((i) => itemTicked.includes(i.key) && i.tapped && !i.tapped.measured)
          .map((i) => ({ itemId: i.tapped?.id ?? '', foundIndex: i.foundIndex })),
      });
    await tap(sent, {
      done: ({ accepted }) => {
        setSaid(
          accepted === 0
            ? 'Saved: nothing counts as measured.'
            : `Saved: ${accepted} ${accepted === 1 ? 'measure counts' : 'measures count'} as measured now.`,
        );
        router.refresh();
      },
    });
  };
  return (
    <>
      <p className="mb-2">
        {pairs.length} of {landings.filter((l) => l.tapped).length} tapped landings are found in the recording.{' '}
        {conflicts === 0
          ? 'Eye and recording agree throughout.'
          : `In ${conflicts} ${conflicts === 1 ? 'place' : 'places'} the eye said something else: decide each.`}
      </p>
      {open ? (
        <div className="d-flex gap-2 flex-wrap mb-3" role="group" aria-label="Choose measures">
          <Button variant="outline-primary" onClick={() => all((m) => !m.conflict && m.confidence >= 0.6)}>
            Tick where both agree
          </Button>
          <Button variant="outline-primary" onClick={() => all((m) => m.confidence >= 0.6)}>
            Tick all with fair or high confidence
          </Button>
          <Button variant="outline-primary" onClick={() => all(() => false)}>
            Untick all
          </Button>
        </div>
      ) : (
        <p className="caution">
          This checkout is signed, or not yours to run: the pairs are shown, nothing can be accepted.
        </p>
      )}
      <div className="join">
        {landings.map((l) => (
          <section key={l.key} className="panel" aria-label={l.tapped ? `Landing ${l.tapped.number}` : 'Not tapped'}>
            <header>
              <h2 className="mb-0">
                {l.tapped ? `Landing ${l.tapped.number}, tapped ${say(l.tapped.kind)}` : 'Not tapped'}
              </h2>
              <span className={l.found ? '' : 'v-edge'}>
                {l.found
                  ? `${FOUND_NAME[l.found.kind]} at ${clock(momentOf(l.found))} on ${l.found.runway ?? '?'}`
                  : 'Not found in the recording'}
                {l.apartS !== null && Math.abs(l.apartS) > 90 ? (
                  <span className="v-edge">
                    {' '}
                    {'\u00b7'} {Math.round(Math.abs(l.apartS) / 60)} min apart
                  </span>
                ) : null}
              </span>
            </header>
            {l.found && !l.tapped ? (
              <p className="soft small mb-0">
                It stays with the recording. If it belongs in the record, enter it in the cockpit under From paper; it
                can then be joined here.
              </p>
            ) : null}
            {!l.found && l.tapped ? <p className="soft small mb-0">The visual judgement stands.</p> : null}
            {l.found && l.tapped && l.measures.length === 0 ? (
              <p className="soft small mb-0">
                {l.found.touchdown
                  ? 'The file supports no measure of this landing.'
                  : 'No touch: nothing here is measured by the standard.'}
              </p>
            ) : null}
            {l.tapped && l.measures.length > 0 ? (
              <ul className="measure-rows">
                {l.measures.map((m) => {
                  const id = `${l.key}-${m.id}`;
                  const on = (ticked[l.key] ?? []).includes(m.id);
                  return (
                    <li key={m.id} className={m.conflict ? 'conflict' : ''}>
                      <label htmlFor={id}>
                        <FormCheckInput
                          id={id}
                          type="checkbox"
                          disabled={!open}
                          checked={on}
                          onChange={(e) =>
                            change(
                              l.key,
                              e.target.checked
                                ? [...(ticked[l.key] ?? []), m.id]
                                : (ticked[l.key] ?? []).filter((x) => x !== m.id),
                            )
                          }
                        />{' '}
                        <span>{NAME[m.id]}</span>
                      </label>
                      <span className="mono">
                        {valueText(m, unit)}
                        <sup title="measured, from this recording"> M</sup>
                      </span>
                      <span>
                        {m.tapped === null ? (
                          <span className="soft">eye: not seen</span>
                        ) : (
                          <>
                            {m.conflict ? <VerdictShape verdict="edge" size={13} /> : null} eye:{' '}
                            {m.id === 'speed' ? `read ${m.tapped} ${unit}` : say(m.tapped)}
                          </>
                        )}
                      </span>
                      <span className="soft small" title={`confidence ${m.confidence.toFixed(2)}`}>
                        {sureWord(m.confidence)}
                      </span>
                    </li>
                  );
                })}
              </ul>
            ) : null}
          </section>
        ))}
      </div>
      {items.length > 0 ? (
        <section className="panel mt-3" aria-label="Airwork">
          <h2>Airwork</h2>
          <ul className="measure-rows">
            {items.map((i) => {
              const id = `item-${i.key}`;
              return (
                <li key={i.key} className="item-row">
                  {i.tapped ? (
                    <label htmlFor={id}>
                      <FormCheckInput
                        id={id}
                        type="checkbox"
                        disabled={!open || i.measurable === '' || i.tapped.measured}
                        checked={itemTicked.includes(i.key)}
                        onChange={(e) => {
                          setSaid('');
                          setItemTicked((t) => (e.target.checked ? [...t, i.key] : t.filter((x) => x !== i.key)));
                        }}
                      />{' '}
                      <span>
                        {FOUND_NAME[i.found.kind]}
                        {i.found.direction ? `, ${i.found.direction}` : ''}
                      </span>
                    </label>
                  ) : (
                    <span>
                      {FOUND_NAME[i.found.kind]}
                      {i.found.direction ? `, ${i.found.direction}` : ''}
                    </span>
                  )}
                  <span className="small">
                    {clock(i.found.startS)}:{' '}
                    {itemText(i.found, unit)
                      .map(([n, v]) => `${n.toLowerCase()} ${v}`)
                      .join('; ')}
                  </span>
                  <span>
                    {i.tapped ? (
                      <>
                        tapped {i.tapped.name}: {say(i.tapped.verdict)}
                        {i.tapped.measured ? ', measured' : ''}
                        {i.measurable === '' ? ' (the standard asks nothing the file measures)' : ''}
                      </>
                    ) : (
                      <span className="soft">not tapped: stays with the recording</span>
                    )}
                  </span>
                  <span className="soft small">{sureWord(i.found.confidence)}</span>
                </li>
              );
            })}
          </ul>
        </section>
      ) : null}
      {refusal ? (
        <p className="trouble mt-3" role="alert">
          {refusal}
        </p>
      ) : null}
      {open ? (
        <div className="join-save">
          <Button variant="primary" disabled={busy} onClick={() => void save()}>
            {busy ? 'Saving \u2026' : 'Accept ticked measures'}
          </Button>
          <span role="status">{said}</span>
        </div>
      ) : null}
    </>
  );
}
