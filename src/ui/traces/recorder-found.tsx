import { TableHead } from '../shared/table-head';
import Button from 'react-bootstrap/Button';
import { kindOf } from '@/core/recorder';
import type { Recorded } from '@/workers/recorder.worker';
import { FOUND_NAME, elapsed, momentOf } from './words';

type Score = Recorded['score'];
interface Line {
  at: number;
  name: string;
  word: string;
  wrong: boolean;
}
const save = (name: string, text: string, type: string) => {
  const url = URL.createObjectURL(new Blob([text], { type }));
  const a = document.createElement('a');
  a.href = url;
  a.download = name;
  a.click();
  URL.revokeObjectURL(url);
};

const bankText = (flownDeg: number, foundDeg: number | null): string => {
  const measured = foundDeg === null ? 'not measured' : `${Math.abs(foundDeg).toFixed(0)}\u00b0 measured`;
  return `found; bank ${Math.abs(flownDeg).toFixed(0)}\u00b0 flown, ${measured}`;
};

/** What was flown beside what was found of it, in order of time. */
function linesOf(s: NonNullable<Score>): Line[] {
  return [
    ...s.events.map(({ flown, found }) => ({
      at: flown.touchdownS ?? flown.lowestS ?? flown.liftoffS ?? 0,
      name: FOUND_NAME[kindOf(flown)],
      word: offText(flown, found),
      wrong: false,
    })),
    ...s.missed.map((m) => ({
      at: m.touchdownS ?? m.lowestS ?? m.liftoffS ?? 0,
      name: FOUND_NAME[kindOf(m)],
      word: 'missed',
      wrong: true,
    })),
    ...s.airwork.map(({ flown, found }) => ({
      at: flown.startS,
      name: FOUND_NAME[flown.kind],
      word: bankText(flown.maxBankDeg, found.maxBankDeg),
      wrong: false,
    })),
    ...s.airworkMissed.map((m) => ({ at: m.startS, name: FOUND_NAME[m.kind], word: 'missed', wrong: true })),
    ...[
      ...s.invented.map((e) => ({ at: momentOf(e), name: FOUND_NAME[e.kind], word: 'invented', wrong: true })),
      ...s.airworkInvented.map((e) => ({ at: e.startS, name: FOUND_NAME[e.kind], word: 'invented', wrong: true })),
    ],
  ].sort((a, b) => a.at - b.at);
}

/** What the analysis found in the file, and the files themselves. */
export function FlownAndFound({
  result,
  name,
  format,
}: {
  result: Recorded | null;
  /** Of the files, without its ending. */
  name: string;
  format: string;
}) {
  const s = result?.score;
  const lines = s ? linesOf(s) : [];
  return (
    <section className="panel" aria-label="Flown and found">
      <h2>Flown, and what the analysis found in the file</h2>
      {!s ? (
        <p className="soft mb-0">Fly, and every event stands here with what was measured of it.</p>
      ) : (
        <>
          <p role="status">
            <strong>
              {s.missed.length + s.airworkMissed.length === 0
                ? 'Everything flown was found'
                : `${s.missed.length + s.airworkMissed.length} missed`}
              ,{' '}
              {s.invented.length + s.airworkInvented.length === 0
                ? 'nothing was invented'
                : `${s.invented.length + s.airworkInvented.length} invented`}
              .
            </strong>
          </p>
          <div className="scroll-x">
            <table aria-label="Flown and found" className="plain">
              <TableHead columns={['At', 'Flown', 'Found']} />
              <tbody>
                {lines.map((l, i) => (
                  <tr key={i}>
                    <td className="mono">{elapsed(l.at)}</td>
                    <td>{l.name}</td>
                    <td className={l.wrong ? 'v-outside' : ''}>{l.word}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          </div>
          {result?.done.ok && result.done.analysis.exceedances.length > 0 ? (
            <p className="mt-2 mb-0">
              Limits exceeded:{' '}
              {result.done.analysis.exceedances
                .map(
                  (x) =>
                    `${x.channel} ${x.peak.toFixed(0)} ${x.unit} against ${x.limit} for ${x.durationS.toFixed(1)} s`,
                )
                .join('; ')}
              .
            </p>
          ) : null}
          <div className="d-flex gap-2 mt-3 flex-wrap">
            <Button
              variant="outline-primary"
              onClick={() => save(`${name}.${format}`, result?.text ?? '', 'text/plain')}
            >
              The file
            </Button>
            <Button
              variant="outline-primary"
              onClick={() => save(`${name}.flown.json`, result?.truth ?? '', 'application/json')}
            >
              What was flown, JSON
            </Button>
            <Button
              variant="outline-primary"
              onClick={() =>
                save(`${name}.context.json`, JSON.stringify(result?.context ?? {}, null, 2), 'application/json')
              }
            >
              Its context, JSON
            </Button>
          </div>
        </>
      )}
    </section>
  );
}

function offText(
  flown: {
    touchdownS: number | null;
    alongM: number | null;
    lateralM: number | null;
    lowestFt: number | null;
    liftoffS: number | null;
  },
  found: {
    touchdown?: { tS: number; alongM: number | null; lateralM: number | null } | undefined;
    lowestHeightFt?: number | null | undefined;
    liftoff?: { tS: number } | undefined;
  },
): string {
  if (flown.touchdownS !== null && found.touchdown) {
    const m = (a: number | null, b: number | null) =>
      a === null || b === null ? 'not measured' : `${Math.abs(a - b).toFixed(1)} m off`;
    const seconds = Math.abs(found.touchdown.tS - flown.touchdownS).toFixed(1);
    const along = m(found.touchdown.alongM, flown.alongM);
    return `found; ${seconds} s, along ${along}, across ${m(found.touchdown.lateralM, flown.lateralM)}`;
  }
  if (flown.lowestFt !== null) {
    const measured = typeof found.lowestHeightFt === 'number' ? `${found.lowestHeightFt.toFixed(0)} ft measured` : null;
    return `found; lowest ${flown.lowestFt.toFixed(0)} ft flown, ${measured ?? 'not measured'}`;
  }
  return flown.liftoffS !== null && found.liftoff
    ? `found; ${Math.abs(found.liftoff.tS - flown.liftoffS).toFixed(1)} s off`
    : 'found';
}
