import { randomUUID } from 'node:crypto';
import { generateSync } from 'otplib';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { linkAtConsole, linkOwner, makeLink, spendLink } from '@/server/account/commands/links';
import { noticesOf } from '@/server/account/commands/notices';
import {
  beginSecondFactor,
  confirmSecondFactor,
  endSecondFactor,
  saveFactorRoles,
  takeSecondFactor,
} from '@/server/account/commands/second-factor';
import { checkSignIn, endSessions, sessionsOf } from '@/server/account/commands/session';
import { Sessions } from '@/server/account/tables';
import { ownPassword } from '@/server/floor/auth/confirm-password';
import type { CurrentUser } from '@/server/floor/auth/permissions';
import { hasFactor, lacksFactor } from '@/server/floor/auth/second-factor';
import { nowIso } from '@/server/floor/clock';
import { write } from '@/server/floor/write';
import { addPeople, openAccount } from '@/server/people/commands/persons';
import { DEMO_PASSWORD } from '../../demo/people';
import { demoFolder, shell, user } from './folder';

let close: () => Promise<void>;
let bento: CurrentUser;
let helena: CurrentUser;
let vasco: CurrentUser;
const FROM = '10.0.0.9';
const NOW = '2026-11-24T14:30:00.000Z';
const own = (password: string) => ({ password, again: password });
const tokenOf = (made: Awaited<ReturnType<typeof makeLink>>): string =>
  made.ok ? (made.path.split('/')[2] ?? '') : JSON.stringify(made.problems);
const signIn = (who: CurrentUser, password: string, code = '') =>
  checkSignIn({ email: who.email, password, code }, FROM);
/** What the authenticator shows so many seconds from now. */
const shows = (secret: string, in_ = 0) =>
  generateSync({ secret, epoch: Math.floor(Date.parse(nowIso()) / 1000) + in_ });

beforeAll(async () => {
  ({ close } = await demoFolder());
  [bento, helena, vasco] = await Promise.all([user('bento'), user('helena'), user('vasco')]);
}, 90_000);
afterEach(() => {
  process.env.JEITO_NOW = NOW;
});
afterAll(() => close());

describe('a link to choose a password', () => {
  it('is the chief’s to make, ends the old password, is told and blocks signing until it is used', async () => {
    expect((await makeLink(helena, vasco.id)).ok).toBe(false);
    expect((await makeLink(bento, bento.id)).ok).toBe(false);
    expect((await makeLink(bento, 'nobody')).ok).toBe(false);
    const first = tokenOf(await makeLink(bento, vasco.id));
    const second = tokenOf(await makeLink(bento, vasco.id));
    expect((await signIn(vasco, DEMO_PASSWORD)).ok).toBe(false);
    expect(await linkOwner(first), 'replaced by the second').toBeNull();
    expect(await linkOwner(second)).toEqual({ name: vasco.name, email: vasco.email });
    expect((await ownPassword(vasco)).ok).toBe(false);
    expect((await noticesOf(vasco))[0]?.text).toContain(bento.name);
    // Only its hash is kept.
    expect(JSON.stringify((await shell('SELECT * FROM account_links')).rows)).not.toContain(second);
    for (const [token, form] of [
      [first, own('five quiet herons')],
      [`${second}x`, own('five quiet herons')],
      ['', own('five quiet herons')],
      [second, own('short')],
      [second, { password: 'five quiet herons', again: 'five quiet heron' }],
    ] as const)
      expect((await spendLink(token, form, FROM)).ok, token.slice(0, 4)).toBe(false);
    const both = await Promise.all([1, 2].map(() => spendLink(second, own('five quiet herons'), FROM)));
    expect(both.map((b) => b.ok).sort()).toEqual([false, true]);
    expect((await signIn(vasco, 'five quiet herons')).ok).toBe(true);
    expect((await ownPassword(vasco)).ok).toBe(true);
    expect((await shell("SELECT COUNT(*) AS n FROM password_resets WHERE user_id = 'user-vasco'")).rows).toEqual([
      { n: 2 },
    ]);
  });
  it('is made at the computer of the school for the only chief who lost theirs, and is told', async () => {
    expect(await linkAtConsole('nobody@pedra-alva.example')).toBeNull();
    const begun = await beginSecondFactor(bento);
    await confirmSecondFactor(bento, { code: shows(begun.ok ? begun.secret : '') });
    const made = await linkAtConsole(bento.email.toUpperCase());
    expect(await hasFactor(bento.id)).toBe(false);
    expect((await noticesOf(bento))[0]?.text).toContain('On the school’s computer');
    expect((await ownPassword(bento)).ok).toBe(false);
    expect((await spendLink(made?.path.split('/')[2] ?? '', own(DEMO_PASSWORD), FROM)).ok).toBe(true);
    expect((await ownPassword(bento)).ok).toBe(true);
  });
  it('is over after a week', async () => {
    const token = tokenOf(await makeLink(bento, vasco.id));
    process.env.JEITO_NOW = '2026-12-01T14:29:00.000Z';
    expect(await linkOwner(token)).not.toBeNull();
    process.env.JEITO_NOW = '2026-12-01T14:30:00.000Z';
    expect(await linkOwner(token)).toBeNull();
    expect((await spendLink(token, own('five quiet herons'), FROM)).ok).toBe(false);
    process.env.JEITO_NOW = NOW;
    expect((await spendLink(token, own('five quiet herons'), FROM)).ok).toBe(true);
  });
});

describe('a second factor', () => {
  it('is asked for once the password is right; a code is good once, a recovery code once', async () => {
    const begun = await beginSecondFactor(helena);
    const secret = begun.ok ? begun.secret : '';
    expect(JSON.stringify((await shell('SELECT secret FROM second_factors')).rows)).not.toContain(secret);
    expect((await signIn(helena, DEMO_PASSWORD)).ok, 'not before it is confirmed').toBe(true);
    expect((await confirmSecondFactor(helena, { code: '000000' })).ok).toBe(false);
    expect((await confirmSecondFactor(helena, { code: 'abc' })).ok).toBe(false);
    const on = await confirmSecondFactor(helena, { code: shows(secret).replace(/(...)/, '$1 ') });
    const codes = on.ok ? on.codes : [];
    expect(codes).toHaveLength(8);
    expect((await confirmSecondFactor(helena, { code: shows(secret) })).ok, 'twice').toBe(false);
    expect((await beginSecondFactor(helena)).ok, 'another beside it').toBe(false);
    const needs = await signIn(helena, DEMO_PASSWORD);
    expect(needs.ok || needs.problems).toMatchObject([{ path: 'code' }]);
    const wrong = await signIn(helena, 'not the password', shows(secret, 30));
    expect(wrong.ok || wrong.problems).toMatchObject([{ path: 'password' }]);
    expect((await signIn(helena, DEMO_PASSWORD, shows(secret))).ok, 'the code it was confirmed with').toBe(false);
    process.env.JEITO_NOW = '2026-11-24T14:31:00.000Z';
    const now = shows(secret);
    expect((await signIn(helena, DEMO_PASSWORD, shows(secret, -120))).ok, 'long over').toBe(false);
    expect((await signIn(helena, DEMO_PASSWORD, now)).ok).toBe(true);
    expect((await signIn(helena, DEMO_PASSWORD, now)).ok, 'again').toBe(false);
    expect((await signIn(helena, DEMO_PASSWORD, codes[0]?.toUpperCase())).ok).toBe(true);
    expect((await signIn(helena, DEMO_PASSWORD, codes[0])).ok, 'used up').toBe(false);
    // A link gives another password, not a way round the factor.
    const spent = await spendLink(tokenOf(await makeLink(bento, helena.id)), own('three old bridges'), FROM);
    expect(spent).toMatchObject({ ok: true, factor: true });
    expect((await signIn(helena, 'three old bridges')).ok).toBe(false);
    expect((await signIn(helena, 'three old bridges', codes[1])).ok).toBe(true);
  });
  it('is ended with the password, or taken away by the chief and told', async () => {
    expect((await endSecondFactor(helena, { password: DEMO_PASSWORD })).ok).toBe(false);
    expect((await takeSecondFactor(helena, bento.id)).ok).toBe(false);
    expect((await takeSecondFactor(bento, vasco.id)).ok, 'there is none').toBe(false);
    expect((await takeSecondFactor(bento, helena.id)).ok).toBe(true);
    expect((await noticesOf(helena))[0]?.text).toContain('took your second factor away');
    expect((await signIn(helena, 'three old bridges')).ok).toBe(true);
    expect(await hasFactor(helena.id)).toBe(false);
  });
  it('is required by role: who has it and none is stopped, and cannot end it', async () => {
    expect((await saveFactorRoles(helena, { roles: ['instructor'] })).ok).toBe(false);
    expect((await saveFactorRoles(bento, { roles: ['instructor'] })).ok).toBe(true);
    expect(await lacksFactor(helena)).toBe(true);
    expect(await lacksFactor({ id: 'user-duarte', roles: ['pilot'] })).toBe(false);
    const begun = await beginSecondFactor(helena);
    await confirmSecondFactor(helena, { code: shows(begun.ok ? begun.secret : '') });
    expect(await lacksFactor(helena)).toBe(false);
    expect((await endSecondFactor(helena, { password: 'three old bridges' })).ok).toBe(false);
    await saveFactorRoles(bento, { roles: [] });
    expect((await endSecondFactor(helena, { password: 'wrong' })).ok).toBe(false);
    expect((await endSecondFactor(helena, { password: 'three old bridges' })).ok).toBe(true);
  });
});

describe('sessions', () => {
  it('are one’s own to end: one, or all but this', async () => {
    const add = (userId: string, madeAt = NOW) => {
      const id = randomUUID();
      return write((t) => Sessions.insert({ id, userId, madeAt, endedAt: null, device: 'x' }, t)).then(() => id);
    };
    const [a, b, c, old] = [
      await add(helena.id),
      await add(helena.id),
      await add(helena.id),
      await add(helena.id, '2026-11-17T14:29:00.000Z'),
    ];
    const other = await add(vasco.id);
    const open = async () => (await sessionsOf(helena)).map((s) => s.id);
    expect((await open()).sort()).toEqual([a, b, c].sort());
    expect((await endSessions(helena, other, a)).ok, 'another’s').toBe(false);
    expect((await endSessions(helena, b, a)).ok).toBe(true);
    expect((await endSessions(helena, b, a)).ok, 'ended already').toBe(false);
    expect((await endSessions(helena, null, a)).ok).toBe(true);
    expect(await open()).toEqual([a]);
    expect(await sessionsOf(vasco)).toHaveLength(1);
    expect(old).not.toBe(a);
  });
});

describe('people of a file', () => {
  const person = (name: string, email: string, roles = ['pilot']) => ({
    ...{ requestId: randomUUID(), name, email, massKg: 70, hours: 0, certificate: '', roles, authorised: [] },
  });
  const count = async () => (await shell('SELECT COUNT(*) AS n FROM pilots')).rows[0]?.n;
  it('are all added, or nobody', async () => {
    const before = await count();
    const some = [person('Ada Fen', 'Ada@Fen.example'), person('Bo Fen', 'helena@pedra-alva.example')];
    expect((await addPeople(helena, { people: some })).ok).toBe(false);
    expect(await addPeople(bento, { people: some })).toMatchObject({
      ok: false,
      problems: [{ path: 'people.1.email' }],
    });
    expect(await addPeople(bento, { people: [person('Cy Fen', '', ['instructor'])] })).toMatchObject({ ok: false });
    expect(await addPeople(bento, { people: [] })).toMatchObject({ ok: false });
    expect(await count()).toBe(before);
    const added = await addPeople(bento, { people: [some[0], person('Di Fen', '')] });
    expect(added.ok && added.people.map((p) => [p.name, p.link !== null])).toEqual([
      ['Ada Fen', true],
      ['Di Fen', false],
    ]);
    // The capital letters of an address are no part of it.
    const ada = added.ok ? (added.people[0]?.link?.path.split('/')[2] ?? '') : '';
    expect((await spendLink(ada, own('six green gates'), FROM)).ok).toBe(true);
    expect((await checkSignIn({ email: 'ada@fen.example', password: 'six green gates' }, FROM)).ok).toBe(true);
    const di = added.ok ? (added.people[1]?.pilotId ?? '') : '';
    const form = { pilotId: di, email: 'di@fen.example', roles: ['pilot'] };
    expect((await openAccount(helena, form)).ok).toBe(false);
    expect((await openAccount(bento, { ...form, email: 'ADA@fen.example' })).ok).toBe(false);
    expect((await openAccount(bento, { ...form, pilotId: 'pilot-nobody' })).ok).toBe(false);
    expect((await openAccount(bento, form)).ok).toBe(true);
    expect((await openAccount(bento, { ...form, email: 'di2@fen.example' })).ok, 'has one').toBe(false);
  });
});
