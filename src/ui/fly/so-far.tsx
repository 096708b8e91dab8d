'use client';
import { countFlown, flownWords } from '@/core/assess';
import { countLandings } from '@/core/recency';
import { cuesFor } from './cues';
import { Typed } from './sheet';
import { ALONG_BANDS, LATERAL_BANDS, say } from '@/domain/words';
import type { Folded, FoldedLanding, SortiePack } from '@/offline/protocol';

const W = 300;
const H = 104;
const X0 = 20;

/** Shown between landings only: earlier dots and the standard's box would pull the next tap. */
export function SoFar({
  pack,
  folded,
  correct,
  cue,
  set,
  asksFirst,
  toggle,
  toPaper,
}: {
  pack: SortiePack;
  folded: Folded;
  /** The one cue for the next landing. */
  cue: string;
  set: (cue: string) => void;
  /** The pilot's own word is asked before anything is judged. */
  asksFirst: boolean;
  toggle: () => void;
  correct: (l: FoldedLanding) => void;
  toPaper: () => void;
}) {
  const surface = (end: string) =>
    pack.runways.find((r) => r.ident === end)?.surface === 'water' ? ('water' as const) : ('land' as const);
  const main = pack.pilotId ?? 'pilot';
  const list = folded.landings.map(({ landing: l }) => ({
    pilotId: l.pilotId ?? main,
    kind: l.kind,
    demonstration: l.demonstration,
    intervention: l.intervention,
    surface: surface(l.runwayEnd),
  }));
  const pilots = [
    { id: main, name: pack.pilotName.split(' ')[0] ?? pack.pilotName },
    ...(pack.second
      ? [
          {
            id: pack.second.pilotId,
            name: `${pack.second.name.split(' ')[0] ?? ''}${pack.second.ownCheckout ? '' : ', recency only'}`,
          },
        ]
      : []),
  ];
  return (
    <div className="sofar">
      <Dots landings={folded.landings} />
      <div>
        <table>
          <caption className="visually-hidden">Landings that count, this flight</caption>
          <thead>
            <tr>
              <th scope="col">{pilots.length > 1 ? 'pilot' : 'counts'}</th>
              <th scope="col">all</th>
              <th scope="col">full stop</th>
              {pack.tailwheel ? <th scope="col">tailwheel</th> : null}
              {pack.gearLamps ? <th scope="col">water</th> : null}
              <th scope="col">go-arounds</th>
              <th scope="col">not counted</th>
            </tr>
          </thead>
          <tbody>
            {pilots.map((p) => {
              const c = countLandings(list, p.id, pack.tailwheel);
              return (
                <tr key={p.id}>
                  <th scope="row">{p.name}</th>
                  <td>{c.total}</td>
                  <td>{c.fullStop}</td>
                  {pack.tailwheel ? <td>{c.tailwheelFullStop}</td> : null}
                  {pack.gearLamps ? <td>{c.water}</td> : null}
                  <td>{c.goArounds}</td>
                  <td>{c.notCounted}</td>
                </tr>
              );
            })}
          </tbody>
        </table>
        <p className="mb-1" style={{ fontSize: 15 }}>
          Flown: {flownWords(countFlown(list))}. Counted: unassisted or prompted. Assisted, taken-over and demonstrated
          landings are not.
        </p>
      </div>
      <div className="acts">
        {pack.plan && pack.plan.length > 0 ? (
          <details>
            <summary className="tap">The plan, {pack.plan.reduce((a, b) => a + b.minutes, 0)} min</summary>
            <ol style={{ paddingTop: 8, marginBottom: 4 }}>
              {pack.plan.map((b, i) => (
                <li key={`${i} ${b.title}`}>
                  {b.title}, {b.minutes} min
                </li>
              ))}
            </ol>
          </details>
        ) : null}
        <Cue cues={cuesFor(pack)} now={cue} set={set} />
        <button type="button" className="tap mb-1" aria-pressed={asksFirst} onClick={toggle}>
          Pilot’s own word first<small>{asksFirst ? 'asked once stopped' : 'not asked'}</small>
        </button>
        <details>
          <summary className="tap">Correct a landing, or enter from paper</summary>
          <div className="taps t4" style={{ paddingTop: 8 }}>
            {folded.landings.map((l) => (
              <button key={l.id} type="button" className="tap" onClick={() => correct(l)}>
                {l.landing.kind === 'go-around' ? 'Go-around' : 'Landing'} {l.number}
                <small>{l.landing.along ? `${say(l.landing.along)}` : say(l.landing.kind)}</small>
              </button>
            ))}
            <button type="button" className="tap" onClick={toPaper}>
              From paper<small>the card’s tally</small>
            </button>
          </div>
        </details>
      </div>
    </div>
  );
}

/** One cue for the next landing, from the list or typed; it stands beside the number until it is saved. */
function Cue({ cues, now, set }: { cues: readonly string[]; now: string; set: (cue: string) => void }) {
  return (
    <details>
      <summary className="tap">{now ? `Cue: ${now}` : 'One cue for the next landing'}</summary>
      <div className="taps t2" style={{ padding: '8px 0' }} role="group" aria-label="One cue for the next landing">
        {cues.map((c) => (
          <button
            key={c}
            type="button"
            className="tap"
            aria-pressed={now === c}
            onClick={() => set(now === c ? '' : c)}
          >
            {c}
          </button>
        ))}
      </div>
      <Typed label="Another, in your words" value={cues.includes(now) ? '' : now} max={80} rows={1} keep={set} />
    </details>
  );
}

/** Touchdowns so far on the runway, flown from left to right; the standard's box dashed, the newest ringed. */
function Dots({ landings }: { landings: readonly FoldedLanding[] }) {
  const placed = landings.flatMap((l) =>
    l.landing.along && l.landing.lateral
      ? [{ id: l.id, x: ALONG_BANDS.indexOf(l.landing.along), y: LATERAL_BANDS.indexOf(l.landing.lateral) }]
      : [],
  );
  const cw = (W - X0 - 4) / 4;
  const ch = (H - 24) / 5;
  const words =
    placed.length === 0
      ? 'No touchdown placed yet.'
      : `${placed.length} placed; ${placed.filter((p) => p.x === 1).length} in the box, ${placed.filter((p) => p.y === 2).length} on the line, ${placed.filter((p) => p.y < 2).length} left, ${placed.filter((p) => p.y > 2).length} right.`;
  return (
    <figure className="mb-0">
      <svg viewBox={`0 0 ${W} ${H}`} width="100%" role="img" aria-label={`Touchdowns so far. ${words}`}>
        <rect x={X0} y={2} width={W - X0 - 4} height={H - 24} fill="none" stroke="currentColor" strokeWidth={2} />
        {[0, 1, 2, 3].map((i) => (
          <rect key={i} x={6} y={8 + i * 19} width={10} height={9} fill="currentColor" />
        ))}
        <line x1={X0} x2={W - 4} y1={2 + ch * 2.5} y2={2 + ch * 2.5} stroke="currentColor" strokeDasharray="12 8" />
        <rect x={X0 + cw} y={4} width={cw} height={H - 28} fill="none" stroke="currentColor" strokeDasharray="3 3" />
        <text x={X0 + cw * 1.5} y={H - 6} fontSize={13} textAnchor="middle" fill="currentColor">
          the box
        </text>
        {placed.map((p, i) => {
          const same = placed.slice(0, i).filter((q) => q.x === p.x && q.y === p.y).length;
          const cx = X0 + cw * p.x + 14 + (same % 4) * 14;
          const cy = 2 + ch * (p.y + 0.5) + (same >= 4 ? 4 : 0);
          return (
            <g key={p.id}>
              <circle cx={cx} cy={cy} r={5} fill="currentColor" />
              {i === placed.length - 1 ? (
                <circle cx={cx} cy={cy} r={8} fill="none" stroke="currentColor" strokeWidth={2} />
              ) : null}
            </g>
          );
        })}
      </svg>
      <figcaption className="visually-hidden">{words}</figcaption>
    </figure>
  );
}
