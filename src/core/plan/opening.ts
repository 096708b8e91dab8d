import type { PackId } from '@/domain/words';
import type { RulePack, SchoolTopic } from '@/domain/programme';
import type { TypeSheet } from '@/domain/sheet';
import { dateText, list } from '../format';
import { type PersonDate, actingStops } from '../recency/acting';
import { classNames, classOf } from '../recency/log';
import { type AirframeFacts, type Demands, FACT_WORDS, demandsOf, plainKind } from './goals';

/** Something a pilot holds. `kind` is a class rating, an endorsement of the us pack or a variant of the eu pack. */
export interface Holding {
  kind: string;
  gainedOn: string | null;
  note: string;
}

/** What of one pack stands for a class of another. */
const SAME_AS: Record<string, string[]> = {
  'single-engine-aeroplane': ['single-engine-land', 'single-engine-sea'],
  'multi-engine-aeroplane': ['multi-engine-land', 'multi-engine-sea'],
};
/**
 * Does a pilot hold a kind, by its own name or by what stands for it?
 * @returns true where it is held
 */
export const holdsKind = (holdings: readonly Pick<Holding, 'kind'>[], kind: string): boolean =>
  holdings.some((h) => h.kind === kind || (SAME_AS[kind] ?? []).includes(h.kind));

export interface Opening {
  demands: Demands;
  held: string[];
  missing: string[];
  credited: { kind: string; why: string }[];
  proposedGoals: string[];
  /** Who may act as pilot in command, and who logs what. */
  pic: 'pilot' | 'instructor' | 'undetermined';
  picReason: string;
  logs: string;
  decides: { goal: string; by: 'instructor' | 'examiner'; citation: string }[];
}

/**
 * The goal that gives a kind. A twin variant of a class still missing comes with the course of that class, flown in it:
 * differences training is between variants of a class held. Undefined where the pack has none.
 * @returns a goal
 * @example goalFor('MEP-variant:planalto-p2', ['multi-engine-land', 'MEP-variant:planalto-p2'], eu) // 'multi-engine'
 */
export function goalFor(
  kind: string,
  missing: readonly string[],
  pack: Pick<RulePack, 'endorsementGoals'>,
): string | undefined {
  const classMissing = plainKind(kind) === kind ? undefined : missing.find((k) => /^multi-engine-(land|sea)$/.test(k));
  return pack.endorsementGoals[classMissing ?? plainKind(kind)];
}

/**
 * What a checkout on this airframe needs: what it demands, what the pilot holds or may be credited, which goals follow,
 * who must be pilot in command until then, who makes the final decision.
 * @param experienceSince earliest logged pilot-in-command date per endorsement, for the packs' credit dates
 * @param typeCode of the sheet: twin variants are held each alone
 * @param dated what the pilot has on record with a date, and the day it is asked for; absent = not looked at
 * @returns demands, what is held and credited, goals, who is in command and what is logged
 */
export function openCheckout(
  facts: AirframeFacts,
  pack: RulePack,
  holdings: readonly Holding[],
  experienceSince: Readonly<Record<string, string>>,
  typeCode: string,
  dated: { dates: readonly PersonDate[]; onDate: string } | null = null,
): Opening {
  const demands = demandsOf(facts, pack.key as PackId, typeCode);
  const needed = [...(demands.classRatings ?? []), ...demands.endorsements];
  const holds = (kind: string) => holdsKind(holdings, kind);
  const credited = demands.endorsements.flatMap((kind) => {
    const credit = pack.goals.find((g) => g.goal === pack.endorsementGoals[plainKind(kind)])?.credit;
    const since = experienceSince[kind];
    return credit && since && since < credit.before && !holds(kind)
      ? [{ kind, why: `${credit.text} First logged ${dateText(since)}.` }]
      : [];
  });
  const isCredited = (kind: string) => credited.some((c) => c.kind === kind);
  const missing = needed.filter((kind) => !holds(kind) && !isCredited(kind));
  const goalOf = (kind: string) => goalFor(kind, missing, pack) ?? null;
  const proposedGoals = [...new Set(missing.flatMap((kind) => goalOf(kind) ?? []))];
  const undetermined = demands.unknown.length > 0;
  const stops = dated === null ? [] : actingStops(pack.dated, dated.dates, classesOf(facts), dated.onDate);
  const pic: Opening['pic'] =
    missing.length > 0 || stops.length > 0 ? 'instructor' : undetermined ? 'undetermined' : 'pilot';
  const lacksClass = missing.some((k) => demands.classRatings?.includes(k));
  const words = pack.acting?.[lacksClass ? 'class' : missing.length > 0 ? 'endorsement' : 'held'];
  return {
    demands,
    held: needed.filter(holds),
    missing,
    credited,
    proposedGoals: proposedGoals.length > 0 ? proposedGoals : ['new-type'],
    pic,
    picReason:
      pic === 'instructor'
        ? missing.length > 0
          ? (words?.pic ?? pack.picRule)
          : stops
              .map((s) =>
                s.status === 'missing'
                  ? `${s.title} is not on record (${s.citation})`
                  : `${s.title} ended on ${dateText(s.through ?? '')} (${s.citation})`,
              )
              .join('; ') + ': until it is there the pilot may not act as pilot in command, and the instructor is.'
        : pic === 'pilot'
          ? (words?.pic ?? 'The pilot holds everything this airframe requires and may act as pilot in command.')
          : `The sheet does not give ${list(demands.unknown.map((k) => FACT_WORDS[k] ?? k))}, so what it requires is not decided. Complete the sheet first.`,
    // Who may not act as pilot in command today logs as one who lacks something other than the class.
    logs: (stops.length > 0 && words === pack.acting?.held ? pack.acting?.endorsement : words)?.logs ?? pack.logRule,
    decides: (proposedGoals.length > 0 ? proposedGoals : ['new-type']).flatMap((goal) => {
      const entry = pack.goals.find((g) => g.goal === goal);
      return entry ? [{ goal, by: entry.decides, citation: entry.citation }] : [];
    }),
  };
}

/** The classes an aeroplane is flown in, by every pack's names; none where its sheet does not say. */
const classesOf = (f: AirframeFacts): string[] =>
  f.engines === null || f.surface === null
    ? []
    : (['land', 'water'] as const)
        .filter((s) => (s === 'land' ? f.surface !== 'sea' : f.surface !== 'land'))
        .flatMap((s) => classNames(classOf(f.engines ?? 1, s)));

/**
 * The questions of technique that arise on this type: none of a flap it has not, nor of a tail that stays up by itself.
 * @returns those topics
 */
export const topicsFor = (
  sheet: Pick<TypeSheet, 'gear' | 'flapSteps' | 'features'>,
  topics: readonly SchoolTopic[],
): SchoolTopic[] =>
  topics.filter((t) =>
    t.needs === 'tailwheel'
      ? sheet.gear.layout === 'tailwheel'
      : t.needs === 'flap'
        ? sheet.flapSteps.length > 1
        : t.needs !== 'glass' || sheet.features.glass !== 'no',
  );

/**
 * The side of each topic a checkout starts with: what the type sheet says where it speaks, else the house's.
 * Only a side the topic has is taken.
 * @returns a side by topic
 */
export function schoolDefaults(sheet: TypeSheet, topics: readonly SchoolTopic[]): Record<string, string> {
  const wingDrop = sheet.attributes.find((a) => a.key === 'wing-drop')?.value ?? '';
  const said: Record<string, string | undefined> = {
    'first-landing': sheet.landing.usualAttitude,
    'approach-speed': sheet.landing.speedSchool,
    'wing-drop': wingDrop.includes('together') ? 'together' : 'rudder',
    'touch-and-go': sheet.gear.layout === 'tailwheel' ? 'full-stop' : 'allowed',
  };
  return Object.fromEntries(
    topics.map((t) => [t.key, t.sides.some((s) => s.key === said[t.key]) ? (said[t.key] ?? t.fallback) : t.fallback]),
  );
}
