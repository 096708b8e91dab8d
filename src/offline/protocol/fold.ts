import type {
  CaptureEvent,
  CapturedLanding,
  GearChecked,
  ItemObserved,
  LoggedWind,
  Measured,
  Overruling,
  PowerFound,
  TimerMarked,
  TrialFlown,
} from '@/domain/capture';
import { UNSEEN } from '@/domain/unseen';
import { ordered } from './order';

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
  /** Taken over from a trace, beside what the eye saw. */
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
export interface FoldedRow<T> {
  id: string;
  sortieId: string;
  author: string;
  at: string;
  data: T;
}
/** Something put right or taken back: what it was, what it became, who and when. */
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
  /** The landing that stands for one taken back. */
  replacedBy: string | null;
}
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
  /** Landings and items put right or taken back, in order. */
  changes: FoldedChange[];
  /** The highest number given to a landing of a flight. */
  numbered: Record<string, number>;
  /** Fields tapped for a landing that was never saved: they come back as a draft and are never counted. */
  drafts: Record<string, Record<string, unknown>>;
  items: FoldedItem[];
  waivers: { id: string; sortieId: string; itemId: string; reason: string }[];
  /** The newest check of wheels against surface, and what has happened since that ends its agreement. */
  gear: { at: string; check: GearChecked; since: string[] } | null;
  /** Every check and what ended one, in order: what stood at a landing is read from here. */
  gearLog: GearNote[];
  /** By subject: why it was flown past a stop. */
  explained: Record<string, { reason: string; author: string; at: string }>;
  /** A limit of the school set aside for a flight. */
  overrides: Record<string, { reason: string; author: string; at: string }>;
  powers: FoldedRow<PowerFound>[];
  trials: FoldedRow<TrialFlown>[];
  marks: TimerMarked[];
  /** The runway in use per sortie, where it was changed in flight. */
  runways: Record<string, string>;
  /** Who flies now per sortie, where two pilots share it. */
  flying: Record<string, string>;
  /** The newest wind logged per sortie. */
  winds: Record<string, LoggedWind>;
}

/** What was recorded before a field existed says nothing of it. */
const landingOf = (payload: unknown): CapturedLanding => ({ ...UNSEEN, ...(payload as CapturedLanding) });
const itemOf = (payload: unknown): ItemObserved => ({
  ...{ detail: null, pilotId: null },
  ...(payload as ItemObserved),
});

/**
 * Folds events, in any order and with repeats, into what they mean now. An event type not known here is passed over.
 */
export function fold(events: readonly CaptureEvent[]): Folded {
  const landings = new Map<string, FoldedLanding>();
  const drafts = new Map<string, Record<string, unknown>>();
  const items = new Map<string, FoldedItem>();
  const waivers = new Map<string, Folded['waivers'][number]>();
  const winds: Record<string, LoggedWind> = {};
  const runways: Record<string, string> = {};
  const flying: Record<string, string> = {};
  const powers = new Map<string, FoldedRow<PowerFound>>();
  const trials = new Map<string, FoldedRow<TrialFlown>>();
  const marks = new Map<string, TimerMarked>();
  const measured = new Map<string, Measured>();
  const overruled = new Map<string, Record<string, FoldedOverruling>>();
  const gear: { now: Folded['gear'] } = { now: null };
  const gearLog: GearNote[] = [];
  const explained: Folded['explained'] = {};
  const overrides: Folded['overrides'] = {};
  const undone = new Set(events.filter((e) => e.type === 'undone').map((e) => e.subjectId));
  const seen = new Set<string>();
  const book = new Numbering(undone);
  for (const event of ordered(events)) {
    if (seen.has(event.eventId)) continue;
    seen.add(event.eventId);
    const { subjectId } = event;
    if (event.type === 'wind-logged') winds[event.sortieId] = event.payload as LoggedWind;
    if (event.type === 'runway-set') runways[event.sortieId] = (event.payload as { runwayEnd: string }).runwayEnd;
    if (event.type === 'limit-overridden') overrides[event.sortieId] = said(event);
    if (event.type === 'pilot-swapped') flying[event.sortieId] = (event.payload as { pilotId: string }).pilotId;
    book.note(event);
    if (undone.has(subjectId)) continue;
    noteGear(gearLog, event);
    if (gear.now) gear.now = { ...gear.now, since: [...gear.now.since, ...endsAgreement(event)] };
    switch (event.type) {
      case 'gear-checked':
        gear.now = { at: event.deviceTime, check: event.payload as GearChecked, since: [] };
        break;
      case 'field-set': {
        const { field, value } = event.payload as { field: string; value: unknown };
        drafts.set(subjectId, { ...drafts.get(subjectId), [field]: value });
        break;
      }
      case 'landing-saved':
        if (!landings.has(subjectId))
          landings.set(subjectId, {
            id: subjectId,
            number: book.numberOf(subjectId),
            first: false,
            sortieId: event.sortieId,
            author: event.author,
            savedAt: event.deviceTime,
            landing: landingOf(event.payload),
            measured: null,
            overruled: {},
          });
        break;
      case 'measured':
        measured.set(subjectId, event.payload as Measured);
        break;
      case 'overruled': {
        const { what, to, reason } = event.payload as Overruling;
        const rest = Object.fromEntries(Object.entries(overruled.get(subjectId) ?? {}).filter(([k]) => k !== what));
        overruled.set(
          subjectId,
          to === null ? rest : { ...rest, [what]: { to, reason, author: event.author, at: event.deviceTime } },
        );
        break;
      }
      case 'stop-explained':
        explained[subjectId] = said(event);
        break;
      case 'corrected': {
        const before = landings.get(subjectId);
        if (before) landings.set(subjectId, { ...before, landing: landingOf(event.payload) });
        break;
      }
      case 'item-observed':
        items.set(subjectId, {
          id: subjectId,
          sortieId: event.sortieId,
          at: event.deviceTime,
          data: itemOf(event.payload),
          measured: [],
          overruled: null,
        });
        break;
      case 'power-found':
        powers.set(subjectId, {
          id: subjectId,
          sortieId: event.sortieId,
          author: event.author,
          at: event.deviceTime,
          data: event.payload as PowerFound,
        });
        break;
      case 'trial-flown':
        trials.set(subjectId, {
          id: subjectId,
          sortieId: event.sortieId,
          author: event.author,
          at: event.deviceTime,
          data: event.payload as TrialFlown,
        });
        break;
      case 'timer-marked':
        marks.set(subjectId, event.payload as TimerMarked);
        break;
      case 'item-waived': {
        const waiver = event.payload as { itemId: string; reason: string };
        waivers.set(subjectId, { id: subjectId, sortieId: event.sortieId, ...waiver });
        break;
      }
      // Read above, because they speak for the whole flight and not for one subject.
      case 'wind-logged':
      case 'runway-set':
      case 'pilot-swapped':
      case 'limit-overridden':
      case 'undone':
      // Said of the wheels: `endsAgreement` above.
      case 'gear-event':
        break;
    }
  }
  for (const [id, m] of measured) {
    const landing = landings.get(id);
    if (landing && Object.keys(m.values).length > 0) landings.set(id, { ...landing, measured: m });
    const item = items.get(id);
    if (item && m.item)
      items.set(id, {
        ...item,
        data: { ...item.data, verdict: m.item.verdict, detail: m.item.detail },
        measured: Object.keys(m.values),
      });
  }
  for (const [id, by] of overruled) {
    const landing = landings.get(id);
    if (landing) landings.set(id, { ...landing, overruled: by });
    const item = items.get(id);
    if (item && by.item)
      items.set(id, {
        ...item,
        overruled: { ...by.item, computed: item.data.verdict },
        data: { ...item.data, verdict: by.item.to as ItemObserved['verdict'] },
      });
  }
  for (const id of landings.keys()) drafts.delete(id);
  for (const id of book.firsts()) {
    const landing = landings.get(id);
    if (landing) landings.set(id, { ...landing, first: true });
  }
  return {
    landings: byNumber([...landings.values()]),
    changes: book.changes(),
    numbered: book.numbered,
    drafts: Object.fromEntries(drafts),
    items: [...items.values()],
    waivers: [...waivers.values()],
    gear: gear.now,
    gearLog,
    explained,
    overrides,
    powers: [...powers.values()],
    trials: [...trials.values()],
    marks: [...marks.values()],
    runways,
    flying,
    winds,
  };
}

/** Flights in the order they began, the landings of each by their number. */
function byNumber(landings: readonly FoldedLanding[]): FoldedLanding[] {
  const flights = [...new Set(landings.map((l) => l.sortieId))];
  return flights.flatMap((f) => landings.filter((l) => l.sortieId === f).sort((a, b) => a.number - b.number));
}

interface Saved {
  sortieId: string;
  number: number;
  now: CapturedLanding;
  replacedBy: string | null;
}
/** Numbers given once, and what was put right or taken back: neither is lost by an undo. */
class Numbering {
  readonly numbered: Record<string, number> = {};
  private readonly saved = new Map<string, Saved>();
  private readonly items = new Map<string, ItemObserved>();
  private readonly found: FoldedChange[] = [];

  constructor(private readonly undone: ReadonlySet<string>) {}

  note(event: CaptureEvent): void {
    const { subjectId: subject, sortieId, type } = event;
    const known = this.saved.get(subject);
    if (type === 'landing-saved' && !known) {
      const now = landingOf(event.payload);
      // Only what was taken back can be flown again in its place.
      const before = now.replaces !== null && this.undone.has(now.replaces) ? this.saved.get(now.replaces) : undefined;
      const same = before?.sortieId === sortieId && before.replacedBy === null ? before : undefined;
      if (same) same.replacedBy = subject;
      const number = same ? same.number : (this.numbered[sortieId] ?? 0) + 1;
      this.numbered[sortieId] = Math.max(this.numbered[sortieId] ?? 0, number);
      this.saved.set(subject, { sortieId, number, now, replacedBy: null });
    }
    if (type === 'item-observed') this.items.set(subject, itemOf(event.payload));
    if (type !== 'corrected' && type !== 'undone') return;
    const item = this.items.get(subject);
    const by = { subject, sortieId, author: event.author, at: event.deviceTime, replacedBy: null };
    if (known) {
      const after = type === 'corrected' ? landingOf(event.payload) : null;
      this.found.push({ ...by, what: 'landing', number: known.number, change: type, before: known.now, after });
      if (after) known.now = after;
    } else if (item && type === 'undone')
      this.found.push({ ...by, what: 'item', number: null, change: type, before: item, after: null });
  }

  numberOf(subject: string): number {
    return this.saved.get(subject)?.number ?? 0;
  }

  changes(): FoldedChange[] {
    return this.found.map((c) => ({ ...c, replacedBy: this.saved.get(c.subject)?.replacedBy ?? null }));
  }

  /** The first touch of each pilot in each flight, among all that were saved and not replaced. */
  firsts(): string[] {
    const first = new Map<string, { id: string; number: number }>();
    for (const [id, s] of this.saved) {
      if (s.replacedBy !== null) continue;
      if (s.now.kind === 'go-around' || s.now.kind === 'low-pass') continue;
      const key = `${s.sortieId} ${s.now.pilotId ?? ''}`;
      const known = first.get(key);
      if (!known || s.number < known.number) first.set(key, { id, number: s.number });
    }
    return [...first.values()].map((f) => f.id);
  }
}

const said = (event: CaptureEvent) => ({
  reason: (event.payload as { reason: string }).reason,
  author: event.author,
  at: event.deviceTime,
});

function noteGear(log: GearNote[], event: CaptureEvent): void {
  const check = event.type === 'gear-checked' ? (event.payload as GearChecked) : null;
  const ends = endsAgreement(event);
  if (check === null && ends.length === 0) return;
  // A landing ends an agreement when it was flown, not when it was saved.
  const at =
    event.type === 'landing-saved'
      ? ((event.payload as CapturedLanding).endedAt ?? event.deviceTime)
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

/** What an event does to an agreement of wheels and surface. */
function endsAgreement(event: CaptureEvent): string[] {
  if (event.type === 'gear-event') return [(event.payload as { kind: string }).kind];
  if (event.type !== 'landing-saved') return [];
  const { kind } = event.payload as CapturedLanding;
  return kind === 'go-around' || kind === 'touch-and-go' ? [kind] : [];
}
