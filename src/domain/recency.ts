import { z } from 'zod';

/** A rule that counts take-offs or landings in a window of days. */
export const CountRule = z.object({
  id: z.string(),
  kind: z.enum(['landing', 'takeoff']),
  count: z.number().int().min(1),
  windowDays: z.number().int().min(1),
  fullStop: z.boolean(),
  night: z.boolean(),
  tailwheel: z.boolean(),
  /** The pilot alone on the controls: help on them and demonstrations do not count. */
  soleManipulator: z.boolean(),
  surface: z.enum(['land', 'water']).nullable(),
  classes: z.array(z.string()).nullable(),
});
export type CountRule = z.infer<typeof CountRule>;

/** As kept in a pack or the house: with its words, its source, what it is for and which flying it looks at. */
export const RecencyRule = CountRule.extend({
  title: z.string(),
  citation: z.string(),
  /** Of which aeroplanes: every one, or only those with a tailwheel, at night, on water. */
  when: z.enum(['always', 'tailwheel', 'night', 'water']),
  /** Flying in the same class counts, only in the same type, or in any aeroplane (the category). */
  within: z.enum(['class', 'type', 'category']),
  confirm: z.boolean().default(false),
  /** Dated rules that serve in its place when done within its window, and what makes it unnecessary when held. */
  servedBy: z.array(z.string()).default([]),
  unlessHeld: z.array(z.string()).default([]),
});
export type RecencyRule = z.infer<typeof RecencyRule>;

/** One take-off or landing as recency sees it. */
export interface RecencyEvent {
  id: string;
  /** The aerodrome's own date, ISO. */
  date: string;
  kind: 'landing' | 'takeoff';
  fullStop?: boolean;
  night?: boolean;
  /** The aeroplane flown had one. */
  tailwheel?: boolean;
  /** 0 to 3; null = nobody noted one. */
  intervention?: number | null;
  demonstration?: boolean;
  /** Recorded in a lesson; absent or false for a logbook row. */
  recorded?: boolean;
  surface?: string | null;
  class?: string | null;
  /** The same so many times over; absent = once. Lets a day of circuits stand as one row. */
  times?: number;
}

/** When night begins and ends: by civil twilight, or so many minutes after sunset and before sunrise. */
export const NightRule = z.discriminatedUnion('by', [
  z.object({ by: z.literal('twilight'), citation: z.string() }),
  z.object({
    by: z.literal('sun'),
    afterMin: z.number().int().min(0).max(180),
    beforeMin: z.number().int().min(0).max(180),
    citation: z.string(),
  }),
]);
export type NightRule = z.infer<typeof NightRule>;
/** What the office or the pilot wrote of a flight that was not recorded here. */
export const LogEntry = z.object({
  flownOn: z.iso.date('Enter the date as 24 Nov 2026.'),
  typeCode: z.string().min(1, 'Choose the type.'),
  takeoffs: z.number('Give the number of take-offs.').int().min(0).max(60, 'At most 60 in one entry.'),
  landings: z.number('Give the number of landings.').int().min(0).max(60, 'At most 60 in one entry.'),
  fullStops: z.number('Give how many of them were full stops.').int().min(0).max(60, 'At most 60 in one entry.'),
  night: z.boolean(),
  surface: z.enum(['land', 'water']),
  /** The take-offs, where they differ from the landings; absent = they do not. */
  offNight: z.boolean().optional(),
  offSurface: z.enum(['land', 'water']).optional(),
  hours: z.number('Give the hours.').min(0).max(24, 'At most 24 h in one entry.'),
  remark: z.string().max(200, 'At most 200 characters.'),
});
export type LogEntry = z.infer<typeof LogEntry>;
