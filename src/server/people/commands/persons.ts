import { told } from '../sentences';
import { randomUUID } from 'node:crypto';
import type { Transaction } from 'sequelize';
import type { z } from 'zod';
import { type LogbookRead, guessColumns, guessDates, headerKey } from '@/core/logbook';
import {
  DateForm,
  EraseForm,
  HeldForm,
  LogbookMapping,
  NoteForm,
  PeopleForm,
  PersonForm,
  RolesForm,
  rolesStamp,
} from '@/domain/people';
import { type CurrentUser, may } from '../../floor/auth/permissions';
import { plural } from '@/core/format';
import { nowIso } from '../../floor/clock';
import { compact, write, writeOrNothing } from '../../floor/write';
import { type TablePeek, readLogbookText } from '../logbook-thread';
import { OpenAccountForm } from '@/domain/account-forms';
import { addLink, type MadeLink, NO_PASSWORD } from '../../account/commands/links';
import { notify, userOfPilot } from '../../account/commands/notices';
import { localToday } from '../../rules/today';
import { type Problem, type Result, problem, zodProblems } from '../../floor/result';
import * as ask from '../../floor/statements/people';
import {
  Erasures,
  LogbookFlights,
  LogbookImports,
  LoggedFlights,
  PersonDates,
  PersonNotes,
  PilotEyes,
  PilotHours,
  Qualifications,
  StruckFlights,
} from '../tables';
import { Sorties } from '../../checkout/tables';
import { Traces } from '../../traces/tables';
import {
  AccountLinks,
  Notices,
  PersonalTokens,
  Pilots,
  RecoveryCodes,
  SecondFactors,
  Sessions,
  SignInAddresses,
  Users,
} from '../../account/tables';
import {
  BookingChanges,
  BookingHolds,
  Bookings,
  CalendarFeeds,
  TimesAway,
  Waiting,
  WeeklyWindows,
} from '../../schedule/tables';
import { Op } from 'sequelize';
import type { RowOf } from '../../floor/statement';

const NOBODY = told('not-found');
const pilotThere = (pilotId: string, t: Transaction) => ask.pilotThere.one({ pilotId }, t);

/**
 * A medical, a flight review, a class rating as shown to the office. A new entry of the same key governs; the earlier
 * stays.
 */
export async function saveDate(user: CurrentUser, form: unknown): Promise<Result<object>> {
  const parsed = DateForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  const d = parsed.data;
  if (!may.keepDates(user, d)) return problem('', NOBODY);
  if (d.doneOn === null && d.until === null) return problem('until', told('give-day'));
  if (d.doneOn !== null && d.doneOn > (await localToday())) return problem('doneOn', told('done-ahead'));
  if (d.doneOn !== null && d.until !== null && d.until < d.doneOn) return problem('until', told('ends-before-done'));
  return write(async (t): Promise<Result<object>> => {
    if (!(await pilotThere(d.pilotId, t))) return problem('', NOBODY);
    const newest = await PersonDates.first(
      { where: { pilotId: d.pilotId, key: d.key }, pick: ['doneOn', 'until', 'note', 'seq'], order: ['-seq'] },
      t,
    );
    if (newest && newest.doneOn === d.doneOn && newest.until === d.until && newest.note === d.note) return { ok: true };
    await PersonDates.insert(
      {
        id: randomUUID(),
        pilotId: d.pilotId,
        key: d.key,
        title: d.title,
        doneOn: d.doneOn,
        until: d.until,
        note: d.note,
        enteredBy: user.id,
        enteredAt: nowIso(),
        seq: (newest?.seq ?? 0) + 1,
      },
      t,
    );
    return { ok: true };
  });
}

/** A note about a person, for those it names. The same request twice is one note. */
export async function writeNote(user: CurrentUser, form: unknown): Promise<Result<object>> {
  const parsed = NoteForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  const { requestId, pilotId, text, visible } = parsed.data;
  if (!may.writeNote(user, { pilotId })) return problem('', NOBODY);
  return write(async (t): Promise<Result<object>> => {
    if (!(await pilotThere(pilotId, t))) return problem('', NOBODY);
    if (await PersonNotes.first({ where: { id: requestId }, pick: ['id'] }, t)) return { ok: true };
    await PersonNotes.insert(
      { id: requestId, pilotId: pilotId, text, visible, author: user.id, writtenAt: nowIso(), withdrawnAt: null },
      t,
    );
    if (visible === 'pilot')
      await notify(
        [await userOfPilot(pilotId, t)],
        {
          kind: 'note',
          text: told('notice-note', { name: user.name }).message,
          href: `/people/${pilotId}`,
          about: requestId,
        },
        user.id,
        t,
      );
    return { ok: true };
  });
}
/** Its author, or the chief, takes a note out of sight. */
export async function withdrawNote(user: CurrentUser, noteId: string): Promise<Result<object>> {
  return write(async (t): Promise<Result<object>> => {
    const note = await PersonNotes.first({ where: { id: noteId }, pick: ['pilotId', 'author', 'withdrawnAt'] }, t);
    if (!note || !may.writeNote(user, { pilotId: note.pilotId }) || (note.author !== user.id && !may.keepPeople(user)))
      return problem('', told('not-found'));
    if (note.withdrawnAt === null) await PersonNotes.update({ withdrawnAt: nowIso() }, { id: noteId }, t);
    return { ok: true };
  });
}

/**
 * A new person: the pilot’s record, and an account where an address is given. Its owner chooses a password by a link
 * that is shown once; the chief makes another when it is lost.
 */
export async function addPerson(
  user: CurrentUser,
  form: unknown,
): Promise<Result<{ pilotId: string; link: MadeLink | null }>> {
  const parsed = PersonForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  const d = parsed.data;
  if (!may.keepPeople(user)) return problem('', told('chief-adds-people'));
  const staff = d.roles.some((r) => r !== 'pilot');
  if (staff && d.email === '') return problem('email', told('instructor-email'));
  if (d.authorised.length > 0 && !d.roles.includes('instructor'))
    return problem('authorised', told('only-instructors-sign'));
  return write((t) => addOne(user, d, t));
}

type Person = z.output<typeof PersonForm>;
/** The same request twice is one person. */
async function addOne(
  user: CurrentUser,
  d: Person,
  t: Transaction,
): Promise<Result<{ pilotId: string; link: MadeLink | null }>> {
  const pilotId = `pilot-${d.requestId}`;
  if (await Pilots.first({ where: { id: pilotId }, pick: ['id'] }, t)) return { ok: true, pilotId, link: null };
  if (d.email !== '' && (await emailTaken(d.email, t))) return problem('email', told('email-taken'));
  await Pilots.insert(
    {
      ...{ id: pilotId, name: d.name, massKg: d.massKg, experience: '', hours: d.hours },
      ...{ crosswindCredit: null, experienceSince: {}, createdAt: nowIso(), certificate: d.certificate },
    },
    t,
  );
  if (d.email === '') return { ok: true, pilotId, link: null };
  return { ok: true, pilotId, link: await openAccountOf(user, { ...d, pilotId }, `user-${d.requestId}`, t) };
}

const emailTaken = async (email: string, t: Transaction): Promise<boolean> =>
  (await Users.first({ where: { email: email.toLowerCase() }, pick: ['id'] }, t)) !== null;

/** An account nobody has a password of yet, and the link to choose one. */
async function openAccountOf(
  user: CurrentUser,
  d: Pick<Person, 'email' | 'name' | 'roles' | 'authorised' | 'massKg' | 'certificate'> & { pilotId: string },
  id: string,
  t: Transaction,
): Promise<MadeLink> {
  const staff = d.roles.some((r) => r !== 'pilot');
  await Users.insert(
    {
      ...{ id, email: d.email.toLowerCase(), name: d.name, passwordHash: NO_PASSWORD, roles: [...new Set(d.roles)] },
      ...{ sessionVersion: 1, pilotId: d.pilotId, massKg: d.massKg, authorised: [...new Set(d.authorised)] },
      ...{ ownCrosswindKt: null, createdAt: nowIso(), certificate: staff ? d.certificate : '', certificateUntil: null },
      ...{ closedAt: null, passwordGivenBy: user.id, passwordGivenAt: nowIso(), passwordOwnAt: null },
    },
    t,
  );
  return addLink(user, id, t);
}

/** An account for somebody who is on record without one. */
export async function openAccount(user: CurrentUser, form: unknown): Promise<Result<{ link: MadeLink }>> {
  const parsed = OpenAccountForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  const { pilotId, email, roles } = parsed.data;
  if (!may.keepPeople(user)) return problem('', told('chief-adds-people'));
  return write(async (t): Promise<Result<{ link: MadeLink }>> => {
    const pilot = await Pilots.first({ where: { id: pilotId }, pick: ['id', 'name', 'massKg', 'certificate'] }, t);
    const erased = await Erasures.first({ where: { pilotId }, pick: ['id'] }, t);
    if (!pilot || erased) return problem('', NOBODY);
    if (await Users.first({ where: { pilotId, closedAt: null }, pick: ['id'] }, t))
      return problem('', told('account-already'));
    if (await emailTaken(email, t)) return problem('email', told('email-taken'));
    const { name, massKg, certificate } = pilot;
    const person = { email, name, roles, authorised: [], massKg, certificate, pilotId };
    return { ok: true, link: await openAccountOf(user, person, `user-${randomUUID()}`, t) };
  });
}

export interface AddedPerson {
  pilotId: string;
  name: string;
  link: MadeLink | null;
}
/** Many people at once, of a file: all of them or none. */
export async function addPeople(user: CurrentUser, form: unknown): Promise<Result<{ people: AddedPerson[] }>> {
  const parsed = PeopleForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  if (!may.keepPeople(user)) return problem('', told('chief-adds-people'));
  return writeOrNothing(async (t): Promise<Result<{ people: AddedPerson[] }>> => {
    const people: AddedPerson[] = [];
    const problems: Problem[] = [];
    for (const [i, d] of parsed.data.people.entries()) {
      const wrong = d.roles.some((r) => r !== 'pilot') && d.email === '' ? told('instructor-email') : null;
      const made = wrong ? problem('email', wrong) : await addOne(user, d, t);
      if (made.ok) people.push({ pilotId: made.pilotId, name: d.name, link: made.link });
      else problems.push(...made.problems.map((p) => ({ ...p, path: `people.${i}.${p.path}` })));
    }
    return problems.length > 0 ? { ok: false, problems } : { ok: true, people };
  });
}

/**
 * Roles and what an instructor may sign. Takes effect with the next request of theirs. At least one other chief stays.
 */
export async function saveRoles(user: CurrentUser, form: unknown): Promise<Result<object>> {
  const parsed = RolesForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  const { userId, roles, authorised, ownCrosswindKt, base } = parsed.data;
  if (!may.keepPeople(user)) return problem('', told('chief-grants'));
  if (authorised.length > 0 && !roles.includes('instructor')) return problem('authorised', told('role-or-goals'));
  return write(async (t): Promise<Result<object>> => {
    const found = await Users.first(
      { where: { id: userId, closedAt: null }, pick: ['roles', 'authorised', 'ownCrosswindKt'] },
      t,
    );
    if (!found) return problem('', NOBODY);
    const now = {
      roles: found.roles,
      authorised: found.authorised,
      ownCrosswindKt: found.ownCrosswindKt,
    };
    if (rolesStamp(now) !== base)
      return {
        ...problem('', told('roles-changed', now)),
        base: rolesStamp(now),
      };
    const chiefs = await ask.saveRoles.one({ userId }, t);
    if (found.roles.includes('chief') && !roles.includes('chief') && (chiefs?.n ?? 0) === 0)
      return problem('roles', told('last-chief'));
    await Users.update(
      {
        roles: [...new Set(roles)],
        authorised: [...new Set(authorised)],
        ownCrosswindKt: ownCrosswindKt,
      },
      { id: userId },
      t,
    );
    await notify(
      [userId],
      { kind: 'roles', text: told('notice-roles', { name: user.name }).message, href: '/account', about: userId },
      user.id,
      t,
    );
    return { ok: true };
  });
}

/** Something held that was shown to the office; what this ledger gives is granted by its entries. */
export async function addHeld(user: CurrentUser, form: unknown): Promise<Result<object>> {
  const parsed = HeldForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  const d = parsed.data;
  if (!may.keepPeople(user) || !may.keepDates(user, d)) return problem('', told('chief-enters-held'));
  if (d.gainedOn > (await localToday())) return problem('gainedOn', told('held-ahead'));
  return write(async (t): Promise<Result<object>> => {
    if (!(await pilotThere(d.pilotId, t))) return problem('', NOBODY);
    if (await ask.addHeld.one({ id: d.requestId, pilotId: d.pilotId, kind: d.kind }, t))
      return problem('kind', told('held-already'));
    await Qualifications.insert(
      {
        id: d.requestId,
        pilotId: d.pilotId,
        kind: d.kind,
        gainedOn: d.gainedOn,
        note: d.note || 'shown to the office',
        ledgerId: null,
        endedAt: null,
      },
      t,
    );
    return { ok: true };
  });
}
/** Ends what was entered by the office; what an entry of the ledger gave ends with that entry. */
export async function endHeld(user: CurrentUser, id: string): Promise<Result<object>> {
  return write(async (t): Promise<Result<object>> => {
    const held = await Qualifications.first({ where: { id }, pick: ['pilotId', 'ledgerId', 'endedAt'] }, t);
    if (!held || !may.keepPeople(user) || !may.keepDates(user, { pilotId: held.pilotId }))
      return problem('', told('not-found'));
    if (held.ledgerId !== null) return problem('', told('held-by-entry'));
    if (held.endedAt === null) await Qualifications.update({ endedAt: nowIso() }, { id }, t);
    return { ok: true };
  });
}

/** What stays, and why: told before and kept with the erasure. Counted, so that nothing stays that is not named. */
export async function whatStays(pilotId: string, t?: Transaction): Promise<string[]> {
  const n = await ask.whatStays.one({ pilotId }, t);
  type Kept = keyof RowOf<typeof ask.whatStays>;
  const count = (key: Kept) => n?.[key] ?? 0;
  const line = (key: Kept, one: string, rest: string) => (count(key) > 0 ? [`${plural(count(key), one)}${rest}`] : []);
  return [
    ...line(
      'entries',
      'entry',
      ' of the ledger, with the name in them: the ledger is a chain that proves itself, and the signer ' +
        'must keep the record (14 CFR 61.189, ORA.ATO.120)',
    ),
    ...line(
      'checkouts',
      'checkout',
      `, with the name, its note, ${plural(count('landings'), 'landing')}, ` +
        `${plural(count('briefs'), 'brief')}, ${plural(count('debriefs'), 'debrief')} with remarks, ` +
        `${plural(count('assessed'), 'self-assessment')} and ${plural(count('traces'), 'recording')} (names ` +
        'of files taken out): training records that the entries rest on and the instructor must keep',
    ),
    ...line('held', 'qualification', ' given by entries of the ledger'),
    ...line('bookings', 'booking', ' that took an aeroplane: kind, times and aeroplane, without notes and reasons'),
    ...line(
      'exceedances',
      'exceedance',
      ' of aeroplanes flown: they belong to the aeroplane\u2019s maintenance record',
    ),
    ...line('taught', 'lesson', ' taught, and what was recorded and written in them: the record of the pilots taught'),
    ...line('signed', 'entry', ' signed as an instructor, with the name: the record of the pilots they are about'),
    'that the record was erased, when, by whom and why',
  ];
}

/**
 * Erases what may be erased of a person: account, address, mass, experience, notes, dates, eye heights, hours, imported
 * and logged flying, wishes, bookings ahead, and their name and what was written of them in notices, bookings, absences and
 * names of files. What the ledger and the training record rest on stays, and is named. The freed pages of the database are
 * overwritten.
 */
export async function erasePerson(user: CurrentUser, form: unknown): Promise<Result<{ kept: string[] }>> {
  const parsed = EraseForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  if (!may.erasePerson(user, parsed.data)) return problem('', told('chief-erases'));
  const done = await write((t) => eraseRows(user, parsed.data, t));
  if (done.ok) await compact();
  return done;
}

async function eraseRows(
  user: CurrentUser,
  { pilotId, reason, name }: z.infer<typeof EraseForm>,
  t: Transaction,
): Promise<Result<{ kept: string[] }>> {
  const pilot = await Pilots.first({ where: { id: pilotId }, pick: ['name'] }, t);
  if (!pilot) return problem('', NOBODY);
  if (name.trim() !== pilot.name) return problem('name', told('name-as-shown'));
  if (await Erasures.first({ where: { pilotId }, pick: ['id'] }, t)) return problem('', told('erased-already'));
  const account = await Users.first({ where: { pilotId }, pick: ['id', 'roles'] }, t);
  if (account && account.roles.includes('chief')) return problem('', told('erase-chief'));
  const kept = await whatStays(pilotId, t);
  const named = await ask.namedIn.one({ pilotId, userId: account?.id ?? '' }, t);
  const keepsName = (named?.n ?? 0) > 0;
  await Erasures.insert(
    {
      id: randomUUID(),
      pilotId: pilotId,
      reason: reason.replaceAll(pilot.name, ERASED_NAME),
      kept: kept.join('; '),
      erasedBy: user.id,
      erasedAt: nowIso(),
    },
    t,
  );
  await cancelAhead(user, pilotId, t);
  await erasePilotRows(pilotId, pilot.name, account?.id ?? null, t);
  const bare = { massKg: 0, experience: '', hours: 0, crosswindCredit: null, experienceSince: {}, certificate: '' };
  await Pilots.update(keepsName ? bare : { ...bare, name: ERASED_NAME }, { id: pilotId }, t);
  if (account) await eraseAccount(account.id, keepsName, t);
  return { ok: true, kept };
}
const ERASED_NAME = 'erased person';

async function cancelAhead(user: CurrentUser, pilotId: string, t: Transaction): Promise<void> {
  const ahead = await Bookings.find(
    { where: { pilotId, state: 'booked', startsAt: { [Op.gt]: nowIso() } }, pick: ['id', 'version'] },
    t,
  );
  for (const b of ahead) {
    await Bookings.update({ state: 'cancelled', version: b.version + 1 }, { id: b.id }, t);
    await BookingHolds.delete({ bookingId: b.id }, t);
    await BookingChanges.insert(
      {
        id: randomUUID(),
        bookingId: b.id,
        version: b.version + 1,
        what: 'cancelled',
        body: {},
        reason: 'the person was erased',
        changedBy: user.id,
        changedAt: nowIso(),
      },
      t,
    );
  }
}

/** Rows of their own go; in rows of others, and in those that stay, their name and what was written of them. */
async function erasePilotRows(pilotId: string, name: string, userId: string | null, t: Transaction): Promise<void> {
  const [whose, who] = [{ pilotId }, [`p:${pilotId}`, `u:${userId ?? ''}`]];
  const logged = await LoggedFlights.find({ where: whose, pick: ['id'] }, t);
  await StruckFlights.delete({ logId: logged.map((l) => l.id) }, t);
  await PersonNotes.delete(whose, t);
  await PersonDates.delete(whose, t);
  await PilotEyes.delete(whose, t);
  await PilotHours.delete(whose, t);
  await LogbookFlights.delete(whose, t);
  await LoggedFlights.delete(whose, t);
  await Qualifications.delete({ ...whose, ledgerId: null }, t);
  await LogbookImports.update({ fileName: 'erased', header: '', mapping: {} }, whose, t);
  await Bookings.update({ note: '', aim: '' }, whose, t);
  const booked = { bookingId: (await Bookings.find({ where: whose, pick: ['id'] }, t)).map((b) => b.id) };
  await BookingChanges.update({ body: {} }, booked, t);
  await BookingChanges.update({ reason: '' }, { ...booked, reason: { [Op.ne]: 'the person was erased' } }, t);
  await Waiting.update({ endedHow: 'erased', endedAt: nowIso() }, { ...whose, endedAt: null }, t);
  await Waiting.update({ note: '' }, whose, t);
  await TimesAway.update({ why: '', endedWhy: null }, { who }, t);
  await WeeklyWindows.delete({ person: who }, t);
  const lessons = await Sorties.find({ pick: ['id'], with: { checkout: { pick: [], where: whose } } }, t);
  await Traces.update({ name: 'recording' }, { sortieId: lessons.map((s) => s.id) }, t);
  for (const n of await Notices.find({ where: { text: { [Op.substring]: name } }, pick: ['id', 'text'] }, t))
    await Notices.update({ text: n.text.replaceAll(name, ERASED_NAME) }, { id: n.id }, t);
}

async function eraseAccount(id: string, keepsName: boolean, t: Transaction): Promise<void> {
  await Users.update(
    {
      closedAt: nowIso(),
      email: `erased-${randomUUID()}@invalid.example`,
      passwordHash: 'erased',
      certificate: '',
      certificateUntil: null,
      massKg: 0,
      ownCrosswindKt: null,
      authorised: [],
      ...(keepsName ? {} : { name: ERASED_NAME }),
    },
    { id },
    t,
  );
  const accounts = [PersonalTokens, CalendarFeeds, Notices, Sessions, SignInAddresses] as const;
  for (const table of [...accounts, AccountLinks, SecondFactors, RecoveryCodes]) await table.delete({ userId: id }, t);
}

const LARGEST = 4_000_000;
const MOST_ROWS = 40_000;
const TOO_LONG = told('file-too-slow');
export interface LogbookLook extends LogbookRead {
  header: string[];
  sample: string[][];
  mapping: LogbookMapping;
  remembered: boolean;
  /**
   * Lines that are in this person’s record already: read in before, or recorded or logged here on that day in that
   * type.
   */
  doubled: { line: number; what: string }[];
  fresh: number;
  hours: number;
}
/**
 * Looks at a logbook file under a mapping, or finds one: the last used for this form of file, else by the names of its
 * columns and of the hangar’s types. Nothing is written.
 */
export async function lookAtLogbook(
  user: CurrentUser,
  pilotId: string,
  text: string,
  given: unknown,
): Promise<Result<{ look: LogbookLook }>> {
  if (!may.importLogbook(user, { pilotId })) return problem('', told('whose-logbook'));
  if (text.length > LARGEST) return problem('file', told('file-too-large'));
  const today = await localToday();
  const table = await readLogbookText({ text, mapping: null, today });
  if (!table) return problem('file', TOO_LONG);
  if (table.header.length < 3 || table.rows === 0) return problem('file', told('not-a-table'));
  if (table.rows > MOST_ROWS) return problem('file', told('too-many-rows', { rows: table.rows, most: MOST_ROWS }));
  const mapping = given === null || given === undefined ? null : LogbookMapping.safeParse(given);
  if (mapping && !mapping.success) return problem('mapping', told('mapping-broken'));
  const last = mapping
    ? null
    : await LogbookImports.first({
        where: { header: headerKey(table.header) },
        pick: ['mapping'],
        order: ['-importedAt'],
      });
  const base =
    mapping?.data ??
    (last
      ? // Lines are those of one file.
        { ...LogbookMapping.parse(last.mapping), stopLines: [] }
      : {
          columns: guessColumns(table.header),
          dates: guessDates(columnOf(table.header, table.sample, guessColumns(table.header).date)),
          time: 'hours' as const,
          stopLines: [],
          types: {},
        });
  const types = await knownTypes(base, table);
  const read = (await readLogbookText({ text, mapping: { ...base, types }, today }))?.read;
  if (!read) return problem('file', TOO_LONG);
  const doubled = await doubledOf(pilotId, read);
  const lines = new Set(doubled.map((d) => d.line));
  return {
    ok: true,
    look: {
      ...read,
      header: table.header,
      sample: table.sample.slice(0, 4),
      mapping: { ...base, types },
      remembered: last !== null,
      doubled,
      fresh: read.flights.filter((f) => !lines.has(f.line)).length,
      hours: Math.round(read.flights.filter((f) => !lines.has(f.line)).reduce((a, f) => a + f.hours, 0) * 10) / 10,
    },
  };
}
const columnOf = (header: readonly string[], table: readonly string[][], name: string | undefined): string[] => {
  const i = name === undefined ? -1 : header.indexOf(name);
  return i < 0 ? [] : table.slice(0, 200).map((r) => r[i] ?? '');
};

/** Types of the file that are named as in the hangar, by name, code or a registration of it. */
async function knownTypes(
  base: Pick<LogbookMapping, 'columns' | 'types'>,
  table: TablePeek,
): Promise<LogbookMapping['types']> {
  const name = base.columns.type;
  if (name === undefined) return base.types;
  const written = Object.hasOwn(table.written, name) ? (table.written[name] ?? []) : [];
  const found = await ask.knownTypes.all();
  const plain = (s: string) => s.toLowerCase().replace(/[^a-z0-9]/g, '');
  const types = { ...base.types };
  for (const w of written) {
    const t = types[w]
      ? null
      : found.find(
          (x) =>
            plain(x.name) === plain(w) ||
            plain(x.code) === plain(w) ||
            (x.registrations ?? '').split(',').some((r) => plain(r) === plain(w)),
        );
    if (t)
      types[w] = {
        typeCode: t.code,
        engines: t.engines,
        tailwheel: t.tailwheel,
        surface: t.surface === 'sea' ? 'water' : 'land',
      };
  }
  return types;
}

async function doubledOf(pilotId: string, read: LogbookRead, t?: Transaction): Promise<LogbookLook['doubled']> {
  const before = new Set(
    (
      await LogbookFlights.find(
        { where: { pilotId }, pick: ['fingerprint'], with: { import: { pick: [], where: { takenBackAt: null } } } },
        t,
      )
    ).map((f) => f.fingerprint),
  );
  const here = new Set((await ask.doubledOf.all({ pilotId }, t)).map((r) => r.k));
  return read.flights.flatMap((f) =>
    before.has(f.fingerprint)
      ? [{ line: f.line, what: 'read in before' }]
      : f.type.typeCode !== null && here.has(`${f.flownOn} ${f.type.typeCode}`)
        ? [{ line: f.line, what: 'recorded or logged here on that day, in that type' }]
        : [],
  );
}

/**
 * Reads a logbook in: every new flight once, the mapping kept for the next file of this form. The same request twice
 * reads once.
 */
export async function importLogbook(
  user: CurrentUser,
  pilotId: string,
  fileName: string,
  text: string,
  mapping: unknown,
  requestId: string,
): Promise<Result<{ added: number; doubled: number; refused: number }>> {
  const looked = await lookAtLogbook(user, pilotId, text, mapping);
  if (!looked.ok) return looked;
  const { look } = looked;
  if (look.fresh === 0) return problem('file', look.flights.length > 0 ? told('all-there') : told('none-readable'));
  return write(async (t): Promise<Result<{ added: number; doubled: number; refused: number }>> => {
    if (!(await pilotThere(pilotId, t))) return problem('', NOBODY);
    const known = await LogbookImports.first({ where: { id: requestId }, pick: ['added', 'doubled', 'refused'] }, t);
    if (known) return { ok: true, ...known };
    const lines = new Set((await doubledOf(pilotId, look, t)).map((d) => d.line));
    const fresh = look.flights.filter((f) => !lines.has(f.line));
    const counts = { added: fresh.length, doubled: lines.size, refused: look.refused.length };
    await LogbookImports.insert(
      {
        id: requestId,
        pilotId: pilotId,
        fileName: fileName.slice(0, 120),
        header: headerKey(look.header),
        mapping: look.mapping,
        readRows: look.flights.length + look.refused.length,
        ...counts,
        importedBy: user.id,
        importedAt: nowIso(),
        takenBackAt: null,
        takenBackBy: null,
      },
      t,
    );
    await LogbookFlights.insertAll(
      fresh.map((f) => ({
        id: randomUUID(),
        importId: requestId,
        pilotId: pilotId,
        flownOn: f.flownOn,
        typeWritten: f.typeWritten,
        registration: f.registration,
        typeCode: f.type.typeCode,
        engines: f.type.engines,
        tailwheel: f.type.tailwheel,
        surface: f.type.surface,
        takeoffsDay: f.takeoffsDay,
        takeoffsNight: f.takeoffsNight,
        landingsDay: f.landingsDay,
        landingsNight: f.landingsNight,
        fullStopsDay: f.fullStopsDay,
        fullStopsNight: f.fullStopsNight,
        hours: f.hours,
        picHours: f.picHours,
        dual: f.dual,
        remark: f.remark,
        fingerprint: f.fingerprint,
      })),
      t,
    );
    return { ok: true, ...counts };
  });
}
/** Takes a whole import back: its flights stay on file and count no more. */
export async function takeBackImport(user: CurrentUser, importId: string): Promise<Result<object>> {
  return write(async (t): Promise<Result<object>> => {
    const i = await LogbookImports.first({ where: { id: importId }, pick: ['pilotId', 'takenBackAt'] }, t);
    if (!i || !may.importLogbook(user, { pilotId: i.pilotId })) return problem('', told('not-found'));
    if (i.takenBackAt === null)
      await LogbookImports.update({ takenBackAt: nowIso(), takenBackBy: user.id }, { id: importId }, t);
    return { ok: true };
  });
}
