import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { moinhoVelho, pedraAlva } from '@demo/aerodrome';
import { seeded } from '@demo/random';
import { csvOf, flyCircuits, planFor, sense, sensorsOf } from '@/core/recorder';
import { isNight } from '@/core/sun';
import type { BriefChoices } from '@/domain/brief';
import { AerodromeForm } from '@/domain/set-up';
import type { Aerodrome } from '@/domain/sheet';
import { UNSEEN } from '@/domain/unseen';
import { saveBrief } from '@/server/checkout/commands/checkout';
import { linesOf } from '@/server/checkout/queries/logbook-lines';
import { nextAerodrome } from '@/server/checkout/queries/where';
import type { CurrentUser } from '@/server/floor/auth/permissions';
import { recordEvents } from '@/server/fly/commands/capture';
import { sortiePack } from '@/server/fly/queries/pack';
import { logbookCsv } from '@/server/ledger/papers/record';
import { flyingKept, flyingOf } from '@/server/people/queries/flying';
import { aerodromeAt, aerodromes, homeAerodrome } from '@/server/rules/content';
import { addAerodrome } from '@/server/running/commands/set-up';
import { book } from '@/server/schedule/commands/bookings';
import { addTrace } from '@/server/traces/commands/traces';
import { traceById } from '@/server/traces/queries/traces';
import { weatherNow } from '@/server/weather/weather';
import { demoFolder, done, user } from './folder';
import { openOf, recordOf, said } from './signed';

let close: () => Promise<void>;
let helena: CurrentUser;
let bento: CurrentUser;
beforeAll(async () => {
  ({ close } = await demoFolder());
  helena = await user('helena');
  bento = await user('bento');
}, 120_000);
afterAll(() => close());

/** The brief of the next lesson as the last one was, with changes. */
async function briefed(by: CurrentUser, checkoutId: string, change: Partial<BriefChoices>) {
  const record = await recordOf(checkoutId);
  const last = [...record.sorties].reverse().find((s) => s.brief);
  if (!last?.brief) throw new Error('nothing was briefed');
  const flown = record.landings.some((l) => l.sortieId === last.id);
  return saveBrief(by, {
    requestId: randomUUID(),
    checkoutId,
    choices: { ...last.brief.choices, wind: null, flownOn: '2026-11-24', ...change },
    base: flown ? null : last.brief.id,
  });
}
/** Far to the west: the sun sets there an hour and a half after it has set at home. */
const WEST = {
  ident: 'ZPOE',
  name: 'Ilha do Oeste',
  timeZone: 'Atlantic/Azores',
  latitudeDeg: 39.3,
  longitudeDeg: -29,
  elevationFt: 90,
  circuitHeightFt: 1000,
  variationDeg: null,
  runways: [
    {
      ident: '22',
      trueBearingDeg: 214,
      lengthM: 900,
      widthM: 30,
      surface: 'asphalt',
      firstFt: null,
      secondFt: null,
      ends: ['right', 'left'].map((circuit) => ({
        circuit,
        slopeLightsDeg: null,
        slopeLightsM: null,
        landmark: '',
        landmarkM: null,
      })),
    },
  ],
};

describe('aerodromes of a school', () => {
  it('another is added by the chief alone, once, under the rules of the first; home stays home', async () => {
    expect(AerodromeForm.safeParse(WEST).success).toBe(true);
    expect(said(await addAerodrome(helena, WEST))).toContain('chief-sets-up');
    expect(await addAerodrome(bento, { ...WEST, timeZone: 'Azores' })).toMatchObject({
      problems: [{ path: 'timeZone' }],
    });
    const bent = { ...WEST, runways: [{ ...WEST.runways[0], trueBearingDeg: 90 }] };
    expect(await addAerodrome(bento, bent)).toMatchObject({ problems: [{ path: 'runways.0.trueBearingDeg' }] });
    done(await addAerodrome(bento, WEST));
    expect(await addAerodrome(bento, WEST)).toMatchObject({ problems: [{ path: 'ident', code: 'aerodrome-known' }] });
    expect((await aerodromes()).map((a) => a.ident)).toEqual(['ZPAV', 'ZPOE', 'ZPMV']);
    expect((await homeAerodrome()).ident).toBe('ZPAV');
    expect((await aerodromeAt('ZPOE')).runways[0]?.ends.map((e) => e.circuit)).toEqual(['right', 'left']);
    // Without an address of its own the home’s report is not taken for it.
    expect((await weatherNow(await aerodromeAt('ZPMV'))).report?.text).toMatch(/ZPMV \d{6}Z/);
    expect((await weatherNow()).report?.text).toMatch(/ZPAV \d{6}Z/);
  });
});

describe('a lesson at another aerodrome', () => {
  it('is briefed for its runways, elevation and circuit; what is not there is refused', async () => {
    const id = await openOf('joana');
    expect(said(await briefed(bento, id, { aerodrome: 'ZPXX', runwayEnd: '08' }))).toContain('aerodrome-unknown');
    expect(said(await briefed(bento, id, { aerodrome: 'ZPMV', runwayEnd: '22' }))).toContain('runway-unknown');
    expect((await nextAerodrome(await recordOf(id), '2026-11-24T14:30:00Z')).ident).toBe('ZPMV');
    const { sortieId } = done(await briefed(bento, id, { aerodrome: 'ZPMV', runwayEnd: '08' }));
    const sortie = (await recordOf(id)).sorties.find((s) => s.id === sortieId);
    expect(sortie?.aerodrome).toBe('ZPMV');
    expect(sortie?.brief?.snapshot.runways.map((r) => r.ident)).toEqual(['08', '26']);
    const pack = await sortiePack(bento, sortieId);
    expect(pack?.runways.map((r) => r.ident)).toEqual(['08', '26']);
    // Where the engine stops in the circuit of 08 is asked on its right side.
    expect(pack?.reach?.strips[0]?.ends).toMatchObject([{ circuit: 'right' }, { circuit: 'left' }]);
    expect(pack?.reach).toMatchObject({ elevationFt: 420, circuitHeightFt: 800 });
    // Briefed again for home it is flown at home.
    done(await briefed(bento, id, { aerodrome: 'ZPAV', runwayEnd: '22' }));
    const home = (await recordOf(id)).sorties.at(-1);
    expect([home?.aerodrome, home?.brief?.choices.aerodrome]).toEqual([null, undefined]);
  });

  it('its landings are night or day by the sun of where they were made, in every reading of recency', async () => {
    const id = await openOf('duarte');
    const { sortieId } = done(await briefed(helena, id, { aerodrome: 'ZPOE', runwayEnd: '22' }));
    const landing = (subjectId: string) => ({
      eventId: randomUUID(),
      deviceId: randomUUID(),
      deviceSeq: 1,
      sortieId,
      subjectId,
      author: helena.id,
      type: 'landing-saved',
      v: 1,
      deviceTime: '2026-11-24T18:20:00.000Z',
      payload: {
        ...UNSEEN,
        kind: 'full-stop',
        runwayEnd: '22',
        intervention: 0,
        wind: { fromDegMag: 310, kt: 10, gustKt: null, at: '2026-11-24T18:10:00.000Z' },
        endedAt: '2026-11-24T18:15:00.000Z',
      },
    });
    const subject = randomUUID();
    expect((await recordEvents(helena, [landing(subject)])).refused).toEqual([]);
    const record = await recordOf(id);
    const made = record.landings.find((l) => l.id === subject);
    expect(made?.aerodrome).toBe('ZPOE');
    // Variation there by the model, the runway 214 true: the wind of 310 magnetic is across, and from its right.
    expect(made?.crosswindKt ?? 0).toBeGreaterThan(9);
    const rule = { by: 'twilight', citation: 'x' } as const;
    // At home it was dark by then.
    expect(isNight('2026-11-24T18:15:00.000Z', pedraAlva, rule)).toBe(true);
    const one = (await flyingOf('pilot-duarte', undefined, rule)).filter((e) => e.id.startsWith(subject));
    expect(one.map((e) => e.night)).toEqual([false, false]);
    const all = (await flyingKept('2026-11-01', rule)).get('pilot-duarte') ?? [];
    expect(all.filter((e) => e.date === '2026-11-24' && e.night)).toEqual([]);
    expect(all.some((e) => e.id.includes('ZPOE'))).toBe(true);
    const line = (await linesOf(record)).find((l) => l.lesson === made?.lesson);
    expect(line?.pilot).toContain('landings at ZPOE');
    expect(await logbookCsv('pilot-duarte')).toMatch(/2026-11-24,ZPOE,/);
  });

  it('is booked by the daylight of where it is flown', async () => {
    const form = (aerodrome: string | null) => ({
      requestId: randomUUID(),
      kind: 'lesson',
      checkoutId: null,
      pilotId: null,
      instructorId: helena.id,
      airframeId: 'air-ZP-URA',
      startsAt: '2026-12-10T16:15:00.000Z',
      minutes: 105,
      passengers: 0,
      surface: 'any',
      aerodrome,
      note: '',
      waitingId: null,
    });
    const lesson = { checkoutId: await openOf('rui') };
    expect(said(await book(helena, { ...form(null), ...lesson }))).toContain('after-sunset');
    expect(said(await book(helena, { ...form('ZPOE'), ...lesson }))).not.toContain('after-sunset');
    expect(said(await book(helena, { ...form('ZPXX'), ...lesson }))).toContain('aerodrome-unknown');
  });

  it('its recording is read there; one of a lesson briefed for home is found where it was flown', async () => {
    const record = await recordOf(await openOf('clara'));
    const [home] = record.sorties.filter((s) => s.aerodrome === null);
    const choices = {
      runwayEnd: '08',
      windFromDeg: 90,
      windKt: 6,
      side: 'right' as const,
      arrivals: ['touch-and-go' as const],
      airwork: [],
      errors: [],
      rateHz: 5,
      sensors: 'panel' as const,
    };
    const flight = (at: Aerodrome, seed: number) => {
      const made = planFor(record.head.sheet, record.head.registration, at, choices, seeded(seed));
      if (!made) throw new Error('no plan');
      const rows = sense(flyCircuits(made.plan), made.plan.runway, sensorsOf(choices), seeded(seed + 1));
      return Buffer.from(csvOf(rows, Date.UTC(2026, 10, 18, 10)));
    };
    const added = done(
      await addTrace(helena, {
        sortieId: home?.id ?? '',
        name: 'mv.csv',
        bytes: flight(moinhoVelho, 4),
        mapping: null,
      }),
    );
    const view = await traceById(helena, added.id);
    expect(view?.context.aerodrome.ident).toBe('ZPMV');
    expect(view?.analysis.events.map((e) => [e.kind, e.runway])).toEqual([
      ['takeoff', '08'],
      ['touch-and-go', '08'],
      ['landing', '08'],
    ]);
    expect(view?.analysis.source.warnings[0]?.message).toContain(`briefed for ${pedraAlva.name}`);
  });
});
