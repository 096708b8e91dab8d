import type { RowOf } from '../../floor/statement';
import { type Lapse, lapsesOf, type PersonDate } from '@/core/recency';
import type { RulePack } from '@/domain/programme';
import type { Goal, Role } from '@/domain/words';
import { type CurrentUser, may } from '../../floor/auth/permissions';
import * as ask from '../../floor/statements/people';
import { localToday } from '../../rules/today';
import { Erasures, LogbookImports, PersonDates, PersonNotes, Qualifications } from '../tables';
import { houseRules } from './house-rules';
import { type GroupLadder, ladderHistory } from './ladder-history';
import { personFacts } from './person';
import type { PilotHours } from '@/core/differences';
import { hoursOf, writtenOf } from './pilot';

export interface PersonNote {
  id: string;
  text: string;
  visible: 'pilot' | 'staff' | 'chief';
  author: string;
  authorId: string;
  writtenAt: string;
}
export interface PersonPage {
  pilotId: string;
  name: string;
  email: string | null;
  massKg: number;
  hours: number;
  experience: string;
  certificate: string;
  erased: { at: string; reason: string; kept: string } | null;
  user: {
    id: string;
    roles: Role[];
    authorised: Goal[];
    certificate: string;
    certificateUntil: string | null;
    ownCrosswindKt: number | null;
  } | null;
  held: {
    id: string;
    kind: string;
    gainedOn: string | null;
    note: string;
    ledgerId: string | null;
    endedAt: string | null;
  }[];
  dates: (PersonDate & { id: string; note: string; enteredBy: string; enteredAt: string })[];
  lapses: Lapse[];
  onDate: string;
  today: string;
  pack: Pick<RulePack, 'key' | 'name' | 'caution'>;
  datedRules: RulePack['dated'];
  hoursByType: PilotHours[];
  written: Awaited<ReturnType<typeof writtenOf>>;
  landings: { code: string; name: string; landings: number; fullStops: number; water: number; last: string }[];
  goals: {
    checkoutId: string;
    goals: Goal[];
    registration: string;
    typeName: string;
    status: string;
    openedOn: string;
    signedOn: string | null;
    ledgerId: string | null;
    instructor: string;
  }[];
  ladders: GroupLadder[];
  notes: PersonNote[];
  imports: {
    id: string;
    fileName: string;
    at: string;
    by: string;
    added: number;
    doubled: number;
    refused: number;
    takenBackAt: string | null;
  }[];
  types: { code: string; name: string; water: boolean; twin: boolean }[];
}

/** The name of one person, for who may see it; null otherwise, as where there is nobody. */
export async function personName(user: CurrentUser | null, pilotId: string): Promise<string | null> {
  if (!user || !may.seePerson(user, { pilotId })) return null;
  return (await ask.personPage.one({ pilotId }))?.name ?? null;
}

/**
 * Everything kept of one person, for those who may see it; null when there is nobody or it is not theirs to see: the
 * two answer alike.
 */
export async function personPage(
  user: CurrentUser,
  pilotId: string,
  onDate: string | null,
): Promise<PersonPage | null> {
  if (!may.seePerson(user, { pilotId })) return null;
  const p = await ask.personPage.one({ pilotId });
  if (!p) return null;
  const today = await localToday();
  const on = onDate ?? today;
  const rules = await houseRules();
  const person = await personFacts(pilotId, rules, on);
  const erased = await Erasures.first({ where: { pilotId }, pick: ['erasedAt', 'reason', 'kept'] });
  return {
    pilotId,
    name: p.name,
    email: p.email,
    massKg: p.massKg,
    hours: p.hours,
    experience: p.experience,
    certificate: p.certificate,
    erased: erased ? { at: erased.erasedAt, reason: erased.reason, kept: erased.kept } : null,
    user: accountOf(p),
    ...(await papersOf(pilotId)),
    lapses: person ? lapsesOf(person, rules.rulebook, on) : [],
    onDate: on,
    today,
    pack: { key: rules.pack.key, name: rules.pack.name, caution: rules.pack.caution },
    datedRules: rules.pack.dated,
    hoursByType: await hoursOf(pilotId),
    written: await writtenOf(pilotId),
    ...(await flownOf(pilotId)),
    ladders: await ladderHistory(pilotId, on),
    notes: (await notesOf(pilotId)).filter((n) =>
      may.readNote(user, { pilotId, visible: n.visible, authorId: n.authorId }),
    ),
    imports: await importsOf(pilotId),
    types: [...rules.types].map(([code, t]) => ({
      code,
      name: t.name,
      water: t.sheet.surface !== 'land',
      twin: t.sheet.engine.count > 1,
    })),
  };
}

/** The account a person signs in with; null = they have none. */
function accountOf(p: RowOf<typeof ask.personPage>): PersonPage['user'] {
  if (p.userId === null) return null;
  return {
    id: p.userId,
    roles: p.roles ?? [],
    authorised: p.authorised ?? [],
    certificate: p.ucert ?? '',
    certificateUntil: p.until,
    ownCrosswindKt: p.ownKt,
  };
}

/** Ratings held, and of each dated paper the newest entry. */
async function papersOf(pilotId: string): Promise<Pick<PersonPage, 'held' | 'dates'>> {
  const [held, dates] = await Promise.all([
    Qualifications.find({
      where: { pilotId },
      pick: ['id', 'kind', 'gainedOn', 'note', 'ledgerId', 'endedAt'],
      order: ['gainedOn'],
    }),
    PersonDates.find({
      where: { pilotId },
      pick: ['id', 'key', 'title', 'doneOn', 'until', 'note', 'enteredAt'],
      with: { enterer: ['name'] },
      order: ['key', '-seq'],
    }),
  ]);
  return {
    held,
    dates: dates
      .filter((d, i) => dates.findIndex((x) => x.key === d.key) === i)
      .map(({ enterer, ...d }) => ({ ...d, enteredBy: enterer.name })),
  };
}

/** Landings by type, and every checkout. */
async function flownOf(pilotId: string): Promise<Pick<PersonPage, 'landings' | 'goals'>> {
  const [landings, goals] = await Promise.all([
    ask.personPageMore.all({ pilotId }),
    ask.personPageCheckouts.all({ pilotId }),
  ]);
  return {
    landings: landings.map(({ full, ...l }) => ({ ...l, fullStops: full })),
    goals: goals.map(({ id, createdAt, signedLedgerId, ...g }) => ({
      ...g,
      checkoutId: id,
      openedOn: createdAt.slice(0, 10),
      ledgerId: signedLedgerId,
    })),
  };
}

async function notesOf(pilotId: string): Promise<PersonNote[]> {
  const notes = await PersonNotes.find({
    where: { pilotId, withdrawnAt: null },
    pick: ['id', 'text', 'visible', 'author', 'writtenAt'],
    with: { writer: ['name'] },
    order: ['-writtenAt', 'id'],
  });
  return notes.map(({ author, writer, ...n }) => ({ ...n, author: writer.name, authorId: author }));
}

async function importsOf(pilotId: string): Promise<PersonPage['imports']> {
  const imports = await LogbookImports.find({
    where: { pilotId },
    pick: ['id', 'fileName', 'importedAt', 'added', 'doubled', 'refused', 'takenBackAt'],
    with: { importer: ['name'] },
    order: ['-importedAt'],
  });
  return imports.map(({ importedAt, importer, ...i }) => ({ ...i, at: importedAt, by: importer.name }));
}
