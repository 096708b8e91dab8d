import type { CaptureEvent, CapturedLanding, GearChecked, ItemObserved, LoggedWind } from '@/domain/capture';

export interface FoldedLanding { id: string; sortieId: string; author: string; savedAt: string; landing: CapturedLanding }
export interface FoldedItem { id: string; sortieId: string; at: string; data: ItemObserved }
export interface Folded {
  landings: FoldedLanding[];
  /** Fields tapped for a landing that was never saved: they come back as a draft and are never counted. */
  drafts: Record<string, Record<string, unknown>>;
  items: FoldedItem[];
  waivers: { id: string; itemId: string; reason: string }[];
  /** The newest check of wheels against surface, and what has happened since that ends its agreement. */
  gear: { at: string; check: GearChecked; since: string[] } | null;
  /** The newest wind logged per sortie. */
  winds: Record<string, LoggedWind>;
}

/** Order of events: time, then device, then the device's own counter. */
export const inOrder = (a: CaptureEvent, b: CaptureEvent): number =>
  Date.parse(a.deviceTime) - Date.parse(b.deviceTime) || (a.deviceId < b.deviceId ? -1 : a.deviceId > b.deviceId ? 1 : a.deviceSeq - b.deviceSeq);

/** Folds events, in any order and with repeats, into what they mean now. An event type not known here is passed over. */
export function fold(events: readonly CaptureEvent[]): Folded {
  const landings = new Map<string, FoldedLanding>();
  const drafts = new Map<string, Record<string, unknown>>();
  const items = new Map<string, FoldedItem>();
  const waivers = new Map<string, { id: string; itemId: string; reason: string }>();
  const winds: Record<string, LoggedWind> = {};
  const gear: { now: Folded['gear'] } = { now: null };
  const undone = new Set(events.filter((e) => e.type === 'undone').map((e) => e.subjectId));
  const seen = new Set<string>();
  for (const event of [...events].sort(inOrder)) {
    if (seen.has(event.eventId)) continue;
    seen.add(event.eventId);
    const { subjectId } = event;
    if (event.type === 'wind-logged') winds[event.sortieId] = event.payload as LoggedWind;
    if (undone.has(subjectId)) continue;
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
        if (!landings.has(subjectId)) landings.set(subjectId, { id: subjectId, sortieId: event.sortieId, author: event.author, savedAt: event.deviceTime, landing: event.payload as CapturedLanding });
        break;
      case 'corrected': {
        const before = landings.get(subjectId);
        if (before) landings.set(subjectId, { ...before, landing: event.payload as CapturedLanding });
        break;
      }
      case 'item-observed':
        items.set(subjectId, { id: subjectId, sortieId: event.sortieId, at: event.deviceTime, data: event.payload as ItemObserved });
        break;
      case 'item-waived': {
        const waiver = event.payload as { itemId: string; reason: string };
        waivers.set(subjectId, { id: subjectId, ...waiver });
        break;
      }
      default:
        break;
    }
  }
  for (const id of landings.keys()) drafts.delete(id);
  return { landings: [...landings.values()], drafts: Object.fromEntries(drafts), items: [...items.values()], waivers: [...waivers.values()], gear: gear.now, winds };
}

/** What an event does to an agreement of wheels and surface. */
function endsAgreement(event: CaptureEvent): string[] {
  if (event.type === 'gear-event') return [(event.payload as { kind: string }).kind];
  if (event.type !== 'landing-saved') return [];
  const { kind } = event.payload as CapturedLanding;
  return kind === 'go-around' || kind === 'touch-and-go' ? [kind] : [];
}
