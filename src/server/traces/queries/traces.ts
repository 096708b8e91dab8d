import type { Standard } from '@/domain/programme';
import { type Measure, type MeasureContext, type Pair, measuresOf, pairAirwork, pairLandings } from '@/core/trace';
import { touchdownPoint } from '@/core/sheet';
import { ktPerUnit } from '@/core/speeds';
import { AIRWORK_KINDS, type AirworkKind } from '@/domain/airwork';
import type { AirworkDetail, CapturedLanding, ItemObserved, Measured } from '@/domain/capture';
import type { TraceAnalysis, TraceContext } from '@/domain/trace';
import type { CheckoutStatus, LimitChannel } from '@/domain/words';
import { fold, affecting } from '@/offline/protocol';
import { type CurrentUser, may } from '../../floor/auth/permissions';
import { checkoutRecord } from '../../checkout/queries/record';
import { eventsOf } from '../../checkout/queries/flights';
import { checkoutHead } from '../../checkout/queries/head';
import { type GroundingEnd, endOf } from '../../hangar/queries/groundings';
import { Sorties } from '../../checkout/tables';
import type { RowOf } from '../../floor/statement';
import * as ask from '../../floor/statements/traces';

type TraceRow = RowOf<typeof ask.traceById>;

export interface TraceHead {
  id: string;
  name: string;
  bytes: number;
  hash: string;
  sortieId: string;
  checkoutId: string;
  pilotName: string;
  registration: string;
  lesson: number;
  flownOn: string;
  uploader: string;
  uploadedAt: string;
  startUtc: string | null;
  status: CheckoutStatus;
}
const headOf = (r: Omit<TraceRow, 'mapping' | 'context' | 'analysis'>): TraceHead => ({
  id: r.id,
  name: r.name,
  bytes: r.bytes,
  hash: r.hash,
  sortieId: r.sortieId,
  checkoutId: r.checkoutId,
  pilotName: r.pilotName,
  registration: r.registration,
  lesson: r.lesson,
  flownOn: r.flownOn,
  uploader: r.uploader,
  uploadedAt: r.uploadedAt,
  startUtc: r.startUtc,
  status: r.status,
});

/** Recordings this user may see, newest flight first, with how much was found. */
export async function traceList(
  user: CurrentUser,
  checkoutId: string | null = null,
): Promise<(TraceHead & { events: number; airwork: number; limits: number; joinedOf: string[] | null })[]> {
  const found = await ask.traceList.all({ checkoutId });
  return found
    .filter((r) => may.viewCheckout(user, { pilotId: r.pilotId }))
    .map((r) => {
      const { events, airwork, limits, joined } = r;
      const of = joined === null ? null : (JSON.parse(joined) as { name: string }[]).map((j) => j.name);
      return { ...headOf(r), events, airwork, limits, joinedOf: of };
    });
}

export interface LimitPassed {
  id: string;
  /** Null where it was seen by eye: then nothing was measured, and `seenBy` says who saw it. */
  traceId: string | null;
  seenBy: string | null;
  registration: string;
  channel: LimitChannel;
  measured: { limit: number; unit: string; peak: number; startS: number; durationS: number } | null;
  mustDo: string;
  mustDoSource: string | null;
  flownOn: string;
  foundAt: string;
  checkoutId: string;
  pilotName: string;
  released: GroundingEnd | null;
  /** May this user release it? */
  releases: boolean;
}
/** Limits passed, of one trace, or all that are not released. */
export async function limitsPassed(
  user: CurrentUser,
  where: { traceId: string } | { sortieId: string } | { from: string; to: string } | 'open',
): Promise<LimitPassed[]> {
  const found =
    where === 'open'
      ? await ask.limitsOpen.all()
      : 'traceId' in where
        ? await ask.limitsOfTrace.all({ traceId: where.traceId })
        : 'sortieId' in where
          ? await ask.limitsOfRecordings.all({ sortieId: where.sortieId })
          : await ask.limitsFound.all(where);
  return found.map((e) => ({
    id: e.id,
    traceId: e.traceId,
    registration: e.registration,
    channel: e.channel,
    seenBy: e.seenByName,
    measured: measuredOf(e),
    mustDo: e.mustDo,
    mustDoSource: e.mustDoSource,
    flownOn: e.flownOn,
    foundAt: e.foundAt,
    checkoutId: e.checkoutId,
    pilotName: e.pilotName,
    released: endOf({ ...e, at: e.releasedAt, by: e.byName }),
    releases: may.releaseExceedance(user, { pilotId: e.pilotId, instructorId: e.instructorId }),
  }));
}

type Amounts = Pick<RowOf<typeof ask.limitsOpen>, 'limitValue' | 'peak' | 'unit' | 'dial' | 'startS' | 'durationS'>;
/** How far and how long a recording says it was; null = seen by eye. */
const measuredOf = (e: Amounts): LimitPassed['measured'] =>
  e.limitValue === null || e.peak === null || e.startS === null || e.durationS === null
    ? null
    : { ...inDial(e.limitValue, e.peak, e.unit, e.dial), startS: e.startS, durationS: e.durationS };

/** A speed in the unit painted on the dial; anything else as it is. */
export const inDial = (limit: number, peak: number, unit: string, dial: 'kt' | 'mph') =>
  unit === 'kt'
    ? { limit: Math.round(limit / ktPerUnit(dial)), peak: peak / ktPerUnit(dial), unit: dial as string }
    : { limit, peak, unit };

export interface JoinedLanding extends Pair {
  landing: { id: string; number: number; kind: string; captured: CapturedLanding; measured: Measured | null } | null;
  measures: Measure[];
  atS: number;
}
export interface JoinedItem {
  found: TraceAnalysis['airwork'][number];
  foundIndex: number;
  tapped: {
    id: string;
    itemId: string;
    verdict: ItemObserved['verdict'];
    kind: AirworkKind | null;
    detail: AirworkDetail | null;
    measured: readonly string[];
  } | null;
}
export interface Joined {
  landings: JoinedLanding[];
  items: JoinedItem[];
  standard: Standard;
  unit: 'kt' | 'mph';
  context: MeasureContext;
}
export interface TraceView extends TraceHead {
  analysis: TraceAnalysis;
  context: TraceContext;
  mapping: unknown;
  runs: boolean;
  limits: LimitPassed[];
  join: () => Promise<Joined>;
}

/** One recording; null when it is not there or not this user's to see: the two answer alike. */
export async function traceById(user: CurrentUser, id: string): Promise<TraceView | null> {
  const r = await ask.traceById.one({ id });
  if (!r || !may.viewCheckout(user, { pilotId: r.pilotId })) return null;
  const analysis = r.analysis;
  return {
    ...headOf(r),
    analysis,
    context: r.context,
    mapping: r.mapping,
    runs: may.runCheckout(user, { pilotId: r.pilotId }),
    // A joined recording shows what either of its own passed.
    limits: await limitsPassed(user, analysis.source.joined ? { sortieId: r.sortieId } : { traceId: id }),
    join: () => joinOf(r, analysis),
  };
}

/** Found and tapped side by side. */
async function joinOf(r: TraceRow, analysis: TraceAnalysis): Promise<Joined> {
  const head = await checkoutHead(r.checkoutId);
  if (!head) throw new Error(`no checkout ${r.checkoutId}`);
  const record = await checkoutRecord(head);
  const sortie = record.sorties.find((s) => s.id === r.sortieId);
  const gates = sortie?.brief?.snapshot.gates ?? [];
  const context: MeasureContext = {
    touchdownM: touchdownPoint(head.sheet),
    trackM: head.sheet.gear.trackM.value,
    boxM: record.standard.boxM,
    fenceTarget: gates[gates.length - 1]?.target ?? null,
    ktPerUnit: ktPerUnit(head.sheet.dial.unit),
  };
  const startMs = r.startUtc === null ? null : Date.parse(r.startUtc);
  // Every landing of the flight, whoever flew it, in the order it was saved.
  const flown = await ask.joinOf.all({ s: r.sortieId });
  const landings = flown.map((l) => ({
    id: l.id,
    number: l.number,
    kind: l.kind,
    captured: l.captured,
    measured: l.measured,
    savedAt: l.savedAt,
  }));
  const pairs = pairLandings(
    analysis.events,
    landings.map((l) => ({ id: l.id, kind: l.kind, endedMs: Date.parse(l.captured.endedAt ?? l.savedAt) })),
    startMs,
  );
  const folded = fold(await eventsOf({ sortieId: r.sortieId }, affecting('items')));
  const kindOf = (d: ItemObserved): AirworkKind | null =>
    d.detail?.form === 'numbers'
      ? d.detail.kind
      : d.detail?.form === 'stall' || d.detail?.form === 'energy' || d.detail?.form === 'asymmetric'
        ? d.detail.form
        : (AIRWORK_KINDS.find((k) => d.itemId === `also:${k}`) ?? null);
  const items = folded.items.map((i) => ({
    id: i.id,
    itemId: i.data.itemId,
    verdict: i.data.verdict,
    kind: kindOf(i.data),
    detail: i.data.detail,
    measured: i.measured,
    atMs: Date.parse(i.at),
  }));
  return {
    landings: pairs.map((p): JoinedLanding => {
      const landing = landings.find((l) => l.id === p.tappedId) ?? null;
      return {
        ...p,
        landing,
        measures: p.found && landing ? measuresOf(p.found, landing.captured, context) : [],
        atS: p.found?.touchdown?.tS ?? p.found?.startS ?? 0,
      };
    }),
    items: pairAirwork(analysis.airwork, items, startMs).map((p): JoinedItem => ({
      found: p.found,
      foundIndex: p.foundIndex,
      tapped: items.find((i) => i.id === p.tappedId) ?? null,
    })),
    standard: record.standard,
    unit: head.sheet.dial.unit,
    context,
  };
}

/** Flights a recording can be added to: of checkouts this user runs, flown or briefed, newest first. */
export async function flightsToRecord(
  user: CurrentUser,
): Promise<{ id: string; pilotName: string; registration: string; lesson: number; flownOn: string }[]> {
  const found = await Sorties.find({
    where: { sharedWith: null },
    pick: ['id', 'lesson', 'flownOn'],
    with: { checkout: { pick: ['pilotId'], with: { pilot: ['name'], airframe: ['registration'] } } },
    order: ['-flownOn', 'checkout.pilot.name'],
    limit: 120,
  });
  return found
    .filter((f) => may.runCheckout(user, { pilotId: f.checkout.pilotId }))
    .map((f) => ({
      id: f.id,
      pilotName: f.checkout.pilot.name,
      registration: f.checkout.airframe.registration,
      lesson: f.lesson,
      flownOn: f.flownOn,
    }));
}
