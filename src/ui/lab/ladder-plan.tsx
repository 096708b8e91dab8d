import { dateText, downTo, localDate, localTime } from '@/core/format';
import type { LadderLesson } from '@/core/wind';
import { Link } from '../shared/link';
import { Panel } from '../shared/parts';
import { Verdict } from '../shared/verdict';

export interface PlannedLesson extends LadderLesson {
  bookingId: string;
  startsAt: string;
  zone: string;
  wind: { crosswindKt: number; runwayEnd: string; forecast: boolean } | null;
}
const SAYS: Record<LadderLesson['state'], (l: PlannedLesson) => string> = {
  proven: (l) => `within the proven ${downTo(l.provenKt)} kt`,
  step: (l) => `the next step, up to ${downTo(l.mostKt)} kt; three good landings prove it`,
  above: (l) => `above ${downTo(l.mostKt)} kt: another time, or the instructor\u2019s landings`,
  'not-known': () => 'no forecast yet',
};
const TONE = { proven: 'within', step: 'edge', above: 'outside', 'not-known': 'not-seen' } as const;

/** The pilot's crosswind over the lessons that are booked: what the wind of each asks, and what it would prove. */
export function LadderPlan({ lessons }: { lessons: readonly PlannedLesson[] }) {
  return (
    <Panel title="Crosswind over the booked lessons">
      {lessons.length === 0 ? (
        <p className="mb-0">
          No lesson is booked. See <Link href="/schedule">Schedule</Link>.
        </p>
      ) : (
        <>
          <div className="scroll-x" tabIndex={0} role="region" aria-label="Crosswind over the booked lessons">
            <table className="plain">
              <thead>
                <tr>
                  <th scope="col">lesson</th>
                  <th scope="col">crosswind</th>
                  <th scope="col">for this pilot</th>
                </tr>
              </thead>
              <tbody>
                {lessons.map((l) => (
                  <tr key={l.bookingId}>
                    <td>
                      {dateText(localDate(l.startsAt, l.zone))}, {localTime(l.startsAt, l.zone)}
                    </td>
                    <td className="mono">
                      {l.wind
                        ? `${l.wind.crosswindKt} kt on ${l.wind.runwayEnd}, ${l.wind.forecast ? 'forecast' : 'outlook'}`
                        : '\u2013'}
                    </td>
                    <td>
                      <Verdict verdict={TONE[l.state]}>{SAYS[l.state](l)}</Verdict>
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          </div>
          <p className="soft small mb-0 mt-2">
            Each step counts as proven for the lessons after it only if three good landings are flown in it. Simulated
            station; check the real weather.
          </p>
        </>
      )}
    </Panel>
  );
}
