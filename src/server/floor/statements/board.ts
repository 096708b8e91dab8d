import { z } from 'zod';
import { day, flag, real, text, whole } from '../columns';
import { statement } from '../statement';
import { SignOverrides } from '../../ledger/tables';
import { Pilots, Users } from '../../account/tables';
import { Bookings } from '../../schedule/tables';
import { Checkouts, Briefs, Sorties } from '../../checkout/tables';

/** What a chief reads of a week, beside stops and limits. */
export const SET_ASIDE = [
  'override-asked',
  'override-approved',
  'override-declined',
  'override-withdrawn',
  'not-yet',
  'overruled',
  'limit-overridden',
  'item-waived',
] as const;

export const waitsFor = statement('board.waitsFor', {
  params: [],
  sql: `SELECT o.checkout_id, o.item_id, p.name, c.pilot_id, u.name AS by FROM sign_overrides o JOIN checkouts c ON c.id = o.checkout_id JOIN pilots p ON p.id = c.pilot_id JOIN users u ON u.id = o.asked_by WHERE c.status = 'open' AND NOT EXISTS (SELECT 1 FROM override_answers a WHERE a.override_id = o.id) LIMIT 20`,
  row: {
    checkoutId: SignOverrides.columns.checkoutId,
    itemId: SignOverrides.columns.itemId,
    name: Pilots.columns.name,
    pilotId: Checkouts.columns.pilotId,
    by: Users.columns.name,
  },
});

export const waitsForContentVersions = statement('board.waitsForContentVersions', {
  params: [],
  sql: `SELECT COUNT(DISTINCT kind || key) AS n FROM content_versions p WHERE p.origin = 'proposed' AND p.version > (SELECT MAX(version) FROM content_versions x WHERE x.kind = p.kind AND x.key = p.key AND x.origin <> 'proposed')`,
  row: { n: real },
});

export const waitsForBriefs = statement('board.waitsForBriefs', {
  params: ['p'],
  sql: `SELECT b.checkout_id, s.lesson FROM briefs b JOIN sorties s ON s.id = b.sortie_id JOIN checkouts c ON c.id = b.checkout_id WHERE c.pilot_id = :p AND b.acknowledged_at IS NULL AND b.version = (SELECT MAX(version) FROM briefs x WHERE x.sortie_id = b.sortie_id) AND NOT EXISTS (SELECT 1 FROM landings l WHERE l.sortie_id = b.sortie_id) ORDER BY b.created_at DESC LIMIT 5`,
  row: { checkoutId: Briefs.columns.checkoutId, lesson: Sorties.columns.lesson },
});

export const waitsForDebriefs = statement('board.waitsForDebriefs', {
  params: ['p'],
  sql: `SELECT s.checkout_id, s.lesson FROM debriefs d JOIN sorties s ON s.id = d.sortie_id JOIN checkouts c ON c.id = s.checkout_id WHERE c.pilot_id = :p AND d.acknowledged_at IS NULL AND d.version = (SELECT MAX(version) FROM debriefs x WHERE x.sortie_id = d.sortie_id) ORDER BY d.created_at DESC LIMIT 5`,
  row: { checkoutId: Sorties.columns.checkoutId, lesson: Sorties.columns.lesson },
});

export const instructorLines = statement('board.instructorLines', {
  params: ['from', 'to', 'before'],
  sql: `SELECT u.id, u.name, u.pilot_id, (SELECT COUNT(*) FROM bookings b WHERE b.instructor_id = u.id AND b.state = 'booked' AND b.starts_at >= :from AND b.starts_at < :to) AS today, (SELECT COUNT(*) FROM checkouts c WHERE c.instructor_id = u.id AND c.status <> 'signed') AS open,
      (SELECT COUNT(*) FROM checkouts c WHERE c.instructor_id = u.id AND c.status = 'open' AND COALESCE((SELECT MAX(flown_on) FROM sorties s WHERE s.checkout_id = c.id), substr(c.created_at, 1, 10)) < :before) AS stalled, (SELECT MAX(flown_on) FROM sorties s JOIN checkouts c ON c.id = s.checkout_id WHERE c.instructor_id = u.id AND c.status <> 'signed') AS last
     FROM users u WHERE u.closed_at IS NULL AND EXISTS (SELECT 1 FROM json_each(u.roles) WHERE value = 'instructor') ORDER BY u.name`,
  row: {
    id: Users.columns.id,
    name: Users.columns.name,
    pilotId: Users.columns.pilotId,
    today: real,
    open: real,
    stalled: real,
    last: text.nullable(),
  },
});

const open = (
  whose: string,
) => `SELECT c.id, (SELECT COUNT(*) FROM sorties s WHERE s.checkout_id = c.id) AS lessons, (SELECT MAX(flown_on) FROM landings l WHERE l.checkout_id = c.id) AS last_flown
     FROM checkouts c WHERE ${whose} = :id AND c.status <> 'signed' ORDER BY (SELECT MAX(flown_on) FROM sorties s WHERE s.checkout_id = c.id) DESC, c.created_at DESC LIMIT :most`;
const opened = { id: text, lessons: whole, lastFlown: day.nullable() };
export const openOfInstructor = statement('board.openOfInstructor', {
  params: ['id', 'most'],
  sql: open('c.instructor_id'),
  row: opened,
});
export const openOfPilot = statement('board.openOfPilot', {
  params: ['id', 'most'],
  sql: open('c.pilot_id'),
  row: opened,
});
const stalledIn = (
  whose: string,
) => `SELECT c.id, p.name, a.registration, u.name AS instructor, COALESCE((SELECT MAX(flown_on) FROM sorties s WHERE s.checkout_id = c.id), substr(c.created_at, 1, 10)) AS last, EXISTS (SELECT 1 FROM bookings b WHERE b.checkout_id = c.id AND b.state = 'booked' AND b.starts_at > :now) AS booked
     FROM checkouts c JOIN pilots p ON p.id = c.pilot_id JOIN airframes a ON a.id = c.airframe_id JOIN users u ON u.id = c.instructor_id WHERE c.status = 'open' ${whose} AND last < :before ORDER BY last LIMIT :most`;
const stalledRow = { id: text, name: text, registration: text, instructor: text, last: day, booked: flag };
export const stalled = statement('board.stalled', {
  params: ['before', 'now', 'most'],
  sql: stalledIn(''),
  row: stalledRow,
});
export const stalledOf = statement('board.stalledOf', {
  params: ['id', 'before', 'now', 'most'],
  sql: stalledIn('AND c.instructor_id = :id'),
  row: stalledRow,
});
export const schoolCounts = statement('board.schoolCounts', {
  params: ['week', 'month', 'year', 'today'],
  sql: `SELECT (SELECT COUNT(*) FROM checkouts WHERE status <> 'signed') AS open, (SELECT COUNT(*) FROM sorties WHERE flown_on >= :week AND flown_on <= :today) AS lessons,
      (SELECT COUNT(*) FROM landings WHERE flown_on >= :month AND flown_on <= :today AND landing_class = 'own') AS own, (SELECT COUNT(*) FROM ledger WHERE kind = 'sign-off' AND signed_at >= :year) AS signed`,
  row: { open: whole, lessons: whole, own: whole, signed: whole },
});

/** What was overridden, set aside, overruled or refused between two instants, with who said so. */
export const setAside = statement('board.setAside', {
  params: ['from', 'to'],
  sql: `SELECT x.at, x.kind, x.what, x.reason, x.by, x.checkout_id, p.name AS pilot_name, a.registration FROM (
       SELECT o.asked_at AS at, 'override-asked' AS kind, o.item_id AS what, o.reason, u.name AS by, o.checkout_id
         FROM sign_overrides o JOIN users u ON u.id = o.asked_by
       UNION ALL SELECT n.answered_at, 'override-' || n.answer, o.item_id, n.reason, u.name, o.checkout_id
         FROM override_answers n JOIN sign_overrides o ON o.id = n.override_id JOIN users u ON u.id = n.answered_by
       UNION ALL SELECT l.signed_at, 'not-yet', (SELECT GROUP_CONCAT(json_extract(i.value, '$.id'), ', ') FROM json_each(l.canonical, '$.body.items') i), '', u.name, l.checkout_id
         FROM ledger l JOIN users u ON u.id = l.signer_id WHERE l.kind = 'not-yet'
       UNION ALL SELECT e.device_time, e.type, COALESCE(json_extract(e.payload, '$.itemId'), json_extract(e.payload, '$.what'), ''), COALESCE(json_extract(e.payload, '$.reason'), ''), u.name, s.checkout_id
         FROM capture_events e JOIN sorties s ON s.id = e.sortie_id JOIN users u ON u.id = e.author WHERE e.type IN ('overruled', 'limit-overridden', 'item-waived')
           AND NOT EXISTS (SELECT 1 FROM capture_events z WHERE z.type = 'undone' AND z.subject_id = e.subject_id)
     ) x JOIN checkouts c ON c.id = x.checkout_id JOIN pilots p ON p.id = c.pilot_id JOIN airframes a ON a.id = c.airframe_id
     WHERE julianday(x.at) >= julianday(:from) AND julianday(x.at) < julianday(:to)`,
  row: {
    at: text,
    kind: z.enum(SET_ASIDE),
    what: text.nullable(),
    reason: text,
    by: text,
    checkoutId: text,
    pilotName: Pilots.columns.name,
    registration: text,
  },
});

/** Flight lessons of an instructor around some days, as booked, with how the time is divided. */
export const taughtBetween = statement('board.taughtBetween', {
  params: ['id', 'from', 'to'],
  sql: `SELECT starts_at, ends_at, split FROM bookings
     WHERE instructor_id = :id AND state <> 'cancelled' AND pilot_id IS NOT NULL AND ends_at > :from AND starts_at < :to ORDER BY starts_at`,
  row: { startsAt: Bookings.columns.startsAt, endsAt: Bookings.columns.endsAt, split: Bookings.columns.split },
});
