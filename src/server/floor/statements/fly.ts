import { z } from 'zod';
import { json, real, text } from '../columns';
import { statement } from '../statement';
import { Checkouts, Sorties } from '../../checkout/tables';
import { LedgerEntries } from '../../ledger/tables';
import { CaptureEvents } from '../../fly/tables';
import { Traces } from '../../traces/tables';

export const sharedLesson = statement('fly.sharedLesson', {
  params: ['checkoutId'],
  sql: `SELECT MAX(lesson) AS lesson FROM sorties WHERE checkout_id = :checkoutId`,
  row: { lesson: real.nullable() },
});

/** Flights with a landing judged by a release that kept its reason as a sentence. */
export const judgedBefore = statement('fly.judgedBefore', {
  params: [],
  sql: `SELECT DISTINCT COALESCE(s.shared_with, s.id) AS id FROM landings l JOIN sorties s ON s.id = l.sortie_id
     WHERE json_type(l.judged, '$.reason') = 'text'`,
  row: { id: Sorties.columns.id },
});

export const flightOf = statement('fly.flightOf', {
  params: ['id'],
  sql: `SELECT c.pilot_id, c.status, l.signed_at, s.checkout_id, s.second_pilot_id, s.second_checkout_id, s.flown_on,
       d.status AS second_status, m.signed_at AS second_signed_at,
       (SELECT json_group_array(u) FROM (SELECT s.instructor_id AS u UNION SELECT c.instructor_id UNION SELECT d.instructor_id WHERE d.id IS NOT NULL UNION SELECT created_by FROM briefs WHERE sortie_id = s.id)) AS instructors,
       (SELECT COUNT(*) FROM capture_events e WHERE e.sortie_id = s.id AND e.type = 'landing-saved') AS landings,
       (SELECT COUNT(*) FROM capture_events e WHERE e.sortie_id = s.id) AS events
     FROM sorties s JOIN checkouts c ON c.id = s.checkout_id LEFT JOIN ledger l ON l.id = c.signed_ledger_id
       LEFT JOIN checkouts d ON d.id = s.second_checkout_id LEFT JOIN ledger m ON m.id = d.signed_ledger_id
     WHERE s.id = :id`,
  row: {
    pilotId: Checkouts.columns.pilotId,
    status: Checkouts.columns.status,
    signedAt: LedgerEntries.columns.signedAt.nullable(),
    checkoutId: Sorties.columns.checkoutId,
    secondPilotId: Sorties.columns.secondPilotId,
    secondCheckoutId: Sorties.columns.secondCheckoutId,
    flownOn: Sorties.columns.flownOn,
    secondStatus: Checkouts.columns.status.nullable(),
    secondSignedAt: LedgerEntries.columns.signedAt.nullable(),
    instructors: json(z.array(z.string())),
    landings: real,
    events: real,
  },
});

export const subjectOf = statement('fly.subjectOf', {
  params: ['subject'],
  sql: `SELECT sortie_id, json_extract(payload, '$.pilotId') AS pilot, type IN ('landing-saved', 'corrected', 'item-observed') AS names
     FROM capture_events WHERE subject_id = :subject ORDER BY rowid`,
  row: { sortieId: CaptureEvents.columns.sortieId, pilot: text.nullable(), names: real },
});

export const subjectOfSorties = statement('fly.subjectOfSorties', {
  params: ['id', 'flight'],
  sql: `SELECT id FROM sorties WHERE id = :id AND shared_with IS NOT :flight`,
  row: { id: Sorties.columns.id },
});

export const factRefusal = statement('fly.factRefusal', {
  params: ['traceId', 'id'],
  sql: `SELECT t.id FROM traces t JOIN sorties s ON s.id = t.sortie_id WHERE t.id = :traceId AND (s.id = :id OR s.shared_with = :id)`,
  row: { id: Traces.columns.id },
});

export const restsOn = statement('fly.restsOn', {
  params: ['checkouts', 'subject'],
  sql: `SELECT l.id FROM ledger l
     WHERE l.checkout_id IN (:checkouts) AND l.kind IN ('sign-off', 'recommendation', 'part-sign-off')
       AND instr(l.canonical, :subject) > 0
       AND NOT EXISTS (SELECT 1 FROM ledger v WHERE v.kind = 'void' AND json_extract(v.canonical, '$.body.of.id') = l.id) LIMIT 1`,
  row: { id: LedgerEntries.columns.id },
});

export const knownEvent = statement('fly.knownEvent', {
  params: ['seq', 'author', 'device'],
  sql: `SELECT COALESCE(SUM(device_seq = :seq), 0) AS taken, MAX(device_seq) AS last FROM capture_events
       WHERE author = :author AND device_id = :device`,
  row: { taken: real, last: real.nullable() },
});

export const addOfficeEvent = statement('fly.addOfficeEvent', {
  params: ['d'],
  sql: `SELECT MAX(device_seq) AS n FROM capture_events WHERE device_id = :d`,
  row: { n: real.nullable() },
});
