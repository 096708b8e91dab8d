import type { CapturedLanding, LoggedWind } from '@/domain/capture';
import { ALONG_BANDS, type AlongBand, LATERAL_BANDS, type LateralBand } from '@/domain/words';
import type { SortiePack } from '@/offline/protocol';

export type Draft = Omit<CapturedLanding, 'wind' | 'runwayEnd'>;

/** An untouched landing: only what was planned is chosen, everything else is *not seen*. */
export function freshDraft(pack: SortiePack): Draft {
  return {
    kind: 'full-stop', demonstration: false, intended: pack.intended, touched: null, along: null, lateral: null, fenceSpeed: null, drift: null, crab: null, swing: null, bounce: null,
    aileron: null, stick: null, configuration: null, firmness: null, intervention: null, trigger: null, cleanTap: null, goAroundWord: null, goAroundExecution: {}, endedAt: null,
  };
}

/** The draft as saved: with the wind logged and the runway, and the fields that do not belong to its kind emptied. */
export function toCaptured(draft: Draft, wind: LoggedWind | null, runwayEnd: string): CapturedLanding {
  const full = { ...draft, wind, runwayEnd };
  if (draft.kind === 'go-around') return { ...full, touched: null, along: null, lateral: null, fenceSpeed: null, drift: null, crab: null, swing: null, bounce: null, aileron: null, stick: null, configuration: null, firmness: null, trigger: null, cleanTap: null };
  return { ...full, goAroundWord: null, goAroundExecution: {} };
}

/** Moves the touchdown place by keyboard; the first press lands on the line, in the box. */
export function movePlace(draft: Draft, along: -1 | 0 | 1, across: -1 | 0 | 1): Pick<Draft, 'along' | 'lateral'> {
  if (draft.along === null || draft.lateral === null) return { along: 'in-the-box', lateral: 'line' };
  const step = <T extends string>(bands: readonly T[], now: T, by: number): T => bands[Math.max(0, Math.min(bands.length - 1, bands.indexOf(now) + by))] ?? now;
  return { along: step<AlongBand>(ALONG_BANDS, draft.along, along), lateral: step<LateralBand>(LATERAL_BANDS, draft.lateral, across) };
}

type Sided = { band: string; side: 'left' | 'right' | null } | null;
/** A tap on a side: the first band, then the next ones in turn. */
export function nextSided(now: Sided, side: 'left' | 'right', bands: readonly string[]): { band: string; side: 'left' | 'right' } {
  const levels = bands.filter((b) => b !== 'none');
  const at = now?.side === side ? levels.indexOf(now.band) : -1;
  return { band: levels[(at + 1) % levels.length] ?? 'slight', side };
}

/** What *clean* asserts, and nothing else: drift, crab, swing and bounce none. It is offered only when stopped or climbing away. */
export const cleanOffered = (draft: Draft, ended: 'stopped' | 'climbing-away' | null): boolean => ended !== null && draft.kind !== 'go-around' && draft.kind !== 'low-pass';
