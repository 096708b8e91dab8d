import type { Transaction } from 'sequelize';
import { judgeCaptured } from '@/core/assess';
import { usableEnds } from '@/core/approach';
import { gearMassGroup } from '@/core/plan';
import { ktPerUnit } from '@/core/speeds';
import { components, convertReference } from '@/core/wind';
import { type CaptureEvent, CaptureEventSchema, PAYLOADS } from '@/domain/capture';
import { type SyncAnswer, fold } from '@/offline/protocol';
import { type CurrentUser, may } from '../auth/permissions';
import { nowIso } from '../clock';
import { contentById, homeAerodrome } from '../content';
import { row, rows } from '../db/connection';
import { model } from '../db/models';
import { write } from '../db/write';
import { checkoutHead, eventsOf, sortiesOf } from '../queries/checkout';

/**
 * Takes capture events from a device. An event already here counts as accepted, so that sending twice is harmless.
 * Events are refused one by one with a reason; the rest of the batch is kept.
 */
export async function recordEvents(user: CurrentUser, raw: readonly unknown[]): Promise<SyncAnswer> {
  const answer: SyncAnswer = { accepted: [], refused: [], held: [] };
  const events: CaptureEvent[] = [];
  for (const item of raw) {
    const checked = checkEvent(item);
    if ('event' in checked) events.push(checked.event);
    else answer.refused.push(checked);
  }
  await write(async (t) => {
    const touched = new Set<string>();
    const sorties = new Map<string, string | null>();
    for (const event of events) {
      if (event.author !== user.id) {
        answer.held.push({ eventId: event.eventId, message: 'These belong to another account. They wait here until their author signs in.' });
        continue;
      }
      const refusal = await refuse(user, event, sorties, t);
      if (refusal) {
        answer.refused.push({ eventId: event.eventId, message: refusal });
        continue;
      }
      const known = await row<{ event_id: string }>('SELECT event_id FROM capture_events WHERE event_id = :e OR (device_id = :d AND device_seq = :s)', { e: event.eventId, d: event.deviceId, s: event.deviceSeq }, t);
      if (known && known.event_id !== event.eventId) {
        answer.refused.push({ eventId: event.eventId, message: 'This device has used the same counter for another event. Reload the page so that it takes a new device number.' });
        continue;
      }
      if (!known) {
        await model('capture_events').create(
          {
            event_id: event.eventId, device_id: event.deviceId, device_seq: event.deviceSeq, sortie_id: event.sortieId, subject_id: event.subjectId, author: event.author,
            type: event.type, v: event.v, device_time: new Date(event.deviceTime).toISOString(), payload: JSON.stringify(event.payload), received_at: nowIso(),
          },
          { transaction: t },
        );
        if (event.type !== 'field-set') touched.add(event.sortieId);
      }
      answer.accepted.push(event.eventId);
    }
    for (const sortieId of touched) await projectSortie(sortieId, t);
  });
  return answer;
}

function checkEvent(item: unknown): { event: CaptureEvent } | { eventId: string; message: string } {
  const parsed = CaptureEventSchema.safeParse(item);
  if (!parsed.success) {
    const id = (item as { eventId?: unknown } | null)?.eventId;
    return { eventId: typeof id === 'string' ? id : 'unknown', message: `Not a capture event: ${parsed.error.issues.map((i) => `${i.path.join('.')} ${i.message}`).join('; ')}` };
  }
  const event = parsed.data;
  const payload = PAYLOADS[event.type].safeParse(event.payload);
  if (!payload.success) return { eventId: event.eventId, message: `${event.type}: ${payload.error.issues.map((i) => `${i.path.join('.')} ${i.message}`).join('; ')}` };
  return { event: { ...event, payload: payload.data } };
}

async function refuse(user: CurrentUser, event: CaptureEvent, sorties: Map<string, string | null>, t: Transaction): Promise<string | null> {
  if (!sorties.has(event.sortieId)) {
    const found = await row<{ pilot_id: string }>('SELECT c.pilot_id FROM sorties s JOIN checkouts c ON c.id = s.checkout_id WHERE s.id = :id', { id: event.sortieId }, t);
    sorties.set(event.sortieId, found?.pilot_id ?? null);
  }
  const pilotId = sorties.get(event.sortieId) ?? null;
  return pilotId !== null && may.runCheckout(user, { pilotId }) ? null : 'There is no such flight for you to record.';
}

/** Rebuilds the landings of one sortie from its events. Deterministic: the same events always give the same rows. */
export async function projectSortie(sortieId: string, t: Transaction): Promise<void> {
  const where = await row<{ checkout_id: string }>('SELECT checkout_id FROM sorties WHERE id = :sortieId', { sortieId }, t);
  const head = where && (await checkoutHead(where.checkout_id, t));
  if (!head) return;
  const sortie = (await sortiesOf(head.id, t)).find((s) => s.id === sortieId);
  const standard = await contentById('standard', head.standardId, t);
  const folded = fold(await eventsOf({ sortieId }, ['landing-saved', 'corrected', 'undone'], t));
  const gates = sortie?.brief?.snapshot.gates ?? [];
  const fenceTarget = gates[gates.length - 1]?.target ?? null;
  const { unit } = head.sheet.dial;
  await model('landings').destroy({ where: { sortie_id: sortieId }, transaction: t });
  for (const [index, { id, author, savedAt, landing }] of folded.landings.entries()) {
    const judged = judgeCaptured(landing, { standard, fenceTarget, ktPerUnit: ktPerUnit(unit), unit });
    await model('landings').create(
      {
        id, sortie_id: sortieId, checkout_id: head.id, pilot_id: head.pilotId, number: index + 1, kind: landing.kind, landing_class: judged.landingClass, intended: landing.intended,
        gear_group: gearMassGroup(head.sheet), ...(await loggedCrosswind(landing, savedAt, t)), flown_on: sortie?.flownOn ?? savedAt.slice(0, 10), saved_at: savedAt, author,
        captured: JSON.stringify(landing), judged: JSON.stringify(judged),
      },
      { transaction: t },
    );
  }
}

async function loggedCrosswind(landing: { wind: { fromDegMag: number; kt: number; at: string } | null; runwayEnd: string; endedAt: string | null }, savedAt: string, t: Transaction) {
  const aerodrome = await homeAerodrome(t);
  const end = usableEnds(aerodrome, 'amphibian').find((e) => e.ident === landing.runwayEnd);
  if (!landing.wind || !end) return { crosswind_kt: null, wind_age_min: null };
  const runwayMag = convertReference(end.trueBearingDeg, 'true', 'magnetic', aerodrome.variationDeg);
  const touchedAt = landing.endedAt ?? savedAt;
  return {
    crosswind_kt: components(landing.wind.fromDegMag, landing.wind.kt, null, runwayMag).crosswindKt,
    wind_age_min: Math.abs(Date.parse(touchedAt) - Date.parse(landing.wind.at)) / 60_000,
  };
}

/** Rebuilds every landing from the events: the projection can be thrown away at any time. */
export async function rebuildLandings(): Promise<number> {
  const sorties = await rows<{ id: string }>('SELECT id FROM sorties');
  await write(async (t) => {
    for (const { id } of sorties) await projectSortie(id, t);
  });
  return sorties.length;
}

