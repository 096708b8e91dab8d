import { Op } from 'sequelize';
import { stopWords } from '@/core/assess';
import { demandsOf, sheetFacts } from '@/core/plan';
import { addDays, type Lapse, mostIn24h } from '@/core/recency';
import { localInstant } from '@/core/schedule';
import { type Goal, LIMIT_NAME, type PackId } from '@/domain/words';
import { Pilots, Users } from '../../account/tables';
import { Airframes } from '../../hangar/tables';
import { Checkouts, Sorties } from '../../checkout/tables';
import { CaptureEvents, Stops } from '../../fly/tables';
import type { CurrentUser } from '../../floor/auth/permissions';
import { toUser, USER } from '../../floor/auth/session-user';
import * as ask from '../../floor/statements/board';
import { hangar } from '../../hangar/queries/hangar';
import { houseRules } from '../../people/queries/house-rules';
import { teachState } from '../../people/queries/recency';
import { everybodysStanding } from '../../people/queries/standings';
import { flightSpan, schoolFacts } from '../../schedule/queries/day';
import { limitsPassed } from '../../traces/queries/traces';
import { type WeekSaid, weekSaid } from '../week-words';

export const WEEK_DAYS = 7;
export interface WeekLine {
  /** An instant, or of a stop the day it was flown. */
  at: string;
  said: WeekSaid;
  pilotName: string;
  registration: string;
  by: string;
  href: string;
}
export interface WeekInstructor {
  userId: string;
  pilotId: string | null;
  name: string;
  /** Flight training in the fullest 24 hours of the days shown and of as many to come, as booked. */
  trainingMin: number;
  /** Medical, review, certificate and recency to teach; what ends first in front. */
  lapses: Lapse[];
  /** Types this instructor holds the ratings for and the law asks hours in. */
  asked: number;
  /** Of them, where the hours are short. */
  short: { typeName: string; have: number; needed: number; inCommand: boolean; citation: string }[];
}
export interface Week {
  from: string;
  /** The last day of it. */
  to: string;
  zone: string;
  lines: WeekLine[];
  /** Flight training allowed in 24 hours by the school's law; null = it sets none. */
  limit: { hours: number; citation: string } | null;
  instructors: WeekInstructor[];
}

/** Seven days that end on a day: everything set aside, refused, flown past a stop or exceeded, and who teaches how much. */
export async function weekOf(user: CurrentUser, to: string): Promise<Week> {
  const { zone } = await schoolFacts();
  const from = addDays(to, 1 - WEEK_DAYS);
  const span = { from: localInstant(from, 0, zone), to: localInstant(addDays(to, 1), 0, zone) };
  const rules = await houseRules();
  const lines = [...(await asideIn(span)), ...(await limitsIn(user, span)), ...(await stopsIn(from, to))];
  return {
    from,
    to,
    zone,
    lines: lines.sort((a, b) => Date.parse(b.at) - Date.parse(a.at)),
    limit: rules.pack.trainingIn24h,
    instructors: await instructorsIn({ from: span.from, to: localInstant(addDays(to, 1 + WEEK_DAYS), 0, zone) }, to),
  };
}

async function asideIn(span: { from: string; to: string }): Promise<WeekLine[]> {
  return (await ask.setAside.all(span)).map((f) => ({
    at: f.at,
    said: weekSaid(f.kind, { what: f.what ?? '', reason: f.reason }),
    pilotName: f.pilotName,
    registration: f.registration,
    by: f.by,
    href: `/checkouts/${f.checkoutId}/${f.kind === 'overruled' || f.kind === 'limit-overridden' ? 'debrief' : 'sign'}`,
  }));
}

async function limitsIn(user: CurrentUser, span: { from: string; to: string }): Promise<WeekLine[]> {
  return (await limitsPassed(user, span)).map((l) => ({
    at: l.foundAt,
    said: weekSaid('exceeded', { limit: LIMIT_NAME[l.channel], measured: l.measured, released: l.released !== null }),
    pilotName: l.pilotName,
    registration: l.registration,
    by: l.seenBy ?? 'a recording',
    href: l.traceId ? `/traces/${l.traceId}` : `/checkouts/${l.checkoutId}`,
  }));
}

/** Stops of the flights of these days, each with its reason where one was given. */
async function stopsIn(from: string, to: string): Promise<WeekLine[]> {
  const flown = await Sorties.find({
    where: { flownOn: { [Op.gte]: from, [Op.lte]: to } },
    pick: ['id', 'flownOn', 'checkoutId', 'airframeId'],
    with: { instructor: ['name'] },
  });
  if (flown.length === 0) return [];
  const ids = flown.map((s) => s.id);
  const stops = await Stops.find({
    where: { sortieId: ids },
    pick: ['subjectId', 'sortieId', 'checkoutId', 'code', 'facts'],
    order: ['sortieId', 'subjectId', 'position'],
  });
  if (stops.length === 0) return [];
  const [pilotOf, names, frames, explained] = [
    new Map((await Checkouts.find({ pick: ['id', 'pilotId'] })).map((c) => [c.id, c.pilotId])),
    new Map((await Pilots.find({ pick: ['id', 'name'] })).map((p) => [p.id, p.name])),
    new Map((await Airframes.find({ pick: ['id', 'registration'] })).map((a) => [a.id, a.registration])),
    await CaptureEvents.find({
      where: { type: 'stop-explained', subjectId: [...new Set(stops.map((s) => s.subjectId))] },
      pick: ['subjectId', 'payload', 'deviceTime'],
      order: ['deviceTime'],
    }),
  ];
  const reasons = new Map(explained.map((e) => [e.subjectId, (e.payload as { reason: string }).reason]));
  return stops.flatMap((s): WeekLine[] => {
    const sortie = flown.find((f) => f.id === s.sortieId);
    // Of a flight two pilots shared, the stop is of the one it was recorded of.
    const checkoutId = s.checkoutId ?? sortie?.checkoutId ?? '';
    return sortie
      ? [
          {
            at: sortie.flownOn,
            said: weekSaid('stop', {
              words: stopWords({ code: s.code, facts: s.facts }),
              explained: reasons.get(s.subjectId) ?? null,
            }),
            pilotName: names.get(pilotOf.get(checkoutId) ?? '') ?? '',
            registration: frames.get(sortie.airframeId ?? '') ?? '',
            by: sortie.instructor.name,
            href: `/checkouts/${checkoutId}/debrief`,
          },
        ]
      : [];
  });
}

async function instructorsIn(span: { from: string; to: string }, onDate: string): Promise<WeekInstructor[]> {
  const rules = await houseRules();
  const { pack, house } = rules;
  const standings = await everybodysStanding(rules, onDate);
  const types = await hangar();
  const found: WeekInstructor[] = [];
  const users = (await Users.find({ where: { closedAt: null }, pick: USER, order: ['name'] })).map(toUser);
  for (const user of users.filter((u) => u.roles.includes('instructor'))) {
    const booked = await ask.taughtBetween.all({ id: user.id, ...span });
    const short: WeekInstructor['short'] = [];
    let typesAsked = 0;
    for (const { sheet } of types) {
      const demands = demandsOf(sheetFacts(sheet), pack.key as PackId, sheet.code);
      const kinds = [...(demands.classRatings ?? []), ...demands.endorsements];
      const goals = [...new Set(kinds.flatMap((k) => (pack.endorsementGoals[k] as Goal | undefined) ?? []))];
      const { modelHours: asked, lacks } = await teachState(user, { sheet, pack, house, goals }, onDate);
      if (!asked || lacks.length > 0) continue;
      typesAsked++;
      if (asked.have < asked.needed) short.push({ typeName: sheet.name, ...asked });
    }
    found.push({
      userId: user.id,
      pilotId: user.pilotId,
      name: user.name,
      trainingMin: mostIn24h(
        // Where nobody divided the time, all of it may be flown.
        booked.map((b) => (b.split === null ? { from: b.startsAt, to: b.endsAt } : flightSpan(b.startsAt, b.split))),
      ),
      lapses: (standings.find((s) => s.pilotId === user.pilotId)?.lapses ?? []).filter((l) =>
        ['dated', 'certificate', 'teach'].includes(l.kind),
      ),
      asked: typesAsked,
      short,
    });
  }
  return found;
}
