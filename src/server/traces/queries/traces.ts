import type { Standard } from '@/domain/programme';
import { type Measure, type MeasureContext, type Pair, measuresOf, pairAirwork, pairLandings } from '@/core/trace';
import { touchdownPoint } from '@/core/sheet';
import { ktPerUnit } from '@/core/speeds';
import { AIRWORK_KINDS, type AirworkKind } from '@/domain/airwork';
import type { AirworkDetail, CapturedLanding, ItemObserved, Measured } from '@/domain/capture';
import { TraceAnalysis, TraceContext } from '@/domain/trace';
import type { CheckoutStatus, LimitChannel } from '@/domain/words';
import { fold } from '@/offline/protocol';
import { type CurrentUser, may } from '../../floor/auth/permissions';
import { row, rows } from '../../floor/connection';
import { checkoutRecord } from '../../checkout/queries/record';
import { eventsOf } from '../../checkout/queries/flights';
import { checkoutHead } from '../../checkout/queries/head';
import { type GroundingEnd, endOf } from '../../hangar/queries/groundings';

interface TraceRow {
  id: string;
  sortie_id: string;
  hash: string;
  name: string;
  bytes: number;
  mapping: string | null;
  context: string;
  analysis: string;
  start_utc: string | null;
  uploaded_at: string;
  uploaded_by: string;
  uploader: string;
  checkout_id: string;
  pilot_id: string;
  pilot_name: string;
  lesson: number;
  flown_on: string;
  registration: string;
  status: CheckoutStatus;
  instructor_id: string;
}
const SELECT = `SELECT t.*, u.name AS uploader, s.checkout_id, s.lesson, s.flown_on, s.instructor_id, c.pilot_id, c.status, p.name AS pilot_name, a.registration
  FROM traces t JOIN sorties s ON s.id = t.sortie_id JOIN checkouts c ON c.id = s.checkout_id JOIN pilots p ON p.id = c.pilot_id JOIN users u ON u.id = t.uploaded_by JOIN airframes a ON a.id = t.airframe_id`;

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
const headOf = (r: TraceRow): TraceHead => ({
  id: r.id,
  name: r.name,
  bytes: r.bytes,
  hash: r.hash,
  sortieId: r.sortie_id,
  checkoutId: r.checkout_id,
  pilotName: r.pilot_name,
  registration: r.registration,
  lesson: r.lesson,
  flownOn: r.flown_on,
  uploader: r.uploader,
  uploadedAt: r.uploaded_at,
  startUtc: r.start_utc,
  status: r.status,
});

/** Recordings this user may see, newest flight first, with how much was found. */
export async function traceList(
  user: CurrentUser,
  checkoutId: string | null = null,
): Promise<(TraceHead & { events: number; airwork: number; limits: number })[]> {
  const found = await rows<TraceRow>(
    `${SELECT} WHERE (:checkoutId IS NULL OR s.checkout_id = :checkoutId) ORDER BY s.flown_on DESC, t.uploaded_at DESC LIMIT 200`,
    { checkoutId },
  );
  return found
    .filter((r) => may.viewCheckout(user, { pilotId: r.pilot_id }))
    .map((r) => {
      const a = JSON.parse(r.analysis) as TraceAnalysis;
      return { ...headOf(r), events: a.events.length, airwork: a.airwork.length, limits: a.exceedances.length };
    });
}

export interface LimitPassed {
  id: string;
  traceId: string;
  registration: string;
  channel: LimitChannel;
  limit: number;
  unit: string;
  peak: number;
  startS: number;
  durationS: number;
  mustDo: string;
  mustDoSource: string | null;
  flownOn: string;
  pilotName: string;
  released: GroundingEnd | null;
  /** May this user release it? */
  releases: boolean;
}
/** Limits passed, of one trace, or all that are not released. */
export async function limitsPassed(user: CurrentUser, where: { traceId: string } | 'open'): Promise<LimitPassed[]> {
  const found = await rows<{
    id: string;
    trace_id: string;
    registration: string;
    channel: LimitChannel;
    limit_value: number;
    unit: string;
    peak: number;
    start_s: number;
    duration_s: number;
    must_do: string;
    must_do_source: string | null;
    flown_on: string;
    pilot_name: string;
    pilot_id: string;
    instructor_id: string;
    by_name: string | null;
    released_at: string | null;
    done: string | null;
    certifier: string | null;
    certificate: string | null;
    dial: 'kt' | 'mph';
  }>(
    `SELECT e.*, json_extract(tv.sheet, '$.dial.unit') AS dial, a.registration, s.flown_on, s.instructor_id, c.pilot_id, p.name AS pilot_name, u.name AS by_name, r.released_at, r.done, r.certifier, r.certificate FROM exceedances e JOIN airframes a ON a.id = e.airframe_id JOIN sorties s ON s.id = e.sortie_id
     JOIN checkouts c ON c.id = s.checkout_id JOIN pilots p ON p.id = c.pilot_id JOIN type_versions tv ON tv.id = c.type_version_id LEFT JOIN exceedance_releases r ON r.exceedance_id = e.id LEFT JOIN users u ON u.id = r.released_by
     WHERE ${where === 'open' ? 'r.id IS NULL' : 'e.trace_id = :traceId'} ORDER BY s.flown_on DESC, e.start_s`,
    where === 'open' ? {} : where,
  );
  return found.map((e) => ({
    id: e.id,
    traceId: e.trace_id,
    registration: e.registration,
    channel: e.channel,
    ...inDial(e.limit_value, e.peak, e.unit, e.dial),
    startS: e.start_s,
    durationS: e.duration_s,
    mustDo: e.must_do,
    mustDoSource: e.must_do_source,
    flownOn: e.flown_on,
    pilotName: e.pilot_name,
    released: endOf({ ...e, at: e.released_at, by: e.by_name }),
    releases: may.releaseExceedance(user, { pilotId: e.pilot_id, instructorId: e.instructor_id }),
  }));
}

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
  const r = await row<TraceRow>(`${SELECT} WHERE t.id = :id`, { id });
  if (!r || !may.viewCheckout(user, { pilotId: r.pilot_id })) return null;
  const analysis = TraceAnalysis.parse(JSON.parse(r.analysis));
  return {
    ...headOf(r),
    analysis,
    context: TraceContext.parse(JSON.parse(r.context)),
    mapping: r.mapping === null ? null : (JSON.parse(r.mapping) as unknown),
    runs: may.runCheckout(user, { pilotId: r.pilot_id }),
    limits: await limitsPassed(user, { traceId: id }),
    join: () => joinOf(r, analysis),
  };
}

/** Found and tapped side by side. */
async function joinOf(r: TraceRow, analysis: TraceAnalysis): Promise<Joined> {
  const head = await checkoutHead(r.checkout_id);
  if (!head) throw new Error(`no checkout ${r.checkout_id}`);
  const record = await checkoutRecord(head);
  const sortie = record.sorties.find((s) => s.id === r.sortie_id);
  const gates = sortie?.brief?.snapshot.gates ?? [];
  const context: MeasureContext = {
    touchdownM: touchdownPoint(head.sheet),
    trackM: head.sheet.gear.trackM.value,
    boxM: record.standard.boxM,
    fenceTarget: gates[gates.length - 1]?.target ?? null,
    ktPerUnit: ktPerUnit(head.sheet.dial.unit),
  };
  const startMs = r.start_utc === null ? null : Date.parse(r.start_utc);
  // Every landing of the flight, whoever flew it, in the order it was saved.
  const flown = await rows<{
    id: string;
    number: number;
    kind: 'full-stop';
    captured: string;
    measured: string | null;
    saved_at: string;
  }>(
    'SELECT id, number, kind, captured, measured, saved_at FROM landings WHERE sortie_id = :s OR sortie_id IN (SELECT id FROM sorties WHERE shared_with = :s) ORDER BY saved_at',
    { s: r.sortie_id },
  );
  const landings = flown.map((l) => ({
    id: l.id,
    number: l.number,
    kind: l.kind,
    captured: JSON.parse(l.captured) as CapturedLanding,
    measured: l.measured === null ? null : (JSON.parse(l.measured) as Measured),
    savedAt: l.saved_at,
  }));
  const pairs = pairLandings(
    analysis.events,
    landings.map((l) => ({ id: l.id, kind: l.kind, endedMs: Date.parse(l.captured.endedAt ?? l.savedAt) })),
    startMs,
  );
  const folded = fold(await eventsOf({ sortieId: r.sortie_id }, ['item-observed', 'undone', 'measured']));
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
  const found = await rows<{
    id: string;
    pilot_id: string;
    pilot_name: string;
    registration: string;
    lesson: number;
    flown_on: string;
  }>(
    'SELECT s.id, s.lesson, s.flown_on, c.pilot_id, p.name AS pilot_name, a.registration FROM sorties s JOIN checkouts c ON c.id = s.checkout_id JOIN pilots p ON p.id = c.pilot_id JOIN airframes a ON a.id = c.airframe_id WHERE s.shared_with IS NULL ORDER BY s.flown_on DESC, p.name LIMIT 120',
  );
  return found
    .filter((f) => may.runCheckout(user, { pilotId: f.pilot_id }))
    .map((f) => ({
      id: f.id,
      pilotName: f.pilot_name,
      registration: f.registration,
      lesson: f.lesson,
      flownOn: f.flown_on,
    }));
}
