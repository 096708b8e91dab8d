'use client';
import Button from 'react-bootstrap/Button';
import { useRouter } from 'next/navigation';
import type { TraceAnalysis } from '@/domain/trace';
import type { ActionResult } from '../shared/forms';
import { Link } from '../shared/link';
import { Panel } from '../shared/parts';
import { Refusal } from '../shared/refusal';
import { TableHead } from '../shared/table-head';
import { useTap } from '../shared/use-tap';
import { channelName } from './mapping';
import { elapsed } from './words';

export interface OtherRecording {
  id: string;
  name: string;
  /** Names of what a joined one is made of. */
  joinedOf: readonly string[] | null;
}
interface Props {
  traceId: string;
  name: string;
  others: OtherRecording[];
  joined: TraceAnalysis['source']['joined'];
  /** May this user join them? */
  runs: boolean;
  join: (form: { traceId: string; otherId: string }) => Promise<ActionResult<{ id: string }>>;
}

/** Seconds a clock is off by, from which it is said. */
const AGREES_S = 1.5;
const clockText = (ahead: number | null): string =>
  ahead === null
    ? 'no date'
    : Math.abs(ahead) < AGREES_S
      ? 'agrees'
      : `${Math.abs(ahead) < 120 ? `${Math.abs(ahead).toFixed(0)} s` : elapsed(Math.abs(ahead))} ${ahead > 0 ? 'fast' : 'slow'}`;

/** Other recordings of the same flight: joined with this one, or what a joined one is made of. */
export function Recordings({ traceId, name, others, joined, runs, join }: Props) {
  const router = useRouter();
  const { tap, busy, refusal } = useTap();
  if (others.length === 0 && !joined) return null;
  const linked = (name: string) => {
    const other = others.find((o) => o.name === name);
    return other ? <Link href={`/traces/${other.id}`}>{name}</Link> : name;
  };
  const joinedWith = (other: string) => others.some((o) => o.joinedOf?.includes(name) && o.joinedOf.includes(other));
  return (
    <div className="mt-3">
      <Panel title={joined ? 'Joined from two recordings' : 'Also recorded'}>
        {joined ? (
          <div className="scroll-x" tabIndex={0} role="region" aria-label="What it is joined from">
            <table aria-label="Recordings joined" className="plain">
              <TableHead columns={['Recording', { right: 'Starts at' }, 'Its clock', 'Gives']} />
              <tbody>
                {joined.map((j, k) => (
                  <tr key={k}>
                    <td style={{ minWidth: '14rem' }}>{linked(j.name)}</td>
                    <td className="r mono">
                      {elapsed(j.startS)}
                      {j.sdS > 0 ? `, \u00b1${(Math.ceil(j.sdS * 10) / 10).toFixed(1)} s` : ''}
                    </td>
                    <td className="text-nowrap">{k === 0 ? 'kept' : clockText(j.clockAheadS)}</td>
                    <td>{j.gives.length > 0 ? j.gives.map(channelName).join('; ') : 'what the other missed'}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          </div>
        ) : (
          <p>
            Joined, each quantity comes from the recorder that shows it better. They are aligned by what they flew; the
            clocks need not agree.
          </p>
        )}
        <ul className="plain-list mb-0">
          {(joined ? [] : others).map((o) => (
            <li key={o.id}>
              <Link href={`/traces/${o.id}`}>{o.name}</Link>
              {o.joinedOf ? <span className="soft">, joined</span> : null}
              {joinedWith(o.name) ? <span className="soft">, joined with this one</span> : null}
              {runs && !o.joinedOf && !joinedWith(o.name) ? (
                <Button
                  className="ms-2"
                  size="sm"
                  variant="outline-primary"
                  disabled={busy}
                  onClick={() =>
                    void tap(() => join({ traceId, otherId: o.id }), { done: (a) => router.push(`/traces/${a.id}`) })
                  }
                >
                  {busy ? 'Joining' : 'Join with this one'}
                </Button>
              ) : null}
            </li>
          ))}
        </ul>
        <Refusal said={refusal} />
      </Panel>
    </div>
  );
}
