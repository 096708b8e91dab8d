/**
 * What a pilot and an instructor write in their logbooks after a lesson, in the words of the pack. Source: 14 CFR
 * 61.51(b), (e), (h) and 61.189; Part-FCL FCL.050 and AMC1 FCL.050; CASR 61.345, 61.350.
 */
import type { PackId } from '@/domain/words';
import { fixed, list, plural } from '../format';
import { needNumbers } from '../guard';

export interface LessonLogged {
  pack: PackId;
  /** As it is to be read: `24 Nov 2026`. */
  date: string;
  /** Where it landed, and where the school is: they differ when the lesson was flown at another aerodrome. */
  place: { at: string; home: string };
  registration: string;
  typeName: string;
  engines: number;
  lesson: number;
  /** By the clock of the flight; null = it was not tapped, and nobody makes it up. */
  minutes: number | null;
  /** Minutes of ground training entered. */
  groundMinutes: number;
  takeoffs: { day: number; night: number };
  landings: { day: number; night: number; fullStops: number; water: number };
  /** What was trained, in the programme's words. */
  trained: readonly string[];
  pilot: string;
  instructor: string;
  certificate: string;
  /** Last day of the instructor's certificate or recent experience, to be read; null = not on record. */
  until: string | null;
  /** What the pilot lacks here: a class, something else, or nothing. */
  lacks: 'class' | 'endorsement' | 'nothing';
}
export interface LogbookLines {
  pilot: string;
  instructor: string;
  /** What is to be filled in by hand, in words. */
  open: string[];
}

const UNKNOWN = '____';
/** Hours to a tenth, cut and not rounded up: nobody logs more than was flown. */
const tenths = (minutes: number | null): string =>
  minutes === null ? UNKNOWN : fixed(Math.floor(minutes / 6) / 10, 1);
const clock = (minutes: number | null): string =>
  minutes === null ? UNKNOWN : `${Math.floor(minutes / 60)}:${String(Math.floor(minutes % 60)).padStart(2, '0')}`;

/**
 * Both lines of one lesson. A time nobody measured is left open, never guessed; where law lets pilot and instructor
 * choose who is in command the line says so.
 * @returns the two lines, and what is to be filled in
 * @throws BadNumber when a number handed in is none
 * @example logbookLines({ ...lesson, pack: 'us', minutes: 59, lacks: 'class' }).pilot // '… dual received 0.9 h …'
 */
export function logbookLines(l: LessonLogged): LogbookLines {
  needNumbers('logbookLines', {
    minutes: l.minutes,
    groundMinutes: l.groundMinutes,
    takeoffs: l.takeoffs,
    landings: l.landings,
  });
  const us = l.pack === 'us';
  const h = `${us || l.pack === 'au' ? `${tenths(l.minutes)} h` : clock(l.minutes)}`;
  const off = `take-offs ${l.takeoffs.day} day, ${l.takeoffs.night} night`;
  const on = `landings ${l.landings.day} day, ${l.landings.night} night${us ? `, ${l.landings.fullStops} to a full stop` : ''}${l.landings.water > 0 ? `, ${l.landings.water} on water` : ''}`;
  const trained = l.trained.length === 0 ? 'nothing named' : list(l.trained);
  const away = l.place.at !== l.place.home;
  // Flown elsewhere, nobody recorded where the flight began and ended.
  const place = away ? `${UNKNOWN} to ${UNKNOWN}, landings at ${l.place.at}` : `${l.place.home} to ${l.place.home}`;
  const head = `${l.date}, ${place}, ${l.registration} ${l.typeName}${l.pack === 'eu' ? `, single pilot, ${l.engines > 1 ? 'multi' : 'single'}-engine` : ''}, lesson ${l.lesson}`;
  const ground = l.groundMinutes > 0 ? `, ground training ${tenths(l.groundMinutes)} h` : '';
  const signed = `${l.instructor}, ${l.certificate === '' ? UNKNOWN : l.certificate}, ${us ? 'recent experience end date' : 'valid to'} ${l.until ?? UNKNOWN}`;
  const pilotTime = {
    us:
      l.lacks === 'class'
        ? `dual received ${h}; no pilot-in-command time, not rated in the class (14 CFR 61.51(e))`
        : `dual received ${h}; pilot in command up to ${h} as sole manipulator (14 CFR 61.51(e))`,
    eu:
      l.lacks === 'nothing'
        ? `total ${h}; as agreed before the flight: pilot in command ${h}, or dual ${h} with ${l.instructor} as pilot in command`
        : `total ${h}, pilot in command ${l.instructor}, dual ${h}`,
    au:
      l.lacks === 'nothing'
        ? `as agreed before the flight: pilot in command ${h}, or dual ${h} with ${l.instructor} in command`
        : `dual ${h}, in command ${l.instructor}`,
  }[l.pack];
  const instructorTime = {
    us: `dual given ${h}, pilot in command as instructor ${h} (14 CFR 61.51(e)(3))`,
    eu: `total ${h}, ${l.lacks === 'nothing' ? `pilot in command ${h} where agreed so` : `pilot in command ${h}`}, instructor ${h}`,
    au: `${l.lacks === 'nothing' ? `in command ${h} where agreed so` : `in command ${h}`}, instructor ${h}`,
  }[l.pack];
  return {
    pilot: `${head}: ${pilotTime}${ground}; ${off}; ${on}. Training: ${trained}. ${signed}.`,
    instructor: `${head}, ${l.pilot}: ${instructorTime}${ground}; ${plural(l.landings.day + l.landings.night, 'landing')} by the pilot. Training: ${trained}${us ? ' (record kept under 14 CFR 61.189)' : ''}.`,
    open: [
      ...(away ? ['where the flight began and ended'] : []),
      ...(l.minutes === null ? ['the time: the clock of the flight was not tapped'] : []),
      ...(l.certificate === '' ? ['the instructor’s certificate'] : []),
      ...(l.until === null ? ['its last day'] : []),
    ],
  };
}
