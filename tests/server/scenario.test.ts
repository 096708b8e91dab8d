import { execFileSync } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { PDFDocument } from 'pdf-lib';
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { seedDemo } from '@demo/seed';
import { DEMO_PASSWORD } from '@demo/people';
import { lessonEvents, STEADY } from '@demo/flights';
import type { CaptureEvent } from '@/domain/capture';
import { may } from '@/server/floor/auth/permissions';
import { rebuildLandings, recordEvents } from '@/server/fly/commands/capture';
import { acknowledgeBrief, openCheckout, saveBrief } from '@/server/checkout/commands/checkout';
import { checkSignIn } from '@/server/account/commands/session';
import { signCheckout, signingState } from '@/server/ledger/commands/sign';
import { row, rows } from '../../scripts/lib/raw';
import { checkLedger, ledgerEntry, ledgerRows } from '@/server/ledger/entries';
import { entryPdf } from '@/server/ledger/papers/entry-pdf';
import { checkoutRecord } from '@/server/checkout/queries/record';
import { nextAction, stageOf } from '@/server/checkout/queries/stage';
import { sortiesOf } from '@/server/checkout/queries/flights';
import { checkoutHead } from '@/server/checkout/queries/head';
import { checkoutList } from '@/server/checkout/queries/lists';
import { sortiePack } from '@/server/fly/queries/pack';
import { ledgerLines } from '@/server/ledger/queries/entries';
import { freshFolder, shell, shellScript, user } from './folder';
import { event } from '../../scripts/lib/events';
import { outlines, pagesOf } from './pdf';

let close: () => Promise<void>;
let seeded: { checkouts: number; landings: number; signed: number };
const checkoutId = async (pilot: string): Promise<string> =>
  (await row<{ id: string }>('SELECT id FROM checkouts WHERE pilot_id = :p', { p: `pilot-${pilot}` }))?.id ?? '';
const record = async (pilot: string) => {
  const head = await checkoutHead(await checkoutId(pilot));
  if (!head) throw new Error(pilot);
  return checkoutRecord(head);
};
/** What the sign page of this pilot's checkout shows this user, and the words it proposes. */
const shownTo = async (key: string, pilot: string) => {
  const { stamp, text } = await signingState(await user(key), await record(pilot));
  return { shown: stamp, text, signature: null };
};
const noLimits = {
  alone: false,
  noPassengers: false,
  crosswindKt: null,
  attitude: 'any',
  surface: 'any',
  untilHours: null,
};

beforeAll(async () => {
  ({ close } = await freshFolder());
  seeded = await seedDemo();
}, 300_000);
afterAll(() => close());

describe('the demo', () => {
  it('has people at every stage and a book that checks', async () => {
    expect(seeded.checkouts).toBeGreaterThanOrEqual(14);
    expect(seeded.landings).toBeGreaterThan(300);
    expect(seeded.signed).toBe(6);
    expect(stageOf(await record('tome'))).toBe('brief');
    expect(stageOf(await record('duarte'))).toBe('fly');
    expect(stageOf(await record('ines'))).toBe('debrief');
    expect(stageOf(await record('rui'))).toBe('sign');
    expect(nextAction(await record('rui')).step.code).toBe('sign');
    expect(await checkLedger()).toMatchObject({ entries: 6, problems: [] });
  });
  it('shows a strong left bias in one pilot', async () => {
    const seen = (await record('ines')).landings.flatMap((l) => l.captured.lateral ?? []);
    expect(seen.filter((s) => s.endsWith('left')).length / seen.length).toBeGreaterThan(0.6);
  });
  it('a signed checkout gives the pilot what it was for', async () => {
    expect(await row("SELECT note FROM qualifications WHERE pilot_id = 'pilot-sara' AND kind = 'tailwheel'")).toEqual({
      note: 'signed in this ledger',
    });
  });
});

describe('who may do what', () => {
  it('nobody acts as instructor on their own checkout, chief included', async () => {
    const vasco = await user('vasco');
    const own = { pilotId: 'pilot-vasco' };
    expect([may.runCheckout(vasco, own), may.signCheckout(vasco, own), may.openCheckoutFor(vasco, own)]).toEqual([
      false,
      false,
      false,
    ]);
    expect([may.viewCheckout(vasco, own), may.acknowledgeBrief(vasco, own)]).toEqual([true, true]);
    const chiefPilot = { ...(await user('bento')), pilotId: 'pilot-x' };
    expect(may.signCheckout(chiefPilot, { pilotId: 'pilot-x' })).toBe(false);
    const answer = await signCheckout(vasco, {
      checkoutId: await checkoutId('vasco'),
      ...(await shownTo('bento', 'vasco')),
      password: DEMO_PASSWORD,
      limitations: noLimits,
      remark: '',
    });
    expect(answer).toMatchObject({ ok: false, problems: [{ code: 'not-found' }] });
  });
  it('a pilot sees only what is theirs', async () => {
    const duarte = await user('duarte');
    expect((await checkoutList(duarte)).map((c) => c.pilotName)).toEqual(['Duarte S\u00e1 Nogal']);
    expect(await ledgerLines(duarte)).toEqual([]);
    expect(may.viewCheckout(duarte, { pilotId: 'pilot-ines' })).toBe(false);
    const sortie = (await sortiesOf(await checkoutId('duarte'))).at(-1);
    expect(await sortiePack(duarte, sortie?.id ?? '')).toBeNull();
    expect((await recordEvents(duarte, [{ ...sample(sortie?.id ?? '', 'user-duarte') }])).refused[0]?.message).toBe(
      'Not found, or you do not have access.',
    );
  });
  it('only the pilot acknowledges, and once', async () => {
    const brief = (await sortiesOf(await checkoutId('duarte'))).at(-1)?.brief;
    expect((await acknowledgeBrief(await user('helena'), brief?.id ?? '')).ok).toBe(false);
    expect((await acknowledgeBrief(await user('duarte'), brief?.id ?? '')).ok).toBe(true);
    const at = await row('SELECT acknowledged_at FROM briefs WHERE id = :id', { id: brief?.id });
    process.env.JEITO_NOW = '2026-11-24T15:00:00.000Z';
    expect((await acknowledgeBrief(await user('duarte'), brief?.id ?? '')).ok).toBe(true);
    process.env.JEITO_NOW = '2026-11-24T14:30:00.000Z';
    expect(await row('SELECT acknowledged_at FROM briefs WHERE id = :id', { id: brief?.id })).toEqual(at);
    expect((await shell(`UPDATE briefs SET snapshot = '{}' WHERE id = '${brief?.id}'`)).error).toContain(
      'never changes',
    );
  });
  it('an unknown address and a wrong password get the same answer, and tries slow down', async () => {
    const wrong = await checkSignIn({ email: 'helena@pedra-alva.example', password: 'no' }, '10.0.0.1');
    expect(await checkSignIn({ email: 'nobody@pedra-alva.example', password: 'no' }, '10.0.0.1')).toEqual(wrong);
    for (let i = 0; i < 6; i++) await checkSignIn({ email: 'nobody@pedra-alva.example', password: 'no' }, '10.0.0.1');
    expect(
      JSON.stringify(await checkSignIn({ email: 'nobody@pedra-alva.example', password: 'no' }, '10.0.0.1')),
    ).toContain('Too many tries');
    expect(
      await checkSignIn({ email: 'helena@pedra-alva.example', password: DEMO_PASSWORD }, '10.0.0.1'),
    ).toMatchObject({
      ok: true,
      userId: 'user-helena',
    });
  });
});

const sample = (sortieId: string, author: string): CaptureEvent =>
  event(author, sortieId, 'item-observed', { itemId: 'F2', verdict: 'within', intervention: 0, note: '' });

describe('capture events', () => {
  it('sent twice are kept once; a bad one does not stop the others', async () => {
    const helena = await user('helena');
    const sortie = (await sortiesOf(await checkoutId('duarte'))).at(-1);
    const events = lessonEvents({
      seed: 5,
      sortieId: sortie?.id ?? '',
      author: helena.id,
      startedAt: '2026-11-24T13:00:00.000Z',
      runwayEnd: '22',
      wind: { fromDegMag: 290, kt: 7, gustKt: null },
      fenceTarget: 57,
      landings: Array.from({ length: 4 }, () => ({
        attitude: 'three-point' as const,
        kind: 'full-stop' as const,
        hand: STEADY,
      })),
      items: [],
    });
    const bad = { ...sample(sortie?.id ?? '', helena.id), payload: { itemId: 'F2', verdict: 'splendid' } };
    const first = await recordEvents(helena, [...events, bad, 'nonsense']);
    expect(first.accepted.length).toBe(events.length);
    expect(first.refused.map((r) => r.eventId)).toEqual([bad.eventId, 'unknown']);
    const again = await recordEvents(helena, events);
    expect(again.accepted.length).toBe(events.length);
    const mine = (await record('duarte')).landings.filter((l) => l.sortieId === sortie?.id);
    expect(mine.map((l) => l.number)).toEqual([1, 2, 3, 4]);
    expect(mine[0]?.crosswindKt).toBeCloseTo(7 * Math.sin((70 * Math.PI) / 180), 2);
  });
  it('of another account are held, not taken and not lost', async () => {
    const sortie = (await sortiesOf(await checkoutId('duarte'))).at(-1);
    const answer = await recordEvents(await user('bento'), [sample(sortie?.id ?? '', 'user-helena')]);
    expect(answer).toMatchObject({ accepted: [], refused: [] });
    expect(answer.held.length).toBe(1);
  });
  it('undone landings go, and the projection can be rebuilt from the events alone', async () => {
    const helena = await user('helena');
    const before = (await record('duarte')).landings;
    const last = before.at(-1);
    await recordEvents(helena, [
      { ...sample(last?.sortieId ?? '', helena.id), subjectId: last?.id ?? '', type: 'undone', payload: {} },
    ]);
    expect((await record('duarte')).landings.length).toBe(before.length - 1);
    const dump = () => rows('SELECT * FROM landings ORDER BY id');
    const were = await dump();
    await shellScript('DELETE FROM landings;');
    await rebuildLandings();
    expect(await dump()).toEqual(were);
  });
  it('are append-only, REPLACE INTO included', async () => {
    expect((await shell('DELETE FROM capture_events')).error).toContain('append-only');
    expect((await shell("UPDATE capture_events SET payload = '{}'")).error).toContain('append-only');
    expect((await shell('REPLACE INTO capture_events SELECT * FROM capture_events LIMIT 1')).error).toContain(
      'recorded already',
    );
  });
});

describe('open and brief', () => {
  it('the same request twice opens one checkout; bad input names the field', async () => {
    const helena = await user('helena');
    const form = {
      requestId: randomUUID(),
      pilotId: 'pilot-lidia',
      airframeId: 'air-ZP-CAV',
      pack: 'us',
      goals: ['high-performance'],
      standardKey: 'private-us',
      note: '',
    };
    const first = await openCheckout(helena, form);
    expect(await openCheckout(helena, form)).toEqual(first);
    expect(await openCheckout(helena, { ...form, pilotId: '', goals: [] })).toMatchObject({
      ok: false,
      problems: [{ path: 'pilotId' }, { path: 'goals' }],
    });
    expect(await openCheckout(helena, { ...form, requestId: randomUUID(), goals: ['gliding'] })).toMatchObject({
      ok: false,
      problems: [{ path: 'goals.0' }],
    });
    expect(
      await openCheckout(await user('vasco'), { ...form, requestId: randomUUID(), pilotId: 'pilot-vasco' }),
    ).toMatchObject({ ok: false, problems: [{ path: 'pilotId' }] });
  });
  it('a brief is stored as computed, replaced until something is recorded, and refused out of order', async () => {
    const helena = await user('helena');
    const id = await checkoutId('tome');
    const choices = {
      flownOn: '2026-11-24',
      runwayEnd: '22',
      wind: null,
      maxFlapDeg: null,
      fuelL: 40,
      pilotKg: 71,
      instructorKg: 66,
      baggageKg: 0,
      rearKg: 0,
      qnhHpa: null,
      oatC: null,
      surfaceState: 'dry',
      night: false,
      bookingMin: 90,
      second: null,
      layout: { order: [], hidden: [], own: [] },
      speedSchool: 'constant',
      gustSchool: 'half',
      intended: 'three-point',
      instructorLimitKt: 12,
      focus: '',
    };
    const first = await saveBrief(helena, { requestId: randomUUID(), checkoutId: id, choices, base: null });
    const lost = await saveBrief(helena, {
      requestId: randomUUID(),
      checkoutId: id,
      choices: { ...choices, fuelL: 30 },
      base: null,
    });
    // Two pages opened before either saved: the second sees what the first did.
    expect(lost).toMatchObject({
      ok: false,
      problems: [{ code: 'brief-saved-meanwhile', params: { lesson: 1 } }],
    });
    const second = await saveBrief(helena, {
      requestId: randomUUID(),
      checkoutId: id,
      choices: { ...choices, fuelL: 30 },
      base: first.ok ? first.briefId : null,
    });
    expect(first).toMatchObject({ ok: true, lesson: 1 });
    expect(second).toMatchObject({ ok: true, lesson: 1 });
    expect((await sortiesOf(id))[0]?.brief).toMatchObject({
      version: 2,
      snapshot: { massKg: expect.closeTo(356 + 71 + 66 + 30 * 0.72, 3) },
    });
    const sortieId = first.ok ? first.sortieId : '';
    await recordEvents(helena, [sample(sortieId, helena.id)]);
    expect(
      await saveBrief(helena, {
        requestId: randomUUID(),
        checkoutId: id,
        choices: { ...choices, flownOn: '2026-11-20' },
        base: null,
      }),
    ).toMatchObject({ ok: false, problems: [{ path: 'flownOn' }] });
    expect(await saveBrief(helena, { requestId: randomUUID(), checkoutId: id, choices, base: null })).toMatchObject({
      ok: true,
      lesson: 2,
    });
    expect(
      await saveBrief(helena, {
        requestId: randomUUID(),
        checkoutId: id,
        choices: { ...choices, fuelL: -1, runwayEnd: '99' },
        base: null,
      }),
    ).toMatchObject({ ok: false, problems: [{ path: 'fuelL' }] });
  });
});

describe('signing', () => {
  it('says what is missing instead of signing', async () => {
    const answer = await signCheckout(await user('helena'), {
      checkoutId: await checkoutId('clara'),
      ...(await shownTo('helena', 'clara')),
      password: DEMO_PASSWORD,
      limitations: noLimits,
      remark: '',
    });
    expect(answer).toMatchObject({ ok: false });
    expect('problems' in answer ? answer.problems.map((p) => p.message).join(' ') : '').toContain('F8 Go-arounds');
    const joana = await signCheckout(await user('bento'), {
      checkoutId: await checkoutId('joana'),
      ...(await shownTo('bento', 'joana')),
      password: DEMO_PASSWORD,
      limitations: noLimits,
      remark: '',
    });
    const said = joana.ok ? '' : joana.problems.map((p) => p.message).join(' ');
    expect(said).toContain('trigger was met');
    // A flown brief is told beside the signature and holds nothing up.
    expect(said).not.toContain('acknowledged');
  });
  it('asks for the right password and an authorised signer', async () => {
    const form = {
      checkoutId: await checkoutId('rui'),
      ...(await shownTo('helena', 'rui')),
      password: 'wrong',
      limitations: noLimits,
      remark: '',
    };
    expect(await signCheckout(await user('helena'), form)).toMatchObject({
      ok: false,
      problems: [{ path: 'password' }],
    });
    const bento = await signCheckout(await user('bento'), { ...form, password: DEMO_PASSWORD });
    expect(bento).toMatchObject({
      ok: false,
      problems: [{ code: 'not-flown', params: { days: null } }],
    });
  });
  it('two tabs at once make one entry', async () => {
    const helena = await user('helena');
    const form = {
      checkoutId: await checkoutId('rui'),
      ...(await shownTo('helena', 'rui')),
      password: DEMO_PASSWORD,
      limitations: { ...noLimits, crosswindKt: 8 },
      remark: 'Fica bem.',
    };
    const answers = await Promise.all([
      signCheckout(helena, form),
      signCheckout(helena, form),
      signCheckout(helena, form),
    ]);
    expect(answers.every((a) => a.ok)).toBe(true);
    expect(new Set(answers.map((a) => (a.ok ? a.entryId : ''))).size).toBe(1);
    expect(await checkLedger()).toMatchObject({ entries: 7, problems: [] });
  });
  it('the PDF carries the signed entry and can be read back', async () => {
    const last = (await ledgerRows()).at(-1);
    const entry = last && (await ledgerEntry(last.id));
    if (!entry) throw new Error('no entry');
    const [line] = await ledgerLines(await user('helena'), { id: entry.id });
    if (!line) throw new Error('no line');
    const bytes = await entryPdf(line, entry, 'https://book.example');
    expect((await PDFDocument.load(bytes)).getPageCount()).toBeGreaterThan(0);
    const pdf = await getDocument({ data: Uint8Array.from(bytes), verbosity: 0 }).promise;
    const text = (await pagesOf(bytes)).join(' ');
    for (const part of [
      'Rui Casal Ferro',
      'Helena Serpa Dorna',
      '14 CFR 61.31(i)',
      'crosswind up to 8 kt',
      'Fica bem.',
      entry.hash,
    ])
      expect(text).toContain(part);
    const attached = (await pdf.getAttachments()) as Record<string, { content: Uint8Array }>;
    expect(JSON.parse(new TextDecoder().decode(attached['entry.json']?.content)).entry).toEqual(entry);
    expect(await outlines(await entryPdf(line, entry, 'https://book.example'))).toBeGreaterThan(60);
  });
});

describe('the ledger against a database shell', () => {
  const verify = (): { code: number; out: string } => {
    try {
      return {
        code: 0,
        out: execFileSync(process.execPath, ['node_modules/tsx/dist/cli.mjs', 'scripts/verify-ledger.ts'], {
          encoding: 'utf8',
          env: process.env,
        }),
      };
    } catch (error) {
      const e = error as { status: number; stdout: string };
      return { code: e.status, out: e.stdout };
    }
  };
  it('refuses every edit while its triggers stand', async () => {
    for (const sql of [
      "UPDATE ledger SET signer_id = 'x' WHERE seq = 2",
      'DELETE FROM ledger WHERE seq = 7',
      'REPLACE INTO ledger SELECT * FROM ledger WHERE seq = 3',
      'REPLACE INTO ledger SELECT 8, id, kind, checkout_id, signed_at, signer_id, canonical, hash, hash, signature, key_id FROM ledger WHERE seq = 7',
      "INSERT INTO ledger SELECT 9, 'new', kind, checkout_id, signed_at, signer_id, canonical, prev_hash, hash, signature, key_id FROM ledger WHERE seq = 7",
      "INSERT INTO ledger SELECT 8, 'new', kind, checkout_id, signed_at, signer_id, canonical, prev_hash, hash, signature, key_id FROM ledger WHERE seq = 7",
    ])
      expect((await shell(sql)).error, sql).toContain('append-only');
    expect(verify()).toMatchObject({ code: 0, out: expect.stringContaining('whole: 7') });
  });
  it('finds an edit, then a cut tail, made with the triggers dropped, and names the entry', async () => {
    const kept = (await shell('SELECT canonical FROM ledger WHERE seq = 3')).rows[0]?.canonical;
    await shellScript(
      "DROP TRIGGER ledger_fixed; UPDATE ledger SET canonical = REPLACE(canonical, 'Sara', 'Sofia') WHERE seq = 3;",
    );
    const edited = verify();
    expect(edited.code).toBe(1);
    expect(edited.out).toMatch(/entry 3 \([0-9a-f-]{36}\): has a hash that does not match/);
    await shellScript(`UPDATE ledger SET canonical = '${String(kept).replaceAll("'", "''")}' WHERE seq = 3;`);
    expect(verify().code).toBe(0);
    await shellScript('DROP TRIGGER ledger_kept; DELETE FROM ledger WHERE seq >= 6;');
    const cut = verify();
    expect(cut.code).toBe(1);
    expect(cut.out).toMatch(/entry 6: is missing[\s\S]*entry 7: is missing/);
  });
});
