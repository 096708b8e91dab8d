import { z } from 'zod';
import { day, flag, instant, json, real, text, whole } from '../columns';
import { goals } from '../stored';
import { statement } from '../statement';
import { mark } from './block';
import { CaptureEvents } from '../../fly/tables';
import { Checkouts, Sorties, Briefs } from '../../checkout/tables';
import { Landings } from '../../fly/tables';
import { Pilots, Users } from '../../account/tables';
import { LedgerEntries } from '../../ledger/tables';
import { Airframes, AirframeVersions, TypeVersions } from '../../hangar/tables';
import { PilotHours } from '../../people/tables';

export const refreshMissing = statement('checkout.refreshMissing', {
  params: [],
  sql: `SELECT c.id FROM checkouts c WHERE EXISTS (SELECT 1 FROM landings l WHERE l.checkout_id = c.id) AND NOT EXISTS (SELECT 1 FROM stage_tallies s WHERE s.checkout_id = c.id) AND NOT EXISTS (SELECT 1 FROM side_tallies s WHERE s.checkout_id = c.id)`,
  row: { id: Checkouts.columns.id },
});

export const refreshCheckout = statement('checkout.refreshCheckout', {
  params: ['id'],
  sql: `SELECT l.landing_class, json_extract(l.captured, '$.intervention') AS intervention, json_extract(l.captured, '$.lateral') AS lateral, json_extract(l.captured, '$.demonstration') AS demonstration, l.author, l.flown_on, l.saved_at
     FROM landings l JOIN sorties s ON s.id = l.sortie_id WHERE l.checkout_id = :id ORDER BY s.lesson, l.number`,
  row: {
    landingClass: Landings.columns.landingClass,
    intervention: real.nullable(),
    lateral: text.nullable(),
    demonstration: real,
    author: Landings.columns.author,
    flownOn: Landings.columns.flownOn,
    savedAt: Landings.columns.savedAt,
  },
});

const { columns: c } = Checkouts;
const HEAD = {
  id: c.id,
  pilotId: c.pilotId,
  pilotName: Pilots.columns.name,
  pilotMassKg: Pilots.columns.massKg,
  instructorId: c.instructorId,
  airframeId: c.airframeId,
  instructorName: Users.columns.name,
  registration: Airframes.columns.registration,
  pack: c.pack,
  goals: c.goals,
  status: c.status,
  signedLedgerId: c.signedLedgerId,
  createdAt: c.createdAt,
  note: c.note,
  schools: c.schools,
  opening: c.opening,
  programmeIds: c.programmeIds,
  standardId: c.standardId,
  packId: c.packId,
  houseId: c.houseId,
  typeVersion: TypeVersions.columns.version,
  airframeVersion: AirframeVersions.columns.version,
  typeVersionId: c.typeVersionId,
  airframeVersionId: c.airframeVersionId,
};
/** Asked by every page of a checkout: one statement, not a finder with five links. */
export const checkoutHead = statement('checkout.checkoutHead', {
  params: ['id'],
  sql: `SELECT c.*, p.name AS pilot_name, p.mass_kg AS pilot_mass_kg, u.name AS instructor_name, a.registration,
       tv.version AS type_version, av.version AS airframe_version
     FROM checkouts c JOIN pilots p ON p.id = c.pilot_id JOIN users u ON u.id = c.instructor_id
     JOIN airframes a ON a.id = c.airframe_id JOIN type_versions tv ON tv.id = c.type_version_id
     JOIN airframe_versions av ON av.id = c.airframe_version_id WHERE c.id = :id`,
  row: HEAD,
});

export const changesOf = statement('checkout.changesOf', {
  params: ['ids', 'pilots'],
  sql: `SELECT id, name FROM users WHERE id IN (:ids) UNION SELECT id, name FROM pilots WHERE id IN (:pilots)`,
  row: { id: Pilots.columns.id, name: Pilots.columns.name },
});

export const sortiesOf = statement('checkout.sortiesOf', {
  params: ['checkoutId'],
  sql: `SELECT s.id, s.lesson, s.flown_on, s.instructor_id, s.shared_with, s.second_pilot_id, s.second_checkout_id, s.aerodrome, s.airframe_id, fa.registration, b.id AS brief_id, b.version, b.choices, b.snapshot, b.created_at, b.acknowledged_at, u.name AS acknowledged_by_name, w.name AS created_by_name
     FROM sorties s LEFT JOIN briefs b ON b.sortie_id = s.id AND b.version = (SELECT MAX(version) FROM briefs WHERE sortie_id = s.id)
     LEFT JOIN airframes fa ON fa.id = s.airframe_id LEFT JOIN users u ON u.id = b.acknowledged_by LEFT JOIN users w ON w.id = b.created_by WHERE s.checkout_id = :checkoutId ORDER BY s.lesson`,
  row: {
    id: Sorties.columns.id,
    lesson: Sorties.columns.lesson,
    flownOn: Sorties.columns.flownOn,
    instructorId: Sorties.columns.instructorId,
    sharedWith: Sorties.columns.sharedWith,
    secondPilotId: Sorties.columns.secondPilotId,
    secondCheckoutId: Sorties.columns.secondCheckoutId,
    aerodrome: Sorties.columns.aerodrome,
    airframeId: Sorties.columns.airframeId,
    registration: Airframes.columns.registration.nullable(),
    briefId: Briefs.columns.id.nullable(),
    version: Briefs.columns.version.nullable(),
    choices: Briefs.columns.choices.nullable(),
    snapshot: Briefs.columns.snapshot.nullable(),
    createdAt: Briefs.columns.createdAt.nullable(),
    acknowledgedAt: Briefs.columns.acknowledgedAt,
    acknowledgedByName: Users.columns.name.nullable(),
    createdByName: Users.columns.name.nullable(),
  },
});

/** Landings of a checkout in the order they were flown: asked for every page of it, and so no finder. */
export const landingsOf = statement('checkout.landingsOf', {
  params: ['checkoutId'],
  sql: `SELECT l.id, l.sortie_id, l.number, l.kind, l.intended, l.gear_group, l.crosswind_kt, l.wind_age_min, l.flown_on,
       l.saved_at, l.captured, l.judged, l.surface, l.measured, l.first, l.aerodrome, s.lesson
     FROM landings l JOIN sorties s ON s.id = l.sortie_id WHERE l.checkout_id = :checkoutId ORDER BY s.lesson, l.number`,
  row: {
    id: Landings.columns.id,
    sortieId: Landings.columns.sortieId,
    number: Landings.columns.number,
    kind: Landings.columns.kind,
    intended: Landings.columns.intended,
    gearGroup: Landings.columns.gearGroup,
    crosswindKt: Landings.columns.crosswindKt,
    windAgeMin: Landings.columns.windAgeMin,
    flownOn: Landings.columns.flownOn,
    savedAt: Landings.columns.savedAt,
    captured: Landings.columns.captured,
    judged: Landings.columns.judged,
    surface: Landings.columns.surface,
    measured: Landings.columns.measured,
    first: Landings.columns.first,
    aerodrome: Landings.columns.aerodrome,
    lesson: Sorties.columns.lesson,
  },
});

export const ladderOf = statement('checkout.ladderOf', {
  params: ['pilotId', 'group'],
  sql: `SELECT flown_on, crosswind_kt, wind_age_min, captured, judged FROM landings WHERE pilot_id = :pilotId AND gear_group = :group AND kind NOT IN ('go-around', 'low-pass') ORDER BY flown_on, saved_at`,
  row: {
    flownOn: Landings.columns.flownOn,
    crosswindKt: Landings.columns.crosswindKt,
    windAgeMin: Landings.columns.windAgeMin,
    captured: Landings.columns.captured,
    judged: Landings.columns.judged,
  },
});

export const pilotList = statement('checkout.pilotList', {
  params: [],
  sql: `SELECT p.*, u.email FROM pilots p LEFT JOIN users u ON u.pilot_id = p.id ORDER BY p.name`,
  row: {
    id: Pilots.columns.id,
    name: Pilots.columns.name,
    massKg: Pilots.columns.massKg,
    experience: Pilots.columns.experience,
    hours: Pilots.columns.hours,
    experienceSince: Pilots.columns.experienceSince,
    certificate: Pilots.columns.certificate,
    email: Users.columns.email.nullable(),
  },
});

export const sharersOf = statement('checkout.sharersOf', {
  params: ['registration', 'pilotId'],
  sql: `SELECT p.id, p.name, EXISTS (SELECT 1 FROM checkouts c JOIN airframes a ON a.id = c.airframe_id WHERE c.pilot_id = p.id AND c.status = 'open' AND a.registration = :registration) AS own
     FROM pilots p WHERE p.id <> :pilotId ORDER BY own DESC, p.name`,
  row: { id: Pilots.columns.id, name: Pilots.columns.name, own: real },
});

export const findable = statement('checkout.findable', {
  params: [],
  sql: `SELECT p.id, p.name, u.roles FROM pilots p LEFT JOIN users u ON u.pilot_id = p.id WHERE NOT EXISTS (SELECT 1 FROM erasures e WHERE e.pilot_id = p.id) ORDER BY p.name LIMIT 2000`,
  row: { id: Pilots.columns.id, name: Pilots.columns.name, roles: Users.columns.roles.nullable() },
});

export const weighedOn = statement('checkout.weighedOn', {
  params: ['id'],
  sql: `SELECT signed_on AS "on" FROM signed_entries WHERE id = :id`,
  row: { on: text },
});

export const itemsInBook = statement('checkout.itemsInBook', {
  params: ['id', 'kind'],
  sql: `SELECT l.id, l.signed_at AS at, json_extract(l.canonical, '$.body.signedOn') AS "on", json_extract(l.canonical, '$.body.signer.name') AS by,
       json_extract(l.canonical, '$.body.items') AS items
     FROM ledger l WHERE l.checkout_id = :id AND l.kind = :kind
       AND NOT EXISTS (SELECT 1 FROM ledger v WHERE v.kind = 'void' AND json_extract(v.canonical, '$.body.of.id') = l.id)`,
  row: {
    id: LedgerEntries.columns.id,
    at: LedgerEntries.columns.signedAt,
    on: text,
    by: text,
    items: json(z.array(z.object({ id: z.string() }))),
  },
});

export const experienceOf = statement('checkout.experienceOf', {
  params: ['p'],
  sql: `SELECT tv.id AS version_id, tv.sheet, h.hours FROM pilot_hours h JOIN types ty ON ty.code = h.type_code JOIN type_versions tv ON tv.type_id = ty.id AND tv.version = (SELECT MAX(version) FROM type_versions WHERE type_id = ty.id)
     WHERE h.pilot_id = :p AND h.seq = (SELECT MAX(seq) FROM pilot_hours x WHERE x.pilot_id = h.pilot_id AND x.type_code = h.type_code)`,
  row: { versionId: TypeVersions.columns.id, sheet: TypeVersions.columns.sheet, hours: PilotHours.columns.hours },
});

const list = (
  where: string,
) => `SELECT c.id, c.pilot_id, p.name AS pilot_name, u.name AS instructor_name, c.instructor_id, a.registration,
       ty.name AS type_name, c.goals, c.status, c.created_at,
       (SELECT COUNT(*) FROM sorties s WHERE s.checkout_id = c.id) AS lessons,
       (SELECT MAX(l.flown_on) FROM landings l WHERE l.checkout_id = c.id) AS last_flown,
       (SELECT COUNT(*) FROM landings l WHERE l.sortie_id = (SELECT id FROM sorties s WHERE s.checkout_id = c.id ORDER BY lesson DESC LIMIT 1)) AS latest_landings,
       (SELECT COUNT(*) FROM briefs b WHERE b.sortie_id = (SELECT id FROM sorties s WHERE s.checkout_id = c.id ORDER BY lesson DESC LIMIT 1)) AS latest_briefed,
       (SELECT COUNT(*) FROM briefs b WHERE b.acknowledged_at IS NOT NULL AND b.sortie_id = (SELECT id FROM sorties s WHERE s.checkout_id = c.id ORDER BY lesson DESC LIMIT 1)) AS latest_ack
     FROM checkouts c JOIN pilots p ON p.id = c.pilot_id JOIN users u ON u.id = c.instructor_id JOIN airframes a ON a.id = c.airframe_id JOIN types ty ON ty.id = a.type_id
     ${where} ORDER BY c.status, COALESCE(last_flown, c.created_at) DESC`;
const listed = {
  id: text,
  pilotId: text,
  pilotName: text,
  instructorName: text,
  instructorId: text,
  registration: text,
  typeName: text,
  goals,
  status: Checkouts.columns.status,
  createdAt: instant,
  lessons: whole,
  lastFlown: day.nullable(),
  latestLandings: whole,
  latestBriefed: whole,
  latestAck: whole,
};
export const checkoutList = statement('checkout.checkoutList', { params: [], sql: list(''), row: listed });
export const checkoutListOf = statement('checkout.checkoutListOf', {
  params: ['pilotId'],
  sql: list('WHERE c.pilot_id = :pilotId'),
  row: listed,
});

const counted = { of: text.nullable(), kind: text, shown: flag, n: whole };
/** What was flown, by checkout, of everybody or of one pilot. */
export const flownCounts = statement('checkout.flownCounts', {
  params: [],
  sql: 'SELECT l.checkout_id AS "of", l.kind, l.shown, COUNT(*) AS n FROM landings l WHERE l.checkout_id IS NOT NULL GROUP BY 1, 2, 3',
  row: counted,
});
export const flownCountsOf = statement('checkout.flownCountsOf', {
  params: ['pilotId'],
  sql: 'SELECT l.checkout_id AS "of", l.kind, l.shown, COUNT(*) AS n FROM landings l WHERE l.pilot_id = :pilotId GROUP BY 1, 2, 3',
  row: counted,
});
export const flownCountsBetween = statement('checkout.flownCountsBetween', {
  params: ['from', 'to'],
  sql: `SELECT '' AS "of", l.kind, l.shown, COUNT(*) AS n FROM landings l WHERE l.flown_on >= :from AND l.flown_on <= :to GROUP BY 1, 2, 3`,
  row: counted,
});

/** Capture events of a whole checkout with the flights its pilot shared; of some types where they are named. */
export const eventsOfCheckout = statement('checkout.eventsOfCheckout', {
  params: ['checkoutId'],
  sql: 'SELECT e.* FROM capture_events e WHERE e.sortie_id IN (SELECT COALESCE(shared_with, id) FROM sorties WHERE checkout_id = :checkoutId)',
  row: CaptureEvents.columns,
});
export const typedEventsOfCheckout = statement('checkout.typedEventsOfCheckout', {
  params: ['checkoutId', 'types'],
  sql: 'SELECT e.* FROM capture_events e WHERE e.sortie_id IN (SELECT COALESCE(shared_with, id) FROM sorties WHERE checkout_id = :checkoutId) AND e.type IN (:types)',
  row: CaptureEvents.columns,
});

/** Where the booking of a checkout goes that runs or comes next. */
export const bookedAerodrome = statement('checkout.bookedAerodrome', {
  params: ['checkoutId', 'now'],
  sql: `SELECT aerodrome FROM bookings WHERE checkout_id = :checkoutId AND state = 'booked' AND ends_at > :now ORDER BY starts_at LIMIT 1`,
  row: { aerodrome: Sorties.columns.aerodrome },
});

/** Minutes on the ground of past flights of a type: block to take-off, and last landing to block, where all were tapped. */
export const groundTimes = statement('checkout.groundTimes', {
  params: ['typeCode', 'most'],
  sql: `SELECT (julianday(${mark('take-off', 'MIN')}) - julianday(${mark('off-block', 'MIN')}) + julianday(${mark('on-block', 'MAX')}) - julianday(${mark('landed', 'MAX')})) * 1440 AS minutes
     FROM sorties s JOIN checkouts c ON c.id = s.checkout_id JOIN airframes a ON a.id = COALESCE(s.airframe_id, c.airframe_id) JOIN types ty ON ty.id = a.type_id
     WHERE ty.code = :typeCode AND s.shared_with IS NULL AND EXISTS (SELECT 1 FROM capture_events e WHERE e.sortie_id = s.id AND e.type = 'timer-marked') ORDER BY s.flown_on DESC LIMIT :most`,
  row: { minutes: real.nullable() },
});
