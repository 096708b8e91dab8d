/**
 * Habit against type: what a pilot must drop, add, or may keep. Hours and days in, ranks out; the rules (severity,
 * wording) are data. Method: habit weight of a value = Σ hours·exp(−days/180) over the types that have it, normalised;
 * rank = severity × habit × exposure in the goal; where the old action is the wrong one (opposite), the row stands
 * above every other.
 */
import { ATTRIBUTES, ATTRIBUTE_KEYS, type AttributeKey } from '@/domain/handling';
import type { DifferenceRules } from '@/domain/differences';
import { type Kind, KINDS } from '@/domain/kinds';
import type { TypeSheet } from '@/domain/sheet';
import type { Goal, Phase } from '@/domain/words';
import { PHASES } from '@/domain/words';
import { fixed } from '../format';

/** Days after which an hour flown weighs 1/e. */
export const HABIT_DAYS = 180;
/** A habit below this share is noise. */
const LEAST_HABIT = 0.02;

type Attributes = TypeSheet['attributes'];
export interface FlownType {
  typeName: string;
  attributes: Attributes;
  hours: number;
  /** Some of the hours were worked out from landings, for want of a block time. */
  about?: boolean;
  lastFlown: string;
}
export interface Habit {
  value: string;
  weight: number;
  from: { typeName: string; hours: number; daysSince: number; about: boolean }[];
}
export interface Difference {
  key: AttributeKey;
  name: string;
  action: 'drop' | 'add' | 'same';
  /** The old action is the wrong one here. */
  opposite: boolean;
  phase: Phase;
  from: string | null;
  to: string;
  severity: number;
  /** 0 to 1. */
  habit: number;
  exposure: number;
  score: number;
  cue: string;
  /** The numbers behind the rank, in words. */
  numbers: string;
  /** What of the airframe makes it differ from its type; null = the type itself. */
  airframe: string | null;
}

/** What a pilot has flown in one type or kind, as it is shown. */
export interface PilotHours {
  /** A type of the hangar, or a kind of aeroplane. */
  typeCode: string;
  typeName: string;
  /** As entered, logged and read in; what was recorded here is told apart. */
  hours: number;
  /** Of the office's entry, in command; null = not told apart. */
  pic: number | null;
  lastFlown: string;
  enteredBy: string;
  enteredAt: string;
  /** Of them, from an imported logbook and logged flights beyond the office’s entry. */
  since: number;
  /** The office's own entry; null = there is none. */
  office: { hours: number; pic: number | null; lastFlown: string } | null;
  /** Flown in lessons here after the day the office's entry speaks of. */
  here: { hours: number; landings: number; about: boolean };
}
/** A type of the logbook that the hangar does not have. */
export interface WrittenHours {
  name: string;
  hours: number;
  lastFlown: string;
  engines: number;
  tailwheel: boolean;
  water: boolean;
}

/**
 * Hours a flight recorded here weighs in a habit: block to block, else the school's time of a circuit for each landing, and
 * then only about. Of a flight two pilots shared the clock says nothing of either: pass `null`.
 * @param minutes block to block; null = not tapped, or shared
 * @param landings the pilot's own, 0 or more
 * @param circuitMin the school's figure, min
 * @returns hours, 0 or more
 * @example recordedHours(54, 7, 6) // { hours: 0.9, about: false }
 * @example recordedHours(null, 5, 6) // { hours: 0.5, about: true }
 */
export const recordedHours = (
  minutes: number | null,
  landings: number,
  circuitMin: number,
): { hours: number; about: boolean } =>
  minutes !== null && minutes > 0
    ? { hours: minutes / 60, about: false }
    : { hours: (landings * circuitMin) / 60, about: true };

/**
 * What a kind of aeroplane has in common, for hours flown in types the hangar does not have.
 * @returns handling attributes; one that differs from aeroplane to aeroplane of the kind is left out
 * @example kindAttributes('light-tailwheel').find((a) => a.key === 'tail-inertia')?.value // 'light'
 */
export const kindAttributes = (kind: Kind): Attributes =>
  Object.entries(KINDS[kind].attributes).map(([key, value]) => ({
    key: key as AttributeKey,
    value,
    source: 'house',
    ref: `of ${KINDS[kind].name} aeroplanes`,
  }));

/**
 * The kind proposed for a type of a logbook that the hangar does not have: the lightest that fits what is known of it.
 * @example proposedKind({ engines: 1, tailwheel: true, water: false }) // 'light-tailwheel'
 */
export const proposedKind = (known: { engines: number; tailwheel: boolean; water: boolean }): Kind =>
  known.engines > 1
    ? 'light-twin'
    : known.water
      ? 'floatplane'
      : known.tailwheel
        ? 'light-tailwheel'
        : 'light-nosewheel';

const DAY_MS = 86_400_000;
/**
 * Whole days from a day or instant to a later one; 0 when `toDate` is the earlier.
 * @returns days
 * @example wholeDaysSince('2026-10-03', '2026-10-06') // 3
 */
export const wholeDaysSince = (fromDate: string, toDate: string): number =>
  Math.max(0, Math.round((Date.parse(toDate.slice(0, 10)) - Date.parse(fromDate.slice(0, 10))) / DAY_MS));

/**
 * The pilot's habits of one attribute, strongest first.
 * @param flown hours by type, above 0; dates ISO
 * @returns weights summing to 1; empty when nothing flown has the attribute
 */
export function habits(key: AttributeKey, flown: readonly FlownType[], onDate: string): Habit[] {
  const found = new Map<string, Habit>();
  let total = 0;
  for (const f of flown) {
    const value = f.attributes.find((a) => a.key === key)?.value;
    if (value === undefined || !(f.hours > 0)) continue;
    const daysSince = wholeDaysSince(f.lastFlown, onDate);
    const weight = f.hours * Math.exp(-daysSince / HABIT_DAYS);
    total += weight;
    const habit = found.get(value) ?? { value, weight: 0, from: [] };
    habit.weight += weight;
    habit.from.push({ typeName: f.typeName, hours: f.hours, daysSince, about: f.about ?? false });
    found.set(value, habit);
  }
  return total === 0
    ? []
    : [...found.values()].map((h) => ({ ...h, weight: h.weight / total })).sort((a, b) => b.weight - a.weight);
}

/**
 * Every attribute of the new type against the pilot's habits, ranked: opposite actions first, then severity × habit ×
 * exposure, then the order of the attributes. `same` rows follow, in that order.
 * @param to attributes of the aeroplane, its modifications counted
 * @param goals exposure is the greatest of them
 * @returns one entry an attribute, with its rank and the two habits
 */
export function rankDifferences(input: {
  flown: readonly FlownType[];
  to: Attributes;
  typeAttributes: Attributes;
  goals: readonly Goal[];
  rules: DifferenceRules;
  onDate: string;
}): Difference[] {
  const rows = ATTRIBUTE_KEYS.flatMap((key): Difference[] => {
    const to = input.to.find((a) => a.key === key);
    const rule = input.rules.attributes.find((r) => r.key === key);
    if (!to || !rule) return [];
    const known = habits(key, input.flown, input.onDate);
    if (known.length === 0) return [];
    const exposure = exposureOf(rule, input.goals, input.rules);
    const ofType = input.typeAttributes.find((a) => a.key === key);
    const airframe = ofType && ofType.value !== to.value ? to.ref : null;
    const base = { key, name: ATTRIBUTES[key].name, phase: rule.phase, to: to.value, exposure, airframe };
    const kept = known.find((h) => h.value === to.value);
    const candidates = known
      .filter((h) => h.value !== to.value && h.weight >= LEAST_HABIT)
      .map((h) => {
        const pair = rule.pairs.find(
          (p) => (p.from === h.value || p.from === '*') && (p.to === to.value || p.to === '*'),
        );
        const severity = pair?.severity ?? rule.severity;
        return { habit: h, pair, severity, score: severity * h.weight * exposure };
      });
    const worst = candidates.reduce<(typeof candidates)[number] | null>(
      (a, c) => (a === null || above(c, a) ? c : a),
      null,
    );
    if (!worst || worst.severity === 0) {
      const h = kept ?? known[0];
      return h
        ? [
            {
              ...base,
              action: 'same',
              opposite: false,
              from: h.value,
              severity: 0,
              habit: h.weight,
              score: 0,
              cue: rule.same,
              numbers: numbersOf(h),
            },
          ]
        : [];
    }
    return [
      {
        ...base,
        action: worst.pair?.action ?? 'add',
        opposite: worst.pair?.opposite ?? false,
        from: worst.habit.value,
        severity: worst.severity,
        habit: worst.habit.weight,
        score: worst.score,
        cue: worst.pair?.cue ?? rule.cue,
        numbers: `${numbersOf(worst.habit)}; severity ${worst.severity} of 10, exposure ${fixed(exposure * 100)} %`,
      },
    ];
  });
  return rows
    .map((r, i) => ({ r, i }))
    .sort(
      (a, b) =>
        (a.r.action === 'same' ? 1 : 0) - (b.r.action === 'same' ? 1 : 0) ||
        Number(b.r.opposite) - Number(a.r.opposite) ||
        b.r.score - a.r.score ||
        a.i - b.i,
    )
    .map(({ r }) => r);
}

const above = (
  a: { pair?: { opposite: boolean } | undefined; score: number },
  b: { pair?: { opposite: boolean } | undefined; score: number },
): boolean =>
  Number(a.pair?.opposite ?? false) - Number(b.pair?.opposite ?? false) > 0 ||
  ((a.pair?.opposite ?? false) === (b.pair?.opposite ?? false) && a.score > b.score);

function exposureOf(
  rule: DifferenceRules['attributes'][number],
  goals: readonly Goal[],
  rules: DifferenceRules,
): number {
  return Math.max(...goals.map((g) => rule.exposure?.[g] ?? rules.exposure[g]?.[rule.phase] ?? 0.5), 0);
}

function numbersOf(h: Habit): string {
  const flown = [...h.from]
    .sort((a, b) => b.hours - a.hours)
    .slice(0, 2)
    .map(
      (f) =>
        `${f.typeName} ${f.about ? 'about ' : ''}${fixed(f.hours, f.hours < 10 ? 1 : 0)} h, ${f.daysSince === 0 ? 'today' : f.daysSince === 1 ? 'yesterday' : `${f.daysSince} days ago`}`,
    );
  return `${fixed(h.weight * 100)} % of the habit: ${flown.join('; ')}${h.from.length > 2 ? ` and ${h.from.length - 2} more` : ''}`;
}

/** What goes into a brief, a card and the cockpit: the first rows to drop or add. */
export interface HabitCue {
  key: string;
  name: string;
  action: 'drop' | 'add';
  opposite: boolean;
  phase: Phase;
  from: string;
  to: string;
  cue: string;
  numbers: string;
}
/** @returns at most `most` cues, the weightiest first: what the hand does, what it has to do, and when it is said */
export const habitCues = (rows: readonly Difference[], most = 6): HabitCue[] =>
  rows
    .flatMap((r): HabitCue[] =>
      r.action === 'same' || r.from === null
        ? []
        : [
            {
              key: r.key,
              name: r.name,
              action: r.action,
              opposite: r.opposite,
              phase: r.phase,
              from: r.from,
              to: r.to,
              cue: r.cue,
              numbers: r.numbers,
            },
          ],
    )
    .slice(0, most);

/**
 * Rows in the order of the flight; within a phase the rank stands.
 * @returns phases with their rows; a phase without one is left out
 */
export const byPhase = (rows: readonly Difference[]): { phase: Phase; rows: Difference[] }[] =>
  PHASES.map((phase) => ({ phase, rows: rows.filter((r) => r.phase === phase) })).filter((g) => g.rows.length > 0);
