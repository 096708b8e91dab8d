import { z } from 'zod';
import { day, instant, json, text, whole } from '../columns';
import { statement } from '../statement';
import { Checkouts, Sorties } from '../../checkout/tables';
import { Users } from '../../account/tables';
import { Landings } from '../../fly/tables';
import { TraceAnalysis, TraceContext } from '@/domain/trace';
import { Exceedances, Traces } from '../../traces/tables';
import { CHECKOUT_STATUS } from '@/domain/words';

export const releaseExceedance = statement('traces.releaseExceedance', {
  params: ['exceedanceId'],
  sql: `SELECT c.pilot_id, s.instructor_id, u.name FROM exceedances e JOIN sorties s ON s.id = e.sortie_id JOIN checkouts c ON c.id = s.checkout_id LEFT JOIN exceedance_releases r ON r.exceedance_id = e.id LEFT JOIN users u ON u.id = r.released_by WHERE e.id = :exceedanceId`,
  row: {
    pilotId: Checkouts.columns.pilotId,
    instructorId: Sorties.columns.instructorId,
    name: Users.columns.name.nullable(),
  },
});

export const joinOf = statement('traces.joinOf', {
  params: ['s'],
  sql: `SELECT id, number, kind, captured, measured, saved_at FROM landings WHERE sortie_id = :s OR sortie_id IN (SELECT id FROM sorties WHERE shared_with = :s) ORDER BY saved_at`,
  row: {
    id: Landings.columns.id,
    number: Landings.columns.number,
    kind: Landings.columns.kind,
    captured: Landings.columns.captured,
    measured: Landings.columns.measured,
    savedAt: Landings.columns.savedAt,
  },
});

const SEEN =
  'u.name AS uploader, s.checkout_id, s.lesson, s.flown_on, s.instructor_id, c.pilot_id, c.status, p.name AS pilot_name, a.registration';
const OF =
  'FROM traces t JOIN sorties s ON s.id = t.sortie_id JOIN checkouts c ON c.id = s.checkout_id JOIN pilots p ON p.id = c.pilot_id JOIN users u ON u.id = t.uploaded_by JOIN airframes a ON a.id = t.airframe_id';
const { id, name, bytes, hash, sortieId, startUtc, uploadedAt } = Traces.columns;
const seen = {
  ...{ id, name, bytes, hash, sortieId, startUtc, uploadedAt },
  uploader: text,
  checkoutId: text,
  lesson: whole,
  flownOn: day,
  instructorId: text,
  pilotId: text,
  status: z.enum(CHECKOUT_STATUS),
  pilotName: text,
  registration: text,
};
/** The newest recordings, with how much was found: an analysis is large, its lengths are not. */
export const traceList = statement('traces.traceList', {
  params: ['checkoutId'],
  sql: `SELECT t.id, t.name, t.bytes, t.hash, t.sortie_id, t.start_utc, t.uploaded_at, ${SEEN}, json_array_length(t.analysis, '$.events') AS events,
      json_array_length(t.analysis, '$.airwork') AS airwork, json_array_length(t.analysis, '$.exceedances') AS limits,
      json_extract(t.analysis, '$.source.joined') AS joined
     ${OF} WHERE (:checkoutId IS NULL OR s.checkout_id = :checkoutId) ORDER BY s.flown_on DESC, t.uploaded_at DESC LIMIT 200`,
  row: { ...seen, events: whole, airwork: whole, limits: whole, joined: text.nullable() },
});
export const traceById = statement('traces.traceById', {
  params: ['id'],
  sql: `SELECT t.*, ${SEEN} ${OF} WHERE t.id = :id`,
  row: { ...seen, mapping: Traces.columns.mapping, context: json(TraceContext), analysis: json(TraceAnalysis) },
});

const passed = (
  where: string,
) => `SELECT e.*, json_extract(tv.sheet, '$.dial.unit') AS dial, a.registration, s.flown_on, s.instructor_id, c.id AS checkout_id, c.pilot_id, p.name AS pilot_name, u.name AS by_name, w.name AS seen_by_name, r.released_at, r.done, r.certifier, r.certificate FROM exceedances e JOIN airframes a ON a.id = e.airframe_id JOIN sorties s ON s.id = e.sortie_id
     JOIN checkouts c ON c.id = s.checkout_id JOIN pilots p ON p.id = c.pilot_id JOIN type_versions tv ON tv.id = c.type_version_id LEFT JOIN exceedance_releases r ON r.exceedance_id = e.id LEFT JOIN users u ON u.id = r.released_by
     LEFT JOIN users w ON w.id = e.seen_by
     WHERE ${where} ORDER BY s.flown_on DESC, e.start_s`;
const passedRow = {
  ...Exceedances.columns,
  dial: z.enum(['kt', 'mph']),
  registration: text,
  flownOn: day,
  instructorId: text,
  checkoutId: text,
  pilotId: text,
  pilotName: text,
  byName: text.nullable(),
  seenByName: text.nullable(),
  releasedAt: instant.nullable(),
  done: text.nullable(),
  certifier: text.nullable(),
  certificate: text.nullable(),
};
export const limitsOpen = statement('traces.limitsOpen', { params: [], sql: passed('r.id IS NULL'), row: passedRow });
export const limitsFound = statement('traces.limitsFound', {
  params: ['from', 'to'],
  sql: passed('e.found_at >= :from AND e.found_at < :to'),
  row: passedRow,
});
export const limitsOfRecordings = statement('traces.limitsOfRecordings', {
  params: ['sortieId'],
  sql: passed('e.sortie_id = :sortieId AND e.trace_id IS NOT NULL'),
  row: passedRow,
});
export const limitsOfTrace = statement('traces.limitsOfTrace', {
  params: ['traceId'],
  sql: passed('e.trace_id = :traceId'),
  row: passedRow,
});
