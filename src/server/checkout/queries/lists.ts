import type { CheckoutStatus, Goal, Role } from '@/domain/words';
import { plainKind } from '@/core/plan';
import { newestContent } from '../../rules/content';
import { rows } from '../../floor/connection';
import { localToday } from '../../rules/today';
import type { PersonDate } from '@/core/recency';
import { DATES_STAND, type DateRow, datesFrom, heldOn } from '../../people/queries/held';
import { flownBy } from './counts';
import type { CurrentUser } from '../../floor/auth/permissions';
import { may } from '../../floor/auth/permissions';

export interface CheckoutSummary {
  id: string;
  pilotName: string;
  instructorName: string;
  instructorId: string;
  registration: string;
  typeName: string;
  goals: Goal[];
  status: CheckoutStatus;
  lessons: number;
  landings: number;
  lastFlown: string | null;
  createdAt: string;
  briefedNotFlown: boolean;
  acknowledged: boolean;
}

/** Checkouts this user may see, newest work first. */
export async function checkoutList(user: CurrentUser): Promise<CheckoutSummary[]> {
  const everybody = may.seeEverybody(user);
  const found = await rows<{
    id: string;
    pilot_name: string;
    instructor_name: string;
    instructor_id: string;
    registration: string;
    type_name: string;
    goals: string;
    status: CheckoutStatus;
    lessons: number;
    last_flown: string | null;
    created_at: string;
    latest_landings: number;
    latest_briefed: number;
    latest_ack: number;
  }>(
    `SELECT c.id, p.name AS pilot_name, u.name AS instructor_name, c.instructor_id, a.registration, ty.name AS type_name, c.goals, c.status, c.created_at,
       (SELECT COUNT(*) FROM sorties s WHERE s.checkout_id = c.id) AS lessons,
       (SELECT MAX(l.flown_on) FROM landings l WHERE l.checkout_id = c.id) AS last_flown,
       (SELECT COUNT(*) FROM landings l WHERE l.sortie_id = (SELECT id FROM sorties s WHERE s.checkout_id = c.id ORDER BY lesson DESC LIMIT 1)) AS latest_landings,
       (SELECT COUNT(*) FROM briefs b WHERE b.sortie_id = (SELECT id FROM sorties s WHERE s.checkout_id = c.id ORDER BY lesson DESC LIMIT 1)) AS latest_briefed,
       (SELECT COUNT(*) FROM briefs b WHERE b.acknowledged_at IS NOT NULL AND b.sortie_id = (SELECT id FROM sorties s WHERE s.checkout_id = c.id ORDER BY lesson DESC LIMIT 1)) AS latest_ack
     FROM checkouts c JOIN pilots p ON p.id = c.pilot_id JOIN users u ON u.id = c.instructor_id JOIN airframes a ON a.id = c.airframe_id JOIN types ty ON ty.id = a.type_id
     ${everybody ? '' : 'WHERE c.pilot_id = :pilotId'} ORDER BY c.status, COALESCE(last_flown, c.created_at) DESC`,
    { pilotId: user.pilotId },
  );
  const flown = await flownBy('l.checkout_id', everybody ? 'l.checkout_id IS NOT NULL' : 'l.pilot_id = :pilotId', {
    pilotId: user.pilotId,
  });
  return found.map((c) => ({
    id: c.id,
    pilotName: c.pilot_name,
    instructorName: c.instructor_name,
    instructorId: c.instructor_id,
    registration: c.registration,
    typeName: c.type_name,
    goals: JSON.parse(c.goals) as Goal[],
    status: c.status,
    lessons: c.lessons,
    landings: flown.get(c.id)?.landings ?? 0,
    lastFlown: c.last_flown,
    createdAt: c.created_at,
    briefedNotFlown: c.latest_briefed > 0 && c.latest_landings === 0,
    acknowledged: c.latest_ack > 0,
  }));
}

export interface PilotSummary {
  id: string;
  name: string;
  massKg: number;
  experience: string;
  hours: number;
  holds: { kind: string; gainedOn: string | null }[];
  email: string | null;
  certificate: string;
  experienceSince: Record<string, string>;
  /** Reviews, medicals and ratings with their dates. */
  dates: PersonDate[];
}
/**
 * Everybody with what they hold. A twin variant that has lapsed by not being flown is left out: the pack of Europe is
 * the one that lets it lapse, and no other asks for it.
 */
export async function pilotList(): Promise<PilotSummary[]> {
  const found = await rows<{
    id: string;
    name: string;
    mass_kg: number;
    experience: string;
    hours: number;
    email: string | null;
    certificate: string;
    experience_since: string;
  }>('SELECT p.*, u.email FROM pilots p LEFT JOIN users u ON u.pilot_id = p.id ORDER BY p.name');
  const held = await rows<{ pilot_id: string; kind: string; gained_on: string | null }>(
    'SELECT pilot_id, kind, gained_on FROM qualifications WHERE ended_at IS NULL ORDER BY gained_on',
  );
  const dated = new Map<string, (DateRow & { pilot_id: string })[]>();
  for (const d of await rows<DateRow & { pilot_id: string }>(
    `SELECT x.pilot_id, x.key, x.title, x.done_on, x.until FROM person_dates x WHERE ${DATES_STAND} ORDER BY x.seq`,
  ))
    dated.set(d.pilot_id, [...(dated.get(d.pilot_id) ?? []), d]);
  const eu = held.some((h) => h.kind !== plainKind(h.kind)) ? await newestContent('pack', 'eu') : null;
  const today = await localToday();
  const lapsed = new Set<string>();
  if (eu)
    for (const id of new Set(held.filter((h) => h.kind !== plainKind(h.kind)).map((h) => h.pilot_id)))
      for (const l of (await heldOn(id, eu.body, today)).lapsed) lapsed.add(`${id} ${l.kind}`);
  return found.map((p) => ({
    id: p.id,
    name: p.name,
    massKg: p.mass_kg,
    experience: p.experience,
    hours: p.hours,
    email: p.email,
    certificate: p.certificate,
    experienceSince: JSON.parse(p.experience_since) as Record<string, string>,
    dates: datesFrom(dated.get(p.id) ?? []),
    holds: held
      .filter((h) => h.pilot_id === p.id && !lapsed.has(`${p.id} ${h.kind}`))
      .map((h) => ({ kind: h.kind, gainedOn: h.gained_on })),
  }));
}

export interface UserSummary {
  id: string;
  name: string;
  email: string;
  roles: Role[];
  authorised: Goal[];
  pilotId: string | null;
  certificate: string;
  certificateUntil: string | null;
}
export async function staffList(): Promise<UserSummary[]> {
  const found = await rows<{
    id: string;
    name: string;
    email: string;
    roles: string;
    authorised: string;
    pilot_id: string | null;
    certificate: string;
    certificate_until: string | null;
  }>('SELECT id, name, email, roles, authorised, pilot_id, certificate, certificate_until FROM users ORDER BY name');
  return found
    .map((u) => ({
      id: u.id,
      name: u.name,
      email: u.email,
      roles: JSON.parse(u.roles) as Role[],
      authorised: JSON.parse(u.authorised) as Goal[],
      pilotId: u.pilot_id,
      certificate: u.certificate,
      certificateUntil: u.certificate_until,
    }))
    .filter((u) => u.roles.includes('instructor') || u.roles.includes('chief'));
}

/**
 * Pilots who could swap seats in a flight of this checkout, those with a checkout of their own on the aeroplane first.
 */
export async function sharersOf(
  user: CurrentUser,
  head: { pilotId: string; registration: string },
): Promise<{ id: string; name: string; own: boolean }[]> {
  const found = await rows<{ id: string; name: string; own: number }>(
    `SELECT p.id, p.name, EXISTS (SELECT 1 FROM checkouts c JOIN airframes a ON a.id = c.airframe_id WHERE c.pilot_id = p.id AND c.status = 'open' AND a.registration = :registration) AS own
     FROM pilots p WHERE p.id <> :pilotId ORDER BY own DESC, p.name`,
    { registration: head.registration, pilotId: head.pilotId },
  );
  return found
    .filter((p) => may.runCheckout(user, { pilotId: p.id }))
    .map((p) => ({ id: p.id, name: p.name, own: p.own === 1 }));
}

const MOST_FOUND = 400;
/** People and checkouts as the finder lists them; open checkouts first. */
export async function findable(user: CurrentUser): Promise<{
  people: { id: string; name: string; roles: Role[] }[];
  checkouts: { id: string; pilotName: string; registration: string; goals: Goal[]; status: CheckoutStatus }[];
}> {
  const everybody = may.seeEverybody(user);
  const people = everybody
    ? await rows<{ id: string; name: string; roles: string | null }>(
        `SELECT p.id, p.name, u.roles FROM pilots p LEFT JOIN users u ON u.pilot_id = p.id WHERE NOT EXISTS (SELECT 1 FROM erasures e WHERE e.pilot_id = p.id) ORDER BY p.name LIMIT 2000`,
      )
    : [];
  const checkouts = await rows<{
    id: string;
    name: string;
    registration: string;
    goals: string;
    status: CheckoutStatus;
  }>(
    `SELECT c.id, p.name, a.registration, c.goals, c.status FROM checkouts c JOIN pilots p ON p.id = c.pilot_id JOIN airframes a ON a.id = c.airframe_id ${everybody ? '' : 'WHERE c.pilot_id = :pilotId'} ORDER BY c.status, c.created_at DESC LIMIT ${MOST_FOUND}`,
    { pilotId: user.pilotId },
  );
  return {
    people: people.map((p) => ({ id: p.id, name: p.name, roles: p.roles ? (JSON.parse(p.roles) as Role[]) : [] })),
    checkouts: checkouts.map((c) => ({
      id: c.id,
      pilotName: c.name,
      registration: c.registration,
      goals: JSON.parse(c.goals) as Goal[],
      status: c.status,
    })),
  };
}
