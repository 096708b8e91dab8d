import { randomUUID } from 'node:crypto';
import Papa from 'papaparse';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { DEMO_PASSWORD } from '@demo/people';
import { type CurrentUser, may } from '@/server/floor/auth/permissions';
import { correctEntry, enterResult, voidEntry } from '@/server/ledger/commands/entries';
import { saveContent } from '@/server/rules/commands/content';
import { logFlight, saveCertificate, strikeFlight } from '@/server/people/commands/people';
import {
  answerOverride,
  askOverride,
  signCheckout,
  signNotYet,
  signPart,
  signingState,
} from '@/server/ledger/commands/sign';
import { row, rows } from '../../scripts/lib/raw';
import { write } from '@/server/floor/write';
import { importContent } from '@/server/rules/content';
import { checkLedger, ledgerEntry, ledgerRows, rotateKey } from '@/server/ledger/entries';
import { currentPublicKey, publicKeys, readHead } from '@/server/ledger/keys';
import { attachedJson } from '@/server/ledger/attached';
import { entryPdf, signedEntry } from '@/server/ledger/papers/entry-pdf';
import { checkDocument } from '@/server/ledger/verify';
import { ledgerLines } from '@/server/ledger/queries/entries';
import { contentVersions } from '@/server/rules/queries/content';
import { checkoutHead } from '@/server/checkout/queries/head';
import { intervalOf } from '@/server/people/queries/recency';
import { verifyCode, verifyFile } from '@/server/ledger/queries/verify';
import { ledgerCsv, logbookCsv, recordJson } from '@/server/ledger/papers/record';
import { demoFolder } from './folder';
import { NO_LIMITS, flownCheckout, formFor, recordOf, said, user } from './signed';

const checked = (bytes: Buffer) => verifyFile(bytes, { limitMs: 10_000, mostEntries: 2000 });

let close: () => Promise<void>;
let helena: CurrentUser;
let bento: CurrentUser;
const DAYS = ['2026-11-20', '2026-11-22'] as const;
const again = { password: DEMO_PASSWORD };
const signed = async (by: CurrentUser, id: string): Promise<string> => {
  const r = await signCheckout(by, await formFor(by, id));
  if (!r.ok) throw new Error(said(r));
  return r.entryId;
};

beforeAll(async () => {
  ({ close } = await demoFolder());
  helena = await user('helena');
  bento = await user('bento');
}, 120_000);
afterAll(() => close());

describe('who may do what: every action, every role, own or not', () => {
  const roles = {
    pilot: ['pilot'],
    instructor: ['instructor'],
    chief: ['chief'],
    'instructor and chief': ['instructor', 'chief'],
    'instructor and pilot': ['instructor', 'pilot'],
  } as const;
  /** For each action: allowed on another's, then on one's own, for the roles in their order above. */
  const TABLE: Record<keyof typeof may, [others: string, own: string]> = {
    seeEverybody: ['-iccc', '-iccc'],
    openCheckouts: ['-i-ii', '-i-ii'],
    openCheckoutFor: ['-i-ii', '-----'],
    viewCheckout: ['-iiii', 'iiiii'],
    runCheckout: ['-i-ii', '-----'],
    keepPilotRecord: ['-iiii', '-----'],
    acknowledgeBrief: ['-----', 'iiiii'],
    acknowledgeDebrief: ['-----', 'iiiii'],
    assessSelf: ['-i-ii', 'iiiii'],
    compareInstructors: ['--ii-', '--ii-'],
    signCheckout: ['-i-ii', '-----'],
    changeHouse: ['--ii-', '--ii-'],
    releaseExceedance: ['--ii-', '-----'],
    ground: ['-iiii', '-iiii'],
    endGrounding: ['--ii-', '--ii-'],
    overrideSchoolLimit: ['--ii-', '-----'],
    askOverride: ['-i-ii', '-----'],
    answerOverride: ['--ii-', '-----'],
    voidEntry: ['--ii-', '-----'],
    correctEntry: ['-iiii', '-----'],
    enterResult: ['-iiii', '-----'],
    logFlying: ['--ii-', 'iiiii'],
    exportRecord: ['-iiii', 'iiiii'],
    keepCertificates: ['--ii-', '--ii-'],
    exportBook: ['-iiii', '-iiii'],
    viewLedgerEntry: ['-iiii', 'iiiii'],
    seePerson: ['-iiii', 'iiiii'],
    keepPeople: ['--ii-', '--ii-'],
    keepDates: ['-iiii', '-----'],
    writeNote: ['-iiii', '-----'],
    readNote: ['--ii-', '-----'],
    importLogbook: ['--ii-', 'iiiii'],
    erasePerson: ['--ii-', '-----'],
    book: ['-iiii', 'iiiii'],
    keepFleetDown: ['-iiii', '-iiii'],
    keepWindows: ['--ii-', '--ii-'],
  };
  it.each(Object.keys(may) as (keyof typeof may)[])('%s', (action) => {
    const row_ = TABLE[action];
    expect(row_, `${action} is in the table`).toBeDefined();
    const ask = (own: boolean) =>
      Object.values(roles).map((r) => {
        const who: CurrentUser = {
          id: 'me',
          name: '',
          email: '',
          roles: [...r],
          pilotId: 'pilot-me',
          authorised: [],
          massKg: 80,
          ownCrosswindKt: null,
          certificate: '',
          certificateUntil: null,
        };
        return (may[action] as (u: CurrentUser, thing: object) => boolean)(who, {
          pilotId: own ? 'pilot-me' : 'pilot-x',
          instructorId: 'teacher',
          signerId: 'me',
        });
      });
    const wanted = (text: string) => [...text].map((c) => c !== '-');
    expect(ask(false)).toEqual(wanted(row_[0]));
    expect(ask(true)).toEqual(wanted(row_[1]));
  });
  it('a correction is for who signed it, or the chief', () => {
    const who = { ...helena, roles: ['instructor' as const] };
    expect(may.correctEntry(who, { pilotId: 'x', signerId: 'user-bento' })).toBe(false);
    expect(may.correctEntry(who, { pilotId: 'x', signerId: 'user-helena' })).toBe(true);
  });
  it('no command of the ledger is done by who may not', async () => {
    const [duarte, vasco] = [await user('duarte'), await user('vasco')];
    const [line] = await ledgerLines(bento, { limit: 1 });
    const id = line?.checkoutId ?? '';
    const requestId = randomUUID();
    const before = (await ledgerRows()).length;
    const form = {
      checkoutId: id,
      shown: 'x',
      text: 'a text of twenty letters or more',
      password: DEMO_PASSWORD,
      limitations: NO_LIMITS,
      remark: '',
      signature: null,
    };
    for (const r of [
      await signCheckout(duarte, form),
      await signPart(duarte, { ...form, requestId, items: ['F1'] }),
      await signNotYet(duarte, { requestId, checkoutId: id, shown: 'x', text: 'trained again', ...again }),
      await askOverride(duarte, { checkoutId: id, itemId: 'F1', reason: 'a reason of fifteen letters' }),
      await voidEntry(helena, { requestId, entryId: line?.id, text: 'not mine to void', ...again }),
      await voidEntry(duarte, { requestId, entryId: line?.id, text: 'not mine to void', ...again }),
      await correctEntry(duarte, { requestId, entryId: line?.id, text: 'not mine to correct', ...again }),
      await correctEntry(vasco, { requestId, entryId: line?.id, text: 'not mine to correct', ...again }),
      await enterResult(duarte, {
        requestId,
        checkoutId: id,
        result: 'passed',
        testOn: '2026-11-23',
        examiner: 'Nobody',
        reference: '',
        text: '',
        ...again,
      }),
      await saveContent(helena, { kind: 'house', key: 'house', baseVersion: 1, reason: 'because I can', body: {} }),
      await saveCertificate(helena, { userId: helena.id, certificate: 'x', until: '2030-01-01' }),
      await logFlight(helena, {
        requestId,
        pilotId: 'pilot-bento',
        flownOn: '2026-11-01',
        typeCode: 'planalto-p2',
        takeoffs: 3,
        landings: 3,
        fullStops: 3,
        night: false,
        surface: 'land',
        hours: 1,
        remark: '',
      }),
    ])
      expect(r.ok).toBe(false);
    expect((await ledgerRows()).length).toBe(before);
  });
});

describe('signing', () => {
  it('refuses what has changed since it was shown, and keeps a wrong password out', async () => {
    const id = await flownCheckout(helena, 'tome', 'ZP-URZ', ['tailwheel'], 'us', DAYS);
    const form = await formFor(helena, id);
    expect(said(await signCheckout(helena, { ...form, shown: '0'.repeat(64) }))).toContain('changed-since');
    expect(said(await signCheckout(helena, { ...form, text: `${form.text} {aircraft}` }))).toContain(
      'fill-in {"words":"{aircraft}"}',
    );
    expect(said(await signCheckout(helena, { ...form, password: 'nearly' }))).toContain('wrong-password');
    const wish = await askOverride(helena, { checkoutId: id, itemId: 'F10', reason: 'it is met already, in truth' });
    expect(said(wish)).toContain('nothing-to-override');
    const entry = await signCheckout(helena, form);
    expect(entry.ok).toBe(true);
    expect(await signCheckout(helena, form)).toMatchObject({ ok: true, already: true });
    expect(said(await signPart(helena, { ...form, requestId: randomUUID(), items: ['F1'] }))).toContain(
      'signed-already',
    );
    const [line] = await ledgerLines(bento, { limit: 1 });
    expect(line?.body?.text).toContain('14 CFR 61.31(i)');
    expect(line?.body?.text).toContain('instructor ZP-FI 0412, recent experience end date 30 Jun 2027');
    expect(
      await row("SELECT kind, gained_on FROM qualifications WHERE pilot_id = 'pilot-tome' AND kind = 'tailwheel'"),
    ).toEqual({ kind: 'tailwheel', gained_on: '2026-11-24' });
  });
  it('an open exceedance of the pilot, in any of their checkouts, stands in the way', async () => {
    const limit = await row<{ pilot_id: string }>(
      'SELECT c.pilot_id FROM exceedances e JOIN sorties s ON s.id = e.sortie_id JOIN checkouts c ON c.id = s.checkout_id LEFT JOIN exceedance_releases r ON r.exceedance_id = e.id WHERE r.id IS NULL LIMIT 1',
    );
    const id =
      (
        await row<{ id: string }>("SELECT id FROM checkouts WHERE pilot_id = :p AND status = 'open'", {
          p: limit?.pilot_id,
        })
      )?.id ?? '';
    expect((await signingState(helena, await recordOf(id))).problems.map((p) => p.code)).toContain('limit');
  });
  it('an override needs the chief where a safety item is short, is printed, and goes no further than its checkout', async () => {
    const id = await flownCheckout(helena, 'gaspar', 'ZP-URZ', ['tailwheel'], 'us', DAYS, ['F11', 'F13', 'F5']);
    const problems = (await signingState(helena, await recordOf(id))).problems;
    expect(problems.map((p) => [p.code, p.itemId])).toEqual([
      ['not-seen', 'F5'],
      ['item', 'F11'],
      ['not-seen', 'F13'],
    ]);
    // What the law asks is refused to everybody, the chief instructor first.
    for (const user of [helena, bento])
      expect(
        said(await askOverride(user, { checkoutId: id, itemId: 'F5', reason: 'flown with me for years elsewhere' })),
      ).toContain('legal-not-overridden');
    expect(
      said(await askOverride(helena, { checkoutId: id, itemId: 'F13', reason: 'he knows where to put it' })),
    ).toContain('unseen-not-overridden');
    expect(said(await askOverride(helena, { checkoutId: id, itemId: 'F11', reason: 'short' }))).toContain(
      'Say why, in a sentence',
    );
    expect(
      (await askOverride(helena, { checkoutId: id, itemId: 'F11', reason: 'The short strip is closed until spring' }))
        .ok,
    ).toBe(true);
    expect(
      said(
        await askOverride(helena, { checkoutId: id, itemId: 'F11', reason: 'The short strip is closed until spring' }),
      ),
    ).toContain('overridden-already');
    expect((await signingState(helena, await recordOf(id))).problems.map((p) => p.itemId)).toEqual(['F5', 'F13']);
  });
  it('a safety item that is short waits for the chief, who may decline', async () => {
    const id = await flownCheckout(helena, 'amelia', 'ZP-URA', ['tailwheel'], 'eu', [DAYS[0], DAYS[1]], []);
    // Two landings more that are not the pilot's own: the run starts again.
    const record = await recordOf(id);
    const last = record.landings.filter((l) => l.intended === 'mains-first').at(-1);
    const { addOfficeEvent } = await import('@/server/fly/commands/office');
    const { projectSortie } = await import('@/server/fly/commands/capture');
    await write(async (t) => {
      await addOfficeEvent(
        helena,
        last?.sortieId ?? '',
        last?.id ?? '',
        'overruled',
        { what: 'class', to: 'prompted', reason: 'a word was given on the line' },
        t,
      );
      await projectSortie(last?.sortieId ?? '', t);
    });
    expect((await signingState(helena, await recordOf(id))).problems.map((p) => [p.code, p.itemId])).toEqual([
      ['item', 'F5'],
    ]);
    expect(
      (await askOverride(helena, { checkoutId: id, itemId: 'F5', reason: 'Flown with me for ninety hours elsewhere' }))
        .ok,
    ).toBe(true);
    const waits = await signingState(helena, await recordOf(id));
    expect(waits.problems.map((p) => p.code)).toEqual(['override']);
    const overrideId = waits.overrides[0]?.id ?? '';
    expect(said(await answerOverride(helena, { overrideId, answer: 'approved', reason: '' }))).toContain('not-found');
    expect(said(await answerOverride(bento, { overrideId, answer: 'declined', reason: '' }))).toContain('why-not');
    expect((await answerOverride(bento, { overrideId, answer: 'approved', reason: '' })).ok).toBe(true);
    expect(said(await answerOverride(bento, { overrideId, answer: 'declined', reason: 'second thoughts' }))).toContain(
      'answered-already',
    );
    const entryId = await signed(helena, id);
    const [line] = await ledgerLines(bento, { id: entryId });
    const item = line?.body?.items.find((i) => i.id === 'F5');
    expect(item).toMatchObject({
      state: 'overridden',
      overridden: {
        reason: 'Flown with me for ninety hours elsewhere',
        askedBy: 'Helena Serpa Dorna',
        approvedBy: 'Bento Quadra Luz',
      },
    });
    const entry = await ledgerEntry(entryId);
    if (!line || !entry) throw new Error('no entry');
    expect(JSON.parse(attachedJson(await entryPdf(line, entry, 'https://book.example')) ?? '{}')).toMatchObject({
      entry: { id: entryId },
    });
    // Voided, the checkout is open again and the override of before is not carried over.
    expect(
      (await voidEntry(bento, { requestId: randomUUID(), entryId, text: 'Signed for the wrong airframe', ...again }))
        .ok,
    ).toBe(true);
    expect((await signingState(helena, await recordOf(id))).problems.map((p) => [p.code, p.itemId])).toEqual([
      ['item', 'F5'],
    ]);
    // Asked anew, at once, it stands for the next.
    expect(
      (await askOverride(helena, { checkoutId: id, itemId: 'F5', reason: 'Flown with me for ninety hours elsewhere' }))
        .ok,
    ).toBe(true);
    expect((await signingState(helena, await recordOf(id))).problems.map((p) => p.code)).toEqual(['override']);
  });
  it('two instructors complete one checkout by part sign-offs, which lapse', async () => {
    const id = await flownCheckout(bento, 'duarte', 'ZP-CAD', ['high-performance'], 'us', ['2026-09-20', '2026-09-22']);
    const noon = process.env.JEITO_NOW;
    process.env.JEITO_NOW = '2026-09-23T10:00:00.000Z';
    const state = await signingState(bento, await recordOf(id));
    const requestId = randomUUID();
    const form = {
      requestId,
      checkoutId: id,
      shown: state.stamp,
      text: 'These items were shown to me within the standard.',
      remark: '',
      items: ['P5', 'P6'],
      ...again,
    };
    expect(said(await signPart(bento, { ...form, items: ['P5', 'P99'] }))).toContain('item-unknown');
    expect(await signPart(bento, form)).toMatchObject({ ok: true, already: false });
    expect(await signPart(bento, form)).toMatchObject({ ok: true, entryId: requestId, already: true });
    process.env.JEITO_NOW = '2026-11-21T10:00:00.000Z';
    expect((await recordOf(id)).items.find((i) => i.item.id === 'P5')?.state).toBe('met');
    process.env.JEITO_NOW = noon;
    expect((await recordOf(id)).evidence.parts?.map((p) => [p.itemId, p.lapsesOn])).toEqual([
      ['P5', '2026-11-22'],
      ['P6', '2026-11-22'],
    ]);
  });
  it('further training is entered and leaves the checkout open', async () => {
    const id = (await row<{ id: string }>("SELECT id FROM checkouts WHERE pilot_id = 'pilot-clara'"))?.id ?? '';
    const { stamp } = await signingState(helena, await recordOf(id));
    expect(
      await signNotYet(helena, {
        requestId: randomUUID(),
        checkoutId: id,
        shown: stamp,
        text: 'Go-arounds decided by herself, in wind',
        ...again,
      }),
    ).toMatchObject({ ok: true });
    expect((await checkoutHead(id))?.status).toBe('open');
    expect((await ledgerLines(helena, { checkoutId: id }))[0]).toMatchObject({
      kind: 'not-yet',
      body: { text: 'Go-arounds decided by herself, in wind' },
    });
  });
  it('an instructor out of recency in the twin cannot sign there; three landings, logged, restore it; struck, they do not', async () => {
    const twin = {
      sheet: await recordOf(
        (await row<{ id: string }>("SELECT id FROM checkouts WHERE pilot_id = 'pilot-nuno' AND status = 'open'"))?.id ??
          '',
      ),
    };
    const codes = async () => (await signingState(bento, twin.sheet)).problems.filter((p) => p.code === 'not-recent');
    expect((await codes())[0]?.params).toMatchObject({ restore: 'three landings' });
    const requestId = randomUUID();
    const log = {
      requestId,
      pilotId: 'pilot-bento',
      flownOn: '2026-11-23',
      typeCode: 'planalto-p2',
      takeoffs: 3,
      landings: 3,
      fullStops: 1,
      night: false,
      surface: 'land',
      hours: 0.8,
      remark: '',
    };
    expect(said(await logFlight(bento, { ...log, flownOn: '2026-11-25' }))).toContain('day-ahead');
    expect(said(await logFlight(bento, { ...log, fullStops: 4 }))).toContain('more-full-stops');
    expect((await logFlight(bento, log)).ok).toBe(true);
    expect((await logFlight(bento, log)).ok).toBe(true);
    expect(await codes()).toEqual([]);
    expect((await strikeFlight(bento, { logId: requestId, reason: 'it was another twin' })).ok).toBe(true);
    expect(await codes()).toHaveLength(1);
  });
  it('the date on the paper is the aerodrome\u2019s, not the clock\u2019s at Greenwich', async () => {
    const noon = process.env.JEITO_NOW;
    const id = await flownCheckout(helena, 'elias', 'ZP-EST', ['short-field'], 'us', ['2026-06-28', '2026-06-29']);
    process.env.JEITO_NOW = '2026-07-01T23:30:00.000Z';
    const entryId = await signed(helena, id);
    process.env.JEITO_NOW = noon;
    const [line] = await ledgerLines(helena, { id: entryId });
    expect([line?.signedOn, line?.timeZone, line?.signedAt]).toEqual([
      '2026-07-02',
      'Europe/Lisbon',
      '2026-07-01T23:30:00.000Z',
    ]);
    expect(line?.body?.text).toContain('2 Jul 2026');
  });
});

describe('goals that end with an examiner', () => {
  it('a sea rating: recommended, passed, voided, failed, recommended again', async () => {
    const id = await flownCheckout(bento, 'ivo', 'ZP-MAR', ['multi-engine-sea'], 'us', DAYS);
    const state = await signingState(bento, await recordOf(id));
    expect(state.problems).toEqual([]);
    expect([state.recommends, state.validThrough]).toEqual([['multi-engine-sea'], '2027-01-31']);
    const result = {
      requestId: randomUUID(),
      checkoutId: id,
      result: 'passed',
      testOn: '2026-11-24',
      examiner: 'Otelo Penha Mar',
      reference: 'report 14',
      text: '',
      ...again,
    };
    expect(said(await enterResult(bento, result))).toContain('no-examiner');
    const entryId = await signed(bento, id);
    expect((await checkoutHead(id))?.status).toBe('recommended');
    expect(await rows("SELECT kind FROM qualifications WHERE pilot_id = 'pilot-ivo' AND kind LIKE '%sea'")).toEqual([]);
    expect(said(await enterResult(helena, { ...result, testOn: '2026-11-25' }))).toContain('test-ahead');
    expect(said(await enterResult(helena, { ...result, testOn: '2026-11-20' }))).toContain('test-before');
    const passed = await enterResult(helena, result);
    expect(passed.ok).toBe(true);
    expect(await enterResult(helena, result)).toMatchObject({ ok: true, already: true });
    expect((await checkoutHead(id))?.status).toBe('signed');
    expect(
      await rows(
        "SELECT kind FROM qualifications WHERE pilot_id = 'pilot-ivo' AND kind LIKE '%sea' AND ended_at IS NULL",
      ),
    ).toEqual([{ kind: 'multi-engine-sea' }]);
    expect(
      said(await voidEntry(bento, { requestId: randomUUID(), entryId, text: 'Not before the result', ...again })),
    ).toContain('result-rests');
    expect(
      (
        await voidEntry(bento, {
          requestId: randomUUID(),
          entryId: passed.ok ? passed.entryId : '',
          text: 'The report was another pilot\u2019s',
          ...again,
        })
      ).ok,
    ).toBe(true);
    expect((await checkoutHead(id))?.status).toBe('recommended');
    expect(
      await rows(
        "SELECT kind FROM qualifications WHERE pilot_id = 'pilot-ivo' AND kind LIKE '%sea' AND ended_at IS NULL",
      ),
    ).toEqual([]);
    expect(
      (await enterResult(bento, { ...result, requestId: randomUUID(), result: 'failed', text: 'Glassy water' })).ok,
    ).toBe(true);
    expect((await checkoutHead(id))?.status).toBe('open');
    await signed(bento, id);
    expect((await checkoutHead(id))?.status).toBe('recommended');
    expect(await checkLedger()).toMatchObject({ problems: [] });
  });
  it('a recommendation that has ended takes no result', async () => {
    const id =
      (await row<{ id: string }>("SELECT id FROM checkouts WHERE pilot_id = 'pilot-ivo' AND status = 'recommended'"))
        ?.id ?? '';
    const noon = process.env.JEITO_NOW;
    process.env.JEITO_NOW = '2027-02-10T10:00:00.000Z';
    expect(
      said(
        await enterResult(bento, {
          requestId: randomUUID(),
          checkoutId: id,
          result: 'passed',
          testOn: '2027-02-01',
          examiner: 'Otelo Penha Mar',
          reference: '',
          text: '',
          ...again,
        }),
      ),
    ).toContain('recommendation-ended');
    process.env.JEITO_NOW = noon;
  });
});

describe('the ledger', () => {
  it('voids once, by a further entry, and what it gave ends', async () => {
    const [target] = await ledgerLines(bento, { q: 'Sara Lapa', kind: 'sign-off' });
    const id = target?.id ?? '';
    const form = { requestId: randomUUID(), entryId: id, text: 'The landings were another pilot\u2019s', ...again };
    expect(await voidEntry(bento, form)).toMatchObject({ ok: true, already: false });
    expect(await voidEntry(bento, form)).toMatchObject({ ok: true, already: true });
    expect(said(await voidEntry(bento, { ...form, requestId: randomUUID() }))).toContain('void-already');
    expect(said(await voidEntry(bento, { ...form, requestId: randomUUID(), entryId: form.requestId }))).toContain(
      'not-voided',
    );
    expect(said(await correctEntry(bento, { ...form, requestId: randomUUID() }))).toContain('void-nothing-to-correct');
    expect((await checkoutHead(target?.checkoutId ?? ''))?.status).toBe('open');
    expect(
      await rows(
        "SELECT kind FROM qualifications WHERE pilot_id = 'pilot-sara' AND kind = 'tailwheel' AND ended_at IS NULL",
      ),
    ).toEqual([]);
    const [after] = await ledgerLines(bento, { id });
    expect(after?.voidedBy?.text).toContain('another pilot');
    expect(after?.canonical).toBe(target?.canonical);
    expect((await verifyCode(id, target?.hash ?? '')).verdict).toBe('void');
  });
  it('a correction stands beside, and the search finds by pilot, kind, day, hash and number', async () => {
    const [target] = await ledgerLines(helena, { q: 'rui' });
    expect(target).toBeUndefined();
    const [tome] = await ledgerLines(helena, { q: 'tom\u00e9' });
    expect(
      (
        await correctEntry(helena, {
          requestId: randomUUID(),
          entryId: tome?.id,
          text: 'The second name is Arruda Lis, with one r',
          ...again,
        })
      ).ok,
    ).toBe(true);
    expect((await ledgerLines(helena, { id: tome?.id ?? '' }))[0]?.corrections[0]?.text).toContain('Arruda');
    expect((await ledgerLines(helena, { kind: 'correction' })).map((l) => l.later?.of.id)).toEqual([tome?.id]);
    expect((await ledgerLines(helena, { q: tome?.hash.slice(0, 12) ?? '' })).map((l) => l.id)).toEqual([tome?.id]);
    expect((await ledgerLines(helena, { from: '2026-07-02', to: '2026-07-02' })).map((l) => l.pilotName)).toEqual([
      'Elias Monte Raso',
    ]);
    expect(await ledgerLines(helena, { q: "' OR 1=1 --" })).toEqual([]);
    expect(await ledgerLines(helena, { q: '%' })).toEqual([]);
    const duarte = await user('duarte');
    expect((await ledgerLines(duarte)).every((l) => l.pilotId === 'pilot-duarte')).toBe(true);
  });
  it('reads the same for ever, whatever its programme, pack, standard and house become', async () => {
    const [before] = await ledgerLines(bento, { q: 'tom\u00e9', kind: 'sign-off' });
    const entry = await ledgerEntry(before?.id ?? '');
    if (!before || !entry) throw new Error('no entry');
    const text = async () => {
      const [line] = await ledgerLines(bento, { id: before.id });
      return JSON.stringify({ ...line, corrections: [] });
    };
    const paper = await text();
    for (const [kind, key, change] of [
      [
        'programme',
        'tailwheel-us',
        (b: { items: { title: string; citation: string }[]; name: string }) => ({
          ...b,
          name: 'Tailwheel, renamed',
          items: b.items.map((i) => ({ ...i, title: `${i.title} anew`, citation: 'House only' })),
        }),
      ],
      [
        'pack',
        'us',
        (b: { name: string; goals: { written: string; title: string }[] }) => ({
          ...b,
          name: 'Other rules',
          goals: b.goals.map((g) => ({ ...g, title: `${g.title} anew`, written: 'Nothing.' })),
        }),
      ],
      ['standard', 'private-us', (b: { name: string }) => ({ ...b, name: 'Stricter' })],
      ['house', 'house', (b: { reference: string }) => ({ ...b, reference: 'School rules, flying order 99' })],
    ] as const) {
      const [now] = await contentVersions(kind, key);
      const saved = await saveContent(bento, {
        kind,
        key,
        baseVersion: now?.version ?? 0,
        reason: 'as the authority now words it',
        body: change(now?.body as never),
      });
      expect(said(saved)).toBe('done');
    }
    expect(await text()).toBe(paper);
    expect((await recordOf(before.checkoutId)).items.find((i) => i.item.id === 'F4')?.item.title).toBe(
      'Three-point landings',
    );
    const fresh = await flownCheckout(helena, 'joana', 'ZP-URZ', ['tailwheel'], 'us', DAYS);
    expect((await recordOf(fresh)).items.find((i) => i.item.id === 'F4')?.item.title).toBe('Three-point landings anew');
  });
  it('a signed interval check starts the clock again', async () => {
    const noon = process.env.JEITO_NOW;
    const id = await flownCheckout(helena, 'lidia', 'ZP-CGA', ['interval-check'], 'us', ['2026-10-01', '2026-10-02']);
    const record = await recordOf(id);
    expect(await intervalOf('pilot-lidia', record.head.sheet, record.house, '2026-11-24')).toMatchObject({
      days: 45,
      because: 'flight',
      validThrough: '2026-11-16',
      status: 'expired',
    });
    process.env.JEITO_NOW = '2026-10-20T10:00:00.000Z';
    await signed(helena, id);
    process.env.JEITO_NOW = noon;
    expect(await intervalOf('pilot-lidia', record.head.sheet, record.house, '2026-11-24')).toMatchObject({
      because: 'check',
      from: '2026-10-20',
      validThrough: '2026-12-04',
      status: 'expiring',
    });
  });
});

describe('verifying', () => {
  it('a PDF, its JSON and the code hold; a changed one does not; another ledger\u2019s is not from here', async () => {
    const [line] = await ledgerLines(bento, { kind: 'sign-off' });
    const entry = await ledgerEntry(line?.id ?? '');
    if (!line || !entry) throw new Error('no entry');
    const pdf = Buffer.from(await entryPdf(line, entry, 'https://book.example'));
    expect((await checked(pdf)).verdict).toBe('holds');
    const json = JSON.stringify(signedEntry(entry));
    expect((await checked(Buffer.from(json))).lines.join(' ')).toContain(line.pilotName);
    expect((await checked(Buffer.from(json.replace(line.signerName.slice(0, 4), 'Xxxx')))).verdict).toMatch(/broken/);
    expect((await checked(Buffer.from(json.replaceAll(line.pilotName, 'Ada Lovage Reed')))).verdict).toBe('broken');
    expect((await verifyCode(entry.id, entry.hash.toUpperCase())).verdict).toBe('not-here');
    const oneOff = `${entry.hash.slice(0, 63)}${entry.hash.endsWith('0') ? '1' : '0'}`;
    expect((await verifyCode(entry.id, oneOff)).lines.join(' ')).not.toContain(line.pilotName);
    expect((await verifyCode(randomUUID(), entry.hash)).verdict).toBe('not-here');
    expect((await checked(Buffer.from('hello'))).verdict).toBe('unreadable');
    expect((await checked(Buffer.from('%PDF-1.7 nothing'))).verdict).toBe('unreadable');
    // Away from here: with no key known, the file only fits together; with another key it does not hold.
    expect(checkDocument(json, {})).toMatchObject({ ok: false, ownKeyOnly: true });
    expect(checkDocument(json, publicKeys())).toMatchObject({ ok: true, ownKeyOnly: false });
    const { keyId } = currentPublicKey();
    expect(checkDocument(json, { [keyId]: currentPublicKey().publicPem.replace('A', 'B') })).toMatchObject({
      ok: false,
    });
    const book = JSON.stringify({
      schema: 'ledger-export/1',
      entries: await ledgerRows(),
      head: readHead(),
      publicKeys: publicKeys(),
    });
    expect(checkDocument(book, publicKeys())).toMatchObject({ ok: true, what: 'ledger' });
    expect((await checked(Buffer.from(book))).title).toContain('hold');
    const cut = JSON.parse(book) as { entries: unknown[] };
    expect(checkDocument(JSON.stringify({ ...cut, entries: cut.entries.slice(0, -1) }), publicKeys()).ok).toBe(false);
  });
  it('a new key takes over by an entry of the old one; a key that no entry names does not', async () => {
    const done = await rotateKey(
      { id: bento.id, name: bento.name },
      'the machine is replaced',
      '2026-11-24T15:00:00.000Z',
    );
    expect(done.from).not.toBe(done.to);
    expect(await checkLedger()).toMatchObject({ problems: [] });
    const id = await flownCheckout(helena, 'teresa', 'ZP-EST', ['short-field'], 'us', DAYS);
    const entryId = await signed(helena, id);
    expect((await ledgerEntry(entryId))?.keyId).toBe(done.to);
    expect(await checkLedger()).toMatchObject({ problems: [] });
    const all = await ledgerRows();
    const { verifyLedger } = await import('@/core/ledger');
    const { ledgerTools } = await import('@/server/ledger/keys');
    expect(
      verifyLedger(
        all.filter((r) => r.kind !== 'key-rotated'),
        readHead(),
        ledgerTools(),
      ).map((p) => p.code),
    ).toContain('key-unknown');
  });
});

describe('content of the house and of the product', () => {
  it('says what does not fit, next to the field, and refuses an older base', async () => {
    const [now] = await contentVersions('programme', 'sea-us');
    const body = now?.body as { items: { id: string; prerequisites: string[] }[] };
    const save = (b: unknown, baseVersion = now?.version ?? 0) =>
      saveContent(bento, { kind: 'programme', key: 'sea-us', baseVersion, reason: 'the season is short', body: b });
    expect(await save({ ...body, items: [] })).toMatchObject({ ok: false, problems: [{ path: 'sheet.items' }] });
    expect(await save({ ...body, items: body.items.map((i, k) => (k === 1 ? { ...i, id: 'W1' } : i)) })).toMatchObject({
      ok: false,
      problems: [
        { path: 'sheet.items.1.id' },
        { path: 'sheet.items.7.prerequisites.0', message: expect.stringContaining('no other item W2') },
      ],
    });
    expect(
      said(
        await save({ ...body, items: body.items.map((i) => (i.id === 'W1' ? { ...i, prerequisites: ['W4'] } : i)) }),
      ),
    ).toContain('circle');
    expect(await save(body)).toMatchObject({ ok: true, unchanged: true });
    expect(await save({ ...body, note: 'ours' })).toMatchObject({ ok: true, unchanged: false });
    expect(said(await save({ ...body, note: 'theirs' }))).toContain('saved-meanwhile');
    const [after] = await contentVersions('programme', 'sea-us');
    expect(after?.differences.map((d) => d.to)).toEqual(['ours']);
  });
  it('a product update is proposed beside the house\u2019s version, and comes into force only when taken over', async () => {
    const { adoptContent } = await import('@/server/rules/commands/content');
    const { newestContent } = await import('@/server/rules/content');
    const own = await newestContent('programme', 'sea-us');
    await write((t) =>
      importContent(
        [{ kind: 'programme', key: 'sea-us', body: { ...own?.body, note: 'the product\u2019s new note' } }],
        'Jeito',
        t,
      ),
    );
    expect((await newestContent('programme', 'sea-us'))?.body.note).toBe('ours');
    const [proposed] = await contentVersions('programme', 'sea-us');
    expect(proposed).toMatchObject({ origin: 'proposed' });
    expect(said(await adoptContent(helena, { id: proposed?.id, reason: 'it is better' }))).toContain('chief-edits');
    expect((await adoptContent(bento, { id: proposed?.id, reason: 'it is better' })).ok).toBe(true);
    expect((await newestContent('programme', 'sea-us'))?.body.note).toBe('the product\u2019s new note');
  });
});

describe('the pilot\u2019s record', () => {
  it('CSV rows of every flight, nothing of anybody else, no formula', async () => {
    const log = {
      requestId: randomUUID(),
      pilotId: 'pilot-duarte',
      flownOn: '2026-11-02',
      typeCode: 'alvor-c1',
      takeoffs: 2,
      landings: 2,
      fullStops: 1,
      night: true,
      surface: 'land',
      hours: 1.2,
      remark: '=HYPERLINK("x")',
    };
    expect((await logFlight(await user('duarte'), log)).ok).toBe(true);
    const parsed = Papa.parse<Record<string, string>>((await logbookCsv('pilot-duarte')).replace('\ufeff', ''), {
      header: true,
      skipEmptyLines: true,
    });
    expect(parsed.errors).toEqual([]);
    const flown = await row<{ n: number }>(
      "SELECT COUNT(DISTINCT sortie_id) AS n FROM landings WHERE pilot_id = 'pilot-duarte' AND landing_class <> 'demonstration'",
    );
    expect(parsed.data).toHaveLength((flown?.n ?? 0) + 1);
    expect(parsed.data.find((r) => r.date === '2026-11-02')).toMatchObject({
      minutes: '72',
      night: 'yes',
      landings_full_stop: '1',
      landings_touch_and_go: '1',
      remarks: '\'=HYPERLINK("x")',
    });
    expect(ledgerCsv(await ledgerLines(bento)).split('\r\n').length).toBeGreaterThan(8);
  });
  it('JSON of everything about me, for me and the staff', async () => {
    const duarte = await user('duarte');
    const mine = (await recordJson(duarte, 'pilot-duarte')) as {
      schema: string;
      checkouts: { landings: unknown[] }[];
      entries: unknown[];
      log: unknown[];
    };
    expect([mine.schema, mine.checkouts.length, mine.log.length]).toEqual(['record/1', 2, 1]);
    expect(mine.checkouts[0]?.landings.length).toBeGreaterThan(10);
    expect(await recordJson(duarte, 'pilot-ines')).toBeNull();
    expect(await recordJson(helena, 'pilot-ines')).not.toBeNull();
    expect(JSON.stringify(mine)).not.toMatch(/password|argon/);
  });
});
