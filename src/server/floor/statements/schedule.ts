import { computed, day, flag, real, text, whole } from '../columns';
import { goals } from '../stored';
import type { Limitations } from '@/domain/ledger';
import { statement } from '../statement';
import { BLOCK_FROM, BLOCK_TO } from './block';
import { Pilots, Users } from '../../account/tables';
import { Bookings, BookingHolds, TimesAway, Waiting } from '../../schedule/tables';
import { LedgerEntries } from '../../ledger/tables';
import { Checkouts } from '../../checkout/tables';
import { Exceedances } from '../../traces/tables';
import { Airframes, Groundings, TypeVersions } from '../../hangar/tables';

export const check = statement('schedule.check', {
  params: ['pilotId'],
  sql: `SELECT name FROM pilots p WHERE id = :pilotId AND NOT EXISTS (SELECT 1 FROM erasures e WHERE e.pilot_id = p.id)`,
  row: { name: Pilots.columns.name },
});

export const checkBookings = statement('schedule.checkBookings', {
  params: ['pilotId', 'now'],
  sql: `SELECT COUNT(*) AS n FROM bookings WHERE pilot_id = :pilotId AND state = 'booked' AND starts_at > :now`,
  row: { n: real },
});

export const trainingProblem = statement('schedule.trainingProblem', {
  params: ['id', 'booking', 'from', 'to'],
  sql: `SELECT starts_at, split FROM bookings WHERE instructor_id = :id AND state <> 'cancelled' AND pilot_id IS NOT NULL AND (:booking IS NULL OR id <> :booking) AND ends_at > :from AND starts_at < :to`,
  row: { startsAt: Bookings.columns.startsAt, split: Bookings.columns.split },
});

export const aloneProblems = statement('schedule.aloneProblems', {
  params: ['pilotId', 'code'],
  sql: `SELECT MAX(hours) AS h FROM pilot_hours WHERE pilot_id = :pilotId AND type_code = :code`,
  row: { h: real.nullable() },
});

export const isInstructor = statement('schedule.isInstructor', {
  params: ['pilotId'],
  sql: `SELECT id FROM users WHERE pilot_id = :pilotId AND closed_at IS NULL AND EXISTS (SELECT 1 FROM json_each(roles) WHERE value = 'instructor')`,
  row: { id: Users.columns.id },
});

export const signOffsIn = statement('schedule.signOffsIn', {
  params: ['pilotId', 'code'],
  sql: `SELECT l.seq, json_extract(l.canonical, '$.body.limitations') AS limitations, l.signed_on AS "on", c.goals FROM signed_entries l JOIN checkouts c ON c.id = l.checkout_id JOIN checkout_types ty ON ty.checkout_id = c.id
     WHERE l.kind = 'sign-off' AND c.pilot_id = :pilotId AND ty.code = :code AND NOT EXISTS (SELECT 1 FROM ledger v WHERE v.kind = 'void' AND json_extract(v.canonical, '$.body.of.id') = l.id) ORDER BY l.seq`,
  row: {
    seq: LedgerEntries.columns.seq,
    // Read as it was signed, never held to the schema of today.
    limitations: computed<Limitations>(),
    on: text,
    goals: Checkouts.columns.goals,
  },
});

export const saveAway = statement('schedule.saveAway', {
  params: ['who', 'to', 'from', 'now'],
  sql: `SELECT h.booking_id, b.pilot_id, b.instructor_id FROM booking_holds h JOIN bookings b ON b.id = h.booking_id WHERE h.holder = :who AND h.starts_at < :to AND h.ends_at > :from AND h.ends_at > :now`,
  row: {
    bookingId: BookingHolds.columns.bookingId,
    pilotId: Bookings.columns.pilotId,
    instructorId: Bookings.columns.instructorId,
  },
});

export const schedulePage = statement('schedule.schedulePage', {
  params: [],
  sql: `SELECT id, name FROM pilots p WHERE NOT EXISTS (SELECT 1 FROM erasures e WHERE e.pilot_id = p.id) ORDER BY name`,
  row: { id: Pilots.columns.id, name: Pilots.columns.name },
});

export const awayRows = statement('schedule.awayRows', {
  params: ['now'],
  sql: `SELECT id, who, kind, from_at, to_at, why FROM times_away WHERE ended_at IS NULL AND (to_at IS NULL OR to_at > :now)`,
  row: {
    id: TimesAway.columns.id,
    who: TimesAway.columns.who,
    kind: TimesAway.columns.kind,
    fromAt: TimesAway.columns.fromAt,
    toAt: TimesAway.columns.toAt,
    why: TimesAway.columns.why,
  },
});

export const awayRowsExceedances = statement('schedule.awayRowsExceedances', {
  params: ['now'],
  sql: `SELECT e.id, e.airframe_id, e.channel, e.trace_id, e.found_at, a.registration FROM exceedances e JOIN airframes a ON a.id = e.airframe_id WHERE e.found_at <= :now AND NOT EXISTS (SELECT 1 FROM exceedance_releases r WHERE r.exceedance_id = e.id)`,
  row: {
    id: Exceedances.columns.id,
    airframeId: Exceedances.columns.airframeId,
    channel: Exceedances.columns.channel,
    traceId: Exceedances.columns.traceId,
    foundAt: Exceedances.columns.foundAt,
    registration: Airframes.columns.registration,
  },
});

export const awayRowsGroundings = statement('schedule.awayRowsGroundings', {
  params: ['now'],
  sql: `SELECT g.id, g.airframe_id, g.why, g.placed_at FROM groundings g WHERE g.placed_at <= :now AND NOT EXISTS (SELECT 1 FROM grounding_ends e WHERE e.grounding_id = g.id)`,
  row: {
    id: Groundings.columns.id,
    airframeId: Groundings.columns.airframeId,
    why: Groundings.columns.why,
    placedAt: Groundings.columns.placedAt,
  },
});

export const airframeSheet = statement('schedule.airframeSheet', {
  params: ['airframeId'],
  sql: `SELECT a.registration, tv.id, tv.sheet FROM airframes a JOIN type_versions tv ON tv.type_id = a.type_id WHERE a.id = :airframeId ORDER BY tv.version DESC LIMIT 1`,
  row: { registration: Airframes.columns.registration, id: TypeVersions.columns.id, sheet: TypeVersions.columns.sheet },
});

export const waiting = statement('schedule.waiting', {
  params: ['today'],
  sql: `SELECT w.*, p.name, a.registration, c.goals FROM waiting_list w JOIN pilots p ON p.id = w.pilot_id LEFT JOIN checkouts c ON c.id = w.checkout_id LEFT JOIN airframes a ON a.id = c.airframe_id WHERE w.ended_at IS NULL AND w.to_date >= :today ORDER BY w.asked_at, w.id`,
  row: {
    id: Waiting.columns.id,
    pilotId: Waiting.columns.pilotId,
    checkoutId: Waiting.columns.checkoutId,
    minutes: Waiting.columns.minutes,
    fromDate: Waiting.columns.fromDate,
    toDate: Waiting.columns.toDate,
    note: Waiting.columns.note,
    askedAt: Waiting.columns.askedAt,
    name: Pilots.columns.name,
    registration: Airframes.columns.registration.nullable(),
    goals: Checkouts.columns.goals.nullable(),
  },
});

const booking = (
  where: string,
) => `SELECT b.*, p.name AS pilot_name, u.name AS instructor_name, u.pilot_id AS instructor_pilot, a.registration, ty.name AS type_name, ty.code, c.goals FROM bookings b LEFT JOIN pilots p ON p.id = b.pilot_id LEFT JOIN users u ON u.id = b.instructor_id
  LEFT JOIN airframes a ON a.id = b.airframe_id LEFT JOIN types ty ON ty.id = a.type_id LEFT JOIN checkouts c ON c.id = b.checkout_id WHERE ${where}`;
const booked = {
  ...Bookings.columns,
  pilotName: text.nullable(),
  instructorName: text.nullable(),
  instructorPilot: text.nullable(),
  registration: text.nullable(),
  typeName: text.nullable(),
  code: text.nullable(),
  goals: goals.nullable(),
};
export const bookingById = statement('schedule.bookingById', {
  params: ['id'],
  sql: booking('b.id = :id'),
  row: booked,
});
export const bookingsBetween = statement('schedule.bookingsBetween', {
  params: ['from', 'to'],
  sql: booking("b.state = 'booked' AND b.ends_at > :from AND b.starts_at < :to ORDER BY b.starts_at, b.id"),
  row: booked,
});
export const ownBookings = statement('schedule.ownBookings', {
  params: ['from', 'id', 'pilotId', 'limit', 'cancelled'],
  sql: booking(
    "(:cancelled = 1 OR b.state = 'booked') AND b.ends_at > :from AND (b.instructor_id = :id OR b.pilot_id = :pilotId) ORDER BY b.starts_at LIMIT :limit",
  ),
  row: booked,
});
/** When each step of a lesson of a type was done. */
export const lessonTimes = statement('schedule.lessonTimes', {
  params: ['typeCode', 'most'],
  sql: `SELECT (SELECT MIN(created_at) FROM briefs b WHERE b.sortie_id = s.id) AS briefed, (SELECT MIN(acknowledged_at) FROM briefs b WHERE b.sortie_id = s.id) AS acknowledged, MIN(l.saved_at) AS first, MAX(l.saved_at) AS last, (SELECT MIN(told_at) FROM self_assessments x WHERE x.sortie_id = s.id) AS told, (SELECT MIN(created_at) FROM debriefs d WHERE d.sortie_id = s.id) AS debriefed
     FROM sorties s JOIN checkout_types ty ON ty.checkout_id = s.checkout_id JOIN landings l ON l.sortie_id = s.id WHERE ty.code = :typeCode GROUP BY s.id ORDER BY s.flown_on DESC LIMIT :most`,
  row: {
    briefed: text.nullable(),
    acknowledged: text.nullable(),
    first: text.nullable(),
    last: text.nullable(),
    told: text.nullable(),
    debriefed: text.nullable(),
  },
});
/** Hours logged or read in for a type after a day. */
export const hoursSince = statement('schedule.hoursSince', {
  params: ['pilotId', 'code', 'day'],
  sql: `SELECT (SELECT COALESCE(SUM(hours), 0) FROM standing_logged f WHERE f.pilot_id = :pilotId AND f.type_code = :code AND f.flown_on > :day)
       + (SELECT COALESCE(SUM(f.hours), 0) FROM standing_logbook f WHERE f.pilot_id = :pilotId AND f.type_code = :code AND f.flown_on > :day) AS h`,
  row: { h: real },
});

/** Lessons of some days with the block times of their clocks, for the bookings they were flown in. */
export const lessonsOn = statement('schedule.lessonsOn', {
  params: ['from', 'to', 'checkoutId'],
  sql: `SELECT s.checkout_id, s.lesson, s.flown_on, ${BLOCK_FROM} AS off_block, ${BLOCK_TO} AS on_block, EXISTS (SELECT 1 FROM landings l WHERE l.sortie_id = s.id) AS flown
     FROM sorties s WHERE s.flown_on >= :from AND s.flown_on <= :to AND (:checkoutId IS NULL OR s.checkout_id = :checkoutId) ORDER BY s.flown_on, s.lesson`,
  row: {
    checkoutId: text,
    lesson: whole,
    flownOn: day,
    offBlock: text.nullable(),
    onBlock: text.nullable(),
    flown: flag,
  },
});
