import type { CapturedLanding, LoggedWind } from '@/domain/capture';
import { NO_WORDS } from '@/domain/criteria';
import { touchSeen } from '@/domain/touch';
import { UNSEEN } from '@/domain/unseen';
import {
  ALONG_BANDS,
  type AlongBand,
  type Attitude,
  LATERAL_BANDS,
  type LateralBand,
  meant,
  say,
} from '@/domain/words';
import type { SortiePack } from '@/offline/protocol';

export type Draft = Omit<CapturedLanding, 'wind' | 'runwayEnd' | 'pilotId' | 'fromPaper'>;
export type Setter = (change: Partial<Draft>) => void;

/** An untouched landing: only what was planned is chosen, everything else is *not seen*. */
export function freshDraft(pack: Pick<SortiePack, 'intended'>): Draft {
  const { wind: _wind, pilotId: _pilot, fromPaper: _paper, ...unseen } = UNSEEN;
  return { ...unseen, kind: 'full-stop', intended: meant(pack.intended) };
}

/**
 * The draft as saved: with the wind logged, the runway and whose it was; the fields that do not belong to its kind
 * emptied.
 */
export function toCaptured(
  draft: Draft,
  wind: LoggedWind | null,
  runwayEnd: string,
  pilotId: string | null = null,
): CapturedLanding {
  const full = { ...draft, wind, runwayEnd, pilotId, fromPaper: false };
  if (draft.kind === 'go-around') {
    return {
      ...full,
      touched: null,
      along: null,
      lateral: null,
      fenceSpeed: null,
      drift: null,
      crab: null,
      swing: null,
      bounce: null,
      ...NO_WORDS,
      trigger: null,
      cleanTap: null,
      peakG: null,
      serious: [],
    };
  }
  return {
    ...full,
    goAroundWord: null,
    goAroundExecution: {},
    goAroundFrom: null,
    goAroundWhy: null,
    announced: null,
  };
}

/** Not one thing was seen of it: there is nothing to save. */
export const nothingTapped = (d: Draft): boolean =>
  d.kind !== 'go-around' &&
  d.kind !== 'low-pass' &&
  d.touched === null &&
  d.intervention === null &&
  d.along === null &&
  d.cleanTap === null;

/** What contradicts itself in a draft, as a question to answer before it is saved; null = nothing does. */
export function contradiction(draft: Draft): string | null {
  if (draft.helpedOn.length > 0 && draft.intervention !== null && draft.intervention < 2)
    return `Assisted on ${draft.helpedOn.map(say).join(', ')} is noted, and ${draft.intervention === 0 ? 'unassisted' : 'prompted'} is tapped. Tap assisted, or clear what was assisted on.`;
  if (draft.kind === 'low-pass' && touchSeen(draft))
    return 'A low pass does not touch. Was it a full stop or a touch and go? Choose the kind, or clear where it touched.';
  return null;
}

/** Moves the touchdown place by keyboard; the first press lands on the line, in the box. */
export function movePlace(draft: Draft, along: -1 | 0 | 1, across: -1 | 0 | 1): Pick<Draft, 'along' | 'lateral'> {
  if (draft.along === null || draft.lateral === null) return { along: 'in-the-box', lateral: 'line' };
  const step = <T extends string>(bands: readonly T[], now: T, by: number): T =>
    bands[Math.max(0, Math.min(bands.length - 1, bands.indexOf(now) + by))] ?? now;
  return {
    along: step<AlongBand>(ALONG_BANDS, draft.along, along),
    lateral: step<LateralBand>(LATERAL_BANDS, draft.lateral, across),
  };
}

type Sided = { band: string; side: 'left' | 'right' | null } | null;
/** A tap on a side: the first band, then the next ones in turn. */
export function nextSided(
  now: Sided,
  side: 'left' | 'right',
  bands: readonly string[],
): { band: string; side: 'left' | 'right' } {
  const levels = bands.filter((b) => b !== 'none');
  const at = now?.side === side ? levels.indexOf(now.band) : -1;
  return { band: levels[(at + 1) % levels.length] ?? 'slight', side };
}

type Ended = 'stopped' | 'climbing-away' | null;
/**
 * *Clean* asserts drift, crab, swing and bounce none, and nothing else. It is offered only when stopped or climbing
 * away.
 */
export const cleanOffered = (draft: Draft, ended: Ended): boolean =>
  ended !== null && draft.kind !== 'go-around' && draft.kind !== 'low-pass';

/**
 * One tap says two things that are both read on its label: clean, and how it touched. The attitude is *seen*, the four
 * others are *asserted*. The same tap again takes both back.
 */
export function cleanTap(
  draft: Draft,
  ended: Exclude<Ended, null>,
  touched: Attitude,
): Pick<Draft, 'cleanTap' | 'touched'> {
  return draft.cleanTap !== null && draft.touched === touched
    ? { cleanTap: null, touched: null }
    : { cleanTap: ended, touched };
}

/**
 * The third tap of the common case saves: where it touched and *clean* are there, and nobody's help is to be described.
 */
export const savesNow = (draft: Draft, level: number, pack: Pick<SortiePack, 'gearLamps'> = {}): boolean =>
  level <= 1 &&
  // Where there are wheels to be said again on final, whether they were is asked first.
  (!pack.gearLamps || draft.wheelsRepeated !== null) &&
  draft.along !== null &&
  draft.lateral !== null &&
  draft.cleanTap !== null &&
  draft.kind !== 'go-around';
