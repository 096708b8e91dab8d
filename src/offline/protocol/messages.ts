import type { CaptureEvent, LoggedWind } from '@/domain/capture';
import type { AirworkStandard, Ask, CaptureForm } from '@/domain/airwork';
import type { TypeSheet } from '@/domain/sheet';
import type { Stop, StopRules } from '@/domain/stops';
import type { Attitude, PackId } from '@/domain/words';

/** Largest batch one request carries; the outbox sends the rest in the next. */
export const SYNC_BATCH = 100;

/** `sentAt` is the device's clock as it sends: what the field reads against its own. */
export interface SyncRequest {
  events: CaptureEvent[];
  sentAt: string;
}
export interface SyncAnswer {
  /** On the server now, whether this request or an earlier one brought them. */
  accepted: string[];
  /** Will never be accepted as they are; kept on the device and shown with the reason. */
  refused: { eventId: string; code?: string; message: string }[];
  /** Another account's events: kept on the device until their author signs in. */
  held: { eventId: string; message: string }[];
  /** How far the device's clock stands behind the field's; null = not measured. */
  skewMs: number | null;
}

/** A wind somebody else has observed: the brief's, or a report of the station. Variable winds name no direction and are none. */
export type ReadyWind = LoggedWind & { source: 'brief' | 'station'; simulated?: boolean };

/** Who may swap seats in a flight, and who does. */
export interface Seats {
  pilots: { id: string; name: string; own: boolean }[];
  second: { pilotId: string; name: string; ownCheckout: boolean } | null;
}

/** A sortie prepared for a device: all the capture screen needs, without the network. */
export interface SortiePack {
  sortieId: string;
  checkoutId: string;
  lesson: number;
  flownOn: string;
  author: string;
  authorName: string;
  pilotName: string;
  registration: string;
  typeName: string;
  pack: PackId;
  unit: 'kt' | 'mph';
  tailwheel: boolean;
  hasFlapOrGear: boolean;
  runwayEnd: string;
  runways: { ident: string; magneticDeg: number; widthM: number; surface?: 'asphalt' | 'grass' | 'water' }[];
  aimPointM: number;
  /** The box is drawn from here; absent in packs taken along before it was: the aim point. */
  touchdownM?: number;
  box: { before: number; past: number };
  fenceTarget: number | null;
  intended: Attitude;
  focus: string;
  windText: string;
  /** Winds known when the device was prepared, ready to be confirmed; absent in packs of before. */
  winds?: ReadyWind[];
  triggers: string[];
  items: {
    id: string;
    title: string;
    text: string;
    where: 'ground' | 'flight';
    waivable: string | null;
    forms?: CaptureForm[];
    /** What counts for it: how much help at most, and how many times; absent in packs of before. */
    most?: number;
    asks?: Ask[];
    needed?: number;
  }[];
  /** What hands and feet did that items about landings ask for; absent in packs of before. */
  asks?: Ask[];
  /** Wheel, lamp state, what it means; null or absent where there is no water to land on. */
  gearLamps?: Record<string, Record<string, 'up' | 'down' | 'transit'>> | null;
  /** Habits to watch, most dangerous first; absent in packs taken before this was added. */
  cues?: { where: 'ground' | 'flight'; action: 'drop' | 'add'; opposite: boolean; name: string; cue: string }[];
  preparedAt: string;
  // Added later, each absent in packs taken before: the screen then leaves out what it needs.
  pilotId?: string;
  /** Who swaps seats in this flight; without a checkout their landings count for recency only. */
  second?: { pilotId: string; name: string; ownCheckout: boolean } | null;
  /** Targets of today at every gate, in the dial's unit, with the tolerance of the standard in knots. */
  gates?: { name: string; target: number | null }[];
  speedLimitKt?: { low: number; high: number } | null;
  ktPerUnit?: number;
  airwork?: { rows: AirworkStandard[]; edgeShare: number };
  /** The lesson as planned, step by step. */
  plan?: { title: string; minutes: number }[];
  flapSteps?: number[];
  /** Lists said or done in order: checks and flows, speeds, the words of an exchange. */
  lists?: { key: string; title: string; kind: 'flow' | 'speeds' | 'exchange'; steps: string[] }[];
  landmark?: { name: string; alongM: number } | null;
  clock?: {
    bookingMin: number;
    fuelL: number;
    flowLPerH: number;
    night: boolean;
    reserveMin: number | null;
    groundMin: number;
    circuitMin: number;
  };
  /** Rules of simulated failures, and the speeds of a twin in the dial's unit. */
  failures?: {
    words: string[];
    floorFt: number;
    demonstrationFt: number;
    source: string;
    twin: { vsse: number; vmca: number } | null;
  };
  /** What the reach without the engine is computed from. */
  reach?: {
    sheet: TypeSheet;
    elevationFt: number;
    variationDeg: number;
    circuitHeightFt: number;
    sigma: number;
    windFromTrueDeg: number;
    windKt: number;
    turnBackFt: number;
    reactionS: number;
    bankDeg: number;
    /** Today's landing distance over 50 ft on the runway briefed; absent in older packs, null = not known. */
    over50M?: number | null;
    strips: {
      surface: string;
      lengthM: number;
      elevationFt: number;
      eastM: number;
      northM: number;
      ends: { ident: string; trueBearingDeg: number }[];
    }[];
  };
  /** What a flight is held against at the tap; absent in packs taken along before it was. */
  stops?: {
    rules: StopRules;
    /** Of the flight itself, as it was taken along. */
    flight: Stop[];
  };
  /** Events already at the field, so that a second device continues the count. */
  events: CaptureEvent[];
}
