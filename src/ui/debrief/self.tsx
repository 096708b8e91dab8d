'use client';
import Button from 'react-bootstrap/Button';
import { useState } from 'react';
import { WORK_ON, WORK_ON_NAME, type WorkOn, type compareSelf } from '@/core/assess';
import type { ActionResult } from '../shared/forms';
import { useTap } from '../shared/use-tap';

/** Three taps, before anything is shown: how many were your own, which was the best, what to work on. */
export function SelfAsk({
  sortieId,
  landings,
  numbers,
  forPilot,
  save,
}: {
  sortieId: string;
  landings: number;
  numbers: readonly number[];
  forPilot: boolean;
  save: (form: unknown) => Promise<ActionResult>;
}) {
  const [own, setOwn] = useState<number | null>(null);
  const [best, setBest] = useState<number | null | undefined>(undefined);
  const { tap, busy, refusal, setProblems } = useTap();
  const send = (workOn: WorkOn) =>
    own === null || best === undefined
      ? setProblems([{ path: '', message: 'Tap the first two, then this.' }])
      : void tap(() => save({ sortieId, own, bestNumber: best, workOn }));
  const chip = (key: string, text: string, on: boolean, choose: () => void) => (
    <Button key={key} variant={on ? 'primary' : 'outline-primary'} aria-pressed={on} disabled={busy} onClick={choose}>
      {text}
    </Button>
  );
  return (
    <section className={`panel mb-3 self-ask${forPilot ? '' : ' small-ask'}`} aria-label="The pilot first">
      <h2>{forPilot ? 'You first: three taps, then the record' : 'Ask the pilot first, and tap the answers'}</h2>
      <div className="self-rows">
        <div role="group" aria-label="How many unassisted">
          <span>{forPilot ? `How many of the ${landings} did you fly unassisted?` : `Unassisted, of ${landings}`}</span>
          <div className="d-flex gap-1 flex-wrap">
            {Array.from({ length: landings + 1 }, (_, n) => chip(`o${n}`, String(n), own === n, () => setOwn(n)))}
          </div>
        </div>
        <div role="group" aria-label="Which was the best">
          <span>{forPilot ? 'Which was the best?' : 'The best'}</span>
          <div className="d-flex gap-1 flex-wrap">
            {numbers.map((n) => chip(`b${n}`, String(n), best === n, () => setBest(n)))}
            {chip('none', 'none', best === null, () => setBest(null))}
          </div>
        </div>
        <div role="group" aria-label="What to work on">
          <span>{forPilot ? 'What to work on?' : 'To work on'}</span>
          <div className="d-flex gap-1 flex-wrap">
            {WORK_ON.map((w) => chip(w, WORK_ON_NAME[w], false, () => send(w)))}
          </div>
        </div>
      </div>
      <p className="mb-0 small" role="status">
        {refusal ? (
          <span className="v-outside">{refusal}</span>
        ) : (
          <span className="soft">The third tap saves and shows the record beside it.</span>
        )}
      </p>
    </section>
  );
}

/** What was said beside what was recorded. */
export function SelfBeside({ compared, toldBy }: { compared: ReturnType<typeof compareSelf>; toldBy: string }) {
  const { own, best, workOn } = compared;
  const off = own.said - own.recorded;
  return (
    <div className="self-beside" data-self>
      <div>
        <span className="soft small">unassisted</span>
        <strong className="mono">
          {own.said} said, {own.recorded} recorded
        </strong>
        <span className="small">
          {off === 0 ? 'the same' : off > 0 ? `${off} above the record` : `${-off} below the record`}
        </span>
      </div>
      <div>
        <span className="soft small">best</span>
        <strong className="mono">
          {best.said === null ? 'none' : `landing ${best.said}`} said,{' '}
          {best.recorded === null ? 'none' : `landing ${best.recorded}`} recorded
        </strong>
        <span className="small">{best.same ? 'the same' : 'look at both'}</span>
      </div>
      <div>
        <span className="soft small">to work on</span>
        <strong>{workOn.said}</strong>
        <span className="small">
          {workOn.recorded === null
            ? 'nothing was outside'
            : workOn.same
              ? 'the record says so too'
              : `most was outside in ${workOn.recorded}`}
        </span>
      </div>
      <p className="soft small mb-0">Said first, tapped by {toldBy}.</p>
    </div>
  );
}
