/**
 * What every page of the lab is: settings, and from them an answer in one sentence, why in three, a picture that may move,
 * the numbers with their sources, a table of the same, and what was assumed.
 */
import type { Coded } from '@/domain/coded';
import type { LabPage } from '@/domain/lab-pages';
import type { Sourced, TypeSheet } from '@/domain/sheet';
import type { Figure, FigureShape, FigureText } from './figure';
import type { LAB_WORDS } from './lab-words';

export type LabSentence = Coded<typeof LAB_WORDS>;
export type Setting = string | number;
export type Settings = Record<string, Setting>;
/** A setting: a range with its unit, or a choice; `when` hides one that does not apply to the type. */
export type Parameter =
  | {
      key: string;
      label: string;
      kind: 'range';
      min: number;
      max: number;
      step: number;
      unit: string;
      /** Negative = from the left, positive = from the right. */
      signed?: boolean;
    }
  | { key: string; label: string; kind: 'choice'; options: readonly (readonly [value: string, label: string])[] }
  /** Kept in the address, entered elsewhere on the page. */
  | { key: string; label: string; kind: 'text' };

/** What the pages need of a sheet. */
export type LabSheetData = Pick<
  TypeSheet,
  | 'name'
  | 'dial'
  | 'gear'
  | 'engine'
  | 'masses'
  | 'wing'
  | 'drag'
  | 'speeds'
  | 'stalls'
  | 'flapSteps'
  | 'approach'
  | 'landing'
  | 'crosswind'
  | 'geometry'
  | 'sight'
  | 'seats'
  | 'dynamics'
  | 'surface'
>;
/** The day and the place. */
export interface LabDay {
  rhoKgM3: number;
  crosswindKt: number;
  gustKt: number | null;
  runwayWidthM: number;
  runwayIdent: string;
  circuitHeightFt: number;
  /** Where the wind comes from; null = none is set. */
  windWords: string | null;
  /** Other limits on the crosswind than the sheet's: school, instructor, pilot. */
  limits: { name: string; kt: number }[];
  eyeHeightM: number | null;
}
export interface LabFact {
  name: string;
  value: string;
  source: Pick<Sourced, 'source' | 'ref'> | null;
}
export interface LabFrame {
  tS: number;
  shapes: FigureShape[];
  texts: FigureText[];
}
export interface LabResult {
  page: LabPage;
  answer: LabSentence;
  /** Right, to be careful with, or wrong: how the answer is marked. */
  tone: 'within' | 'edge' | 'outside' | 'plain';
  why: LabSentence[];
  /** What does not move. */
  figure: Figure;
  /** What moves, in order of time; empty = nothing does. */
  frames: LabFrame[];
  facts: LabFact[];
  table: { name: string; head: string[]; rows: string[][] };
  assumed: LabSentence[];
}
/** A page that cannot be shown says which measurements are missing. */
export type LabMissing = { key: string; name: string; how: string }[];
export interface LabModel {
  page: LabPage;
  parameters: (sheet: LabSheetData) => Parameter[];
  start: (sheet: LabSheetData, day: LabDay) => Settings;
  missing: (sheet: LabSheetData) => LabMissing;
  /** Does the page apply to the type at all? */
  applies: (sheet: LabSheetData) => boolean;
  compute: (sheet: LabSheetData, settings: Settings, day: LabDay, old: LabSheetData | null) => LabResult;
}

/** Settings read as numbers and words, with the start where something else was in the address. */
export const numberOf = (s: Settings, key: string): number => {
  const v = s[key];
  return typeof v === 'number' && Number.isFinite(v) ? v : 0;
};
export const wordOf = (s: Settings, key: string): string => String(s[key] ?? '');

const MOST_TEXT = 1200;
/**
 * Settings held within what a page offers: a number outside its range is brought to its edge, an unknown word to the start.
 * @param parameters of the page for this type
 * @param start of the page
 * @param settings from an address
 * @example held([], {}, { speed: 40 }) // {}
 */
export function held(parameters: readonly Parameter[], start: Settings, settings: Settings): Settings {
  return Object.fromEntries(
    parameters.map((p): [string, Setting] => {
      const at = settings[p.key];
      const first = start[p.key] ?? (p.kind === 'range' ? p.min : p.kind === 'choice' ? (p.options[0]?.[0] ?? '') : '');
      if (p.kind === 'text') return [p.key, typeof at === 'string' ? at.slice(0, MOST_TEXT) : first];
      if (p.kind === 'choice') return [p.key, p.options.some(([v]) => v === at) ? (at ?? first) : first];
      const n = typeof at === 'number' ? at : Number(at);
      return [
        p.key,
        at === undefined || at === '' || !Number.isFinite(n) ? first : Math.min(p.max, Math.max(p.min, n)),
      ];
    }),
  );
}
