/**
 * The packs against cases reasoned by hand from the rule each cites: recent experience, dates, what flying alone rests
 * on. The expected day stands in the table, with how it was reached; nothing here is taken from what the code answers.
 */
import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { describe, expect, it } from 'vitest';
import {
  type SigningFacts,
  assessProgramme,
  limitsFor,
  signingProblems,
  standardOn,
  standardProposed,
} from '@/core/assess';
import {
  composeProgramme,
  demandsOf,
  goalOnType,
  missingNeeds,
  offeredFor,
  openCheckout,
  packFindings,
  programmeFindings,
  programmeOn,
  sheetFacts,
} from '@/core/plan';
import {
  type PersonDate,
  type TypedEvent,
  actingStops,
  classNames,
  classOf,
  datedState,
  mostIn24h,
  recencyIn,
  variantThrough,
} from '@/core/recency';
import { isNight } from '@/core/sun';
import { type Programme, ProgrammeSource, RulePack, Standard } from '@/domain/programme';
import { TypeSheet } from '@/domain/sheet';
import { GOALS, type Goal, PACKS, type PackId } from '@/domain/words';
import { types } from '@demo/fleet';
import { floatplane, made, pressurised, skiplane } from '@demo/fleet/made';

const json = (file: string): unknown => JSON.parse(readFileSync(`content/${file}.json`, 'utf8'));
const pack = Object.fromEntries(PACKS.map((k) => [k, RulePack.parse(json(`packs/${k}`))])) as Record<PackId, RulePack>;
const ON = '2026-11-24';

/** What was flown on a day: in which aeroplane, how many of each, and how. */
interface Flown {
  on: string;
  in?: 'nose' | 'tail' | 'twin' | 'floats' | 'boat-land' | 'boat-water';
  off?: number;
  stops?: number;
  touch?: number;
  night?: boolean;
  offNight?: boolean;
  help?: number;
  shown?: boolean;
}
const AT = {
  nose: { engines: 1, tailwheel: false, surface: 'land' },
  tail: { engines: 1, tailwheel: true, surface: 'land' },
  twin: { engines: 2, tailwheel: false, surface: 'land' },
  floats: { engines: 1, tailwheel: false, surface: 'water' },
  'boat-land': { engines: 2, tailwheel: false, surface: 'land' },
  'boat-water': { engines: 2, tailwheel: false, surface: 'water' },
} as const;
const events = (flown: readonly Flown[]): TypedEvent[] =>
  flown.flatMap((f, i) => {
    const a = AT[f.in ?? 'nose'];
    const one = (n: number | undefined, more: Partial<TypedEvent>): TypedEvent[] =>
      n
        ? [
            {
              id: `${i}${more.kind ?? ''}${more.fullStop === true ? 's' : ''}`,
              date: f.on,
              kind: 'landing',
              typeCode: f.in ?? 'nose',
              class: classOf(a.engines, a.surface),
              surface: a.surface,
              tailwheel: a.tailwheel,
              night: f.night ?? false,
              intervention: f.help ?? 0,
              demonstration: f.shown ?? false,
              times: n,
              ...more,
            },
          ]
        : [];
    return [
      ...one(f.off, { kind: 'takeoff', night: f.offNight ?? f.night ?? false }),
      ...one(f.touch, { fullStop: false }),
      ...one(f.stops, { fullStop: true }),
    ];
  });
interface Asked {
  in?: keyof typeof AT;
  night?: boolean;
  on?: string;
  held?: string[];
  done?: Record<string, string>;
}
function state(key: PackId, flown: readonly Flown[], ask: Asked = {}) {
  const a = AT[ask.in ?? 'nose'];
  const r = recencyIn(
    pack[key].recency,
    events(flown),
    {
      typeCode: ask.in ?? 'nose',
      class: classOf(a.engines, a.surface),
      tailwheel: a.tailwheel,
      water: a.surface === 'water',
      night: ask.night ?? false,
    },
    ask.on ?? ON,
    { doneOn: ask.done ?? {}, holds: ask.held ?? [] },
  );
  return { ok: r.overall !== 'expired', short: r.rules.filter((x) => x.status === 'expired').map((x) => x.ruleId), r };
}
const ten = '2026-11-10';

type Case = [name: string, flown: Flown[], ask: Asked, short: string[]];
describe('recent experience to carry passengers', () => {
  describe('14 CFR 61.57', () => {
    it.each<Case>([
      ['three touch-and-goes by day in a nosewheel single', [{ on: ten, off: 3, touch: 3 }], {}, []],
      ['two of them are one short', [{ on: ten, off: 2, touch: 2 }], {}, ['us-landings', 'us-takeoffs']],
      ['90 days: flown on 26 August, the last day is 24 November', [{ on: '2026-08-26', off: 3, stops: 3 }], {}, []],
      ['a day later it has ended', [{ on: '2026-08-25', off: 3, stops: 3 }], {}, ['us-landings', 'us-takeoffs']],
      [
        'touch-and-goes at night are no full stops',
        [{ on: ten, off: 3, touch: 3, night: true }],
        { night: true },
        ['us-night'],
      ],
      [
        'three full stops at night, taken off at night',
        [{ on: ten, off: 3, stops: 3, night: true }],
        { night: true },
        [],
      ],
      [
        'taken off by day and landed at night: the landings count at night, the take-offs do not',
        [{ on: ten, off: 3, stops: 3, night: true, offNight: false }],
        { night: true },
        ['us-night-takeoffs'],
      ],
      ['the same by day is recent', [{ on: ten, off: 3, stops: 3, night: true, offNight: false }], {}, []],
      ['a twin is another class', [{ on: ten, in: 'twin', off: 3, stops: 3 }], {}, ['us-landings', 'us-takeoffs']],
      [
        'a single says nothing of the twin',
        [{ on: ten, off: 3, stops: 3 }],
        { in: 'twin' },
        ['us-landings', 'us-takeoffs'],
      ],
      ['tailwheel landings serve the class', [{ on: ten, in: 'tail', off: 3, stops: 3 }], {}, []],
      [
        'in a tailwheel every landing is to a full stop',
        [{ on: ten, in: 'tail', off: 3, touch: 3 }],
        { in: 'tail' },
        ['us-tailwheel'],
      ],
      [
        'take-offs in a tailwheel are asked too',
        [
          { on: ten, off: 3 },
          { on: ten, in: 'tail', stops: 3 },
        ],
        { in: 'tail' },
        ['us-tailwheel-takeoffs'],
      ],
      [
        'full stops in a nosewheel restore no tailwheel',
        [{ on: ten, off: 3, stops: 3 }],
        { in: 'tail' },
        ['us-tailwheel', 'us-tailwheel-takeoffs'],
      ],
      ['on water nobody asks for the tailwheel', [{ on: ten, in: 'floats', off: 3, touch: 3 }], { in: 'floats' }, []],
      [
        'an amphibian flown from land, asked on land',
        [{ on: ten, in: 'boat-land', off: 3, stops: 3 }],
        { in: 'boat-land' },
        [],
      ],
      [
        'the same, asked on water: another class',
        [{ on: ten, in: 'boat-land', off: 3, stops: 3 }],
        { in: 'boat-water' },
        ['us-landings', 'us-takeoffs'],
      ],
      [
        'helped on the controls is not sole manipulator',
        [{ on: ten, off: 3, stops: 3, help: 2 }],
        {},
        ['us-landings', 'us-takeoffs'],
      ],
      ['a word was said: the hands were the pilot’s', [{ on: ten, off: 3, stops: 3, help: 1 }], {}, []],
      ['shown by the instructor', [{ on: ten, off: 3, stops: 3, shown: true }], {}, ['us-landings', 'us-takeoffs']],
      [
        'an instrument rating changes nothing here',
        [{ on: ten, off: 3, stops: 3 }],
        { night: true, held: ['instrument-rating'] },
        ['us-night', 'us-night-takeoffs'],
      ],
    ])('%s', (_, flown, ask, short) => expect(state('us', flown, ask).short).toEqual(short));
    it('of two days, the older third landing ends it: 1 September and 90 days is 30 November', () => {
      const { r } = state('us', [
        { on: '2026-09-01', off: 1, stops: 1 },
        { on: '2026-10-20', off: 2, stops: 2 },
      ]);
      expect(r.rules.map((x) => x.validThrough)).toEqual(['2026-11-30', '2026-11-30']);
    });
  });
  describe('FCL.060', () => {
    it.each<Case>([
      ['three touch-and-goes', [{ on: ten, off: 3, touch: 3 }], {}, []],
      ['in a tailwheel too', [{ on: ten, in: 'tail', off: 3, touch: 3 }], { in: 'tail' }, []],
      [
        'multi-engine flying serves no single-engine class',
        [{ on: ten, in: 'twin', off: 3, stops: 3 }],
        {},
        ['eu-landings', 'eu-takeoffs'],
      ],
      [
        'land and sea are two classes',
        [{ on: ten, in: 'floats', off: 3, stops: 3 }],
        {},
        ['eu-landings', 'eu-takeoffs'],
      ],
      [
        'at night one take-off and landing at night beside the three',
        [
          { on: ten, off: 3, stops: 3 },
          { on: ten, off: 1, stops: 1, night: true },
        ],
        { night: true },
        [],
      ],
      [
        'it may be one of the three',
        [
          { on: ten, off: 2, stops: 2 },
          { on: ten, off: 1, touch: 1, night: true },
        ],
        { night: true },
        [],
      ],
      [
        'taken off by day, landed at night: the take-off is missing',
        [
          { on: ten, off: 3, stops: 3 },
          { on: ten, off: 1, stops: 1, night: true, offNight: false },
        ],
        { night: true },
        ['eu-night-takeoffs'],
      ],
      ['none at night', [{ on: ten, off: 3, stops: 3 }], { night: true }, ['eu-night', 'eu-night-takeoffs']],
      [
        'none at night, with an instrument rating',
        [{ on: ten, off: 3, stops: 3 }],
        { night: true, held: ['instrument-rating'] },
        [],
      ],
      [
        'a night of 91 days ago',
        [
          { on: ten, off: 3, stops: 3 },
          { on: '2026-08-25', off: 1, stops: 1, night: true },
        ],
        { night: true },
        ['eu-night', 'eu-night-takeoffs'],
      ],
    ])('%s', (_, flown, ask, short) => expect(state('eu', flown, ask).short).toEqual(short));
  });
  describe('CASR 61.395', () => {
    it.each<Case>([
      ['a twin serves the single: the category counts', [{ on: ten, in: 'twin', off: 3, stops: 3 }], {}, []],
      ['a single serves the twin', [{ on: ten, off: 3, touch: 3 }], { in: 'twin' }, []],
      ['floats serve wheels', [{ on: ten, in: 'floats', off: 3, stops: 3 }], {}, []],
      ['touch-and-goes at night count', [{ on: ten, off: 3, touch: 3, night: true }], { night: true }, []],
      [
        'two take-offs at night are one short',
        [
          { on: ten, off: 2, touch: 3, night: true },
          { on: ten, off: 1 },
        ],
        { night: true },
        ['au-night-takeoffs'],
      ],
      ['nothing flown, reviewed twenty days ago', [], { done: { 'flight-review': '2026-11-04' } }, []],
      ['reviewed in a twin', [], { done: { 'flight-review-multi': '2026-11-04' } }, []],
      ['reviewed 91 days ago', [], { done: { 'flight-review': '2026-08-25' } }, ['au-landings', 'au-takeoffs']],
      [
        'a review by day is no night',
        [],
        { night: true, done: { 'flight-review': '2026-11-04' } },
        ['au-night', 'au-night-takeoffs'],
      ],
    ])('%s', (_, flown, ask, short) => expect(state('au', flown, ask).short).toEqual(short));
    it('a review of 4 November serves to 2 February, longer than landings of 1 October would', () => {
      const { r } = state('au', [{ on: '2026-10-01', off: 3, stops: 3 }], { done: { 'flight-review': '2026-11-04' } });
      expect(r.rules.map((x) => x.validThrough)).toEqual(['2027-02-02', '2027-02-02']);
    });
  });
  it('night is where it was landed: half an hour after sunset is night to log in Europe and Australia, and to count nowhere in the United States', () => {
    // 52 N 0 E on 21 March: sunset close to 18:14 UTC, civil twilight ends about 34 minutes later.
    const place = { latitudeDeg: 52, longitudeDeg: 0 };
    const at = (hhmm: string, key: PackId) => isNight(`2026-03-21T${hhmm}:00Z`, place, pack[key].night.recency);
    expect(PACKS.map((k) => at('18:35', k))).toEqual([false, false, false]);
    expect(PACKS.map((k) => at('18:56', k))).toEqual([false, true, true]);
    expect(PACKS.map((k) => at('19:20', k))).toEqual([true, true, true]);
  });
});

describe('what is dated', () => {
  const rule = (key: PackId, id: string) => {
    const r = pack[key].dated.find((d) => d.id === id);
    if (!r) throw new Error(id);
    return r;
  };
  const date = (
    key: string,
    doneOn: string | null,
    until: string | null = null,
    before: PersonDate['before'] = [],
  ) => ({
    key,
    title: '',
    doneOn,
    until,
    before,
  });
  const was = (...days: string[]) => days.map((doneOn) => ({ doneOn, until: null }));
  it.each<[name: string, PackId, id: string, PersonDate[], through: string | null]>([
    [
      'US review of 3 November 2024: to the end of the 24th month',
      'us',
      'flight-review',
      [date('flight-review', '2024-11-03')],
      '2026-11-30',
    ],
    [
      'of a leap day: to the end of February',
      'us',
      'flight-review',
      [date('flight-review', '2024-02-29')],
      '2026-02-28',
    ],
    [
      'never carries on from the old end in the United States',
      'us',
      'flight-review',
      [date('flight-review', '2026-11-20', null, was('2024-11-03'))],
      '2028-11-30',
    ],
    ['nothing entered', 'us', 'flight-review', [], null],
    ['a medical is known by its last day only', 'us', 'medical', [date('medical', '2026-01-01')], null],
    ['with its last day', 'us', 'medical', [date('medical', '2026-01-01', '2027-01-31')], '2027-01-31'],
    [
      'EU twin rating to 31 December, checked on 10 October: to the next 31 December',
      'eu',
      'mep-rating',
      [date('mep-rating', '2026-10-10', null, was('2025-12-05'))],
      '2027-12-31',
    ],
    [
      'on the first day of the three months',
      'eu',
      'mep-rating',
      [date('mep-rating', '2026-09-30', null, was('2025-12-05'))],
      '2027-12-31',
    ],
    [
      'a day before them: a year from the check, to the end of that month',
      'eu',
      'mep-rating',
      [date('mep-rating', '2026-09-29', null, was('2025-12-05'))],
      '2027-09-30',
    ],
    [
      'after it had ended: a year from the check',
      'eu',
      'mep-rating',
      [date('mep-rating', '2026-11-05', null, was('2025-10-05'))],
      '2027-11-30',
    ],
    [
      'early twice: each from the end before',
      'eu',
      'mep-rating',
      [date('mep-rating', '2026-11-02', null, was('2024-12-20', '2025-11-02'))],
      '2027-12-31',
    ],
    [
      'the same day entered twice is one check',
      'eu',
      'mep-rating',
      [date('mep-rating', '2026-10-10', null, was('2025-12-05', '2026-10-10'))],
      '2027-12-31',
    ],
    [
      'a day entered wrongly and corrected to an earlier one',
      'eu',
      'mep-rating',
      [date('mep-rating', '2026-10-10', null, was('2025-12-05', '2026-11-10'))],
      '2027-12-31',
    ],
    [
      'counted on from a last day as the office saw it',
      'eu',
      'sep-rating',
      [date('sep-rating', '2027-01-02', null, [{ doneOn: null, until: '2027-03-31' }])],
      '2029-03-31',
    ],
    [
      '24 months from the 31st: the end of that month',
      'eu',
      'sep-rating',
      [date('sep-rating', '2024-08-31')],
      '2026-08-31',
    ],
    [
      'AU: a review in a twin serves the single',
      'au',
      'flight-review',
      [date('flight-review-multi', '2026-05-05')],
      '2028-05-31',
    ],
    [
      'the longer of the two',
      'au',
      'flight-review',
      [date('flight-review-multi', '2025-05-05'), date('flight-review', '2026-02-01')],
      '2028-02-29',
    ],
    ['a review in a single serves no twin', 'au', 'flight-review-multi', [date('flight-review', '2026-05-05')], null],
    [
      'AU: in the last three months from the old end',
      'au',
      'flight-review',
      [date('flight-review', '2026-10-02', null, was('2024-12-10'))],
      '2028-12-31',
    ],
  ])('%s', (_, key, id, dates, through) =>
    expect(datedState(rule(key, id), dates, ON)?.validThrough ?? null).toBe(through),
  );
  it.each<[name: string, PackId, cls: string, PersonDate[], [id: string, status: string][]]>([
    [
      'nothing on record is not known, and stops',
      'us',
      'single-engine-land',
      [],
      [
        ['flight-review', 'missing'],
        ['medical', 'missing'],
      ],
    ],
    [
      'a review of 27 months ago',
      'us',
      'single-engine-land',
      [date('flight-review', '2024-08-20'), date('medical', null, '2027-01-31')],
      [['flight-review', 'expired']],
    ],
    [
      'the last day of a medical holds',
      'us',
      'single-engine-land',
      [date('flight-review', '2026-08-20'), date('medical', null, ON)],
      [],
    ],
    [
      'the rating of another class stops nothing here',
      'eu',
      'single-engine-land',
      [date('sep-rating', '2026-08-20'), date('medical', null, ON)],
      [],
    ],
    [
      'the twin asks for its own',
      'eu',
      'multi-engine-land',
      [date('sep-rating', '2026-08-20'), date('medical', null, ON)],
      [['mep-rating', 'missing']],
    ],
    [
      'and the boat for its own',
      'eu',
      'single-engine-sea',
      [date('sep-rating', '2026-08-20'), date('medical', null, ON)],
      [['sep-sea-rating', 'missing']],
    ],
    [
      'AU: the review of a twin lets the single be flown',
      'au',
      'single-engine-sea',
      [date('flight-review-multi', '2026-08-20'), date('medical', null, ON)],
      [],
    ],
    [
      'AU: not the other way',
      'au',
      'multi-engine-land',
      [date('flight-review', '2026-08-20'), date('medical', null, ON)],
      [['flight-review-multi', 'missing']],
    ],
  ])('acting as pilot in command: %s', (_, key, cls, dates, stops) =>
    expect(actingStops(pack[key].dated, dates, classNames(cls), ON).map((s) => [s.id, s.status])).toEqual(stops),
  );
  it('a twin variant stands to the day two years after it was flown, each alone', () => {
    expect(variantThrough(['2023-02-01', '2024-11-24', '2026-12-01'], 24, ON)).toBe(ON);
    expect(variantThrough(['2024-02-29'], 24, ON)).toBe('2026-02-28');
    expect(variantThrough([], 24, ON)).toBeNull();
    expect(demandsOf(sheetFacts(sheetOf('planalto-p2')), 'eu', 'planalto-p2').endorsements).toEqual([
      'MEP-variant:planalto-p2',
    ]);
  });
  it('hours of training in any 24 h, not in a calendar day', () => {
    const span = (from: string, hours: number) => ({
      from: `2026-11-${from}:00Z`,
      to: new Date(Date.parse(`2026-11-${from}:00Z`) + hours * 3_600_000).toISOString(),
    });
    // 3 h on each of three afternoons and mornings: the second and third stand within 24 hours of the first's start.
    expect(mostIn24h([span('23T15:00', 3), span('24T08:00', 3), span('24T12:00', 3)]) / 60).toBe(9);
    expect(mostIn24h([span('23T08:00', 4), span('24T08:00', 4)]) / 60).toBe(4);
    expect(mostIn24h([span('23T08:00', 4), span('24T06:00', 4)]) / 60).toBe(6);
    expect(mostIn24h([])).toBe(0);
    expect(() => mostIn24h([{ from: 'noon', to: 'one' }])).toThrow(RangeError);
  });
});

const sheetOf = (code: string): TypeSheet => TypeSheet.parse([...types, ...made].find((t) => t.code === code));
const sourceOf = (goal: string) => ProgrammeSource.parse(json(`programmes/${goal}`));
const programmeOf = (goal: string, key: PackId): Programme =>
  (composeProgramme(sourceOf(goal), key) ?? composeProgramme(sourceOf(goal), 'house')) as Programme;

describe('what an aeroplane is asked', () => {
  it.each<[code: string, PackId, demands: string[]]>([
    ['alvor-c4g', 'eu', ['single-engine-land', 'VP', 'EFIS']],
    ['alvor-c4p', 'eu', ['single-engine-land', 'VP', 'T', 'P', 'EFIS', 'SLPC']],
    ['alvor-c4p', 'us', ['single-engine-land', 'pressurised']],
    ['alvor-c4p', 'au', ['single-engine-aeroplane', 'AU-propeller', 'AU-pressurisation']],
    ['serrana-urze-ski', 'au', ['single-engine-aeroplane', 'AU-tailwheel', 'AU-ski']],
    ['bronze-b6', 'eu', ['single-engine-land', 'TW', 'RU', 'VP', 'T']],
    ['alvor-c1-floats', 'us', ['single-engine-sea']],
    ['orla-mare', 'eu', ['multi-engine-land', 'multi-engine-sea', 'MEP-variant:orla-mare']],
  ])('%s under %s', (code, key, demands) => {
    const d = demandsOf(sheetFacts(sheetOf(code)), key, code);
    expect([...(d.classRatings ?? []), ...d.endorsements]).toEqual(demands);
    expect(d.unknown).toEqual([]);
  });
  it('a sheet that does not say leaves it open, and nobody is pilot in command by silence', () => {
    const { features: _, ...bare } = sheetOf('alvor-c1');
    const silent = TypeSheet.parse({ ...bare });
    expect(demandsOf(sheetFacts(silent), 'eu', 'x').unknown).toEqual([
      'turbocharged',
      'pressurised',
      'glass',
      'singleLeverPower',
    ]);
    const held = [{ kind: 'single-engine-land', gainedOn: null, note: '' }];
    expect(openCheckout(sheetFacts(silent), pack.eu, held, {}, 'x').pic).toBe('undetermined');
    expect(openCheckout(sheetFacts(sheetOf('alvor-c1')), pack.eu, held, {}, 'x').pic).toBe('pilot');
  });
  it('who logs what follows what is missing', () => {
    const of = (code: string, key: PackId, ...kinds: string[]) =>
      openCheckout(
        sheetFacts(sheetOf(code)),
        pack[key],
        kinds.map((kind) => ({ kind, gainedOn: null, note: '' })),
        {},
        code,
      );
    expect(of('planalto-p2', 'us', 'single-engine-land').logs).toContain('no pilot-in-command time');
    expect(of('serrana-urze', 'us', 'single-engine-land').logs).toContain('sole manipulator');
    expect(of('planalto-p2', 'eu', 'single-engine-land').picReason).toContain('FCL.700');
    expect(of('serrana-urze', 'eu', 'single-engine-land').picReason).toContain('FCL.710');
    expect(of('alvor-c1', 'eu', 'single-engine-land').picReason).toContain('choose before the flight');
    expect(of('planalto-p2', 'au', 'single-engine-land').picReason).toContain('61.375');
    expect(of('serrana-urze', 'au', 'single-engine-land').picReason).toContain('61.380');
  });
  it('a twin variant comes with the course of a class that is missing, and is differences training where it is held', () => {
    const of = (...kinds: string[]) =>
      openCheckout(
        sheetFacts(sheetOf('planalto-p2')),
        pack.eu,
        kinds.map((kind) => ({ kind, gainedOn: null, note: '' })),
        {},
        'planalto-p2',
      ).proposedGoals;
    expect(of('single-engine-land')).toEqual(['multi-engine']);
    expect(of('single-engine-land', 'multi-engine-land')).toEqual(['variant']);
  });
  it('who has everything but a review may not act, and logs dual in Europe', () => {
    const held = [{ kind: 'single-engine-land', gainedOn: null, note: '' }];
    const o = openCheckout(sheetFacts(sheetOf('alvor-c1')), pack.eu, held, {}, 'x', { dates: [], onDate: ON });
    expect(o.pic).toBe('instructor');
    expect(o.picReason).toContain('Single-engine class rating, land is not on record (FCL.740.A(b))');
    expect(o.logs).toMatch(/^The pilot logs dual/);
  });
  it('items follow what the aeroplane has and what this law asks', () => {
    const asked = (goal: string, key: PackId, code: string) =>
      programmeOn(programmeOf(goal, key), sheetFacts(sheetOf(code))).programme.items.map((i) => i.id);
    // A variable-pitch propeller on fixed gear: nothing of the gear.
    expect(asked('complex', 'eu', 'alvor-c4g')).toEqual(expect.arrayContaining(['V1', 'V2', 'V3', 'V12']));
    for (const gear of ['V4', 'V5', 'V6', 'V7', 'V11']) expect(asked('complex', 'eu', 'alvor-c4g')).not.toContain(gear);
    expect(asked('complex', 'eu', 'planalto-p1r')).toEqual(expect.arrayContaining(['V1', 'V4', 'V7', 'V11']));
    // Straight floats have no wheels to set against the surface; the amphibian has, on land too.
    expect(asked('sea', 'us', 'alvor-c1-floats').filter((i) => ['W2', 'W8', 'W19'].includes(i))).toEqual([]);
    expect(asked('sea', 'au', 'orla-mare')).toEqual(expect.arrayContaining(['W2', 'W8', 'W19']));
    // Wheel landings the maker recommends against are not asked.
    expect(asked('tailwheel', 'us', 'lume-faisca')).not.toContain('F5');
    expect(asked('tailwheel', 'us', 'serrana-urze')).toContain('F5');
    expect(missingNeeds({ needs: ['retractable'] }, { ...sheetFacts(sheetOf('alvor-c1')), retractable: null })).toEqual(
      [],
    );
  });
  it('a seaplane in the United States is complex by flaps and propeller, a fixed-gear land plane is not', () => {
    const complex = programmeOf('complex', 'us');
    const floats = { ...sheetFacts(floatplane), constantSpeedProp: true };
    expect(offeredFor(complex, floats)).toBe(true);
    expect(programmeOn(complex, floats).programme.items.map((i) => i.id)).not.toContain('V7');
    expect(offeredFor(complex, sheetFacts(sheetOf('alvor-c4g')))).toBe(false);
    expect(offeredFor(programmeOf('ski', 'au'), sheetFacts(skiplane))).toBe(true);
    expect(offeredFor(programmeOf('pressurised', 'us'), sheetFacts(pressurised))).toBe(true);
  });
});

describe('what the law asks is overridden by nobody', () => {
  const facts = {
    authorised: true,
    ownCheckout: false,
    lastFlownTogether: ON,
    onDate: ON,
    withinDays: 30,
    certificateUntil: ON,
    signerLacks: [],
    ratings: [],
    modelHours: null,
    notRecent: [],
    openLimits: [],
    stops: [],
    prerequisites: [],
    reviewWithout: [],
    sheetOpen: [],
  } satisfies Omit<SigningFacts, 'overrides'>;
  it.each(PACKS)('in no programme of %s', (key) => {
    let legal = 0;
    for (const goal of GOALS) {
      const programme = programmeOf(goal, key);
      const items = assessProgramme(programme, { landings: [], observations: [], waivers: [], group: 'g', onDate: ON });
      // Every override there is, said yes to by a chief.
      const overrides = programme.items.map((i) => ({ itemId: i.id, reason: 'r', approved: true }));
      const stops = signingProblems(
        items.map((i) => ({ ...i, seen: true })),
        { landings: [], observations: [], waivers: [], group: 'g', onDate: ON },
        { ...facts, overrides },
      );
      const asked = programme.items.filter((i) => i.legal).map((i) => i.id);
      legal += asked.length;
      expect(stops.filter((s) => s.itemId !== undefined).map((s) => s.itemId)).toEqual(asked);
    }
    // Australia names units of competency, and no content of the law's own here.
    expect(legal > 0).toBe(key !== 'au');
  });
});

describe('standards', () => {
  const keys = ['private-us', 'commercial-us', 'eu-private', 'eu-class', 'house-fine', 'au'] as const;
  const of = (key: (typeof keys)[number]) => Standard.parse(json(`standards/${key}`));
  const limit = (key: (typeof keys)[number], kind: string, quantity: string, item: string | null = null) => {
    const row = of(key).airwork.find((a) => a.kind === kind) ?? null;
    const l = limitsFor(row, item).filter((x) => x.quantity === quantity);
    expect(l).toHaveLength(1);
    return [l[0]?.low, l[0]?.high];
  };
  it('the low side of slow flight is nothing: a stall warning is no tolerance', () =>
    expect(keys.map((k) => limit(k, 'slow-flight', 'speed')[0])).toEqual(keys.map(() => 0)));
  it('one engine out is ten degrees; twenty belongs to the loss-of-control demonstration', () => {
    expect(limit('private-us', 'asymmetric', 'heading', 'failure-in-the-climb')).toEqual([-10, 10]);
    expect(limit('private-us', 'asymmetric', 'heading', 'control-speed')).toEqual([-20, 20]);
    expect(limit('eu-private', 'asymmetric', 'heading')).toEqual([-15, 15]);
    expect(limit('eu-private', 'asymmetric', 'height')).toEqual([-200, 200]);
    expect(limit('eu-class', 'asymmetric', 'speed')).toEqual([-5, 10]);
  });
  it('a turning stall is flown about twenty degrees', () => {
    const row = of('private-us').airwork.find((a) => a.kind === 'stall') ?? null;
    expect(limitsFor(row, 'turning').find((l) => l.quantity === 'bank')).toMatchObject({
      low: -10,
      high: 10,
      about: 20,
    });
    expect(limitsFor(row, 'clean').find((l) => l.quantity === 'bank')?.about).toBeUndefined();
    expect(limit('commercial-us', 'stall', 'bank', 'clean')).toEqual([-5, 5]);
  });
  it('an emergency descent is banked 30 to 45 degrees, never faster than its speed', () => {
    for (const k of keys) {
      expect(of(k).airwork.find((a) => a.kind === 'emergency-descent')?.set.bank).toBe(30);
      expect([limit(k, 'emergency-descent', 'bank'), limit(k, 'emergency-descent', 'speed')]).toEqual([
        [0, 15],
        [-10, 0],
      ]);
    }
  });
  it('a short field is judged by its own box, in metres rounded down from 200 and 100 ft', () => {
    const nose = sheetOf('planalto-p1r');
    const along = (key: (typeof keys)[number], goals: Goal[]) =>
      standardOn(of(key), nose, goals).criteria.find((c) => c.id === 'along')?.measured;
    expect(along('private-us', ['short-field'])).toEqual({ low: 0, high: 60 });
    expect(along('commercial-us', ['short-field'])).toEqual({ low: 0, high: 30 });
    expect(along('house-fine', ['short-field'])).toEqual({ low: 0, high: 25 });
    expect(along('private-us', ['complex'])).toEqual({ low: 0, high: 122 });
    expect(standardOn(of('private-us'), nose, ['short-field']).boxM).toEqual({ before: 0, past: 60 });
  });
  it('tailwheel and light types are tighter, never wider', () => {
    const urze = sheetOf('serrana-urze');
    const half = urze.gear.trackM.value / 2;
    const measured = (key: (typeof keys)[number], id: string) =>
      standardOn(of(key), urze, ['tailwheel']).criteria.find((c) => c.id === id)?.measured;
    expect([measured('private-us', 'crab'), measured('private-us', 'swing')]).toEqual([
      { low: -3, high: 3 },
      { low: -5, high: 5 },
    ]);
    expect(measured('private-us', 'lateral')).toEqual({ low: -half, high: half });
    expect(measured('house-fine', 'crab')).toEqual({ low: -2, high: 2 });
    const heavy = sheetOf('planalto-p2');
    expect(standardOn(of('private-us'), heavy, ['multi-engine'])).toEqual(of('private-us'));
  });
  it('every row cites its source or says school', () => {
    for (const k of keys)
      for (const c of [...of(k).criteria, ...of(k).airwork.flatMap((a) => a.limits)])
        expect(c.citation).toMatch(/School|US (private|commercial)|FCL|Part-FCL|CASR/);
  });
  it('the one proposed follows the certificate held and who decides', () => {
    const us = pack.us.standardFor;
    expect(standardProposed(us, 'commercial pilot ZP-CP 7', false)).toBe('commercial-us');
    expect(standardProposed(us, 'private pilot ZP-PP 1180', true)).toBe('private-us');
    expect(standardProposed(pack.eu.standardFor, 'PPL(A) 12', true)).toBe('eu-class');
    expect(standardProposed(pack.eu.standardFor, '', false)).toBe('eu-private');
    expect(standardProposed(pack.au.standardFor, 'CPL 4', false)).toBe('au');
    expect(standardProposed(undefined, 'CPL 4', false)).toBeUndefined();
  });
});

describe('content', () => {
  const run = (...args: string[]) =>
    spawnSync('npx', ['tsx', 'scripts/content.ts', ...args], { encoding: 'utf8', timeout: 120_000 });
  it('has nothing that could never be met, and nothing without a citation', () => {
    const answer = run();
    expect(answer.stdout.split('\n').filter((l) => l.startsWith('cannot'))).toEqual([]);
    expect(answer.stdout).toMatch(/, 0 findings\n$/);
    expect(answer.status).toBe(0);
  }, 120_000);
  it('fails on a planted item', () => {
    const folder = mkdtempSync(path.join(tmpdir(), 'jeito-content-'));
    const file = path.join(folder, 'planted.json');
    const source = sourceOf('high-performance');
    const planted = {
      ...source,
      items: [
        ...source.items,
        {
          ...source.items[4],
          id: 'X1',
          prerequisites: ['X1'],
          evidence: { ...(source.items[4]?.evidence ?? {}), attitude: 'three-point', windKt: 40 },
        },
      ],
    };
    writeFileSync(file, JSON.stringify(planted));
    const patterns = path.join(folder, 'findings.json');
    writeFileSync(patterns, readFileSync('content/findings.json', 'utf8').replace('n.ballooned', 'n.balooned'));
    const answer = run('--also', file, '--findings', patterns);
    rmSync(folder, { recursive: true });
    expect(answer.status).toBe(1);
    expect(answer.stdout).toMatch(/circle +high-performance-us X1: waits for itself/);
    expect(answer.stdout).toMatch(/no-such-fact +findings high-round-out: reads n\.balooned/);
    expect(answer.stdout).toMatch(/cannot-be-met +high-performance-us X1 in orla-mare: needs a three-point landing/);
    expect(answer.stdout).toMatch(/X1 in serrana-carvalho: needs a crosswind of 40 kt/);
  }, 120_000);
  it('finds what is planted, one by one', () => {
    const base = programmeOf('short-field', 'us');
    const first = base.items[0];
    if (!first) throw new Error('empty');
    const codes = (over: Partial<typeof first>) =>
      programmeFindings({ ...base, items: [{ ...first, ...over }, ...base.items.slice(1)] }).map((f) => f.code);
    expect(codes({})).toEqual([]);
    expect(codes({ citation: ' ' })).toEqual(['no-citation']);
    expect(codes({ text: '' })).toEqual(['no-text']);
    expect(codes({ prerequisites: ['Q'] })).toEqual(['no-prerequisite']);
    expect(codes({ legal: true, waivable: 'When the school is in a hurry.' })).toEqual(['legal-and-free']);
    expect(packFindings({ ...pack.us, endorsementGoals: { tailwheel: 'nothing' } }, [])[0]?.code).toBe('goal-missing');
    const met = (over: Partial<typeof first>, code: string) =>
      goalOnType({ ...base, items: [{ ...first, ...over }] }, sheetOf(code), { light: 12 }).findings.map((f) =>
        f.code === 'cannot-be-met' ? f.params.why.code : f.code,
      );
    expect(met({ evidence: { kind: 'gear-checks', needed: 2, surface: 'water' } }, 'alvor-c1-floats')).toEqual([
      'gear-checks',
    ]);
    expect(
      met(
        {
          forms: ['asymmetric'],
          evidence: {
            kind: 'observed',
            needed: 1,
            maxIntervention: 0,
            withinDays: null,
            minDays: 1,
            variants: ['control-speed'],
          },
        },
        'alvor-c1',
      ),
    ).toEqual(['second-engine']);
  });
});
