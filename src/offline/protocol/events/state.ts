import type {
  CaptureEvent,
  CapturedLanding,
  EventPayload,
  GearChecked,
  HandedOver,
  ItemObserved,
  LimitExceeded,
  LoggedWind,
  Measured,
  PowerFound,
  TimerMarked,
  TrialFlown,
} from '@/domain/capture';
import { UNSEEN } from '@/domain/unseen';
import type { CutShort, EventType } from '@/domain/words';

/** An event of one type, its payload read by the schema of its version at the door. */
export type EventOf<T extends EventType> = Omit<CaptureEvent, 'type' | 'payload'> & {
  type: T;
  payload: EventPayload<T>;
};

export interface FoldedLanding {
  id: string;
  /** Its place in the flight; taking back another one does not move it. */
  number: number;
  /** The first touch of its pilot in the flight; one taken back and not flown again keeps that place. */
  first: boolean;
  sortieId: string;
  author: string;
  savedAt: string;
  landing: CapturedLanding;
  /** Accepted from a trace, beside what the eye saw. */
  measured: Measured | null;
  /** By criterion, or `class`. */
  overruled: Readonly<Record<string, FoldedOverruling>>;
}
export interface FoldedItem {
  id: string;
  sortieId: string;
  at: string;
  data: ItemObserved;
  /** Quantities whose extreme came from a trace. */
  measured: readonly string[];
  /** The verdict as captured or measured stays beside the instructor's later word. */
  overruled: (FoldedOverruling & { computed: ItemObserved['verdict'] }) | null;
}
export interface FoldedOverruling {
  to: string;
  reason: string;
  author: string;
  at: string;
}
/** Something noted in flight that stands on its own. */
/** Of a flight: what was done, what comes next, what to watch. */
export type FoldedHandover = HandedOver & { author: string; at: string };
export interface FoldedRow<T> {
  id: string;
  sortieId: string;
  author: string;
  at: string;
  data: T;
}
/** Something corrected or undone: what it was, what it became, who and when. */
export interface FoldedChange {
  subject: string;
  sortieId: string;
  what: 'landing' | 'item';
  /** Of a landing. */
  number: number | null;
  change: 'corrected' | 'undone';
  author: string;
  at: string;
  before: CapturedLanding | ItemObserved;
  after: CapturedLanding | null;
  /** The landing that stands for one undone. */
  replacedBy: string | null;
}
export interface FoldedWaiver {
  id: string;
  sortieId: string;
  itemId: string;
  reason: string;
}
/** Why, by whom, when. */
export interface FoldedReason {
  reason: string;
  author: string;
  at: string;
}
/** The newest check of wheels against surface, and what has happened since that ends its agreement. */
export interface FoldedGear {
  at: string;
  check: GearChecked;
  since: string[];
}

/** What has been read so far; each type of event adds to it. */
export class FoldState {
  readonly landings = new Map<string, FoldedLanding>();
  readonly drafts = new Map<string, Record<string, unknown>>();
  readonly items = new Map<string, FoldedItem>();
  readonly waivers = new Map<string, FoldedWaiver>();
  readonly powers = new Map<string, FoldedRow<PowerFound>>();
  readonly trials = new Map<string, FoldedRow<TrialFlown>>();
  readonly exceeded = new Map<string, FoldedRow<LimitExceeded>>();
  readonly marks = new Map<string, TimerMarked>();
  readonly measured = new Map<string, Measured>();
  readonly overruled = new Map<string, Record<string, FoldedOverruling>>();
  readonly explained: Record<string, FoldedReason> = {};
  readonly overrides: Record<string, FoldedReason> = {};
  readonly cutShort: Record<string, CutShort> = {};
  readonly handovers: Record<string, FoldedHandover> = {};
  readonly runways: Record<string, string> = {};
  readonly flying: Record<string, string> = {};
  readonly winds: Record<string, LoggedWind> = {};
  gear: FoldedGear | null = null;
  readonly numbering: Numbering;

  constructor(readonly undone: ReadonlySet<string>) {
    this.numbering = new Numbering(undone);
  }
}

/** What was recorded before a field existed says nothing of it. */
export const landingOf = (payload: CapturedLanding): CapturedLanding => ({ ...UNSEEN, ...payload });
export const itemOf = (payload: ItemObserved): ItemObserved => ({ ...{ detail: null, pilotId: null }, ...payload });
export const rowOf = <T extends EventType>(event: EventOf<T>): FoldedRow<EventOf<T>['payload']> => ({
  id: event.subjectId,
  sortieId: event.sortieId,
  author: event.author,
  at: event.deviceTime,
  data: event.payload,
});
export const reasonOf = (event: Pick<CaptureEvent, 'author' | 'deviceTime'> & { payload: { reason: string } }) => ({
  reason: event.payload.reason,
  author: event.author,
  at: event.deviceTime,
});

interface Saved {
  sortieId: string;
  number: number;
  now: CapturedLanding;
  replacedBy: string | null;
}
/** Numbers given once, and what was corrected or undone: neither is lost by an undo. */
export class Numbering {
  readonly numbered: Record<string, number> = {};
  private readonly landings = new Map<string, Saved>();
  private readonly items = new Map<string, ItemObserved>();
  private readonly found: FoldedChange[] = [];

  constructor(private readonly undone: ReadonlySet<string>) {}

  saved({ subjectId: subject, sortieId, payload }: EventOf<'landing-saved'>): void {
    if (this.landings.has(subject)) return;
    const now = landingOf(payload);
    // Only what was undone can be flown again in its place.
    const before = now.replaces !== null && this.undone.has(now.replaces) ? this.landings.get(now.replaces) : undefined;
    const same = before?.sortieId === sortieId && before.replacedBy === null ? before : undefined;
    if (same) same.replacedBy = subject;
    const number = same ? same.number : (this.numbered[sortieId] ?? 0) + 1;
    this.numbered[sortieId] = Math.max(this.numbered[sortieId] ?? 0, number);
    this.landings.set(subject, { sortieId, number, now, replacedBy: null });
  }

  item(subject: string, seen: ItemObserved): void {
    this.items.set(subject, seen);
  }

  /** @param after what a landing became; null = it was undone */
  changed(event: EventOf<'corrected'> | EventOf<'undone'>, after: CapturedLanding | null): void {
    const { subjectId: subject, sortieId, author, deviceTime: at } = event;
    const by = { subject, sortieId, author, at, replacedBy: null };
    const known = this.landings.get(subject);
    const item = this.items.get(subject);
    if (known) {
      const change = after ? 'corrected' : 'undone';
      this.found.push({ ...by, what: 'landing', number: known.number, change, before: known.now, after });
      if (after) known.now = after;
    } else if (item && !after)
      this.found.push({ ...by, what: 'item', number: null, change: 'undone', before: item, after: null });
  }

  numberOf(subject: string): number {
    return this.landings.get(subject)?.number ?? 0;
  }

  changes(): FoldedChange[] {
    return this.found.map((c) => ({ ...c, replacedBy: this.landings.get(c.subject)?.replacedBy ?? null }));
  }

  /** The first touch of each pilot in each flight, among all that were saved and not replaced. */
  firsts(): string[] {
    const first = new Map<string, { id: string; number: number }>();
    for (const [id, s] of this.landings) {
      if (s.replacedBy !== null) continue;
      if (s.now.kind === 'go-around' || s.now.kind === 'low-pass') continue;
      const key = `${s.sortieId} ${s.now.pilotId ?? ''}`;
      const known = first.get(key);
      if (!known || s.number < known.number) first.set(key, { id, number: s.number });
    }
    return [...first.values()].map((f) => f.id);
  }
}
