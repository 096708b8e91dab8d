/** Reach without the engine along the circuit of every type of the demo: the table of `docs/checks/reach.md`. */
import { pedraAlva } from '../../demo/aerodrome';
import { types } from '../../demo/fleet';
import { circuitPace, endPlaces, reachAlong } from '../../src/core/circuit';
import { endsOf } from '../../src/core/runway';

const AIR = { windFromDeg: 218, windKt: 5, sigma: 0.95 };

export function reachTable(): string {
  const head =
    '| type | circuit ft | spacing m | abeam, held | abeam, best end | ft in hand there | of the circuit: reaches | doubtful | retracted: reaches |\n|---|---|---|---|---|---|---|---|---|\n';
  return (
    head +
    types
      .map((t) => {
        const water = t.surface !== 'land';
        const strips = pedraAlva.runways.filter((r) => (r.surface === 'water') === water);
        const strip = strips[0];
        const end = strip && endsOf(strip)[water ? 0 : 1]?.end;
        if (!strip || !end) throw new Error('no runway');
        const runway = { ...end, lengthM: strip.lengthM, elevationFt: strip.elevationFt, surface: strip.surface };
        const pace = circuitPace(t, runway, {
          ...AIR,
          side: 'left',
          circuitHeightFt: pedraAlva.circuitHeightFt,
          crosswindTurnFt: 500,
          bankDeg: 25,
          baseAngleDeg: 45,
          spacingM: null,
        });
        const ends = endPlaces(
          runway,
          strips.map((r) => ({ lengthM: r.lengthM, ...r.centre, ends: r.ends })),
        );
        const along = reachAlong(t, pace.points, runway, ends, {
          ...AIR,
          bankDeg: 35,
          reactionS: 4,
          turnBackFt: 700,
          over50M: null,
        });
        const abeam = along.filter((s) => s.leg === 'downwind').find((s) => s.x < 60);
        const best = [...(abeam?.ends ?? [])].sort((a, b) => (b.marginFt ?? -1e9) - (a.marginFt ?? -1e9))[0];
        const share = (of: (s: (typeof along)[number]) => boolean) =>
          `${Math.floor((100 * along.filter(of).length) / along.length)} %`;
        const held = abeam?.held;
        return `| ${[
          t.name,
          Math.round(abeam?.heightFt ?? 0),
          Math.round(pace.spacingM),
          held ? `flap ${held.flapDeg}°${held.gear === 'fixed' ? '' : `, gear ${held.gear}`}` : '',
          best?.id ?? '',
          Math.floor(best?.marginFt ?? 0),
          share((s) => s.verdict === 'reaches'),
          share((s) => s.verdict === 'doubtful'),
          share((s) => (s.retracted ?? s).verdict === 'reaches'),
        ].join(' | ')} |`;
      })
      .join('\n') +
    '\n'
  );
}
