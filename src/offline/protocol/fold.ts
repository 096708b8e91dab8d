import type {
  CaptureEvent,
  GearChecked,
  LimitExceeded,
  LoggedWind,
  PowerFound,
  TimerMarked,
  TrialFlown,
} from '@/domain/capture';
import { type CutShort, EVENT_TYPES } from '@/domain/words';
import { agreementEnds, definitionOf } from './events';
import {
  type EventOf,
  FoldState,
  type FoldedChange,
  type FoldedGear,
  type FoldedHandover,
  type FoldedItem,
  type FoldedLanding,
  type FoldedReason,
  type FoldedRow,
  type FoldedWaiver,
} from './events/state';
import { ordered } from './order';

export type { FoldedChange, FoldedItem, FoldedLanding, FoldedOverruling, FoldedRow } from './events/state';

/** A check of the wheels, or something that ends one. `subject` is the landing it came with. */
export interface GearNote {
  sortieId: string;
  subject: string;
  at: string;
  check: GearChecked | null;
  ends: string[];
}
export interface Folded {
  landings: FoldedLanding[];
  /** Landings and items corrected or undone, in order. */
  changes: FoldedChange[];
  /** The highest number given to a landing of a flight. */
  numbered: Record<string, number>;
  /** Fields tapped for a landing that was never saved: they come back as a draft and are never counted. */
  drafts: Record<string, Record<string, unknown>>;
  items: FoldedItem[];
  waivers: FoldedWaiver[];
  gear: FoldedGear | null;
  /** Every check and what ended one, in order: what stood at a landing is read from here. */
  gearLog: GearNote[];
  /** By subject: why it was flown past a stop. */
  explained: Record<string, FoldedReason>;
  /** A limit of the school set aside for a flight. */
  overrides: Record<string, FoldedReason>;
  powers: FoldedRow<PowerFound>[];
  trials: FoldedRow<TrialFlown>[];
  /** Limits of the aeroplane passed, seen by eye. */
  exceeded: FoldedRow<LimitExceeded>[];
  marks: TimerMarked[];
  /** The runway in use per sortie, where it was changed in flight. */
  runways: Record<string, string>;
  /** Who flies now per sortie, where two pilots share it. */
  flying: Record<string, string>;
  /** Per sortie: why it ended early, and what was handed over. */
  cutShort: Record<string, CutShort>;
  handovers: Record<string, FoldedHandover>;
  /** The newest wind logged per sortie. */
  winds: Record<string, LoggedWind>;
}

/**
 * Folds events, in any order and with repeats, into what they mean now. An event type not known here is passed over.
 */
export function fold(events: readonly CaptureEvent[]): Folded {
  const state = new FoldState(new Set(events.filter((e) => e.type === 'undone').map((e) => e.subjectId)));
  const gearLog: GearNote[] = [];
  const seen = new Set<string>();
  for (const event of ordered(events)) {
    if (seen.has(event.eventId)) continue;
    seen.add(event.eventId);
    const definition = definitionOf(event);
    if (!definition) continue;
    const typed = event as EventOf<CaptureEvent['type']>;
    definition.always?.(state, typed);
    if (state.undone.has(event.subjectId)) continue;
    noteGear(gearLog, event);
    if (state.gear) state.gear = { ...state.gear, since: [...state.gear.since, ...agreementEnds(event)] };
    definition.fold?.(state, typed);
  }
  for (const type of EVENT_TYPES) definitionOf({ type })?.settle?.(state);
  const { landings, numbering } = state;
  for (const id of numbering.firsts()) {
    const landing = landings.get(id);
    if (landing) landings.set(id, { ...landing, first: true });
  }
  return {
    landings: byNumber([...landings.values()]),
    changes: numbering.changes(),
    numbered: numbering.numbered,
    drafts: Object.fromEntries(state.drafts),
    items: [...state.items.values()],
    waivers: [...state.waivers.values()],
    gear: state.gear,
    gearLog,
    explained: state.explained,
    overrides: state.overrides,
    powers: [...state.powers.values()],
    trials: [...state.trials.values()],
    exceeded: [...state.exceeded.values()],
    marks: [...state.marks.values()],
    runways: state.runways,
    flying: state.flying,
    cutShort: state.cutShort,
    handovers: state.handovers,
    winds: state.winds,
  };
}

/** Flights in the order they began, the landings of each by their number. */
function byNumber(landings: readonly FoldedLanding[]): FoldedLanding[] {
  const flights = [...new Set(landings.map((l) => l.sortieId))];
  return flights.flatMap((f) => landings.filter((l) => l.sortieId === f).sort((a, b) => a.number - b.number));
}

function noteGear(log: GearNote[], event: CaptureEvent): void {
  const check = event.type === 'gear-checked' ? (event.payload as GearChecked) : null;
  const ends = agreementEnds(event);
  if (check === null && ends.length === 0) return;
  // A landing ends an agreement when it was flown, not when it was saved.
  const at =
    event.type === 'landing-saved'
      ? ((event as EventOf<'landing-saved'>).payload.endedAt ?? event.deviceTime)
      : event.deviceTime;
  log.push({ sortieId: event.sortieId, subject: event.subjectId, at, check, ends });
}

/**
 * The check of the wheels that stood at a moment of a flight, and what had happened since; null = none was made.
 * @param atMs when it touched; a check made later is none for it
 * @param landing the landing asked about, which does not end its own check
 */
export function gearAt(
  log: readonly GearNote[],
  sortieId: string,
  atMs: number,
  landing: string,
): { at: string; check: GearChecked; since: string[] } | null {
  const before = log
    .filter((n) => n.sortieId === sortieId && n.subject !== landing && Date.parse(n.at) <= atMs)
    .sort((a, b) => Date.parse(a.at) - Date.parse(b.at));
  const last = before.map((n) => n.check !== null).lastIndexOf(true);
  const found = before[last];
  return found?.check
    ? { at: found.at, check: found.check, since: before.slice(last + 1).flatMap((n) => n.ends) }
    : null;
}
