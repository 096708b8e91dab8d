import { z } from 'zod';
import { json, real, text, whole } from '../columns';
import { statement } from '../statement';
import { Pilots } from '../../account/tables';
import { BLOCK_FROM, BLOCK_TO } from './block';

/** What leaves about one pilot (docs/record.md): every list of it, in the words of that document. */
const kept = json(z.unknown());

export const ofPilot = statement('record.ofPilot', {
  params: ['pilotId'],
  sql: 'SELECT p.*, u.email, u.id AS user_id FROM pilots p LEFT JOIN users u ON u.pilot_id = p.id WHERE p.id = :pilotId',
  row: { ...Pilots.columns, email: text.nullable(), userId: text.nullable() },
});

/** Flights recorded here, logged, and read in. */
export const flights = statement('record.flights', {
  params: ['pilotId'],
  sql: `SELECT s.flown_on, a.registration, ty.name AS type_name, u.name AS instructor, CASE WHEN c.pilot_id = :pilotId THEN s.lesson END AS lesson, c.goals,
       SUM(l.kind = 'full-stop' AND l.surface = 'land') AS land_full, SUM(l.kind = 'touch-and-go' AND l.surface = 'land') AS land_touch, SUM(l.kind IN ('full-stop', 'touch-and-go') AND l.surface = 'water') AS water, SUM(l.kind = 'go-around') AS go_arounds,
       COALESCE((SELECT json_extract(b.choices, '$.night') FROM briefs b WHERE b.sortie_id = s.id ORDER BY b.version DESC LIMIT 1), 0) AS night, SUM(l.landing_class IN ('own', 'own-off-target')) AS own, SUM(l.kind IN ('full-stop', 'touch-and-go')) AS takeoffs,
       ROUND((julianday(${BLOCK_TO}) - julianday(${BLOCK_FROM})) * 1440) AS minutes, NULL AS hours, '' AS remark, 'recorded here' AS source, s.aerodrome
     FROM landings l JOIN sorties s ON s.id = l.sortie_id JOIN checkouts c ON c.id = s.checkout_id JOIN airframes a ON a.id = COALESCE(s.airframe_id, c.airframe_id) JOIN types ty ON ty.id = a.type_id JOIN users u ON u.id = s.instructor_id
     WHERE l.pilot_id = :pilotId AND l.landing_class <> 'demonstration' GROUP BY s.id
     UNION ALL
     SELECT f.flown_on, '', ty.name, '', NULL, NULL, CASE WHEN f.surface = 'land' THEN f.full_stops ELSE 0 END, CASE WHEN f.surface = 'land' THEN f.landings - f.full_stops ELSE 0 END, CASE WHEN f.surface = 'water' THEN f.landings ELSE 0 END, 0, f.night, 0, f.takeoffs, NULL, f.hours, f.remark, 'logged by ' || u.name, NULL
     FROM standing_logged f JOIN types ty ON ty.code = f.type_code JOIN users u ON u.id = f.entered_by WHERE f.pilot_id = :pilotId
     UNION ALL
     SELECT g.flown_on, g.registration, COALESCE(ty.name, g.type_written), '', NULL, NULL, CASE WHEN g.surface = 'land' THEN g.full_stops_day + g.full_stops_night ELSE 0 END, CASE WHEN g.surface = 'land' THEN g.landings_day + g.landings_night - g.full_stops_day - g.full_stops_night ELSE 0 END, CASE WHEN g.surface = 'water' THEN g.landings_day + g.landings_night ELSE 0 END, 0, g.landings_night > 0, 0, g.takeoffs_day + g.takeoffs_night, NULL, g.hours, g.remark, 'read in from a logbook', NULL
     FROM standing_logbook g LEFT JOIN types ty ON ty.code = g.type_code WHERE g.pilot_id = :pilotId
     ORDER BY 1, 5`,
  row: {
    flownOn: text,
    registration: text,
    typeName: text,
    instructor: text,
    lesson: whole.nullable(),
    landFull: whole,
    landTouch: whole,
    water: whole,
    goArounds: whole,
    night: whole,
    own: whole,
    minutes: real.nullable(),
    goals: text.nullable(),
    remark: text,
    source: text,
    aerodrome: text.nullable(),
    takeoffs: whole,
    hours: real.nullable(),
  },
});

export const qualifications = statement('record.qualifications', {
  params: ['pilotId'],
  sql: `SELECT kind, gained_on AS gained_on, note, ledger_id AS ledger_id, ended_at AS ended_at FROM qualifications WHERE pilot_id = :pilotId ORDER BY gained_on`,
  row: { kind: text, gainedOn: text.nullable(), note: text, ledgerId: text.nullable(), endedAt: text.nullable() },
});

export const eyes = statement('record.eyes', {
  params: ['pilotId'],
  sql: `SELECT type_code AS type_code, seat, eye_height_m AS eye_height_m, how, entered_at AS entered_at FROM pilot_eyes WHERE pilot_id = :pilotId ORDER BY seq`,
  row: { typeCode: text.nullable(), seat: text, eyeHeightM: real, how: text, enteredAt: text },
});

export const log = statement('record.log', {
  params: ['pilotId'],
  sql: `SELECT f.flown_on AS flown_on, f.type_code AS type_code, f.takeoffs, f.landings, f.full_stops AS full_stops, f.night, f.surface, f.hours, f.remark, f.entered_at AS entered_at, x.reason AS struck FROM flight_log f LEFT JOIN flight_log_struck x ON x.log_id = f.id WHERE f.pilot_id = :pilotId ORDER BY f.flown_on`,
  row: {
    flownOn: text,
    typeCode: text.nullable(),
    takeoffs: real,
    landings: real,
    fullStops: real,
    night: whole,
    surface: text,
    hours: real,
    remark: text,
    enteredAt: text,
    struck: text.nullable(),
  },
});

export const dates = statement('record.dates', {
  params: ['pilotId'],
  sql: `SELECT d.key, d.title, d.done_on AS done_on, d.until, d.note, u.name AS entered_by, d.entered_at AS entered_at FROM person_dates d JOIN users u ON u.id = d.entered_by WHERE d.pilot_id = :pilotId ORDER BY d.key, d.seq`,
  row: {
    key: text,
    title: text,
    doneOn: text.nullable(),
    until: text.nullable(),
    note: text,
    enteredBy: text,
    enteredAt: text,
  },
});

export const notes = statement('record.notes', {
  params: ['pilotId'],
  sql: `SELECT CASE WHEN n.visible = 'chief' THEN NULL ELSE n.text END AS text, n.visible, u.name AS author, n.written_at AS written_at, n.withdrawn_at AS withdrawn_at FROM person_notes n JOIN users u ON u.id = n.author WHERE n.pilot_id = :pilotId ORDER BY n.written_at`,
  row: { text: text.nullable(), visible: text, author: text, writtenAt: text, withdrawnAt: text.nullable() },
});

export const logbooks = statement('record.logbooks', {
  params: ['pilotId'],
  sql: `SELECT i.file_name AS file_name, i.imported_at AS imported_at, i.added, i.doubled, i.refused, i.taken_back_at AS taken_back_at FROM logbook_imports i WHERE i.pilot_id = :pilotId ORDER BY i.imported_at`,
  row: { fileName: text, importedAt: text, added: whole, doubled: whole, refused: whole, takenBackAt: text.nullable() },
});

export const logbookFlights = statement('record.logbookFlights', {
  params: ['pilotId'],
  sql: `SELECT f.flown_on AS flown_on, f.type_written AS type_written, f.registration, f.type_code AS type_code, f.hours, f.pic_hours AS pic_hours, f.dual, f.takeoffs_day AS takeoffs_day, f.takeoffs_night AS takeoffs_night, f.landings_day AS landings_day, f.landings_night AS landings_night, f.full_stops_day AS full_stops_day, f.full_stops_night AS full_stops_night, f.remark, i.taken_back_at AS taken_back_at FROM logbook_flights f JOIN logbook_imports i ON i.id = f.import_id WHERE f.pilot_id = :pilotId ORDER BY f.flown_on, f.fingerprint`,
  row: {
    flownOn: text,
    typeWritten: text,
    registration: text.nullable(),
    typeCode: text.nullable(),
    hours: real,
    picHours: real.nullable(),
    dual: whole,
    takeoffsDay: whole,
    takeoffsNight: whole,
    landingsDay: whole,
    landingsNight: whole,
    fullStopsDay: whole,
    fullStopsNight: whole,
    remark: text,
    takenBackAt: text.nullable(),
  },
});

export const bookings = statement('record.bookings', {
  params: ['pilotId'],
  sql: `SELECT b.kind, b.starts_at AS starts_at, b.ends_at AS ends_at, b.state, a.registration, u.name AS instructor, b.passengers, b.note FROM bookings b LEFT JOIN airframes a ON a.id = b.airframe_id LEFT JOIN users u ON u.id = b.instructor_id WHERE b.pilot_id = :pilotId ORDER BY b.starts_at`,
  row: {
    kind: text,
    startsAt: text,
    endsAt: text,
    state: text,
    registration: text.nullable(),
    instructor: text.nullable(),
    passengers: whole,
    note: text,
  },
});

export const bookingChanges = statement('record.bookingChanges', {
  params: ['pilotId'],
  sql: `SELECT b.starts_at AS starts_at, h.version, h.what, h.reason, u.name AS changed_by, h.changed_at AS changed_at
         FROM booking_changes h JOIN bookings b ON b.id = h.booking_id JOIN users u ON u.id = h.changed_by
         WHERE b.pilot_id = :pilotId ORDER BY h.changed_at`,
  row: { startsAt: text, version: whole, what: text, reason: text.nullable(), changedBy: text, changedAt: text },
});

export const waiting = statement('record.waiting', {
  params: ['pilotId'],
  sql: `SELECT minutes, from_date AS from_date, to_date AS to_date, note, asked_at AS asked_at, ended_at AS ended_at,
         ended_how AS ended_how FROM waiting_list WHERE pilot_id = :pilotId ORDER BY asked_at`,
  row: {
    minutes: whole,
    fromDate: text,
    toDate: text,
    note: text,
    askedAt: text,
    endedAt: text.nullable(),
    endedHow: text.nullable(),
  },
});

export const timesAway = statement('record.timesAway', {
  params: ['asUser', 'who'],
  sql: `SELECT from_at AS from_at, to_at AS to_at, why, entered_at AS entered_at, ended_at AS ended_at,
         ended_why AS ended_why FROM times_away WHERE who = :who OR who = :asUser ORDER BY from_at`,
  row: {
    fromAt: text,
    toAt: text.nullable(),
    why: text,
    enteredAt: text,
    endedAt: text.nullable(),
    endedWhy: text.nullable(),
  },
});

export const weeklyTimes = statement('record.weeklyTimes', {
  params: ['asUser', 'who'],
  sql: `SELECT weekday, from_min AS from_min, to_min AS to_min, valid_from AS valid_from, valid_until AS valid_until,
         ended_at AS ended_at FROM weekly_windows WHERE person = :who OR person = :asUser
         ORDER BY valid_from, weekday`,
  row: {
    weekday: whole,
    fromMin: whole,
    toMin: whole,
    validFrom: text,
    validUntil: text.nullable(),
    endedAt: text.nullable(),
  },
});

export const account = statement('record.account', {
  params: ['pilotId'],
  sql: `SELECT email, roles, authorised, certificate, certificate_until AS certificate_until,
         created_at AS created_at, closed_at AS closed_at, password_given_at AS access_given_at FROM users
         WHERE pilot_id = :pilotId`,
  row: {
    email: text,
    roles: text,
    authorised: text,
    certificate: text,
    certificateUntil: text.nullable(),
    createdAt: text,
    closedAt: text.nullable(),
    accessGivenAt: text.nullable(),
  },
});

export const notices = statement('record.notices', {
  params: ['pilotId'],
  sql: `SELECT n.kind, n.text, n.made_at AS made_at, n.seen_at AS seen_at
         FROM notices n JOIN users u ON u.id = n.user_id WHERE u.pilot_id = :pilotId ORDER BY n.seq`,
  row: { kind: text, text: text.nullable(), madeAt: text, seenAt: text.nullable() },
});

export const debriefs = statement('record.debriefs', {
  params: ['pilotId'],
  sql: `SELECT x.sortie_id AS sortie_id, s.lesson, x.version, x.focus, x.remark, x.snapshot, u.name AS "by",
           x.created_at AS created_at, x.acknowledged_at AS acknowledged_at
           FROM debriefs x JOIN users u ON u.id = x.created_by JOIN sorties s ON s.id = x.sortie_id JOIN checkouts c ON c.id = s.checkout_id WHERE c.pilot_id = :pilotId ORDER BY x.created_at`,
  row: {
    sortieId: text,
    lesson: whole,
    version: whole,
    focus: kept,
    remark: text,
    snapshot: kept,
    by: text,
    createdAt: text,
    acknowledgedAt: text.nullable(),
  },
});

export const selfAssessments = statement('record.selfAssessments', {
  params: ['pilotId'],
  sql: `SELECT x.sortie_id AS sortie_id, s.lesson, x.said, x.told_at AS said_at FROM self_assessments x JOIN sorties s ON s.id = x.sortie_id JOIN checkouts c ON c.id = s.checkout_id WHERE c.pilot_id = :pilotId ORDER BY x.told_at`,
  row: { sortieId: text, lesson: whole, said: kept, saidAt: text },
});

export const lessonPlans = statement('record.lessonPlans', {
  params: ['pilotId'],
  sql: `SELECT p.lesson, p.version, p.plan, u.name AS "by", p.created_at AS created_at
           FROM lesson_plans p JOIN users u ON u.id = p.created_by JOIN checkouts c ON c.id = p.checkout_id
           WHERE c.pilot_id = :pilotId ORDER BY p.created_at`,
  row: { lesson: whole, version: whole, plan: kept, by: text, createdAt: text },
});

export const findings = statement('record.findings', {
  params: ['pilotId'],
  sql: `SELECT d.finding_id AS finding_id, d.decision, d.reason, d.lesson, d.own, u.name AS "by",
           d.decided_at AS decided_at
           FROM finding_decisions d JOIN users u ON u.id = d.decided_by JOIN checkouts c ON c.id = d.checkout_id
           WHERE c.pilot_id = :pilotId ORDER BY d.decided_at`,
  row: {
    findingId: text,
    decision: text,
    reason: text.nullable(),
    lesson: whole,
    own: kept.nullable(),
    by: text,
    decidedAt: text,
  },
});

export const recordings = statement('record.recordings', {
  params: ['pilotId'],
  sql: `SELECT x.id, x.sortie_id AS sortie_id, s.lesson, x.name, x.bytes, x.hash AS sha256, x.start_utc AS start_utc,
           x.uploaded_at AS uploaded_at, x.context, x.analysis FROM traces x JOIN sorties s ON s.id = x.sortie_id JOIN checkouts c ON c.id = s.checkout_id WHERE c.pilot_id = :pilotId ORDER BY x.uploaded_at`,
  row: {
    id: text,
    sortieId: text,
    lesson: whole,
    name: text,
    bytes: whole,
    sha256: text,
    startUtc: text.nullable(),
    uploadedAt: text,
    context: kept,
    analysis: kept,
  },
});

export const exceedances = statement('record.exceedances', {
  params: ['pilotId'],
  sql: `SELECT x.channel, x.limit_value AS limit_value, x.unit, x.peak, x.duration_s AS duration_s,
         x.must_do AS must_do, x.found_at AS found_at, r.released_at AS released_at, r.done FROM exceedances x
         LEFT JOIN exceedance_releases r ON r.exceedance_id = x.id JOIN sorties s ON s.id = x.sortie_id JOIN checkouts c ON c.id = s.checkout_id WHERE c.pilot_id = :pilotId ORDER BY x.found_at`,
  row: {
    channel: text,
    limitValue: real.nullable(),
    unit: text,
    peak: real.nullable(),
    durationS: real.nullable(),
    mustDo: text,
    foundAt: text,
    releasedAt: text.nullable(),
    done: text.nullable(),
  },
});

export const reasons = statement('record.reasons', {
  params: ['pilotId'],
  sql: `SELECT x.type, json_extract(x.payload, '$.reason') AS reason, x.device_time AS at, u.name AS "by"
         FROM capture_events x JOIN users u ON u.id = x.author JOIN sorties s ON s.id = x.sortie_id JOIN checkouts c ON c.id = s.checkout_id WHERE c.pilot_id = :pilotId AND x.type IN ('overruled', 'item-waived',
         'stop-explained', 'limit-overridden') ORDER BY x.device_time`,
  row: { type: text, reason: text.nullable(), at: text, by: text },
});
