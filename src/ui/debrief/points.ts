import { type DebriefLanding, landingWords } from '@/core/assess';
import { eyeWord } from '@/core/trace';
import type { CriterionVerdict } from '@/domain/assess-words';
import type { AlongBand, LateralBand } from '@/domain/words';

export interface TouchdownPoint {
  /** What it is called on the map: its number, with the lesson where there are several. */
  label: string;
  along: AlongBand | null;
  lateral: LateralBand | null;
  verdict: CriterionVerdict;
  word: string;
  /** Hands or feet helped: shown, and left out of the mean. */
  helped: boolean;
  /** Measured from a recording: past the touchdown point and right of the line, metres; null = the eye's band. */
  alongM: number | null;
  lateralM: number | null;
}

/** The shape a landing has on a map, from its class. */
export const classVerdict = (c: string): CriterionVerdict =>
  c === 'own'
    ? 'within'
    : c === 'outside' || c === 'assisted'
      ? 'outside'
      : c === 'not-judged' || c === 'demonstration'
        ? 'not-seen'
        : 'edge';
export const labelOf = (l: Pick<DebriefLanding, 'lesson' | 'number'>, withLesson: boolean): string =>
  withLesson ? `${l.lesson}.${l.number}` : String(l.number);

/**
 * Landings as points of the map; what was measured stands for the eye's band too. Those whose place nobody saw are
 * named.
 */
export function touchdownPoints(
  landings: readonly DebriefLanding[],
  c: { trackM: number; boxM: { before: number; past: number } },
  withLesson: boolean,
): { points: TouchdownPoint[]; notSeen: string[] } {
  const touched = landings.filter(
    (l) => l.kind !== 'go-around' && l.kind !== 'low-pass' && l.judged.landingClass !== 'demonstration',
  );
  const points = touched.map((l): TouchdownPoint => {
    const m = l.measured?.values ?? {};
    return {
      label: labelOf(l, withLesson),
      along: m.along === undefined ? l.captured.along : (eyeWord('along', m.along, c) as AlongBand),
      lateral: m.lateral === undefined ? l.captured.lateral : (eyeWord('lateral', m.lateral, c) as LateralBand),
      verdict: classVerdict(l.judged.landingClass),
      word: landingWords(l.judged.reason),
      helped: (l.captured.intervention ?? 0) >= 2,
      alongM: m.along ?? null,
      lateralM: m.lateral ?? null,
    };
  });
  return {
    points: points.filter((p) => p.along !== null && p.lateral !== null),
    notSeen: points.filter((p) => p.along === null || p.lateral === null).map((p) => p.label),
  };
}
