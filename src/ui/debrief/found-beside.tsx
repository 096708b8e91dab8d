import { withUnit } from '@/core/format';
import type { PowerFound, TrialFlown } from '@/domain/capture';
import { say } from '@/domain/words';
import { Link } from '../shared/link';

function trialText(t: TrialFlown, unit: 'kt' | 'mph'): string {
  const arrested = t.arrested === 'none' ? 'not arrested' : `${say(t.arrested)} arrested`;
  const stop = t.elevatorAtStop ? ', elevator at the stop' : '';
  return `flap ${t.flapDeg}\u00b0, ${t.power}, ${withUnit(t.speed, unit)}: ${arrested}${stop}`;
}

/** What was found in flight beside the items: power settings, and trials over a make-believe ground. */
export function FoundBeside({
  powers,
  trials,
  unit,
  typeCode,
}: {
  powers: readonly { data: PowerFound }[];
  trials: readonly { data: TrialFlown }[];
  unit: 'kt' | 'mph';
  typeCode: string;
}) {
  return (
    <>
      {powers.length > 0 ? (
        <p className="mb-0 mt-2">
          <strong>Power found:</strong>{' '}
          {powers
            .map((p) => `${p.data.phase}, ${p.data.setting}: ${withUnit(p.data.speed, unit)} ${p.data.vertical}`)
            .join('; ')}
          . <Link href={`/hangar/${typeCode}`}>Decide</Link>
        </p>
      ) : null}
      {trials.length > 0 ? (
        <p className="mb-0 mt-2">
          <strong>Slow approach trials:</strong> {trials.map((t) => trialText(t.data, unit)).join('; ')}.
        </p>
      ) : null}
    </>
  );
}
