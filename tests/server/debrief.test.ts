import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { pagesOf } from './pdf';
import { bias } from '@/core/assess';
import type { CapturedLanding, Measured } from '@/domain/capture';
import { UNSEEN } from '@/domain/unseen';
import { aggregatesSettled, refreshMissing } from '@/server/checkout/commands/tallies';
import { may } from '@/server/floor/auth/permissions';
import { rebuildLandings, recordEvents } from '@/server/fly/commands/capture';
import {
  acknowledgeDebrief,
  assessSelf,
  decideFinding,
  overrule,
  saveDebrief,
  savePlan,
} from '@/server/debrief/commands/debrief';
import { row, rows } from '../../scripts/lib/raw';
import { debriefPdf } from '@/server/debrief/papers/debrief-pdf';
import type { DebriefSnapshot } from '@/server/debrief/commands/debrief';
import { checkoutRecord } from '@/server/checkout/queries/record';
import { checkoutHead } from '@/server/checkout/queries/head';
import {
  type DecidedFinding,
  debriefById,
  debriefFacts,
  debriefOf,
  mediansOf,
  planOf,
  selfOf,
  standing,
} from '@/server/debrief/queries/debrief';
import { planFacts } from '@/server/debrief/queries/plan';
import { instructorsCompared } from '@/server/checkout/queries/standard';
import { demoFolder, shell, user } from './folder';

let close: () => Promise<void>;
const newest = async (pilot: string): Promise<string> =>
  (
    await row<{ id: string }>('SELECT id FROM checkouts WHERE pilot_id = :p ORDER BY created_at DESC LIMIT 1', {
      p: `pilot-${pilot}`,
    })
  )?.id ?? '';
const recordOf = async (checkoutId: string) => {
  const head = await checkoutHead(checkoutId);
  if (!head) throw new Error(checkoutId);
  return checkoutRecord(head);
};
const findings = async (checkoutId: string): Promise<DecidedFinding[]> =>
  (await debriefFacts(await recordOf(checkoutId))).findings;
const raw = async (checkoutId: string) =>
  (
    await rows<{ id: string; captured: string; measured: string | null; judged: string; lesson: number }>(
      'SELECT l.id, l.captured, l.measured, l.judged, s.lesson FROM landings l JOIN sorties s ON s.id = l.sortie_id WHERE l.checkout_id = :checkoutId ORDER BY s.lesson, l.number',
      { checkoutId },
    )
  ).map((l) => ({
    id: l.id,
    lesson: l.lesson,
    c: JSON.parse(l.captured) as CapturedLanding,
    m: l.measured === null ? null : (JSON.parse(l.measured) as Measured),
  }));
const sortieOf = async (checkoutId: string, lesson: number): Promise<string> =>
  (
    await row<{ id: string }>('SELECT id FROM sorties WHERE checkout_id = :checkoutId AND lesson = :lesson', {
      checkoutId,
      lesson,
    })
  )?.id ?? '';

beforeAll(async () => {
  ({ close } = await demoFolder());
}, 120_000);
afterAll(() => close());

describe('the planted patterns', () => {
  const planted: Record<string, string> = {
    ines: 'bias-left',
    marta: 'speed-plateau',
    sara: 'aim-point-creep',
    teresa: 'tail-up-too-long',
    ivo: 'skill-lost-under-load',
  };
  it('are found in the right pilots and in no others', async () => {
    const found: Record<string, string[]> = {};
    for (const c of await rows<{ id: string; pilot_id: string }>('SELECT id, pilot_id FROM checkouts')) {
      const ids = (await findings(c.id))
        .map((f) => f.id)
        .filter((id) => [...Object.values(planted), 'bias-right'].includes(id));
      if (ids.length > 0) (found[c.pilot_id.replace('pilot-', '')] ??= []).push(...ids);
    }
    expect(found).toEqual(Object.fromEntries(Object.entries(planted).map(([k, v]) => [k, [v]])));
  });
  it('left of the line: the mean counted by hand from the rows themselves', async () => {
    const id = await newest('ines');
    const f = (await findings(id)).find((x) => x.id === 'bias-left');
    const metres = (await raw(id))
      .filter((l) => (l.c.intervention ?? 0) < 2 && l.m?.values.lateral !== undefined)
      .map((l) => l.m?.values.lateral ?? 0);
    const b = bias(metres, 1);
    expect(metres.length).toBeGreaterThanOrEqual(8);
    expect(f?.numbers[0]?.text).toBe(`${(-(metres.reduce((a, x) => a + x, 0) / metres.length)).toFixed(2)} m left`);
    expect(f?.numbers[1]?.text).toBe(`${(-(b.upper ?? 0)).toFixed(2)} to ${(-(b.lower ?? 0)).toFixed(2)} m`);
    const eye = (await raw(id)).filter(
      (l) => (l.c.intervention ?? 0) < 2 && l.m?.values.lateral === undefined && l.c.lateral !== null,
    );
    expect(f?.numbers[3]?.text).toBe(
      `${eye.filter((l) => l.c.lateral?.endsWith('left')).length}, ${eye.filter((l) => l.c.lateral === 'line').length}, ${eye.filter((l) => l.c.lateral?.endsWith('right')).length} of ${eye.length}`,
    );
    expect(f?.forPilot).toBe(true);
  });
  it('the others, counted by hand', async () => {
    const last = <T>(xs: T[], n: number) => xs.slice(-n);
    const wheel = last(
      (await raw(await newest('teresa'))).filter((l) => l.c.intended === 'mains-first'),
      12,
    );
    expect((await findings(await newest('teresa'))).find((f) => f.id === 'tail-up-too-long')?.numbers[0]?.text).toBe(
      `${wheel.filter((l) => l.c.notes.includes('tail-kept-up-long')).length} of 12`,
    );
    const landed = last(
      (await raw(await newest('sara'))).filter((l) => l.c.kind === 'full-stop'),
      24,
    );
    const long = (of: typeof landed) => of.filter((l) => l.c.along === 'long' || l.c.along === 'very-long').length;
    expect((await findings(await newest('sara'))).find((f) => f.id === 'aim-point-creep')?.numbers[0]?.text).toBe(
      `${long(landed.slice(0, 12))} of 12, ${long(landed.slice(12))} of 12`,
    );
    const ivo = (await raw(await newest('ivo'))).filter((l) => l.c.kind === 'full-stop');
    const first = ivo.findIndex((l) => l.c.intended === 'mains-first');
    const under = ivo
      .slice(first)
      .filter((l) => l.c.intended === 'mains-first')
      .slice(0, 8);
    expect((await findings(await newest('ivo'))).find((f) => f.id === 'skill-lost-under-load')?.numbers[1]?.text).toBe(
      `outside in ${under.filter((l) => l.c.aileron === 'not').length} of ${under.length}`,
    );
    expect(
      ivo
        .slice(0, first)
        .slice(-6)
        .every((l) => l.c.aileron === 'kept'),
    ).toBe(true);
    const marta = await recordOf(await newest('marta'));
    const stood = marta.landings
      .filter((l) => l.kind === 'full-stop')
      .slice(-12)
      .filter((l) => {
        const gates = marta.sorties.find((s) => s.id === l.sortieId)?.brief?.snapshot.gates ?? [];
        const read = gates.map((g, i) =>
          i === gates.length - 1 ? l.captured.fenceSpeed : (l.captured.gateSpeeds[g.name] ?? null),
        );
        return read.some(
          (v, i) =>
            i > 0 && v !== null && read[i - 1] != null && (read[i - 1] ?? 0) - v < 1.5 && v > (gates[i]?.target ?? 0),
        );
      });
    expect((await findings(await newest('marta'))).find((f) => f.id === 'speed-plateau')?.numbers[0]?.text).toBe(
      `${stood.length} of 12`,
    );
  });
  it('every share of the demo is what its evidence says: as many landings as counted, all of this checkout, oldest first', async () => {
    for (const c of await rows<{ id: string }>('SELECT id FROM checkouts')) {
      const order = (await raw(c.id)).map((l) => l.id);
      for (const f of await findings(c.id)) {
        const seen = /^(\d+) of (\d+)$/.exec(f.numbers[0]?.label === 'seen' ? (f.numbers[0].text ?? '') : '');
        if (seen) {
          expect(f.evidence.length, `${f.id}`).toBe(Number(seen[1]));
          expect(Number(seen[1])).toBeLessThanOrEqual(Number(seen[2]));
        }
        const places = f.evidence.map((e) => order.indexOf(e)).filter((i) => i >= 0);
        expect(places, f.id).toEqual([...places].sort((a, b) => a - b));
      }
    }
  });
});

describe('what an instructor says otherwise', () => {
  it('stands beside what was computed, changes the class, survives a rebuild, and can be taken back', async () => {
    const helena = await user('helena');
    const id = await newest('duarte');
    const before = (await recordOf(id)).landings.find(
      (l) => l.judged.landingClass === 'outside' && l.judged.controlOutside.length === 1,
    );
    if (!before) throw new Error('no landing outside');
    const what = before.judged.controlOutside[0] ?? '';
    const form = {
      sortieId: before.sortieId,
      subjectId: before.id,
      what,
      to: 'edge',
      reason: 'A gust, and it was answered at once.',
    };
    expect(await overrule(helena, { ...form, reason: 'no' })).toMatchObject({
      ok: false,
      problems: [{ path: 'reason' }],
    });
    expect(await overrule(helena, { ...form, to: 'splendid' })).toMatchObject({
      ok: false,
      problems: [{ path: 'to' }],
    });
    expect(await overrule(await user('duarte'), form)).toMatchObject({ ok: false });
    expect(await overrule(helena, form)).toEqual({ ok: true });
    const after = (await recordOf(id)).landings.find((l) => l.id === before.id)?.judged;
    expect(after?.criteria.find((c) => c.id === what)).toMatchObject({
      verdict: 'edge',
      overruled: { computed: 'outside', by: 'Helena Serpa Dorna', reason: form.reason },
    });
    expect(after?.landingClass).not.toBe('outside');
    await rebuildLandings();
    expect((await recordOf(id)).landings.find((l) => l.id === before.id)?.judged).toEqual(after);
    expect(
      await overrule(helena, { ...form, what: 'class', to: 'prompted', reason: 'A word was said that I did not tap.' }),
    ).toEqual({ ok: true });
    expect((await recordOf(id)).landings.find((l) => l.id === before.id)?.judged).toMatchObject({
      landingClass: 'prompted',
      overruled: { computed: after?.landingClass },
    });
    for (const w of [what, 'class'])
      expect(await overrule(helena, { ...form, what: w, to: null, reason: 'Taken back after the replay.' })).toEqual({
        ok: true,
      });
    expect((await recordOf(id)).landings.find((l) => l.id === before.id)?.judged).toEqual(before.judged);
  });
  it('goes to no landing of another flight, to no go-around, and to nothing signed', async () => {
    const helena = await user('helena');
    const duarte = await recordOf(await newest('duarte'));
    const around = duarte.landings.find((l) => l.kind === 'go-around');
    const other = (await recordOf(await newest('ines'))).landings[0];
    const form = {
      sortieId: around?.sortieId ?? '',
      subjectId: other?.id ?? '',
      what: 'swing',
      to: 'within',
      reason: 'Because I say so.',
    };
    expect(await overrule(helena, form)).toMatchObject({
      ok: false,
      problems: [{ message: expect.stringContaining('not there any more') }],
    });
    expect(await overrule(helena, { ...form, subjectId: around?.id ?? '' })).toMatchObject({
      ok: false,
      problems: [{ code: 'go-around-decision' }],
    });
    const signed = await row<{ id: string; sortie_id: string }>(
      "SELECT l.id, l.sortie_id FROM landings l JOIN checkouts c ON c.id = l.checkout_id WHERE c.status = 'signed' LIMIT 1",
    );
    expect(
      await overrule(await user('bento'), { ...form, sortieId: signed?.sortie_id ?? '', subjectId: signed?.id ?? '' }),
    ).toMatchObject({ ok: false, problems: [{ message: expect.stringContaining('signed') }] });
  });
  it('cannot be smuggled in as a word the standard does not know', async () => {
    const helena = await user('helena');
    const l = (await recordOf(await newest('ines'))).landings[0];
    const event = {
      eventId: randomUUID(),
      deviceId: randomUUID(),
      deviceSeq: 1,
      sortieId: l?.sortieId ?? '',
      subjectId: l?.id ?? '',
      author: helena.id,
      type: 'overruled',
      v: 1,
      deviceTime: '2026-11-24T14:00:00.000Z',
      payload: { what: 'swing', to: 'own', reason: 'long enough a reason' },
    };
    expect((await recordEvents(helena, [event])).refused[0]?.message).toContain('overruled');
    const signed = await row<{ id: string; sortie_id: string }>(
      "SELECT l.id, l.sortie_id FROM landings l JOIN checkouts c ON c.id = l.checkout_id JOIN sorties s ON s.id = l.sortie_id WHERE c.status = 'signed' AND l.kind = 'full-stop' AND s.instructor_id = 'user-helena' LIMIT 1",
    );
    expect(
      (
        await recordEvents(helena, [
          {
            ...event,
            eventId: randomUUID(),
            sortieId: signed?.sortie_id ?? '',
            subjectId: signed?.id ?? '',
            payload: { what: 'swing', to: 'within', reason: 'long enough a reason' },
          },
        ])
      ).refused[0]?.message,
    ).toContain('is signed');
  });
});

describe('findings are decided', () => {
  it('dismissed with a reason and not spoken of again; confirmed; one\u2019s own added and withdrawn', async () => {
    const helena = await user('helena');
    const checkoutId = await newest('ines');
    const decide = (over: object) =>
      decideFinding(helena, {
        checkoutId,
        findingId: 'limit-passed',
        decision: 'dismissed',
        reason: 'Told and shown on the ground.',
        lesson: 4,
        own: null,
        ...over,
      });
    expect(await decide({ reason: '' })).toMatchObject({ ok: false, problems: [{ path: 'reason' }] });
    expect(
      await decideFinding(await user('ines'), {
        checkoutId,
        findingId: 'limit-passed',
        decision: 'dismissed',
        reason: 'I do not like it.',
        lesson: 4,
        own: null,
      }),
    ).toMatchObject({ ok: false });
    expect(await decide({ findingId: 'no-such-pattern' })).toMatchObject({
      ok: false,
      problems: [{ message: expect.stringContaining('not there any more') }],
    });
    expect(await decide({})).toEqual({ ok: true });
    expect(standing(await findings(checkoutId)).map((f) => f.id)).not.toContain('limit-passed');
    expect((await findings(checkoutId)).find((f) => f.id === 'limit-passed')?.decided).toMatchObject({
      decision: 'dismissed',
      by: 'Helena Serpa Dorna',
    });
    expect(await decide({ decision: 'withdrawn', reason: '' })).toEqual({ ok: true });
    expect(standing(await findings(checkoutId)).map((f) => f.id)).toContain('limit-passed');
    expect(
      await decide({
        findingId: 'own-new',
        decision: 'own',
        own: { title: 'x', text: 'short', next: { title: 'a', text: '', minutes: 0, where: 'circuit' } },
      }),
    ).toMatchObject({
      ok: false,
      problems: [{ path: 'own.title' }, { path: 'own.text' }, { path: 'own.next.title' }, { path: 'own.next.minutes' }],
    });
    expect(
      await decide({
        findingId: 'own-new',
        decision: 'own',
        own: {
          title: 'Talks on final',
          text: 'Speaks to me in the last hundred feet.',
          next: { title: 'Silent final', text: '', minutes: 6, where: 'circuit' },
        },
      }),
    ).toEqual({ ok: true });
    const own = standing(await findings(checkoutId)).find((f) => f.own);
    expect(own).toMatchObject({ title: 'Talks on final', next: { minutes: 6 } });
    expect(await decide({ findingId: own?.id, decision: 'withdrawn', reason: '' })).toEqual({ ok: true });
    expect((await findings(checkoutId)).some((f) => f.own)).toBe(false);
    expect((await shell("UPDATE finding_decisions SET decision = 'confirmed'")).error).toContain('never changed');
    expect((await shell('DELETE FROM finding_decisions')).error).toContain('never removed');
  });
  it('left of the line closes after eight landings on it, and not after seven', async () => {
    const helena = await user('helena');
    const checkoutId = await newest('ines');
    const sortieId = await sortieOf(checkoutId, 4);
    const none = { band: 'none' as const, side: null };
    const clean: CapturedLanding = {
      ...UNSEEN,
      kind: 'full-stop',
      runwayEnd: '22',
      intended: 'three-point',
      touched: 'three-point',
      along: 'in-the-box',
      lateral: 'line',
      drift: none,
      crab: none,
      swing: none,
      bounce: { count: 0, handling: null },
      aileron: 'kept',
      stick: 'kept',
      firmness: 'normal',
      intervention: 0,
      trigger: 'not-met',
    };
    const deviceId = randomUUID();
    const land = async (n: number) =>
      recordEvents(helena, [
        {
          eventId: randomUUID(),
          deviceId,
          deviceSeq: n,
          sortieId,
          subjectId: randomUUID(),
          author: helena.id,
          type: 'landing-saved',
          v: 1,
          deviceTime: `2026-11-24T1${n}:00:00.000Z`,
          payload: clean,
        },
      ]);
    for (let n = 1; n <= 7; n++) expect((await land(n)).refused).toEqual([]);
    expect((await findings(checkoutId)).find((f) => f.id === 'bias-left')).toMatchObject({ state: 'open', clean: 7 });
    await land(8);
    expect((await findings(checkoutId)).find((f) => f.id === 'bias-left')?.state).toBe('closed');
    expect(standing(await findings(checkoutId)).map((f) => f.id)).not.toContain('bias-left');
  });
});

describe('the debrief is held', () => {
  it('the pilot says first, the instructor keeps it with two things to think of, the pilot acknowledges once', async () => {
    const [joana, bento, helena] = [await user('joana'), await user('bento'), await user('helena')];
    const checkoutId = await newest('joana');
    const sortieId = await sortieOf(checkoutId, 2);
    expect(await selfOf(sortieId)).toBeNull();
    expect(await assessSelf(await user('duarte'), { sortieId, own: 1, bestNumber: 1, workOn: 'line' })).toMatchObject({
      ok: false,
    });
    expect(await assessSelf(joana, { sortieId, own: 2, bestNumber: 3, workOn: 'bounce' })).toEqual({ ok: true });
    expect(await selfOf(sortieId)).toMatchObject({
      said: { own: 2, bestNumber: 3, workOn: 'bounce' },
      toldBy: 'Joana Pires Atalaia',
    });
    const form = {
      requestId: randomUUID(),
      sortieId,
      focus: ['Go around on the second touch', 'Stick all the way back'],
      remark: 'Bom trabalho.',
    };
    expect(await saveDebrief(bento, { ...form, focus: ['one', 'two', 'three'] })).toMatchObject({
      ok: false,
      problems: [{ path: 'focus' }],
    });
    expect(await saveDebrief(joana, form)).toMatchObject({ ok: false });
    const kept = await saveDebrief(bento, form);
    expect(await saveDebrief(bento, form)).toEqual(kept);
    const id = kept.ok ? kept.debriefId : '';
    expect((await debriefOf(sortieId))?.version).toBe(1);
    expect(await acknowledgeDebrief(bento, id)).toMatchObject({ ok: false });
    expect(await acknowledgeDebrief(joana, id)).toEqual({ ok: true });
    const at = (await debriefOf(sortieId))?.acknowledgedAt;
    expect(await acknowledgeDebrief(joana, id)).toEqual({ ok: true });
    expect((await debriefOf(sortieId))?.acknowledgedAt).toBe(at);
    expect((await shell(`UPDATE debriefs SET remark = 'x' WHERE id = '${id}'`)).error).toContain('never changes');
    const again = await saveDebrief(bento, { ...form, requestId: randomUUID(), remark: '' });
    expect(again.ok && (await debriefOf(sortieId))?.version).toBe(2);
    expect(may.viewCheckout(helena, { pilotId: 'pilot-joana' })).toBe(true);

    const d = await debriefById(id);
    if (!d) throw new Error('no debrief');
    const text = (
      await pagesOf(await debriefPdf({ ...d, snapshot: d.snapshot as DebriefSnapshot, timeZone: 'Europe/Lisbon' }))
    ).join(' ');
    for (const part of [
      'Joana Pires Atalaia',
      'Go around on the second touch',
      'Bom trabalho.',
      'Pushes in the bounce',
      'Bounce and go around',
      'Acknowledged by Joana Pires Atalaia',
      'Self-assessment',
    ])
      expect(text).toContain(part);
  });
});

describe('the plan of the next lesson', () => {
  it('is proposed from the record, kept if it fits, and refused with the minutes when it does not', async () => {
    const helena = await user('helena');
    const checkoutId = await newest('clara');
    const record = await recordOf(checkoutId);
    const facts = await planFacts(record, await debriefFacts(record));
    expect(facts.slots.length).toBe(3);
    expect(facts.input.owned).toContain('mains-first');
    const block = {
      id: 'a',
      kind: 'circuits' as const,
      title: 'F8 Go-arounds, 2 circuits',
      why: '',
      minutes: 12,
      itemIds: ['F8'],
      findingId: null,
    };
    const form = {
      requestId: randomUUID(),
      checkoutId,
      lesson: 7,
      blocks: [block, { ...block, id: 'b', kind: 'strength' as const, minutes: 6, itemIds: [] }],
      focus: ['Go early'],
      bookingMin: 90,
    };
    expect(await savePlan(helena, { ...form, bookingMin: 32 })).toMatchObject({
      ok: false,
      problems: [{ code: 'does-not-fit', params: { minutes: 18, roomMin: 10, limitedBy: 'booking' } }],
    });
    expect(
      await savePlan(helena, {
        ...form,
        roomMin: 500,
        bookingMin: 720,
        blocks: [
          { ...block, minutes: 120 },
          { ...block, id: 'c', minutes: 120 },
        ],
      }),
    ).toMatchObject({ ok: false, problems: [{ code: 'does-not-fit', params: { limitedBy: 'fuel' } }] });
    expect(await savePlan(helena, { ...form, blocks: [block, block] })).toMatchObject({ ok: false });
    expect(await savePlan(await user('clara'), form)).toMatchObject({ ok: false });
    expect(await savePlan(helena, form)).toMatchObject({ ok: true, version: 1 });
    expect(await savePlan(helena, form)).toMatchObject({ ok: true, version: 1 });
    expect(await planOf(checkoutId, 7)).toMatchObject({
      version: 1,
      focus: ['Go early'],
      blocks: [{ itemIds: ['F8'] }, { kind: 'strength' }],
    });
    expect((await shell("UPDATE lesson_plans SET plan = '{}'")).error).toContain('never changes');
  });
});

describe('the school beside the pilot', () => {
  it('medians stand only where five pilots or more are behind them, and equal what the landings say', async () => {
    await aggregatesSettled();
    const medians = await mediansOf('serrana-urze');
    expect(medians.length).toBeGreaterThan(2);
    for (const m of medians) {
      expect(m.pilots).toBeGreaterThanOrEqual(5);
      const tallies = await rows<{ pilot_id: string; landings: number; own: number }>(
        "SELECT pilot_id, landings, own FROM stage_tallies WHERE type_code = 'serrana-urze' AND stage = :stage AND landings >= 5",
        { stage: m.stage },
      );
      const shares = tallies.map((t) => t.own / t.landings).sort((a, b) => a - b);
      const mid = shares.length / 2;
      expect(m.own).toBeCloseTo(
        shares.length % 2 ? (shares[Math.floor(mid)] ?? 0) : ((shares[mid - 1] ?? 0) + (shares[mid] ?? 0)) / 2,
        12,
      );
    }
    expect(await mediansOf('lume-faisca')).toEqual([]);
    const own = await row<{ n: number }>('SELECT SUM(own) AS n FROM stage_tallies');
    const counted = await row<{ n: number }>(
      "SELECT COUNT(*) AS n FROM landings WHERE landing_class IN ('own', 'own-off-target') AND checkout_id IS NOT NULL",
    );
    expect(own?.n).toBe(counted?.n);
  });
  it('counts that were lost are made again, the same', async () => {
    const dump = () => rows('SELECT * FROM stage_tallies ORDER BY checkout_id, stage');
    const were = await dump();
    await shell('DELETE FROM stage_tallies');
    await shell('DELETE FROM side_tallies');
    expect(await refreshMissing()).toBeGreaterThan(10);
    await aggregatesSettled();
    expect(await dump()).toEqual(were);
    expect(await refreshMissing()).toBe(0);
  });
  it('instructors are compared on measured landings, for the chief alone', async () => {
    const { landings, instructors } = await instructorsCompared();
    expect(landings).toBe((await rows('SELECT id FROM landings WHERE measured IS NOT NULL')).length);
    expect(instructors.map((i) => i.name).sort()).toEqual(['Bento Quadra Luz', 'Helena Serpa Dorna']);
    for (const i of instructors) expect(i.agree + i.kinder + i.harder).toBe(i.n);
    expect([may.compareInstructors(await user('helena')), may.compareInstructors(await user('bento'))]).toEqual([
      false,
      true,
    ]);
  });
});
