import type { CheckoutStatus, Goal, Role } from '@/domain/words';
import { plainKind } from '@/core/plan';
import { newestContent } from '../../rules/content';
import { localToday } from '../../rules/today';
import type { PersonDate } from '@/core/recency';
import { datesFrom, heldOn } from '../../people/queries/held';
import { flownIn } from './counts';
import type { CurrentUser } from '../../floor/auth/permissions';
import { may } from '../../floor/auth/permissions';
import * as ask from '../../floor/statements/checkout';
import { Qualifications } from '../../people/tables';
import { Users } from '../../account/tables';
import type { RowOf } from '../../floor/statement';
import { standingDates } from '../../floor/statements/people';
import { Checkouts } from '../tables';

export interface CheckoutSummary {
  id: string;
  pilotId: string;
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
  const found = everybody ? await ask.checkoutList.all() : await ask.checkoutListOf.all({ pilotId: user.pilotId });
  const flown = await flownIn(everybody ? null : (user.pilotId ?? ''));
  return found.map((c) => ({
    id: c.id,
    pilotId: c.pilotId,
    pilotName: c.pilotName,
    instructorName: c.instructorName,
    instructorId: c.instructorId,
    registration: c.registration,
    typeName: c.typeName,
    goals: c.goals,
    status: c.status,
    lessons: c.lessons,
    landings: flown.get(c.id)?.landings ?? 0,
    lastFlown: c.lastFlown,
    createdAt: c.createdAt,
    briefedNotFlown: c.latestBriefed > 0 && c.latestLandings === 0,
    acknowledged: c.latestAck > 0,
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
  const found = await ask.pilotList.all();
  const held = await Qualifications.find({
    where: { endedAt: null },
    pick: ['pilotId', 'kind', 'gainedOn'],
    order: ['gainedOn'],
  });
  const dated = new Map<string, RowOf<typeof standingDates>[]>();
  for (const d of await standingDates.all({ pilotId: null }))
    dated.set(d.pilotId, [...(dated.get(d.pilotId) ?? []), d]);
  const eu = held.some((h) => h.kind !== plainKind(h.kind)) ? await newestContent('pack', 'eu') : null;
  const today = await localToday();
  const lapsed = new Set<string>();
  if (eu)
    for (const id of new Set(held.filter((h) => h.kind !== plainKind(h.kind)).map((h) => h.pilotId)))
      for (const l of (await heldOn(id, eu.body, today)).lapsed) lapsed.add(`${id} ${l.kind}`);
  return found.map((p) => ({
    id: p.id,
    name: p.name,
    massKg: p.massKg,
    experience: p.experience,
    hours: p.hours,
    email: p.email,
    certificate: p.certificate,
    experienceSince: p.experienceSince,
    dates: datesFrom(dated.get(p.id) ?? []),
    holds: held
      .filter((h) => h.pilotId === p.id && !lapsed.has(`${p.id} ${h.kind}`))
      .map((h) => ({ kind: h.kind, gainedOn: h.gainedOn })),
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
  const found = await Users.find({
    pick: ['id', 'name', 'email', 'roles', 'authorised', 'pilotId', 'certificate', 'certificateUntil'],
    order: ['name'],
  });
  return found
    .map((u) => ({
      id: u.id,
      name: u.name,
      email: u.email,
      roles: u.roles,
      authorised: u.authorised,
      pilotId: u.pilotId,
      certificate: u.certificate,
      certificateUntil: u.certificateUntil,
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
  const found = await ask.sharersOf.all({ registration: head.registration, pilotId: head.pilotId });
  return found
    .filter((p) => may.runCheckout(user, { pilotId: p.id }))
    .map((p) => ({ id: p.id, name: p.name, own: p.own === 1 }));
}

/** Names of users, by id. */
export async function namesOf(ids: readonly string[]): Promise<Map<string, string>> {
  const found = ids.length === 0 ? [] : await Users.find({ where: { id: [...new Set(ids)] }, pick: ['id', 'name'] });
  return new Map(found.map((u) => [u.id, u.name]));
}

const MOST_FOUND = 400;
/** People and checkouts as the finder lists them; open checkouts first. */
export async function findable(user: CurrentUser): Promise<{
  people: { id: string; name: string; roles: Role[] }[];
  checkouts: { id: string; pilotName: string; registration: string; goals: Goal[]; status: CheckoutStatus }[];
}> {
  const everybody = may.seeEverybody(user);
  const people = everybody ? await ask.findable.all() : [];
  const checkouts = await Checkouts.find({
    where: everybody ? {} : { pilotId: user.pilotId ?? '' },
    pick: ['id', 'goals', 'status'],
    with: { pilot: ['name'], airframe: ['registration'] },
    order: ['status', '-createdAt'],
    limit: MOST_FOUND,
  });
  return {
    people: people.map((p) => ({ id: p.id, name: p.name, roles: p.roles ?? [] })),
    checkouts: checkouts.map((c) => ({
      id: c.id,
      pilotName: c.pilot.name,
      registration: c.airframe.registration,
      goals: c.goals,
      status: c.status,
    })),
  };
}
