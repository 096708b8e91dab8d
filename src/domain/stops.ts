/**
 * What the screen says stop to. It happened, so it is kept; it is never kept as good. Plain constants, without a schema
 * library: the cockpit shell imports them.
 */
export const STOP_CODES = ['grounded', 'instructor', 'wind', 'wheels', 'below-floor', 'failure-rules'] as const;
export type StopCode = (typeof STOP_CODES)[number];
export const STOP_TITLE: Record<StopCode, string> = {
  grounded: 'Aeroplane grounded',
  instructor: 'Instructor not current or not authorised',
  wind: 'Wind outside a limit',
  wheels: 'Wheels not checked for this surface',
  'below-floor': 'Below the floor of the exercise',
  'failure-rules': 'Simulated failure outside its rules',
};

/** One stop of one landing, item or flight; what it rests on, for the words. */
export interface Stop {
  code: StopCode;
  facts: Readonly<Record<string, string | number | readonly string[] | null>>;
}

/** What a flight is held against, on the device and on the server. */
export interface StopRules {
  /** Of the field; heights of airwork are read on QNH. */
  elevationFt: number;
  /** Least height above ground of a simulated failure, of the loss-of-control demonstration, of energy items. */
  failureFloorFt: number;
  demonstrationFt: number;
  energyFloorFt: number;
  /** In the dial's unit; null = a single. */
  twin: { vsse: number; vmca: number } | null;
  /** What each lamp means; null = no wheels that must fit a surface. */
  lamps: Readonly<Record<string, Readonly<Record<string, 'up' | 'down' | 'transit'>>>> | null;
  runways: readonly { ident: string; magneticDeg: number; surface: string }[];
  /** Real limits of the crosswind and of the tailwind and gusts, from the brief; empty = not briefed. */
  limits: readonly { kind: string; valueKt: number; source: string }[];
  tailwind: { valueKt: number; kind: string; source: string } | null;
  gustSpreadKt: number | null;
  /** The school's limits were overridden for this flight, by whom its rule names. */
  schoolOverridden: boolean;
}

/** An aeroplane out of service: until somebody entitled certifies it, or for a hold of the school until its chief ends it. */
export const GROUNDING_KINDS = ['airworthiness', 'school'] as const;
export type GroundingKind = (typeof GROUNDING_KINDS)[number];
