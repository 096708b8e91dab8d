import { dateText, list } from '@/core/format';
import { FACT_WORDS, demandsOf, holdsKind, sheetFacts } from '@/core/plan';
import type { ActingStop } from '@/core/recency';
import { type LimitationProblem, type Span, dayText, limitationProblems } from '@/core/schedule';
import { isNight } from '@/core/sun';
import type { Limitations } from '@/domain/ledger';
import type { RulePack } from '@/domain/programme';
import type { TypeSheet } from '@/domain/sheet';
import { say as sayKind } from '@/domain/words';
import type { Transaction } from 'sequelize';
import { type Problem, problemAt } from '../../floor/result';
import type { Told } from '../../floor/sentences';
import * as ask from '../../floor/statements/schedule';
import { heldOn } from '../../people/queries/held';
import { actingOf, intervalOf, passengerState } from '../../people/queries/recency';
import { newestContent } from '../../rules/content';
import type { SchoolFacts } from '../queries/day';
import { windAtSlot } from '../queries/wind';
import { told } from '../sentences';
import type { Wanted } from './wanted';

/** A flight of a pilot nobody teaches. */
interface Alone {
  pilotId: string;
  sheet: TypeSheet;
  wanted: Pick<Wanted, 'kind' | 'passengers' | 'surface'>;
  /** The part of the booking that is flown. */
  flight: Span;
  /** Local day. */
  date: string;
  school: SchoolFacts;
  t: Transaction;
}
interface Against {
  problems: Problem[];
  warnings: Told[];
}
type Pack = RulePack | null;

/**
 * What stands against a pilot flying without instruction: what the aeroplane demands, the days the law asks for, the
 * sign-off and its limitations, the house's interval, passengers.
 */
export async function aloneProblems(a: Alone): Promise<Against> {
  const pack: Pack = (await newestContent('pack', a.school.house.homePack, a.t))?.body ?? null;
  const signed = await signOffsIn(a.pilotId, a.sheet.code, a.t);
  const parts: Against[] = [
    { problems: [...(await demandProblems(a, pack)), ...(await actingProblems(a, pack))], warnings: [] },
    await signedProblems(a, signed.length > 0),
  ];
  for (const s of signed) parts.push(await limitationsAgainst(a, s));
  parts.push({ problems: await passengerProblems(a, pack), warnings: [] });
  return { problems: parts.flatMap((p) => p.problems), warnings: parts.flatMap((p) => p.warnings) };
}

/** Land and water are not one; a booking that leaves it open may be either. */
const surfaceOf = ({ surface }: Alone['wanted']): 'any' | 'water' | 'land' =>
  surface === 'any' || surface === 'water' ? surface : 'land';

/** Ratings and endorsements the aeroplane asks for and the pilot has not, or no longer. */
async function demandProblems({ pilotId, sheet, school, date, t }: Alone, pack: Pack): Promise<Problem[]> {
  const { held, lapsed } = await heldOn(pilotId, pack, date, t);
  const demands = demandsOf(sheetFacts(sheet), school.house.homePack, sheet.code);
  const lacks = [...(demands.classRatings ?? []), ...demands.endorsements].filter((k) => !holdsKind(held, k));
  const lapse = pack?.variantLapse;
  return [
    ...lapsed
      .filter((x) => lacks.includes(x.kind))
      .map((l) =>
        problemAt(
          'pilotId',
          told('variant-lapsed', {
            kind: sayKind(l.kind),
            through: l.through,
            months: lapse?.months ?? 0,
            citation: lapse?.citation ?? '',
          }),
        ),
      ),
    ...(lacks.length > 0
      ? [problemAt('pilotId', told('pilot-lacks', { type: sheet.name, kinds: list(lacks.map(sayKind)) }))]
      : []),
    ...(demands.unknown.length > 0
      ? [
          problemAt(
            'airframeId',
            told('sheet-open', { type: sheet.name, facts: list(demands.unknown.map((k) => FACT_WORDS[k] ?? k)) }),
          ),
        ]
      : []),
  ];
}

/** Days that are over or not on record and that the law asks of a pilot in command. */
async function actingProblems({ pilotId, sheet, wanted, date, t }: Alone, pack: Pack): Promise<Problem[]> {
  if (!pack) return [];
  const stops = await actingOf(pilotId, sheet, pack, date, t, surfaceOf(wanted));
  return stops.map((stop) => problemAt('pilotId', actingWords(stop, date)));
}

/** Nobody has signed the type and no hour is flown in it, or the house's interval is over. */
async function signedProblems({ pilotId, sheet, wanted, school, date, t }: Alone, signed: boolean): Promise<Against> {
  const problems: Problem[] = [];
  const hours = (await ask.aloneProblems.one({ pilotId, code: sheet.code }, t))?.h ?? 0;
  if (!signed && hours === 0) problems.push(problemAt('pilotId', told('not-signed-off', { type: sheet.name })));
  const interval = await intervalOf(pilotId, sheet, school.house, date, t);
  if (interval?.status !== 'expired') return { problems, warnings: [] };
  const { message } = told('interval-over', {
    days: interval.days,
    since: dateText(interval.validThrough ?? ''),
    source: school.house.signing.source,
  });
  if (wanted.kind === 'currency' && (await isInstructor(pilotId, t)))
    return { problems, warnings: [told('instructor-practice', { interval: message })] };
  return { problems: [...problems, problemAt('pilotId', told('interval-check', { interval: message }))], warnings: [] };
}

/** The surfaces a flight may touch; where a booking leaves it open, every one of the aerodrome its aeroplane can use. */
const surfacesOf = ({ wanted, school, sheet }: Alone): string[] =>
  wanted.surface !== 'any'
    ? [wanted.surface]
    : [
        ...new Set(
          school.aerodrome.runways
            .filter((r) => sheet.surface !== 'land' || r.surface !== 'water')
            .map((r) => r.surface),
        ),
      ];

/** What a sign-off was limited to. What no booking can hold anybody to is said when it is booked. */
async function limitationsAgainst(a: Alone, { seq, limitations, signedOn }: SignedOff): Promise<Against> {
  const { pilotId, sheet, wanted, school, t } = a;
  const on = limitations.surface === 'any' ? wanted.surface : limitations.surface;
  const wind = windAtSlot(school, sheet, a.flight.from, on);
  const found = limitationProblems(limitations, {
    dual: false,
    passengers: wanted.passengers,
    surfaces: surfacesOf(a),
    crosswindKt: wind?.crosswindKt ?? null,
    hoursSince: await hoursSince(pilotId, sheet.code, signedOn, t),
  });
  const warnings: Told[] = [];
  if (limitations.attitude !== 'any')
    warnings.push(
      told('attitude-only', { seq, attitude: limitations.attitude === 'three-point' ? 'three-point' : 'wheel' }),
    );
  if (limitations.crosswindKt !== null && wind === null)
    warnings.push(told('crosswind-limit', { seq, limitKt: limitations.crosswindKt }));
  return {
    problems: found.map((p) => problemAt(LIMITATION_FIELD[p.code], told('limitation', { seq, limitation: p }))),
    warnings,
  };
}

/** May the passengers come along, by day or night, on that surface? */
async function passengerProblems(
  { pilotId, sheet, wanted, flight, school, date, t }: Alone,
  pack: Pack,
): Promise<Problem[]> {
  if (wanted.passengers === 0 || !pack) return [];
  const night = isNight(flight.to, school.aerodrome, pack.night.recency);
  const state = await passengerState(pilotId, sheet, pack, date, t, { surface: surfaceOf(wanted), night });
  return state.rules
    .filter((r) => r.status === 'expired')
    .map((r) =>
      problemAt(
        'passengers',
        told('passengers-not-recent', {
          date: dayText(date),
          restore: r.restore ?? 'more flying',
          citation: state.asked.find((x) => x.id === r.ruleId)?.citation ?? '',
        }),
      ),
    );
}

/** Why a pilot may not act as pilot in command on a day, with the rule and what to do. */
const actingWords = (stop: ActingStop, date: string): Told =>
  stop.status === 'missing'
    ? told('date-not-on-record', { title: stop.title, citation: stop.citation })
    : told('date-ends', {
        title: stop.title,
        ended: dateText(stop.through ?? ''),
        date: dayText(date),
        citation: stop.citation,
      });

/** The field of a booking each limitation is about. */
const LIMITATION_FIELD: Record<LimitationProblem['code'], string> = {
  solo: 'passengers',
  'no-passengers': 'passengers',
  surface: 'surface',
  crosswind: 'startsAt',
};
const isInstructor = async (pilotId: string, t: Transaction): Promise<boolean> =>
  Boolean(await ask.isInstructor.one({ pilotId }, t));

interface SignedOff {
  seq: number;
  limitations: Limitations;
  signedOn: string;
}
/** Sign-offs in a type that stand, the newest of the same goals. */
async function signOffsIn(pilotId: string, code: string, t: Transaction): Promise<SignedOff[]> {
  const found = await ask.signOffsIn.all({ pilotId, code }, t);
  const newest = new Map(found.map((f) => [f.goals.join(), f]));
  return [...newest.values()].map((f) => ({
    seq: f.seq,
    limitations: f.limitations,
    signedOn: f.on,
  }));
}
/** Hours logged or read in for a type after a day. */
async function hoursSince(pilotId: string, code: string, day: string, t: Transaction): Promise<number> {
  const found = await ask.hoursSince.one({ pilotId, code, day }, t);
  return found?.h ?? 0;
}
