import type { z } from 'zod';
import type { Lapse } from '@/core/recency';
import { type CurrentUser, may } from '../../floor/auth/permissions';
import { houseRules } from '../../people/queries/house-rules';
import { personPage } from '../../people/queries/page';
import { everybodysStanding } from '../../people/queries/standings';
import { localToday } from '../../rules/today';
import type { PageQuery } from '../paths';
import type { PersonAnswer, PersonList } from '../shapes';

const lapseOf = (l: Lapse): z.output<typeof PersonAnswer>['lapses'][number] => ({
  key: l.key,
  kind: l.kind,
  what: l.what,
  status: l.status,
  acting: l.acting ?? false,
  through: l.through,
  daysLeft: l.daysLeft,
  restore: l.restore,
  typeCode: l.typeCode,
  citation: l.citation,
});

/** Everybody this user may see, with how their recency stands today. */
export async function peopleRead(user: CurrentUser, page: PageQuery): Promise<z.output<typeof PersonList>> {
  const onDate = await localToday();
  const all = (await everybodysStanding(await houseRules(), onDate)).filter((p) =>
    may.seePerson(user, { pilotId: p.pilotId }),
  );
  return {
    onDate,
    total: all.length,
    items: all.slice(page.offset, page.offset + page.limit).map((p) => ({
      id: p.pilotId,
      name: p.name,
      roles: p.roles,
      hoursH: p.hours,
      lastFlown: p.lastFlown,
      standing: p.standing,
      first: p.first && lapseOf(p.first),
    })),
  };
}

export async function personRead(user: CurrentUser, id: string): Promise<z.output<typeof PersonAnswer> | null> {
  const p = await personPage(user, id, null);
  return (
    p && {
      id: p.pilotId,
      name: p.name,
      roles: p.user?.roles ?? [],
      hoursH: p.hours,
      onDate: p.onDate,
      pack: p.pack.key,
      certificate: p.certificate,
      lapses: p.lapses.map(lapseOf),
      held: p.held.map((h) => ({ kind: h.kind, gainedOn: h.gainedOn, endedAt: h.endedAt })),
      dates: p.dates.map((d) => ({ key: d.key, title: d.title, doneOn: d.doneOn, until: d.until })),
      hoursByType: p.hoursByType.map((h) => ({ typeCode: h.typeCode, hoursH: h.hours, lastFlown: h.lastFlown })),
    }
  );
}
