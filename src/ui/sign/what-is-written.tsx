import type { PackGoal } from '@/domain/programme';
import { Panel } from '../shared/parts';

/** What the law of the pack has written, and how long it lasts. */
export function WhatIsWritten({ caution, written }: { caution: string; written: readonly PackGoal[] }) {
  return (
    <Panel title="Sign-off text">
      {written.map((g) => (
        <p key={g.goal} className="mb-1">
          {g.title}: {g.written} Lasts: {g.lasts} <span className="soft">{g.citation}</span>
          {g.confirm || g.recommendation?.confirm ? <strong className="v-edge"> To be confirmed.</strong> : null}
        </p>
      ))}
      <p className="caution mb-0">{caution}</p>
    </Panel>
  );
}
