import { z } from 'zod';
import { day, instant, text } from '../columns';
import { statement } from '../statement';
import { GROUNDING_KINDS } from '@/domain/stops';
import { LIMIT_CHANNELS } from '@/domain/words';
import { Groundings, Types, TypeVersions, Airframes, AirframeVersions } from '../../hangar/tables';
import { Users } from '../../account/tables';
import { CaptureEvents } from '../../fly/tables';

export const endGrounding = statement('hangar.endGrounding', {
  params: ['groundingId'],
  sql: `SELECT g.kind, u.name FROM groundings g LEFT JOIN grounding_ends e ON e.grounding_id = g.id LEFT JOIN users u ON u.id = e.ended_by WHERE g.id = :groundingId`,
  row: { kind: Groundings.columns.kind, name: Users.columns.name.nullable() },
});

export const hangar = statement('hangar.hangar', {
  params: [],
  sql: `SELECT t.id, t.code, v.id AS version_id, v.version, v.sheet, v.author, v.reason, v.created_at FROM types t
     JOIN type_versions v ON v.type_id = t.id AND v.version = (SELECT MAX(version) FROM type_versions WHERE type_id = t.id) ORDER BY t.name`,
  row: {
    id: Types.columns.id,
    code: Types.columns.code,
    versionId: TypeVersions.columns.id,
    version: TypeVersions.columns.version,
    sheet: TypeVersions.columns.sheet,
    author: TypeVersions.columns.author,
    reason: TypeVersions.columns.reason,
    createdAt: TypeVersions.columns.createdAt,
  },
});

export const hangarAirframes = statement('hangar.hangarAirframes', {
  params: [],
  sql: `SELECT a.id, a.registration, a.type_id, v.id AS version_id, v.version, v.sheet FROM airframes a
     JOIN airframe_versions v ON v.airframe_id = a.id AND v.version = (SELECT MAX(version) FROM airframe_versions WHERE airframe_id = a.id) ORDER BY a.registration`,
  row: {
    id: Airframes.columns.id,
    registration: Airframes.columns.registration,
    typeId: Airframes.columns.typeId,
    versionId: AirframeVersions.columns.id,
    version: AirframeVersions.columns.version,
    sheet: AirframeVersions.columns.sheet,
  },
});

/** Power settings found in flight, with what took them back. */
export const powerFound = statement('hangar.powerFound', {
  params: ['typeCode'],
  sql: `SELECT e.*, a.registration, ty.code, s.flown_on, u.name AS author_name, json_extract(tv.sheet, '$.dial.unit') AS unit FROM capture_events e JOIN sorties s ON s.id = e.sortie_id JOIN checkouts c ON c.id = s.checkout_id
     JOIN airframes a ON a.id = c.airframe_id JOIN types ty ON ty.id = a.type_id JOIN type_versions tv ON tv.id = c.type_version_id JOIN users u ON u.id = e.author
     WHERE (e.type = 'power-found' OR (e.type = 'undone' AND e.subject_id IN (SELECT subject_id FROM capture_events WHERE type = 'power-found'))) AND (:typeCode IS NULL OR ty.code = :typeCode)`,
  row: {
    ...CaptureEvents.columns,
    registration: text,
    code: text,
    flownOn: day,
    authorName: text,
    unit: z.enum(['kt', 'mph']),
  },
});

const ended = {
  endedAt: instant.nullable(),
  endedBy: text.nullable(),
  done: text.nullable(),
  certifier: text.nullable(),
  certificate: text.nullable(),
};
/** Groundings placed, of one aeroplane or of all, those that are open or every one. */
export const groundingsPlaced = statement('hangar.groundingsPlaced', {
  params: ['registration', 'openOnly'],
  sql: `SELECT g.id, g.airframe_id, a.registration, g.kind, g.why, g.placed_at, p.name AS placed_by, e.ended_at, u.name AS ended_by, e.done, e.certifier, e.certificate
     FROM groundings g JOIN airframes a ON a.id = g.airframe_id JOIN users p ON p.id = g.placed_by LEFT JOIN grounding_ends e ON e.grounding_id = g.id LEFT JOIN users u ON u.id = e.ended_by
     WHERE (:registration IS NULL OR a.registration = :registration) AND (:openOnly = 0 OR e.id IS NULL) ORDER BY g.placed_at DESC`,
  row: {
    id: text,
    airframeId: text,
    registration: text,
    kind: z.enum(GROUNDING_KINDS),
    why: text,
    placedAt: instant,
    placedBy: text,
    ...ended,
  },
});
export const limitsHolding = statement('hangar.limitsHolding', {
  params: ['registration', 'openOnly'],
  sql: `SELECT x.id, x.airframe_id, a.registration, x.channel, x.trace_id, x.sortie_id, w.name AS seen_by, x.found_at, r.released_at AS ended_at, u.name AS ended_by, r.done, r.certifier, r.certificate
     FROM exceedances x JOIN airframes a ON a.id = x.airframe_id LEFT JOIN exceedance_releases r ON r.exceedance_id = x.id LEFT JOIN users u ON u.id = r.released_by
       LEFT JOIN users w ON w.id = x.seen_by
     WHERE (:registration IS NULL OR a.registration = :registration) AND (:openOnly = 0 OR r.id IS NULL) ORDER BY x.found_at DESC`,
  row: {
    id: text,
    airframeId: text,
    registration: text,
    channel: z.enum(LIMIT_CHANNELS),
    traceId: text.nullable(),
    sortieId: text,
    seenBy: text.nullable(),
    foundAt: instant,
    ...ended,
  },
});
