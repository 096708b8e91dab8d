import { z } from 'zod';
import { computed, day, flag, real, text, whole } from '../columns';
import { statement } from '../statement';
import type { Row } from '../table';
import { BLOCK_FROM, BLOCK_TO } from './block';
import { TypeVersions, Types, Airframes } from '../../hangar/tables';
import {
  LogbookFlights,
  PersonDates,
  LoggedFlights,
  StruckFlights,
  Qualifications,
  PilotHours,
  PilotEyes,
} from '../../people/tables';
import { Pilots, Users } from '../../account/tables';
import { Landings } from '../../fly/tables';
import { Checkouts } from '../../checkout/tables';

export const logFlight = statement('people.logFlight', {
  params: ['code'],
  sql: `SELECT tv.surface FROM types ty JOIN type_versions tv ON tv.type_id = ty.id WHERE ty.code = :code ORDER BY tv.version DESC LIMIT 1`,
  row: { surface: TypeVersions.columns.surface },
});

export const strikeFlight = statement('people.strikeFlight', {
  params: ['logId'],
  sql: `SELECT f.pilot_id, x.id AS struck FROM flight_log f LEFT JOIN flight_log_struck x ON x.log_id = f.id WHERE f.id = :logId`,
  row: { pilotId: LoggedFlights.columns.pilotId, struck: StruckFlights.columns.id.nullable() },
});

export const pilotThere = statement('people.pilotThere', {
  params: ['pilotId'],
  sql: `SELECT id FROM pilots p WHERE id = :pilotId AND NOT EXISTS (SELECT 1 FROM erasures e WHERE e.pilot_id = p.id)`,
  row: { id: Pilots.columns.id },
});

export const saveRoles = statement('people.saveRoles', {
  params: ['userId'],
  sql: `SELECT COUNT(*) AS n FROM users WHERE id <> :userId AND closed_at IS NULL AND EXISTS (SELECT 1 FROM json_each(roles) WHERE value = 'chief')`,
  row: { n: real },
});

export const addHeld = statement('people.addHeld', {
  params: ['id', 'pilotId', 'kind'],
  sql: `SELECT id FROM qualifications WHERE id = :id OR (pilot_id = :pilotId AND kind = :kind AND ended_at IS NULL)`,
  row: { id: Qualifications.columns.id },
});

export const knownTypes = statement('people.knownTypes', {
  params: [],
  sql: `SELECT ty.code, ty.name, tv.engines, tv.tailwheel, tv.surface, (SELECT GROUP_CONCAT(registration) FROM airframes a WHERE a.type_id = ty.id) AS registrations FROM types ty JOIN type_versions tv ON tv.type_id = ty.id AND tv.version = (SELECT MAX(version) FROM type_versions WHERE type_id = ty.id)`,
  row: {
    code: Types.columns.code,
    name: Types.columns.name,
    engines: TypeVersions.columns.engines,
    tailwheel: TypeVersions.columns.tailwheel,
    surface: TypeVersions.columns.surface,
    registrations: text,
  },
});

export const doubledOf = statement('people.doubledOf', {
  params: ['pilotId'],
  sql: `SELECT l.flown_on || ' ' || ty.code AS k FROM landings l JOIN sorties s ON s.id = l.sortie_id JOIN checkouts c ON c.id = s.checkout_id JOIN checkout_types ty ON ty.checkout_id = c.id WHERE l.pilot_id = :pilotId
     UNION SELECT f.flown_on || ' ' || f.type_code FROM standing_logged f WHERE f.pilot_id = :pilotId`,
  row: { k: text },
});

export const flownIn = statement('people.flownIn', {
  params: ['pilotId', 'typeCode'],
  sql: `SELECT MAX(l.flown_on) AS "on" FROM landings l JOIN checkouts c ON c.id = l.checkout_id JOIN checkout_types ty ON ty.checkout_id = c.id WHERE l.pilot_id = :pilotId AND ty.code = :typeCode
     UNION ALL SELECT MAX(f.flown_on) FROM standing_logged f WHERE f.pilot_id = :pilotId AND f.type_code = :typeCode
     UNION ALL SELECT MAX(f.flown_on) FROM logbook_flights f JOIN logbook_imports i ON i.id = f.import_id WHERE i.taken_back_at IS NULL AND f.pilot_id = :pilotId AND f.type_code = :typeCode
     UNION ALL SELECT MAX(h.last_flown) FROM pilot_hours h WHERE h.pilot_id = :pilotId AND h.type_code = :typeCode AND h.hours > 0`,
  row: { on: text.nullable() },
});

export const courseStart = statement('people.courseStart', {
  params: ['checkoutId'],
  sql: `SELECT MIN(d) AS d FROM (SELECT MIN(s.flown_on) AS d FROM sorties s JOIN capture_events e ON e.sortie_id = COALESCE(s.shared_with, s.id) WHERE s.checkout_id = :checkoutId)`,
  row: { d: text.nullable() },
});

export const readStandings = statement('people.readStandings', {
  params: [],
  sql: `SELECT p.id, p.name, p.hours, u.id AS user_id, u.roles FROM pilots p LEFT JOIN users u ON u.pilot_id = p.id WHERE NOT EXISTS (SELECT 1 FROM erasures e WHERE e.pilot_id = p.id) ORDER BY p.name`,
  row: {
    id: Pilots.columns.id,
    name: Pilots.columns.name,
    hours: Pilots.columns.hours,
    userId: Users.columns.id.nullable(),
    roles: Users.columns.roles.nullable(),
  },
});

export const ladderHistory = statement('people.ladderHistory', {
  params: ['pilotId'],
  sql: `SELECT gear_group, flown_on, crosswind_kt, wind_age_min, json_extract(captured, '$.intervention') AS intervention, json_extract(captured, '$.demonstration') AS demonstration, judged FROM landings WHERE pilot_id = :pilotId AND kind NOT IN ('go-around', 'low-pass') ORDER BY flown_on, saved_at`,
  row: {
    gearGroup: Landings.columns.gearGroup,
    flownOn: Landings.columns.flownOn,
    crosswindKt: Landings.columns.crosswindKt,
    windAgeMin: Landings.columns.windAgeMin,
    intervention: real.nullable(),
    demonstration: real,
    judged: Landings.columns.judged,
  },
});

export const personPage = statement('people.personPage', {
  params: ['pilotId'],
  sql: `SELECT p.*, u.id AS user_id, u.email, u.roles, u.authorised, u.certificate AS ucert, u.certificate_until AS until, u.own_crosswind_kt AS own_kt FROM pilots p LEFT JOIN users u ON u.pilot_id = p.id AND u.closed_at IS NULL WHERE p.id = :pilotId`,
  row: {
    id: Pilots.columns.id,
    name: Pilots.columns.name,
    massKg: Pilots.columns.massKg,
    experience: Pilots.columns.experience,
    hours: Pilots.columns.hours,
    certificate: Pilots.columns.certificate,
    userId: Users.columns.id.nullable(),
    email: Users.columns.email.nullable(),
    roles: Users.columns.roles.nullable(),
    authorised: Users.columns.authorised.nullable(),
    ucert: Users.columns.certificate.nullable(),
    until: Users.columns.certificateUntil,
    ownKt: Users.columns.ownCrosswindKt,
  },
});

export const personPageMore = statement('people.personPageMore', {
  params: ['pilotId'],
  sql: `SELECT code, name, SUM(n) AS landings, SUM(full) AS full, SUM(water) AS water, MAX(day) AS last FROM (
         SELECT ty.code, ty.name, 1 AS n, l.kind = 'full-stop' AS full, l.surface = 'water' AS water, l.flown_on AS day FROM landings l JOIN sorties s ON s.id = l.sortie_id JOIN checkouts c ON c.id = s.checkout_id JOIN checkout_types ty ON ty.checkout_id = c.id
           WHERE l.pilot_id = :pilotId AND l.kind NOT IN ('go-around', 'low-pass') AND l.landing_class <> 'demonstration'
         UNION ALL SELECT f.type_code, ty.name, f.landings, f.full_stops, CASE f.surface WHEN 'water' THEN f.landings ELSE 0 END, f.flown_on FROM standing_logged f JOIN types ty ON ty.code = f.type_code WHERE f.pilot_id = :pilotId
         UNION ALL SELECT COALESCE(f.type_code, ''), COALESCE(ty.name, f.type_written), f.landings_day + f.landings_night, f.full_stops_day + f.full_stops_night, CASE f.surface WHEN 'water' THEN f.landings_day + f.landings_night ELSE 0 END, f.flown_on FROM logbook_flights f JOIN logbook_imports i ON i.id = f.import_id LEFT JOIN types ty ON ty.code = f.type_code WHERE f.pilot_id = :pilotId AND i.taken_back_at IS NULL
       ) GROUP BY code, name ORDER BY landings DESC`,
  row: { code: text, name: text, landings: real, full: real, water: real, last: text },
});

export const personPageCheckouts = statement('people.personPageCheckouts', {
  params: ['pilotId'],
  sql: `SELECT c.id, c.goals, a.registration, ty.name AS type_name, c.status, c.created_at, l.signed_on, c.signed_ledger_id, u.name AS instructor FROM checkouts c JOIN airframes a ON a.id = c.airframe_id JOIN types ty ON ty.id = a.type_id JOIN users u ON u.id = c.instructor_id LEFT JOIN signed_entries l ON l.id = c.signed_ledger_id WHERE c.pilot_id = :pilotId ORDER BY c.created_at DESC`,
  row: {
    id: Checkouts.columns.id,
    goals: Checkouts.columns.goals,
    registration: Airframes.columns.registration,
    typeName: Types.columns.name,
    status: Checkouts.columns.status,
    createdAt: Checkouts.columns.createdAt,
    signedOn: text.nullable(),
    signedLedgerId: Checkouts.columns.signedLedgerId,
    instructor: Users.columns.name,
  },
});

/** Flights recorded here that a pilot flew some of: what the clock says of each, and how many landings. */
export const recordedHere = statement('people.recordedHere', {
  params: ['pilotId'],
  sql: `SELECT ty.code, ty.name, s.flown_on, COUNT(*) AS landings, s.shared_with IS NOT NULL OR s.second_pilot_id IS NOT NULL AS shared,
       ROUND((julianday(${BLOCK_TO}) - julianday(${BLOCK_FROM})) * 1440) AS minutes
     FROM landings l JOIN sorties s ON s.id = l.sortie_id JOIN checkouts c ON c.id = s.checkout_id JOIN airframes a ON a.id = COALESCE(s.airframe_id, c.airframe_id) JOIN types ty ON ty.id = a.type_id
     WHERE l.pilot_id = :pilotId AND l.kind NOT IN ('go-around', 'low-pass') AND l.landing_class <> 'demonstration' GROUP BY s.id ORDER BY s.flown_on`,
  row: {
    code: Types.columns.code,
    name: Types.columns.name,
    flownOn: Landings.columns.flownOn,
    landings: whole,
    shared: flag,
    minutes: real.nullable(),
  },
});

/** Types read in from logbooks that the hangar does not have, with what was said of each. */
export const writtenTypes = statement('people.writtenTypes', {
  params: ['pilotId'],
  sql: `SELECT f.type_written AS name, SUM(f.hours) AS hours, MAX(f.flown_on) AS last_flown, MAX(f.engines) AS engines, MAX(f.tailwheel) AS tailwheel, MAX(f.surface = 'water') AS water
     FROM standing_logbook f WHERE f.pilot_id = :pilotId AND f.type_code IS NULL GROUP BY f.type_written HAVING SUM(f.hours) > 0 ORDER BY hours DESC`,
  row: {
    name: LogbookFlights.columns.typeWritten,
    hours: real,
    lastFlown: text,
    engines: whole,
    tailwheel: flag,
    water: flag,
  },
});

export const hoursOf = statement('people.hoursOf', {
  params: ['pilotId'],
  sql: `SELECT ty.code, ty.name, h.hours, h.pic, h.last_flown, u.name AS entered_by, h.entered_at, SUM(x.hours) AS since, MAX(x.flown_on) AS since_last,
       (SELECT MAX(l.flown_on) FROM landings l JOIN checkouts c ON c.id = l.checkout_id JOIN airframes a ON a.id = c.airframe_id WHERE l.pilot_id = :pilotId AND a.type_id = ty.id) AS landed
     FROM types ty LEFT JOIN pilot_hours h ON h.type_code = ty.code AND h.pilot_id = :pilotId AND h.seq = (SELECT MAX(seq) FROM pilot_hours y WHERE y.pilot_id = :pilotId AND y.type_code = ty.code) LEFT JOIN users u ON u.id = h.entered_by
     LEFT JOIN (SELECT f.type_code, f.hours, f.flown_on, f.entered_at FROM flight_log f WHERE f.pilot_id = :pilotId AND NOT EXISTS (SELECT 1 FROM flight_log_struck s WHERE s.log_id = f.id)
       UNION ALL SELECT g.type_code, g.hours, g.flown_on, NULL FROM logbook_flights g JOIN logbook_imports i ON i.id = g.import_id WHERE g.pilot_id = :pilotId AND i.taken_back_at IS NULL AND g.type_code IS NOT NULL) x
       ON x.type_code = ty.code AND (h.id IS NULL OR (x.entered_at IS NOT NULL AND x.entered_at > h.entered_at) OR (x.entered_at IS NULL AND x.flown_on > h.last_flown))
     GROUP BY ty.code HAVING COALESCE(h.hours, 0) + COALESCE(SUM(x.hours), 0) > 0 ORDER BY COALESCE(h.hours, 0) + COALESCE(SUM(x.hours), 0) DESC`,
  row: {
    code: Types.columns.code,
    name: Types.columns.name,
    hours: PilotHours.columns.hours.nullable(),
    pic: PilotHours.columns.pic,
    lastFlown: PilotHours.columns.lastFlown.nullable(),
    enteredBy: Users.columns.name.nullable(),
    enteredAt: PilotHours.columns.enteredAt.nullable(),
    since: real.nullable(),
    sinceLast: text.nullable(),
    landed: text.nullable(),
  },
});

export const eyesOf = statement('people.eyesOf', {
  params: ['pilotId', 'typeCode'],
  sql: `SELECT e.seat, e.eye_height_m, e.how, u.name AS entered_by, e.entered_at FROM pilot_eyes e JOIN users u ON u.id = e.entered_by
     WHERE e.pilot_id = :pilotId AND e.type_code = :typeCode AND e.seq = (SELECT MAX(seq) FROM pilot_eyes x WHERE x.pilot_id = e.pilot_id AND x.type_code = e.type_code AND x.seat = e.seat)`,
  row: {
    seat: PilotEyes.columns.seat,
    eyeHeightM: PilotEyes.columns.eyeHeightM,
    how: PilotEyes.columns.how,
    enteredBy: Users.columns.name,
    enteredAt: PilotEyes.columns.enteredAt,
  },
});

export const hoursInClass = statement('people.hoursInClass', {
  params: [],
  sql: `SELECT ty.code, tv.engines, tv.surface FROM types ty JOIN type_versions tv ON tv.type_id = ty.id AND tv.version = (SELECT MAX(version) FROM type_versions WHERE type_id = ty.id)`,
  row: { code: Types.columns.code, engines: TypeVersions.columns.engines, surface: TypeVersions.columns.surface },
});

export const intervalOf = statement('people.intervalOf', {
  params: ['pilotId', 'code'],
  sql: `SELECT l.signed_on AS "on" FROM signed_entries l JOIN checkouts c ON c.id = l.checkout_id JOIN checkout_types ty ON ty.checkout_id = c.id
     WHERE c.pilot_id = :pilotId AND ty.code = :code AND l.kind = 'sign-off' AND NOT EXISTS (SELECT 1 FROM ledger v WHERE v.kind = 'void' AND json_extract(v.canonical, '$.body.of.id') = l.id)`,
  row: { on: text },
});

const ON_TYPE =
  'JOIN sorties s ON s.id = l.sortie_id JOIN checkouts c ON c.id = s.checkout_id JOIN type_versions tv ON tv.id = c.type_version_id JOIN types ty ON ty.id = tv.type_id';
/** Columns of a landing as recency sees it. */
const FLOWN = 'l.flown_on, ty.code, tv.engines, tv.tailwheel, l.kind, l.surface';
const MOMENTS = 'l.ended_at AS at, l.off_surface, l.off_at, l.aerodrome';
const LANDED = "l.kind NOT IN ('go-around', 'low-pass')";
const flown = {
  id: text,
  flownOn: Landings.columns.flownOn,
  code: Types.columns.code,
  engines: TypeVersions.columns.engines,
  tailwheel: flag,
  kind: Landings.columns.kind,
  surface: Landings.columns.surface,
  level: Landings.columns.level,
  shown: flag,
  at: Landings.columns.endedAt,
  offSurface: z.enum(['land', 'water']).nullable(),
  offAt: Landings.columns.offAt,
  aerodrome: Landings.columns.aerodrome,
  n: whole,
};
export const flownByPilot = statement('people.flownByPilot', {
  params: ['pilotId'],
  sql: `SELECT l.id, ${FLOWN}, l.level, l.shown, ${MOMENTS}, 1 AS n FROM landings l ${ON_TYPE}
     WHERE l.pilot_id = :pilotId AND ${LANDED}`,
  row: flown,
});
/** Landings of a flight in which somebody without a checkout of their own flew. */
export const flownAlone = statement('people.flownAlone', {
  params: ['since'],
  sql: `SELECT l.pilot_id, l.id, ${FLOWN}, l.level, l.shown, ${MOMENTS}, 1 AS n FROM landings l ${ON_TYPE}
     WHERE l.flown_on >= :since AND l.checkout_id IS NULL AND ${LANDED}`,
  row: { ...flown, pilotId: Landings.columns.pilotId },
});
const edge = (at: string): string =>
  `CASE WHEN substr(${at}, 12, 5) > :dayFrom AND substr(${at}, 12, 5) < :dayTo THEN NULL ELSE ${at} END`;
type Landed = Row<typeof Landings>;
type FlownDay = [
  flownOn: Landed['flownOn'],
  checkoutId: string,
  kind: Landed['kind'],
  surface: Landed['surface'],
  level: Landed['level'],
  shown: number,
  at: Landed['endedAt'],
  offSurface: Landed['surface'] | null,
  offAt: Landed['offAt'],
  aerodrome: Landed['aerodrome'],
  n: number,
];
/** A day of alike landings as one; an instant in which it is day all the year round is left out. */
export const flownSince = statement('people.flownSince', {
  params: ['since', 'dayFrom', 'dayTo'],
  sql: `SELECT pilot_id, json_group_array(json_array(flown_on, checkout_id, kind, surface, level, shown, at, off_surface, off_at, aerodrome, n)) AS days FROM (
       SELECT l.flown_on, l.pilot_id, l.checkout_id, l.kind, l.surface, l.level, l.shown, ${edge('l.ended_at')} AS at, l.off_surface, ${edge('l.off_at')} AS off_at, l.aerodrome, COUNT(*) AS n FROM landings l WHERE l.flown_on >= :since AND l.checkout_id IS NOT NULL AND ${LANDED} GROUP BY 1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11
     ) GROUP BY pilot_id`,
  row: {
    pilotId: Landings.columns.pilotId,
    // The statement makes these itself, a row of a landing or a few: parsed cell by cell they cost more than reading.
    days: computed<FlownDay[]>(),
  },
});
const shown = (
  who: string,
) => `SELECT u.pilot_id, l.id || ':shown' AS id, ${FLOWN}, 0 AS level, 0 AS shown, ${MOMENTS}, 1 AS n
     FROM landings l INDEXED BY landings_shown ${ON_TYPE} JOIN users u ON u.id = l.author
     WHERE l.landing_class = 'demonstration' AND ${who} AND ${LANDED}`;
export const shownBy = statement('people.shownBy', {
  params: ['pilotId'],
  sql: shown('u.pilot_id = :pilotId'),
  row: { ...flown, pilotId: Users.columns.pilotId },
});
export const shownSince = statement('people.shownSince', {
  params: ['since'],
  sql: shown('u.pilot_id IS NOT NULL AND l.flown_on >= :since'),
  row: { ...flown, pilotId: Users.columns.pilotId },
});

const logged = (
  who: string,
) => `SELECT f.pilot_id, f.id, f.flown_on, f.type_code AS code, tv.engines, tv.tailwheel, f.takeoffs, f.landings, f.full_stops,
       f.night, f.surface, f.off_night, f.off_surface
     FROM standing_logged f JOIN types ty ON ty.code = f.type_code JOIN newest_types tv ON tv.type_id = ty.id WHERE ${who}`;
const { pilotId, id, flownOn, takeoffs, landings, fullStops, night, surface, offNight, offSurface } =
  LoggedFlights.columns;
const loggedRow = {
  ...{ pilotId, id, flownOn, takeoffs, landings, fullStops, night, surface, offNight, offSurface },
  code: LoggedFlights.columns.typeCode,
  engines: TypeVersions.columns.engines,
  tailwheel: TypeVersions.columns.tailwheel,
};
export const loggedBy = statement('people.loggedBy', {
  params: ['pilotId'],
  sql: logged('f.pilot_id = :pilotId'),
  row: loggedRow,
});
export const loggedSince = statement('people.loggedSince', {
  params: ['since'],
  sql: logged('f.flown_on >= :since'),
  row: loggedRow,
});
const imported = (
  who: string,
) => `SELECT f.pilot_id, f.id, f.flown_on, f.type_code AS code, f.engines, f.tailwheel, f.surface, f.dual, f.takeoffs_day, f.takeoffs_night, f.landings_day, f.landings_night, f.full_stops_day, f.full_stops_night
     FROM standing_logbook f WHERE ${who}`;
const importedRow = {
  pilotId: LogbookFlights.columns.pilotId,
  id: LogbookFlights.columns.id,
  flownOn: LogbookFlights.columns.flownOn,
  code: LogbookFlights.columns.typeCode,
  engines: LogbookFlights.columns.engines,
  tailwheel: LogbookFlights.columns.tailwheel,
  surface: LogbookFlights.columns.surface,
  dual: LogbookFlights.columns.dual,
  takeoffsDay: whole,
  takeoffsNight: whole,
  landingsDay: whole,
  landingsNight: whole,
  fullStopsDay: whole,
  fullStopsNight: whole,
};
export const importedBy = statement('people.importedBy', {
  params: ['pilotId'],
  sql: imported('f.pilot_id = :pilotId'),
  row: importedRow,
});
export const importedSince = statement('people.importedSince', {
  params: ['since'],
  sql: imported('f.flown_on >= :since'),
  row: importedRow,
});

/** How far what everybody's flying rests on has come: it is append-only, so the highest row numbers tell. */
export const flyingMarks = statement('people.flyingMarks', {
  params: [],
  sql: `SELECT COALESCE((SELECT MAX(rowid) FROM capture_events), 0) AS event, COALESCE((SELECT MAX(rowid) FROM flight_log), 0) AS log, COALESCE((SELECT MAX(rowid) FROM flight_log_struck), 0) AS struck, (SELECT COUNT(*) || ':' || COUNT(taken_back_at) FROM logbook_imports) AS imports,
       (SELECT COUNT(*) FROM erasures) || ':' || (SELECT COUNT(*) FROM checkout_moves) || ':' || (SELECT COUNT(*) FROM type_versions) || ':' || (SELECT COUNT(pilot_id) FROM users) AS others`,
  row: { event: whole, log: whole, struck: whole, imports: text, others: text },
});
export const flyingChanged = statement('people.flyingChanged', {
  params: ['event', 'log', 'struck', 'imports'],
  sql: `SELECT c.pilot_id AS p FROM capture_events e JOIN sorties s ON s.id = e.sortie_id JOIN checkouts c ON c.id = s.checkout_id WHERE e.rowid > :event
     UNION SELECT s.second_pilot_id FROM capture_events e JOIN sorties s ON s.id = e.sortie_id WHERE e.rowid > :event
     UNION SELECT u.pilot_id FROM capture_events e JOIN users u ON u.id = e.author WHERE e.rowid > :event
     UNION SELECT pilot_id FROM flight_log WHERE rowid > :log
     UNION SELECT f.pilot_id FROM flight_log_struck x JOIN flight_log f ON f.id = x.log_id WHERE x.rowid > :struck
     UNION SELECT pilot_id FROM logbook_imports WHERE :imports = 1`,
  row: { p: text.nullable() },
});

/** Hours in one type: the newest entry of the office, and what was logged or read in since. */
export const hoursInType = statement('people.hoursInType', {
  params: ['pilotId', 'typeCode'],
  sql: `SELECT COALESCE((SELECT hours FROM pilot_hours h WHERE h.pilot_id = :pilotId AND h.type_code = :typeCode ORDER BY seq DESC LIMIT 1), 0)
       + COALESCE((SELECT SUM(f.hours) FROM standing_logged f WHERE f.pilot_id = :pilotId AND f.type_code = :typeCode
           AND f.entered_at > COALESCE((SELECT entered_at FROM pilot_hours h WHERE h.pilot_id = :pilotId AND h.type_code = :typeCode ORDER BY seq DESC LIMIT 1), '')), 0)
       + COALESCE((SELECT SUM(f.hours) FROM standing_logbook f WHERE f.pilot_id = :pilotId AND f.type_code = :typeCode
           AND f.flown_on > COALESCE((SELECT last_flown FROM pilot_hours h WHERE h.pilot_id = :pilotId AND h.type_code = :typeCode ORDER BY seq DESC LIMIT 1), '')), 0) AS hours`,
  row: { hours: real },
});
export const commandHours = statement('people.commandHours', {
  params: ['pilotId', 'typeCode'],
  sql: `SELECT COALESCE((SELECT pic FROM pilot_hours h WHERE h.pilot_id = :pilotId AND h.type_code = :typeCode ORDER BY seq DESC LIMIT 1), 0)
       + COALESCE((SELECT SUM(f.pic_hours) FROM standing_logbook f WHERE f.pilot_id = :pilotId AND f.type_code = :typeCode
           AND f.flown_on > COALESCE((SELECT last_flown FROM pilot_hours h WHERE h.pilot_id = :pilotId AND h.type_code = :typeCode AND h.pic IS NOT NULL ORDER BY seq DESC LIMIT 1), '')), 0) AS hours`,
  row: { hours: real },
});
export const commandHoursInAll = statement('people.commandHoursInAll', {
  params: ['p'],
  sql: `SELECT COALESCE((SELECT SUM(h.pic) FROM pilot_hours h WHERE h.pilot_id = :p AND h.seq = (SELECT MAX(seq) FROM pilot_hours y WHERE y.pilot_id = h.pilot_id AND y.type_code = h.type_code)), 0)
       + COALESCE((SELECT SUM(f.pic_hours) FROM standing_logbook f WHERE f.pilot_id = :p
           AND f.flown_on > COALESCE((SELECT MAX(last_flown) FROM pilot_hours h WHERE h.pilot_id = :p AND h.pic IS NOT NULL), '')), 0) AS pic`,
  row: { pic: real },
});

/** Dates whose entry of the ledger was voided are none. One pilot's, or everybody's. */
const DATES_STAND = `NOT EXISTS (SELECT 1 FROM ledger v WHERE v.kind = 'void' AND json_extract(v.canonical, '$.body.of.id') = x.ledger_id)`;
export const standingDates = statement('people.standingDates', {
  params: ['pilotId'],
  sql: `SELECT x.pilot_id, x.key, x.title, x.done_on, x.until FROM person_dates x
     WHERE ${DATES_STAND} AND (:pilotId IS NULL OR x.pilot_id = :pilotId) ORDER BY x.seq, x.key`,
  row: {
    pilotId: PersonDates.columns.pilotId,
    key: PersonDates.columns.key,
    title: PersonDates.columns.title,
    doneOn: PersonDates.columns.doneOn,
    until: PersonDates.columns.until,
  },
});
/** Which types a pilot, or everybody, was signed off on, and when. */
export const signedTypes = statement('people.signedTypes', {
  params: ['pilotId', 'since'],
  sql: `SELECT c.pilot_id, tv.code, c.signed_on FROM signed_checkouts c JOIN checkout_types tv ON tv.checkout_id = c.id
     WHERE c.status = 'signed' AND c.signed_at >= :since AND (:pilotId IS NULL OR c.pilot_id = :pilotId)`,
  row: { pilotId: text, code: text, signedOn: day },
});

const LESSONS = '(SELECT id FROM sorties WHERE checkout_id IN (SELECT id FROM checkouts WHERE pilot_id = :pilotId))';
/** How much of a person stays when they are erased. */
export const whatStays = statement('people.whatStays', {
  params: ['pilotId'],
  sql: `SELECT (SELECT COUNT(*) FROM ledger l JOIN checkouts c ON c.id = l.checkout_id WHERE c.pilot_id = :pilotId) AS entries,
       (SELECT COUNT(*) FROM checkouts WHERE pilot_id = :pilotId) AS checkouts,
       (SELECT COUNT(*) FROM landings WHERE pilot_id = :pilotId) AS landings,
       (SELECT COUNT(*) FROM briefs WHERE sortie_id IN ${LESSONS}) AS briefs,
       (SELECT COUNT(*) FROM debriefs WHERE sortie_id IN ${LESSONS}) AS debriefs,
       (SELECT COUNT(*) FROM self_assessments WHERE sortie_id IN ${LESSONS}) AS assessed,
       (SELECT COUNT(*) FROM traces WHERE sortie_id IN ${LESSONS}) AS traces,
       (SELECT COUNT(*) FROM exceedances WHERE sortie_id IN ${LESSONS}) AS exceedances,
       (SELECT COUNT(*) FROM qualifications WHERE pilot_id = :pilotId AND ledger_id IS NOT NULL) AS held,
       (SELECT COUNT(*) FROM bookings WHERE pilot_id = :pilotId) AS bookings,
       (SELECT COUNT(*) FROM ledger l JOIN users u ON u.id = l.signer_id WHERE u.pilot_id = :pilotId) AS signed,
       (SELECT COUNT(*) FROM sorties s JOIN users u ON u.id = s.instructor_id WHERE u.pilot_id = :pilotId) AS taught`,
  row: {
    entries: whole,
    checkouts: whole,
    landings: whole,
    briefs: whole,
    debriefs: whole,
    assessed: whole,
    traces: whole,
    exceedances: whole,
    held: whole,
    bookings: whole,
    signed: whole,
    taught: whole,
  },
});
export const namedIn = statement('people.namedIn', {
  params: ['pilotId', 'userId'],
  sql: 'SELECT (SELECT COUNT(*) FROM checkouts WHERE pilot_id = :pilotId) + (SELECT COUNT(*) FROM sorties WHERE instructor_id = :userId) AS n',
  row: { n: whole },
});
