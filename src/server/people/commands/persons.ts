import { randomBytes, randomUUID } from 'node:crypto';
import type { Transaction } from 'sequelize';
import type { z } from 'zod';
import { type LogbookRead, guessColumns, guessDates, headerKey } from '@/core/logbook';
import {
  DateForm,
  EraseForm,
  HeldForm,
  LogbookMapping,
  NoteForm,
  PersonForm,
  RolesForm,
  rolesStamp,
} from '@/domain/people';
import { type CurrentUser, may } from '../../floor/auth/permissions';
import { list, plural } from '@/core/format';
import { say } from '@/domain/words';
import { hashPassword } from '../../floor/auth/password';
import { nowIso } from '../../floor/clock';
import { database, row, rows } from '../../floor/connection';
import { type TableName, model } from '../../floor/models';
import { compact, write } from '../../floor/write';
import { type TablePeek, readLogbookText } from '../logbook-thread';
import { notify, userOfPilot } from '../../account/commands/notices';
import { localToday } from '../../rules/today';
import { type Result, problem, zodProblems } from '../../floor/result';

const NOBODY = 'There is no such person for you to keep.';
const pilotThere = (pilotId: string, t: Transaction) =>
  row<{ id: string }>(
    'SELECT id FROM pilots p WHERE id = :pilotId AND NOT EXISTS (SELECT 1 FROM erasures e WHERE e.pilot_id = p.id)',
    { pilotId },
    t,
  );

/**
 * A medical, a flight review, a class rating as shown to the office. A new entry of the same key governs; the earlier
 * stays.
 */
export async function saveDate(user: CurrentUser, form: unknown): Promise<Result<object>> {
  const parsed = DateForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  const d = parsed.data;
  if (!may.keepDates(user, d)) return problem('', NOBODY);
  if (d.doneOn === null && d.until === null)
    return problem('until', 'Give the day it was done, or the last day it is good for.');
  if (d.doneOn !== null && d.doneOn > (await localToday()))
    return problem('doneOn', 'This day lies ahead: enter it when it is done.');
  if (d.doneOn !== null && d.until !== null && d.until < d.doneOn)
    return problem('until', 'It ends before it was done. Look at both days.');
  return write(async (t): Promise<Result<object>> => {
    if (!(await pilotThere(d.pilotId, t))) return problem('', NOBODY);
    const newest = await row<{ done_on: string | null; until: string | null; note: string; seq: number }>(
      'SELECT done_on, until, note, seq FROM person_dates WHERE pilot_id = :pilotId AND key = :key ORDER BY seq DESC LIMIT 1',
      { pilotId: d.pilotId, key: d.key },
      t,
    );
    if (newest && newest.done_on === d.doneOn && newest.until === d.until && newest.note === d.note)
      return { ok: true };
    await model('person_dates').create(
      {
        id: randomUUID(),
        pilot_id: d.pilotId,
        key: d.key,
        title: d.title,
        done_on: d.doneOn,
        until: d.until,
        note: d.note,
        entered_by: user.id,
        entered_at: nowIso(),
        seq: (newest?.seq ?? 0) + 1,
      },
      { transaction: t },
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
    if (await row('SELECT id FROM person_notes WHERE id = :requestId', { requestId }, t)) return { ok: true };
    await model('person_notes').create(
      { id: requestId, pilot_id: pilotId, text, visible, author: user.id, written_at: nowIso(), withdrawn_at: null },
      { transaction: t },
    );
    if (visible === 'pilot')
      await notify(
        [await userOfPilot(pilotId, t)],
        { kind: 'note', text: `${user.name} wrote you a note.`, href: `/people/${pilotId}`, about: requestId },
        user.id,
        t,
      );
    return { ok: true };
  });
}
/** Its author, or the chief, takes a note out of sight. */
export async function withdrawNote(user: CurrentUser, noteId: string): Promise<Result<object>> {
  return write(async (t): Promise<Result<object>> => {
    const note = await row<{ pilot_id: string; author: string; withdrawn_at: string | null }>(
      'SELECT pilot_id, author, withdrawn_at FROM person_notes WHERE id = :noteId',
      { noteId },
      t,
    );
    if (!note || !may.writeNote(user, { pilotId: note.pilot_id }) || (note.author !== user.id && !may.keepPeople(user)))
      return problem('', 'There is no such note for you to withdraw.');
    if (note.withdrawn_at === null)
      await model('person_notes').update({ withdrawn_at: nowIso() }, { where: { id: noteId }, transaction: t });
    return { ok: true };
  });
}

/**
 * A new person: the pilot’s record, and an account where an address is given. The first password is told once; its
 * owner changes it, and the chief gives a new one when it is lost.
 */
export async function addPerson(
  user: CurrentUser,
  form: unknown,
): Promise<Result<{ pilotId: string; password: string | null }>> {
  const parsed = PersonForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  const d = parsed.data;
  if (!may.keepPeople(user)) return problem('', 'The chief instructor adds people.');
  const staff = d.roles.some((r) => r !== 'pilot');
  if (staff && d.email === '') return problem('email', 'An instructor needs an account: give the e-mail address.');
  if (d.authorised.length > 0 && !d.roles.includes('instructor'))
    return problem('authorised', 'Only an instructor is authorised to sign goals.');
  const password = d.email === '' ? null : randomBytes(9).toString('base64url');
  const hash = password === null ? null : await hashPassword(password);
  return write(async (t): Promise<Result<{ pilotId: string; password: string | null }>> => {
    const pilotId = `pilot-${d.requestId}`;
    if (await row('SELECT id FROM pilots WHERE id = :pilotId', { pilotId }, t))
      return { ok: true, pilotId, password: null };
    if (d.email !== '' && (await row('SELECT id FROM users WHERE email = :email', { email: d.email }, t)))
      return problem('email', 'This address has an account already. Give another, or open that person.');
    await model('pilots').create(
      {
        id: pilotId,
        name: d.name,
        mass_kg: d.massKg,
        experience: '',
        hours: d.hours,
        crosswind_credit: null,
        experience_since: '{}',
        created_at: nowIso(),
        certificate: d.certificate,
      },
      { transaction: t },
    );
    if (hash !== null)
      await model('users').create(
        {
          id: `user-${d.requestId}`,
          email: d.email,
          name: d.name,
          password_hash: hash,
          roles: JSON.stringify([...new Set(d.roles)]),
          session_version: 1,
          pilot_id: pilotId,
          mass_kg: d.massKg,
          authorised: JSON.stringify([...new Set(d.authorised)]),
          own_crosswind_kt: null,
          created_at: nowIso(),
          certificate: staff ? d.certificate : '',
          certificate_until: null,
          closed_at: null,
          password_given_by: user.id,
          password_given_at: nowIso(),
          password_own_at: null,
        },
        { transaction: t },
      );
    return { ok: true, pilotId, password };
  });
}

/**
 * Roles and what an instructor may sign. Takes effect with the next request of theirs. At least one other chief stays.
 */
export async function saveRoles(user: CurrentUser, form: unknown): Promise<Result<object>> {
  const parsed = RolesForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  const { userId, roles, authorised, ownCrosswindKt, base } = parsed.data;
  if (!may.keepPeople(user)) return problem('', 'The chief instructor grants roles and authorisations.');
  if (authorised.length > 0 && !roles.includes('instructor'))
    return problem(
      'authorised',
      'Only an instructor is authorised to sign goals: give the role, or take the goals out.',
    );
  return write(async (t): Promise<Result<object>> => {
    const found = await row<{ roles: string; authorised: string; own_crosswind_kt: number | null }>(
      'SELECT roles, authorised, own_crosswind_kt FROM users WHERE id = :userId AND closed_at IS NULL',
      { userId },
      t,
    );
    if (!found) return problem('', NOBODY);
    const now = {
      roles: JSON.parse(found.roles) as string[],
      authorised: JSON.parse(found.authorised) as string[],
      ownCrosswindKt: found.own_crosswind_kt,
    };
    if (rolesStamp(now) !== base)
      return {
        ...problem(
          '',
          `Somebody changed this meanwhile. It is now: ${list(now.roles)}; may sign ` +
            `${now.authorised.length === 0 ? 'nothing' : list(now.authorised.map(say))}; own crosswind limit ` +
            `${now.ownCrosswindKt === null ? 'not set' : `${now.ownCrosswindKt} kt`}. Save again to set what you ` +
            'have chosen here.',
        ),
        base: rolesStamp(now),
      };
    const chiefs = await row<{ n: number }>(
      'SELECT COUNT(*) AS n FROM users WHERE id <> :userId AND closed_at IS NULL AND roles LIKE \'%"chief"%\'',
      { userId },
      t,
    );
    if (found.roles.includes('"chief"') && !roles.includes('chief') && (chiefs?.n ?? 0) === 0)
      return problem('roles', 'A school has at least one chief instructor. Make another one first.');
    await model('users').update(
      {
        roles: JSON.stringify([...new Set(roles)]),
        authorised: JSON.stringify([...new Set(authorised)]),
        own_crosswind_kt: ownCrosswindKt,
      },
      { where: { id: userId }, transaction: t },
    );
    await notify(
      [userId],
      { kind: 'roles', text: `${user.name} changed your roles or what you may sign.`, href: '/account', about: userId },
      user.id,
      t,
    );
    return { ok: true };
  });
}

/** Something held that was shown to the office; what this book gives is granted by its entries. */
export async function addHeld(user: CurrentUser, form: unknown): Promise<Result<object>> {
  const parsed = HeldForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  const d = parsed.data;
  if (!may.keepPeople(user) || !may.keepDates(user, d))
    return problem('', 'The chief instructor enters what others hold.');
  if (d.gainedOn > (await localToday())) return problem('gainedOn', 'This day lies ahead.');
  return write(async (t): Promise<Result<object>> => {
    if (!(await pilotThere(d.pilotId, t))) return problem('', NOBODY);
    if (
      await row(
        'SELECT id FROM qualifications WHERE id = :id OR (pilot_id = :pilotId AND kind = :kind AND ended_at IS NULL)',
        { id: d.requestId, pilotId: d.pilotId, kind: d.kind },
        t,
      )
    )
      return problem('kind', 'This is held already.');
    await model('qualifications').create(
      {
        id: d.requestId,
        pilot_id: d.pilotId,
        kind: d.kind,
        gained_on: d.gainedOn,
        note: d.note || 'shown to the office',
        ledger_id: null,
        ended_at: null,
      },
      { transaction: t },
    );
    return { ok: true };
  });
}
/** Ends what was entered by the office; what an entry of the book gave ends with that entry. */
export async function endHeld(user: CurrentUser, id: string): Promise<Result<object>> {
  return write(async (t): Promise<Result<object>> => {
    const held = await row<{ pilot_id: string; ledger_id: string | null; ended_at: string | null }>(
      'SELECT pilot_id, ledger_id, ended_at FROM qualifications WHERE id = :id',
      { id },
      t,
    );
    if (!held || !may.keepPeople(user) || !may.keepDates(user, { pilotId: held.pilot_id }))
      return problem('', 'There is nothing of this name for you to end.');
    if (held.ledger_id !== null) return problem('', 'An entry of the book gave this: void that entry.');
    if (held.ended_at === null)
      await model('qualifications').update({ ended_at: nowIso() }, { where: { id }, transaction: t });
    return { ok: true };
  });
}

/** What goes when a person asks to be forgotten, in the order that foreign keys allow. */
const ERASED: [TableName, string][] = [
  ['person_notes', 'pilot_id'],
  ['person_dates', 'pilot_id'],
  ['pilot_eyes', 'pilot_id'],
  ['pilot_hours', 'pilot_id'],
  ['logbook_flights', 'pilot_id'],
  ['flight_log', 'pilot_id'],
];
/** What stays, and why: told before and kept with the erasure. Counted, so that nothing stays that is not named. */
export async function whatStays(pilotId: string, t?: Transaction): Promise<string[]> {
  const of = '(SELECT id FROM sorties WHERE checkout_id IN (SELECT id FROM checkouts WHERE pilot_id = :pilotId))';
  const n = await row<Record<string, number>>(
    `SELECT (SELECT COUNT(*) FROM ledger l JOIN checkouts c ON c.id = l.checkout_id WHERE c.pilot_id = :pilotId) AS entries,
       (SELECT COUNT(*) FROM checkouts WHERE pilot_id = :pilotId) AS checkouts,
       (SELECT COUNT(*) FROM landings WHERE pilot_id = :pilotId) AS landings,
       (SELECT COUNT(*) FROM briefs WHERE sortie_id IN ${of}) AS briefs,
       (SELECT COUNT(*) FROM debriefs WHERE sortie_id IN ${of}) AS debriefs,
       (SELECT COUNT(*) FROM self_assessments WHERE sortie_id IN ${of}) AS assessed,
       (SELECT COUNT(*) FROM traces WHERE sortie_id IN ${of}) AS traces,
       (SELECT COUNT(*) FROM exceedances WHERE sortie_id IN ${of}) AS exceedances,
       (SELECT COUNT(*) FROM qualifications WHERE pilot_id = :pilotId AND ledger_id IS NOT NULL) AS held,
       (SELECT COUNT(*) FROM bookings WHERE pilot_id = :pilotId) AS bookings,
       (SELECT COUNT(*) FROM ledger l JOIN users u ON u.id = l.signer_id WHERE u.pilot_id = :pilotId) AS signed,
       (SELECT COUNT(*) FROM sorties s JOIN users u ON u.id = s.instructor_id WHERE u.pilot_id = :pilotId) AS taught`,
    { pilotId },
    t,
  );
  const count = (key: string) => n?.[key] ?? 0;
  const line = (key: string, one: string, rest: string) =>
    count(key) > 0 ? [`${plural(count(key), one)}${rest}`] : [];
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
  if (!may.erasePerson(user, parsed.data)) return problem('', 'The chief instructor erases, and never themselves.');
  const done = await write((t) => eraseRows(user, parsed.data, t));
  if (done.ok) await compact();
  return done;
}

async function eraseRows(
  user: CurrentUser,
  { pilotId, reason, name }: z.infer<typeof EraseForm>,
  t: Transaction,
): Promise<Result<{ kept: string[] }>> {
  const pilot = await row<{ name: string }>('SELECT name FROM pilots WHERE id = :pilotId', { pilotId }, t);
  if (!pilot) return problem('', NOBODY);
  if (name.trim() !== pilot.name)
    return problem('name', 'Type the name exactly as it stands above: this cannot be undone.');
  if (await row('SELECT id FROM erasures WHERE pilot_id = :pilotId', { pilotId }, t))
    return problem('', 'What may be erased is gone already.');
  const account = await row<{ id: string; roles: string }>(
    'SELECT id, roles FROM users WHERE pilot_id = :pilotId',
    { pilotId },
    t,
  );
  if (account && account.roles.includes('"chief"'))
    return problem('', 'This is a chief instructor. Take the role away first.');
  const kept = await whatStays(pilotId, t);
  const named = await row<{ n: number }>(
    `SELECT (SELECT COUNT(*) FROM checkouts WHERE pilot_id = :pilotId) + (SELECT COUNT(*) FROM sorties WHERE instructor_id = :userId) AS n`,
    { pilotId, userId: account?.id ?? '' },
    t,
  );
  const keepsName = (named?.n ?? 0) > 0;
  await model('erasures').create(
    {
      id: randomUUID(),
      pilot_id: pilotId,
      reason: reason.replaceAll(pilot.name, ERASED_NAME),
      kept: kept.join('; '),
      erased_by: user.id,
      erased_at: nowIso(),
    },
    { transaction: t },
  );
  await cancelAhead(user, pilotId, t);
  await erasePilotRows(pilotId, pilot.name, account?.id ?? null, t);
  const bare = {
    mass_kg: 0,
    experience: '',
    hours: 0,
    crosswind_credit: null,
    experience_since: '{}',
    certificate: '',
  };
  await model('pilots').update(keepsName ? bare : { ...bare, name: ERASED_NAME }, {
    where: { id: pilotId },
    transaction: t,
  });
  if (account) await eraseAccount(account.id, keepsName, t);
  return { ok: true, kept };
}
const ERASED_NAME = 'erased person';

async function cancelAhead(user: CurrentUser, pilotId: string, t: Transaction): Promise<void> {
  const ahead = await rows<{ id: string; version: number }>(
    "SELECT id, version FROM bookings WHERE pilot_id = :pilotId AND state = 'booked' AND starts_at > :now",
    { pilotId, now: nowIso() },
    t,
  );
  for (const b of ahead) {
    await model('bookings').update(
      { state: 'cancelled', version: b.version + 1 },
      { where: { id: b.id }, transaction: t },
    );
    await database().sequelize.query('DELETE FROM booking_holds WHERE booking_id = :id', {
      replacements: { id: b.id },
      transaction: t,
    });
    await model('booking_changes').create(
      {
        id: randomUUID(),
        booking_id: b.id,
        version: b.version + 1,
        what: 'cancelled',
        body: '{}',
        reason: 'the person was erased',
        changed_by: user.id,
        changed_at: nowIso(),
      },
      { transaction: t },
    );
  }
}

/** Rows of their own go; in rows of others, and in those that stay, their name and what was written of them. */
async function erasePilotRows(pilotId: string, name: string, userId: string | null, t: Transaction): Promise<void> {
  const values = { pilotId, name, erased: ERASED_NAME, now: nowIso(), p: `p:${pilotId}`, u: `u:${userId ?? ''}` };
  const sql = (text: string) => database().sequelize.query(text, { replacements: values, transaction: t });
  await sql('DELETE FROM flight_log_struck WHERE log_id IN (SELECT id FROM flight_log WHERE pilot_id = :pilotId)');
  for (const [table, column] of ERASED) await sql(`DELETE FROM ${table} WHERE ${column} = :pilotId`);
  await sql('DELETE FROM qualifications WHERE pilot_id = :pilotId AND ledger_id IS NULL');
  await sql("UPDATE logbook_imports SET file_name = 'erased', header = '', mapping = '{}' WHERE pilot_id = :pilotId");
  await sql("UPDATE bookings SET note = '' WHERE pilot_id = :pilotId");
  await sql(
    `UPDATE booking_changes SET reason = CASE WHEN reason = 'the person was erased' THEN reason ELSE '' END,
       body = '{}' WHERE booking_id IN (SELECT id FROM bookings WHERE pilot_id = :pilotId)`,
  );
  await sql(
    `UPDATE waiting_list SET note = '', ended_how = CASE WHEN ended_at IS NULL THEN 'erased' ELSE ended_how END,
       ended_at = COALESCE(ended_at, :now) WHERE pilot_id = :pilotId`,
  );
  await sql("UPDATE times_away SET why = '', ended_why = NULL WHERE who IN (:p, :u)");
  await sql('DELETE FROM weekly_windows WHERE person IN (:p, :u)');
  await sql(
    `UPDATE traces SET name = 'recording' WHERE sortie_id IN (SELECT s.id
       FROM sorties s JOIN checkouts c ON c.id = s.checkout_id WHERE c.pilot_id = :pilotId)`,
  );
  await sql('UPDATE notices SET text = replace(text, :name, :erased) WHERE instr(text, :name) > 0');
}

async function eraseAccount(id: string, keepsName: boolean, t: Transaction): Promise<void> {
  await model('users').update(
    {
      closed_at: nowIso(),
      email: `erased-${randomUUID()}@invalid.example`,
      password_hash: 'erased',
      certificate: '',
      certificate_until: null,
      mass_kg: 0,
      own_crosswind_kt: null,
      authorised: '[]',
      ...(keepsName ? {} : { name: ERASED_NAME }),
    },
    { where: { id }, transaction: t },
  );
  for (const table of ['personal_tokens', 'calendar_feeds', 'notices', 'sessions', 'sign_in_addresses'])
    await database().sequelize.query(`DELETE FROM ${table} WHERE user_id = :id`, {
      replacements: { id },
      transaction: t,
    });
}

const LARGEST = 4_000_000;
const MOST_ROWS = 40_000;
const TOO_LONG = 'The file takes too long to read. Split it by years.';
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
  if (!may.importLogbook(user, { pilotId }))
    return problem('', 'A logbook is read in by its pilot, or by the chief instructor.');
  if (text.length > LARGEST) return problem('file', 'The file is larger than 4 MB. Split it by years.');
  const today = await localToday();
  const table = await readLogbookText({ text, mapping: null, today });
  if (!table) return problem('file', TOO_LONG);
  if (table.header.length < 3 || table.rows === 0)
    return problem(
      'file',
      'This does not look like a table with a row of names and flights below it. Save the logbook as CSV and choose that file.',
    );
  if (table.rows > MOST_ROWS)
    return problem('file', `The file has ${table.rows} rows, more than ${MOST_ROWS}. Split it by years.`);
  const mapping = given === null || given === undefined ? null : LogbookMapping.safeParse(given);
  if (mapping && !mapping.success) return problem('mapping', 'The mapping cannot be read. Choose the columns again.');
  const last = mapping
    ? null
    : await row<{ mapping: string }>(
        'SELECT mapping FROM logbook_imports WHERE header = :key ORDER BY imported_at DESC LIMIT 1',
        { key: headerKey(table.header) },
      );
  const base =
    mapping?.data ??
    (last
      ? // Lines are those of one file.
        { ...LogbookMapping.parse(JSON.parse(last.mapping)), stopLines: [] }
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
  const found = await rows<{
    code: string;
    name: string;
    engines: number;
    tailwheel: number;
    surface: string;
    registrations: string;
  }>(
    'SELECT ty.code, ty.name, tv.engines, tv.tailwheel, tv.surface, (SELECT GROUP_CONCAT(registration) FROM airframes a WHERE a.type_id = ty.id) AS registrations FROM types ty JOIN type_versions tv ON tv.type_id = ty.id AND tv.version = (SELECT MAX(version) FROM type_versions WHERE type_id = ty.id)',
  );
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
        tailwheel: t.tailwheel === 1,
        surface: t.surface === 'water' ? 'water' : 'land',
      };
  }
  return types;
}

async function doubledOf(pilotId: string, read: LogbookRead, t?: Transaction): Promise<LogbookLook['doubled']> {
  const before = new Set(
    (
      await rows<{ fingerprint: string }>(
        'SELECT f.fingerprint FROM logbook_flights f JOIN logbook_imports i ON i.id = f.import_id WHERE f.pilot_id = :pilotId AND i.taken_back_at IS NULL',
        { pilotId },
        t,
      )
    ).map((f) => f.fingerprint),
  );
  const here = new Set(
    (
      await rows<{ k: string }>(
        `SELECT l.flown_on || ' ' || ty.code AS k FROM landings l JOIN sorties s ON s.id = l.sortie_id JOIN checkouts c ON c.id = s.checkout_id JOIN type_versions tv ON tv.id = c.type_version_id JOIN types ty ON ty.id = tv.type_id WHERE l.pilot_id = :pilotId
     UNION SELECT f.flown_on || ' ' || f.type_code FROM flight_log f WHERE f.pilot_id = :pilotId AND NOT EXISTS (SELECT 1 FROM flight_log_struck x WHERE x.log_id = f.id)`,
        { pilotId },
        t,
      )
    ).map((r) => r.k),
  );
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
  if (look.fresh === 0)
    return problem(
      'file',
      look.flights.length > 0
        ? 'Every flight of this file is in the record already.'
        : 'No flight of this file can be read as it is. See why below, and set the columns and types.',
    );
  return write(async (t): Promise<Result<{ added: number; doubled: number; refused: number }>> => {
    if (!(await pilotThere(pilotId, t))) return problem('', NOBODY);
    const known = await row<{ added: number; doubled: number; refused: number }>(
      'SELECT added, doubled, refused FROM logbook_imports WHERE id = :requestId',
      { requestId },
      t,
    );
    if (known) return { ok: true, ...known };
    const lines = new Set((await doubledOf(pilotId, look, t)).map((d) => d.line));
    const fresh = look.flights.filter((f) => !lines.has(f.line));
    const counts = { added: fresh.length, doubled: lines.size, refused: look.refused.length };
    await model('logbook_imports').create(
      {
        id: requestId,
        pilot_id: pilotId,
        file_name: fileName.slice(0, 120),
        header: headerKey(look.header),
        mapping: JSON.stringify(look.mapping),
        read_rows: look.flights.length + look.refused.length,
        ...counts,
        imported_by: user.id,
        imported_at: nowIso(),
        taken_back_at: null,
        taken_back_by: null,
      },
      { transaction: t },
    );
    await model('logbook_flights').bulkCreate(
      fresh.map((f) => ({
        id: randomUUID(),
        import_id: requestId,
        pilot_id: pilotId,
        flown_on: f.flownOn,
        type_written: f.typeWritten,
        registration: f.registration,
        type_code: f.type.typeCode,
        engines: f.type.engines,
        tailwheel: f.type.tailwheel ? 1 : 0,
        surface: f.type.surface,
        takeoffs_day: f.takeoffsDay,
        takeoffs_night: f.takeoffsNight,
        landings_day: f.landingsDay,
        landings_night: f.landingsNight,
        full_stops_day: f.fullStopsDay,
        full_stops_night: f.fullStopsNight,
        hours: f.hours,
        pic_hours: f.picHours,
        dual: f.dual ? 1 : 0,
        remark: f.remark,
        fingerprint: f.fingerprint,
      })),
      { transaction: t },
    );
    return { ok: true, ...counts };
  });
}
/** Takes a whole import back: its flights stay on file and count no more. */
export async function takeBackImport(user: CurrentUser, importId: string): Promise<Result<object>> {
  return write(async (t): Promise<Result<object>> => {
    const i = await row<{ pilot_id: string; taken_back_at: string | null }>(
      'SELECT pilot_id, taken_back_at FROM logbook_imports WHERE id = :importId',
      { importId },
      t,
    );
    if (!i || !may.importLogbook(user, { pilotId: i.pilot_id }))
      return problem('', 'There is no such import for you to take back.');
    if (i.taken_back_at === null)
      await model('logbook_imports').update(
        { taken_back_at: nowIso(), taken_back_by: user.id },
        { where: { id: importId }, transaction: t },
      );
    return { ok: true };
  });
}
