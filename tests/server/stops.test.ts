import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { CaptureEvent, CapturedLanding } from '@/domain/capture';
import { schoolItemId } from '@/core/plan';
import { UNSEEN } from '@/domain/unseen';
import type { CurrentUser } from '@/server/floor/auth/permissions';
import { rebuildLandings, recordEvents } from '@/server/fly/commands/capture';
import { endGrounding, groundAirframe } from '@/server/hangar/commands/groundings';
import { signingState } from '@/server/ledger/commands/sign';
import { row } from '../../scripts/lib/raw';
import { checkoutRecord } from '@/server/checkout/queries/record';
import { groundSamples, sortiesOf } from '@/server/checkout/queries/flights';
import { lessonsByBooking } from '@/server/schedule/queries/lessons';
import { openCheckout, swapAeroplane } from '@/server/checkout/commands/checkout';
import { addSchoolItem, takeProgramme } from '@/server/checkout/commands/programmes';
import { newerProgrammes } from '@/server/checkout/queries/programmes';
import { weekOf } from '@/server/board/queries/week';
import { openElsewhere } from '@/server/checkout/queries/elsewhere';
import { flownLessons, stageOf } from '@/server/checkout/queries/stage';
import { hangar } from '@/server/hangar/queries/hangar';
import { checkoutHead } from '@/server/checkout/queries/head';
import { sortiePack } from '@/server/fly/queries/pack';
import { instructorLacks } from '@/server/fly/queries/stops';
import { groundings } from '@/server/hangar/queries/groundings';
import { debriefFacts } from '@/server/debrief/queries/debrief';
import { recordAtDesk } from '@/server/fly/commands/office';
import { releaseExceedance } from '@/server/traces/commands/traces';
import { limitsPassed } from '@/server/traces/queries/traces';
import { stopsShown } from '@/server/checkout/queries/stop-shown';
import { demoFolder, done, shell } from './folder';
import { said, user } from './signed';

let close: () => Promise<void>;
let helena: CurrentUser;
let bento: CurrentUser;
const openOf = async (pilot: string): Promise<string> =>
  (
    await row<{ id: string }>("SELECT id FROM checkouts WHERE pilot_id = :p AND status = 'open'", {
      p: `pilot-${pilot}`,
    })
  )?.id ?? '';
const recordOf = async (id: string) => {
  const head = await checkoutHead(id);
  if (!head) throw new Error(id);
  return checkoutRecord(head);
};
const deviceId = randomUUID();
let seq = 0;
const event = (
  by: CurrentUser,
  sortieId: string,
  type: CaptureEvent['type'],
  at: string,
  payload: unknown,
  subjectId: string = randomUUID(),
): CaptureEvent => ({
  eventId: randomUUID(),
  deviceId,
  deviceSeq: ++seq,
  sortieId,
  subjectId,
  author: by.id,
  type,
  v: 1,
  deviceTime: `2026-11-24T${at}:00.000Z`,
  payload,
});
const landing = (at: string, change: Partial<CapturedLanding> = {}): CapturedLanding => ({
  ...UNSEEN,
  kind: 'full-stop',
  intended: 'three-point',
  touched: 'three-point',
  cleanTap: 'stopped',
  intervention: 0,
  runwayEnd: '22',
  endedAt: `2026-11-24T${at}:00.000Z`,
  ...change,
});

beforeAll(async () => {
  ({ close } = await demoFolder());
  helena = await user('helena');
  bento = await user('bento');
}, 120_000);
afterAll(() => close());

describe('a limit seen exceeded by eye', () => {
  it('grounds the aeroplane, says what must be done, is entered once and released as a recorded one', async () => {
    const checkout = await openOf('duarte');
    const flight = (await sortiesOf(checkout)).at(-1);
    if (!flight) throw new Error('no flight');
    const seen = event(helena, flight.id, 'limit-exceeded', '14:05', { channel: 'vne' });
    const after = event(helena, flight.id, 'landing-saved', '14:12', landing('14:12'));
    const wrong = event(helena, flight.id, 'limit-exceeded', '14:06', { channel: 'oil' });
    expect((await recordEvents(helena, [seen, after, wrong])).refused.map((r) => r.eventId)).toEqual([wrong.eventId]);
    await recordEvents(helena, [seen]);
    const [held, ...more] = await groundings({ registration: 'ZP-URZ', openOnly: true });
    expect(more).toEqual([]);
    expect(held).toMatchObject({
      kind: 'limit',
      why: 'Vne exceeded, seen by eye, and not released',
      placedBy: 'Helena Serpa Dorna',
      traceId: null,
    });
    // It is flown home: the landing of the same flight is no flight of a grounded aeroplane.
    const record = await recordOf(checkout);
    expect(stopsShown(record).map((s) => s.code)).toEqual([]);
    const [line] = await limitsPassed(bento, 'open');
    expect(line).toMatchObject({ measured: null, seenBy: 'Helena Serpa Dorna', releases: true });
    expect(line?.mustDo.length).toBeGreaterThan(10);
    expect((await signingState(helena, record)).problems.filter((p) => p.code === 'limit')).toHaveLength(1);
    expect((await debriefFacts(record)).record.limits.map((l) => l.words)).toEqual([
      'Vne, seen by eye; how far was not measured',
    ]);
    const release = {
      exceedanceId: held?.id,
      done: 'Inspected, entry 88',
      certifier: 'Telmo Vaz',
      certificate: 'B1 0417',
    };
    expect(said(await releaseExceedance(helena, release))).toContain('chief-releases');
    done(await releaseExceedance(bento, release));
    expect(await groundings({ registration: 'ZP-URZ', openOnly: true })).toEqual([]);
    for (const sql of ["UPDATE exceedances SET channel = 'vfe'", 'DELETE FROM exceedances'])
      expect((await shell(sql)).error).toContain('never');
  });
});

describe('what is said of a whole flight', () => {
  it('why it was cut short, taken back too, and three lines to who goes on', async () => {
    const checkout = await openOf('duarte');
    const flight = (await sortiesOf(checkout)).at(-1);
    if (!flight) throw new Error('no flight');
    const at = (type: string, payload: object) => ({
      requestId: randomUUID(),
      sortieId: flight.id,
      subjectId: flight.id,
      type,
      payload,
    });
    const short = async () => (await recordOf(checkout)).cutShort.get(flight.lesson) ?? null;
    expect(await short()).toBeNull();
    await recordEvents(helena, [event(helena, flight.id, 'cut-short', '14:20', { reason: 'time' })]);
    expect(await short()).toBe('time');
    done(await recordAtDesk(helena, at('cut-short', { reason: 'weather' })));
    expect(await short()).toBe('weather');
    done(await recordAtDesk(helena, at('cut-short', { reason: null })));
    expect(await short()).toBeNull();
    expect(said(await recordAtDesk(helena, at('cut-short', { reason: 'boredom' })))).toContain('Choose what ended it');
    const lines = { done: 'F4 and F5, five landings', next: 'Crosswind from the left', watch: 'Feet late on power' };
    expect(said(await recordAtDesk(helena, at('handed-over', { ...lines, watch: '' })))).toContain('A few words');
    expect(said(await recordAtDesk(await user('duarte'), at('handed-over', lines)))).not.toBe('');
    done(await recordAtDesk(bento, at('handed-over', lines)));
    expect((await recordOf(checkout)).handovers.get(flight.lesson)).toMatchObject({ ...lines, by: bento.name });
  });
});

describe('an aeroplane on the ground', () => {
  const form = (kind: string, more: object = {}) => ({
    requestId: randomUUID(),
    airframeId: 'air-ZP-URZ',
    kind,
    why: 'Tailwheel spring cracked',
    ...more,
  });
  const ending = (groundingId: string, more: object = {}) => ({
    groundingId,
    done: 'Spring replaced, work order 121',
    certifier: 'Telmo Vaz Outeiro',
    certificate: 'licence B1 0417',
    ...more,
  });
  it('is grounded by the staff, held by the chief, and goes back into service only as certified', async () => {
    expect(said(await groundAirframe(helena, form('school')))).toContain('chief-holds');
    expect(said(await groundAirframe(await user('duarte'), form('airworthiness')))).toContain('staff-ground');
    expect(said(await groundAirframe(helena, form('airworthiness', { why: 'bad' })))).toContain('why: Say what');
    expect(said(await groundAirframe(helena, form('airworthiness', { airframeId: 'air-none' })))).toContain(
      'aeroplane-unknown',
    );
    const once = form('airworthiness');
    const { id } = done(await groundAirframe(helena, once));
    expect(done(await groundAirframe(helena, once)).id).toBe(id);
    const hold = done(await groundAirframe(bento, form('school', { why: 'Until the chief has flown it' }))).id;
    expect((await groundings({ registration: 'ZP-URZ', openOnly: true })).map((g) => g.kind).sort()).toEqual([
      'airworthiness',
      'school',
    ]);
    expect(said(await endGrounding(helena, ending(id)))).toContain('chief-releases');
    expect(said(await endGrounding(bento, ending(id, { certifier: '' })))).toContain('certifier: Give the name');
    expect(said(await endGrounding(bento, ending(id, { certificate: '' })))).toContain('certificate: Give the number');
    done(await endGrounding(bento, ending(hold, { certifier: '', certificate: '', done: 'Flown by the chief' })));
    expect((await groundings({ registration: 'ZP-URZ', openOnly: true })).map((g) => g.id)).toEqual([id]);
    done(await endGrounding(bento, ending(id)));
    expect(said(await endGrounding(bento, ending(id)))).toContain('meanwhile');
    expect((await groundings({ registration: 'ZP-URZ' })).find((g) => g.id === id)?.ended).toMatchObject({
      certifier: 'Telmo Vaz Outeiro',
      certificate: 'licence B1 0417',
    });
    for (const sql of [
      "UPDATE groundings SET why = 'x'",
      'DELETE FROM groundings',
      "UPDATE grounding_ends SET certifier = 'x'",
      'DELETE FROM grounding_ends',
    ])
      expect((await shell(sql)).error, sql).toMatch(/never (changed|removed)/);
  });
  it('what is flown meanwhile stands by its time, also after the release and a rebuild; what is flown after does not', async () => {
    const id = await openOf('duarte');
    const flight = (await sortiesOf(id)).at(-1)?.id ?? '';
    const g = done(await groundAirframe(helena, form('airworthiness')));
    expect((await sortiePack(helena, flight))?.stops?.flight).toMatchObject([{ code: 'grounded' }]);
    await recordEvents(helena, [event(helena, flight, 'landing-saved', '14:31', landing('14:31'))]);
    const stops = async () => stopsShown(await recordOf(id)).map((s) => [s.name, s.code]);
    expect(await stops()).toEqual([['Lesson 4, the flight', 'grounded']]);
    expect((await recordOf(id)).evidence.landings.at(-1)?.stops).toMatchObject([{ code: 'grounded' }]);
    process.env.JEITO_NOW = '2026-11-24T15:00:00.000Z';
    done(await endGrounding(bento, ending(g.id)));
    await rebuildLandings();
    expect(await stops()).toEqual([['Lesson 4, the flight', 'grounded']]);
    process.env.JEITO_NOW = '2026-11-24T14:30:00.000Z';
    const other = (await sortiesOf(await openOf('clara'))).at(-1)?.id ?? '';
    await recordEvents(helena, [event(helena, other, 'landing-saved', '15:30', landing('15:30'))]);
    expect(stopsShown(await recordOf(await openOf('clara')))).toEqual([]);
  });
  it('what is shown on the ground, or written in from paper for a flight of before, is no flight of it', async () => {
    const id = await openOf('ines');
    const flight = (await sortiesOf(id)).at(-1);
    if (!flight) throw new Error('no flight');
    const g = done(await groundAirframe(helena, form('airworthiness', { airframeId: 'air-ZP-URV' })));
    const item = { verdict: 'within', intervention: 0, note: '', detail: null, pilotId: null };
    const grounded = async () => stopsShown(await recordOf(id)).filter((s) => s.code === 'grounded');
    const before = (await grounded()).length;
    await recordEvents(helena, [
      event(helena, flight.id, 'item-observed', '14:35', { itemId: 'G2', ...item }),
      event(helena, flight.id, 'landing-saved', '14:36', landing('14:36', { fromPaper: true, endedAt: null })),
    ]);
    expect(await grounded()).toHaveLength(before);
    await recordEvents(helena, [event(helena, flight.id, 'item-observed', '14:37', { itemId: 'F3', ...item })]);
    expect((await grounded()).length).toBeGreaterThan(before);
    done(await endGrounding(bento, ending(g.id)));
  });
  it('its reason is asked for, given once, and then signs no longer stand on it', async () => {
    const id = await openOf('duarte');
    const flight = (await sortiesOf(id)).at(-1)?.id ?? '';
    const codes = async () => (await signingState(helena, await recordOf(id))).problems.map((p) => p.code);
    expect(await codes()).toContain('stop');
    const said_ = (reason: string, by = helena) =>
      recordEvents(by, [event(by, flight, 'stop-explained', '16:00', { reason }, flight)]);
    expect((await said_('short')).refused).toHaveLength(1);
    expect((await said_('It was found on the walk-round after', await user('duarte'))).refused).toHaveLength(1);
    expect((await said_('Found on the walk-round after this flight')).accepted).toHaveLength(1);
    expect(await codes()).not.toContain('stop');
    expect(stopsShown(await recordOf(id))[0]?.reason).toBe('Found on the walk-round after this flight');
  });
});

describe('wind beyond a limit', () => {
  it('stops; the chief sets the school’s aside for one flight, nobody the flight manual’s', async () => {
    const id = await openOf('clara');
    const flight = (await sortiesOf(id)).at(-1)?.id ?? '';
    const land = (at: string, fromDegMag: number, kt: number, gustKt: number | null = null) =>
      recordEvents(helena, [
        event(
          helena,
          flight,
          'landing-saved',
          at,
          landing(at, { wind: { fromDegMag, kt, gustKt, at: `2026-11-24T${at}:00.000Z` } }),
        ),
      ]);
    await land('15:41', 220, 4, 18);
    const shown = async () => stopsShown(await recordOf(id)).map((s) => [s.code, s.words.includes('school')]);
    expect(await shown()).toEqual([['wind', true]]);
    const aside = (by: CurrentUser, limit: string) =>
      recordEvents(by, [
        event(
          by,
          flight,
          'limit-overridden',
          '15:50',
          { limit, reason: 'Wind lesson with the chief watching' },
          flight,
        ),
      ]);
    expect((await aside(helena, 'house')).refused[0]?.message).toContain('by the chief instructor');
    expect((await aside(bento, 'limitation')).refused).toHaveLength(1);
    expect((await aside(bento, 'house')).accepted).toHaveLength(1);
    expect(await shown()).toEqual([]);
    // The instructor's own limit is nobody else's to set aside.
    await land('15:45', 310, 14);
    expect(await shown()).toEqual([['wind', false]]);
    expect((await recordOf(id)).overridden[0]?.reason).toBe('Wind lesson with the chief watching');
  });
});

describe('the instructor', () => {
  it('out of recency in the twin it stands in the record; current it says until when', async () => {
    const head = await checkoutHead(await openOf('nuno'));
    if (!head) throw new Error('nuno');
    const out = await instructorLacks('user-bento', head, '2026-11-24');
    expect(out.lacks.join()).toContain('out of recency, three landings restore it');
    const duarte = await checkoutHead(await openOf('duarte'));
    if (!duarte) throw new Error('duarte');
    const held = await instructorLacks('user-helena', duarte, '2026-11-24');
    expect(held.lacks).toEqual([]);
    expect(held.holdsTo).toMatch(/^\d{4}-\d\d-\d\d$/);
    expect((await instructorLacks('nobody', duarte, '2026-11-24')).lacks).toHaveLength(1);
  });
});

describe('an aeroplane swapped in mid-checkout', () => {
  it('goes on with its own sheet: evidence stays, what belongs to the airframe is asked again, the lesson is briefed again', async () => {
    const id = await openOf('clara');
    const before = await recordOf(id);
    const { registration } = before.head;
    const frames = (await hangar()).flatMap((t) => t.airframes);
    const other = frames.find((a) => a.effective.code === before.head.typeCode && a.registration !== registration);
    const strange = frames.find((a) => a.effective.code !== before.head.typeCode);
    const form = (airframeId: string | undefined) => ({ checkoutId: id, airframeId, reason: 'Ours is in maintenance' });
    expect(said(await swapAeroplane(helena, form(strange?.id)))).toContain('other-type');
    expect(said(await swapAeroplane(helena, form(before.head.airframeId)))).toContain('flown-already');
    expect(said(await swapAeroplane(await user('clara'), form(other?.id)))).toContain('not-found');
    done(await swapAeroplane(helena, form(other?.id)));
    const after = await recordOf(id);
    expect([after.head.registration, after.landings.length]).toEqual([other?.registration, before.landings.length]);
    expect(new Set(after.sorties.map((s) => s.registration))).toEqual(new Set([registration]));
    const met = (r: typeof after) => r.items.filter((i) => i.met).map((i) => i.item.id);
    const own = after.programmes.flatMap((p) => p.items.filter((i) => i.perAirframe).map((i) => i.id));
    expect(own.length).toBeGreaterThan(0);
    expect(met(before).some((i) => own.includes(i))).toBe(true);
    expect(met(after)).toEqual(met(before).filter((i) => !own.includes(i)));
    const last = after.sorties.at(-1);
    if (last && !flownLessons(after).has(last.lesson)) {
      expect(stageOf(after)).toBe('brief');
      expect(await sortiePack(helena, last.id)).toBeNull();
    }
  });
});

describe('another open checkout of the same pilot', () => {
  it('is shown when one is opened, and what it proves is carried with its day and its aeroplane', async () => {
    const there = await recordOf(await openOf('duarte'));
    const other = (await hangar())
      .flatMap((t) => t.airframes)
      .find((a) => a.effective.code === there.head.typeCode && a.id !== there.head.airframeId);
    const to = { pilotId: 'pilot-duarte', airframeId: other?.id ?? '', pack: there.head.pack, goals: there.head.goals };
    const [elsewhere, ...more] = (await openElsewhere(helena, to)) ?? [];
    expect(more).toEqual([]);
    expect([elsewhere?.registration, elsewhere?.both]).toEqual([there.head.registration, there.head.goals]);
    const ids = elsewhere?.proves.map((p) => p.itemId) ?? [];
    // By hand: what is met there by what was flown or shown, but for what belongs to the airframe.
    const shown = there.items.filter((i) => i.state === 'met' && i.part === null);
    expect(ids).toEqual(shown.filter((i) => !i.item.perAirframe).map((i) => i.item.id));
    expect(ids.length).toBeGreaterThan(2);
    const { id } = done(
      await openCheckout(helena, {
        ...to,
        requestId: randomUUID(),
        standardKey: 'private-us',
        note: '',
        // Somebody else's proves nothing for this pilot.
        carry: [there.head.id, await openOf('nuno')],
      }),
    );
    const here = await recordOf(id);
    expect(here.items.filter((i) => i.met).map((i) => i.item.id)).toEqual(ids);
    expect(here.items.find((i) => i.item.id === ids[0])?.have).toMatchObject({
      code: 'carried',
      params: { from: there.head.registration, on: elsewhere?.proves[0]?.on },
    });
    // Of another gear and mass only what is known on the ground.
    const heavy = (await openElsewhere(helena, { ...to, airframeId: 'air-ZP-CAV' }))?.[0];
    const ground = new Set(there.items.filter((i) => i.item.where === 'ground').map((i) => i.item.id));
    expect(heavy?.proves.map((p) => p.itemId)).toEqual(ids.filter((i) => ground.has(i)));
    expect(await openElsewhere(await user('duarte'), to)).toBeNull();
  });
});

describe('a chief’s week', () => {
  it('has every stop, limit and decision of its days once, and what each instructor may teach', async () => {
    const week = await weekOf(bento, '2026-11-24');
    expect(week.from).toBe('2026-11-18');
    const count = async (sql: string) => (await row<{ n: number }>(sql))?.n ?? 0;
    const of = (code: string) => week.lines.filter((l) => l.said.code === code).length;
    expect(of('stop')).toBe(
      await count(
        "SELECT COUNT(*) AS n FROM stops t JOIN sorties s ON s.id = t.sortie_id WHERE s.flown_on BETWEEN '2026-11-18' AND '2026-11-24'",
      ),
    );
    expect(of('exceeded')).toBe(
      await count("SELECT COUNT(*) AS n FROM exceedances WHERE found_at >= '2026-11-18' AND found_at < '2026-11-25'"),
    );
    expect(of('stop')).toBeGreaterThan(0);
    expect(of('limit-overridden')).toBe(1);
    expect(week.lines.map((l) => l.at)).toEqual(
      week.lines
        .map((l) => l.at)
        .sort()
        .reverse(),
    );
    expect(week.limit).toEqual({ hours: 8, citation: expect.stringContaining('61.195') as string });
    const helenas = week.instructors.find((i) => i.userId === 'user-helena');
    expect(helenas?.trainingMin).toBeGreaterThan(0);
    expect(helenas?.lapses.some((l) => l.kind === 'dated')).toBe(true);
    // Nothing of it in a week before the school flew.
    expect((await weekOf(bento, '2020-01-07')).lines).toEqual([]);
  });
});

describe('an item of the school’s own', () => {
  const item = (version: number) => ({
    key: 'tailwheel-us',
    baseVersion: version,
    title: 'Gliders on the field',
    text: 'Lands long behind a glider that has just landed.',
    where: 'flight',
    how: 'landings',
    times: 2,
    help: 'unassisted',
    days: 1,
    attitude: 'any',
    fullStop: true,
    crosswindKt: null,
    withinDays: null,
    first: ['F4'],
    safety: true,
    perAirframe: false,
    lesson: null,
    waivable: '',
    citation: 'School programme',
    reason: 'The gliding club flies from our strip',
    checkouts: [] as string[],
  });
  it('is a new version, asked where it was ticked, offered elsewhere, and never the law’s', async () => {
    const [duarte, clara] = [await openOf('duarte'), await openOf('clara')];
    expect(said(await addSchoolItem(helena, item(1)))).toContain('chief-adds-items');
    expect(await addSchoolItem(bento, { ...item(1), title: '', times: null })).toMatchObject({
      ok: false,
      problems: [
        { path: 'title', message: 'Name the item.' },
        { path: 'times', message: 'Say how many times.' },
      ],
    });
    expect(done(await addSchoolItem(bento, { ...item(1), checkouts: [duarte, 'nobody'] }))).toMatchObject({
      version: 2,
      itemId: 'TA-H1',
      asked: 1,
    });
    // An id that was given is never given again, though its item may be gone from the newest version.
    expect([schoolItemId('tailwheel', []), schoolItemId('tailwheel', ['F1', 'TA-H1'])]).toEqual(['TA-H1', 'TA-H2']);
    expect(schoolItemId('multi-engine-sea', ['ME-H4'])).toBe('MES-H1');
    // Sent again it finds the version it made.
    expect(said(await addSchoolItem(bento, item(1)))).toContain('programme-meanwhile');
    expect(said(await addSchoolItem(bento, item(2)))).toContain('item-there');
    const asked = (await recordOf(duarte)).items.find((i) => i.item.id === 'TA-H1');
    expect(asked?.item).toMatchObject({ source: 'house', legal: false, safety: true, prerequisites: ['F4'] });
    // By hand of what is recorded: full stops flown unassisted and judged the pilot's own.
    const own = (await recordOf(duarte)).landings.filter(
      (l) => l.kind === 'full-stop' && ['own', 'own-off-target'].includes(l.judged.landingClass),
    );
    expect(own.length).toBeGreaterThan(1);
    expect(asked?.met).toBe(true);
    expect(own.map((l) => l.id)).toEqual(expect.arrayContaining([...(asked?.evidence ?? ['none'])]));
    expect((await recordOf(clara)).items.some((i) => i.item.id === 'TA-H1')).toBe(false);
    const head = (await recordOf(clara)).head;
    const [offer] = await newerProgrammes(head);
    expect(offer?.added.map((i) => i.id)).toEqual(['TA-H1']);
    expect([offer?.gone, offer?.changed]).toEqual([[], []]);
    const take = { checkoutId: clara, from: offer?.from, to: offer?.to, reason: 'She flies on club days' };
    expect(said(await takeProgramme(await user('clara'), take))).toContain('not-found');
    done(await takeProgramme(helena, take));
    expect((await recordOf(clara)).items.some((i) => i.item.id === 'TA-H1')).toBe(true);
    expect(said(await takeProgramme(helena, take))).toContain('newer-version');
  });
});

describe('a booking and its lesson', () => {
  it('find each other by day and block time, and the ground time of a type is learned from three flights', async () => {
    const span = (id: string, startsAt: string, checkoutId = 'c') => ({ id, checkoutId, startsAt });
    const flownAt = (lesson: number, flownOn: string, offBlock: string | null, checkoutId = 'c') => ({
      checkoutId,
      lesson,
      flownOn,
      flown: true,
      offBlock,
      onBlock: null,
    });
    const by = lessonsByBooking(
      [
        span('morning', '2026-07-01T08:00:00Z'),
        span('evening', '2026-07-01T17:00:00Z'),
        // 23:30 UTC is the next day in the zone of the aerodrome.
        span('late', '2026-07-01T23:30:00Z'),
        span('other', '2026-07-01T08:00:00Z', 'd'),
        span('empty', '2026-07-05T08:00:00Z'),
      ],
      [
        flownAt(1, '2026-07-01', '2026-07-01T17:40:00Z'),
        flownAt(2, '2026-07-01', '2026-07-01T08:35:00Z'),
        flownAt(3, '2026-07-02', null),
      ],
      'Europe/Lisbon',
    );
    expect([...by].map(([id, l]) => [id, l.lesson]).sort()).toEqual([
      ['evening', 1],
      ['late', 3],
      ['morning', 2],
    ]);

    const { head, sorties } = await recordOf(await openOf('duarte'));
    expect(await groundSamples(head.typeCode)).toEqual([]);
    const clock = (sortieId: string, marks: [mark: string, at: string][]) =>
      recordEvents(
        helena,
        marks.map(([mark, at]) =>
          event(helena, sortieId, 'timer-marked', at, { mark, at: `2026-11-24T${at}:00.000Z` }),
        ),
      );
    // By hand: 10 and 6, 12 and 8, 9 and 5 minutes; the fourth has no landing.
    const times: [mark: string, at: string][][] = [
      [
        ['off-block', '08:00'],
        ['take-off', '08:10'],
        ['landed', '09:00'],
        ['on-block', '09:06'],
      ],
      [
        ['off-block', '08:00'],
        ['take-off', '08:12'],
        ['landed', '09:00'],
        ['on-block', '09:08'],
      ],
      [
        ['off-block', '08:00'],
        ['take-off', '08:09'],
        ['landed', '09:00'],
        ['on-block', '09:05'],
      ],
      [
        ['off-block', '08:00'],
        ['take-off', '08:30'],
      ],
    ];
    for (const [i, marks] of times.entries())
      expect((await clock(sorties[i]?.id ?? '', marks)).accepted).toHaveLength(marks.length);
    expect((await groundSamples(head.typeCode)).sort()).toEqual([14, 16, 20]);
    expect((await sortiePack(helena, sorties.at(-1)?.id ?? ''))?.clock?.groundMin).toBe(16);
  });
});
