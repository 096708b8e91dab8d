import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  type EvidenceRecord,
  type ItemState,
  type JudgedLanding,
  type Observation,
  type RecordedLanding,
  assessProgramme,
  carryOffers,
  type Missing,
  asksWords,
  fillTemplate,
  openWords,
  itemRecordWords,
  missingWords,
  recordsOf,
  signingProblems,
  type SigningFacts,
} from '@/core/assess';
import { composeProgramme } from '@/core/plan';
import type { AirworkDetail } from '@/domain/capture';
import { type Programme, ProgrammeSource, RulePack } from '@/domain/programme';
import { GOALS, PACKS } from '@/domain/words';

const read = (name: string): unknown => JSON.parse(readFileSync(`content/${name}.json`, 'utf8'));
const programmeOf = (goal: string, pack: 'us' | 'eu' | 'au' | 'house'): Programme =>
  composeProgramme(ProgrammeSource.parse(read(`programmes/${goal}`)), pack) ??
  (composeProgramme(ProgrammeSource.parse(read(`programmes/${goal}`)), 'house') as Programme);

let serial = 0;
type More = Partial<RecordedLanding> & { class?: JudgedLanding['landingClass'] };
/** A landing of lesson `n`, flown on day `n` of November, own unless said otherwise. */
const land = (lesson: number, { class: landingClass = 'own', ...more }: More = {}): RecordedLanding => ({
  id: `l${++serial}`,
  number: serial,
  sortieId: `s${lesson}`,
  lesson,
  date: `2026-11-${String(lesson).padStart(2, '0')}`,
  firstOfSortie: false,
  group: 'g',
  kind: 'full-stop',
  intended: 'three-point',
  crosswindKt: 8,
  surface: 'land',
  ...more,
  judged: {
    landingClass,
    criteria: [],
    controlOutside: [],
    precisionOutside: [],
    missingRequired: [],
    triggerContinued: false,
    goAround: null,
    reason: { code: 'own' },
  },
});
const first = (lesson: number, more: More = {}) => land(lesson, { firstOfSortie: true, ...more });
const go = (lesson: number, sound: boolean, good: boolean, more: More = {}): RecordedLanding => {
  const l = land(lesson, { kind: 'go-around', class: 'go-around', ...more });
  return {
    ...l,
    judged: {
      ...l.judged,
      goAround: {
        word: sound ? 'at' : 'told-for-safety',
        decision: sound ? 'sound' : 'told',
        execution: good ? 'good' : 'not-judged',
        decisionEvidence: sound,
        executionEvidence: good,
        breaksRun: false,
      },
    },
  };
};
const saw = (itemId: string, lesson: number, more: Partial<Observation['data']> = {}): Observation => ({
  id: `o${++serial}`,
  at: `2026-11-${String(lesson).padStart(2, '0')}T10:${String(serial % 60).padStart(2, '0')}:00Z`,
  date: `2026-11-${String(lesson).padStart(2, '0')}`,
  lesson,
  data: { itemId, verdict: 'within', intervention: 0, note: '', detail: null, pilotId: null, ...more },
});
const stall = (kind: 'clean' | 'landing'): AirworkDetail => ({
  form: 'stall',
  stall: kind,
  lookOut: true,
  cue: 'horn',
  cueSpeed: null,
  recovery: 'unloaded-first',
  heightLostFt: null,
  seen: {},
});
const oneEngine = (item: 'control-speed' | 'failure-in-the-climb' | 'one-engine-circuit'): AirworkDetail => ({
  form: 'asymmetric',
  item,
  heightFt: 4000,
  saidSimulated: true,
  firstCue: null,
  recovery: null,
  set: {},
  seen: {},
});
const many = <T>(n: number, f: (i: number) => T): T[] => Array.from({ length: n }, (_, i) => f(i));
const check = (lesson: number, surface: 'water' | 'land', decision: 'agree' | 'stop' = 'agree', onFinal = true) => ({
  id: `g${++serial}`,
  lesson,
  date: `2026-11-${String(lesson).padStart(2, '0')}`,
  check: { decision, onFinal, surface },
});
const rec = (more: Partial<EvidenceRecord>): EvidenceRecord => ({
  landings: [],
  observations: [],
  waivers: [],
  group: 'g',
  onDate: '2026-11-24',
  ...more,
});

type Case = [
  what: string,
  goal: string,
  pack: 'us' | 'eu' | 'au' | 'house',
  item: string,
  record: Partial<EvidenceRecord>,
  state: ItemState,
  missing?: [code: Missing['code'], params?: object],
];
const CASES: Case[] = [
  // Tailwheel, United States: a run of five three-point landings over two flights and days, one the first of a flight
  ['nothing flown', 'tailwheel', 'us', 'F4', {}, 'not', ['more-in-a-row', { count: 5, attitude: 'three-point' }]],
  [
    'five own over two days, the first of a flight among them',
    'tailwheel',
    'us',
    'F4',
    { landings: [first(1), land(1), land(2), land(2), land(2)] },
    'met',
  ],
  [
    'five own on one day',
    'tailwheel',
    'us',
    'F4',
    { landings: [first(1), ...many(4, () => land(1))] },
    'nearly',
    ['more-days', { atLeast: 2 }],
  ],
  [
    'five own, never the first of a flight',
    'tailwheel',
    'us',
    'F4',
    { landings: [land(1), land(1), land(2), land(2), land(2)] },
    'nearly',
    ['first-of-flight'],
  ],
  [
    'four own after a helped one',
    'tailwheel',
    'us',
    'F4',
    { landings: [first(1), land(1), land(1, { class: 'assisted' }), first(2), land(2), land(2), land(2)] },
    'nearly',
    ['more-in-a-row', { count: 1 }],
  ],
  [
    'a prompted landing ends the run',
    'tailwheel',
    'us',
    'F4',
    { landings: [first(1), land(1), land(1), land(2), land(2, { class: 'prompted' })] },
    'not',
    ['more-in-a-row', { count: 5 }],
  ],
  [
    'a demonstration passes over it',
    'tailwheel',
    'us',
    'F4',
    { landings: [first(1), land(1), land(1, { class: 'demonstration' }), land(2), land(2), land(2)] },
    'met',
  ],
  [
    'go-arounds pass over it',
    'tailwheel',
    'us',
    'F4',
    { landings: [first(1), land(1), go(1, true, true), land(2), land(2), land(2)] },
    'met',
  ],
  [
    'off target still counts for the attitude',
    'tailwheel',
    'us',
    'F4',
    { landings: [first(1), land(1, { class: 'own-off-target' }), land(2), land(2), land(2)] },
    'met',
  ],
  [
    'another gear and mass proves nothing here',
    'tailwheel',
    'us',
    'F4',
    { landings: many(6, (i) => land(1 + (i % 2), { group: 'heavy-nosewheel', firstOfSortie: i === 0 })) },
    'not',
  ],
  [
    'landings after the day it is weighed for',
    'tailwheel',
    'us',
    'F4',
    { onDate: '2026-11-01', landings: [first(1), land(1), land(2), land(2), land(2)] },
    'not',
    ['more-in-a-row', { count: 3 }],
  ],
  [
    'wheel landings are counted apart',
    'tailwheel',
    'us',
    'F5',
    { landings: [first(1), land(1), land(2), land(2)] },
    'not',
    ['more-in-a-row', { count: 3, attitude: 'mains-first' }],
  ],
  [
    'three wheel landings over two days',
    'tailwheel',
    'us',
    'F5',
    {
      landings: [
        first(1, { intended: 'mains-first' }),
        land(2, { intended: 'mains-first' }),
        land(2, { intended: 'mains-first' }),
      ],
    },
    'met',
  ],
  [
    'wheel landings waived by the handbook',
    'tailwheel',
    'us',
    'F5',
    { waivers: [{ itemId: 'F5', reason: 'Handbook 4.5 advises against' }] },
    'waived',
  ],
  [
    'go-arounds cannot be waived',
    'tailwheel',
    'us',
    'F8',
    { waivers: [{ itemId: 'F8', reason: 'there was no time' }] },
    'not',
  ],
  [
    'three landings in seven knots across, either side',
    'tailwheel',
    'us',
    'F7',
    { landings: [land(1, { crosswindKt: 7 }), land(1, { crosswindKt: -7 }), land(2, { crosswindKt: 6 })] },
    'met',
  ],
  [
    'in five and nine tenths',
    'tailwheel',
    'us',
    'F7',
    { landings: many(3, () => land(1, { crosswindKt: 5.9 })) },
    'not',
    ['more-landings', { count: 3, asked: { windKt: 6 } }],
  ],
  ['wind not logged', 'tailwheel', 'us', 'F7', { landings: many(3, () => land(1, { crosswindKt: null })) }, 'not'],
  [
    'two of three in the wind',
    'tailwheel',
    'us',
    'F7',
    { landings: [land(1), land(1)] },
    'nearly',
    ['more-landings', { count: 1 }],
  ],
  [
    'roll-out in wind wants full stops',
    'tailwheel',
    'us',
    'F12',
    { landings: many(3, () => land(1, { kind: 'touch-and-go' })) },
    'not',
    ['more-landings', { count: 2, asked: { fullStop: true } }],
  ],
  ['two full stops in wind', 'tailwheel', 'us', 'F12', { landings: [land(1), land(1)] }, 'met'],
  [
    'well flown, never decided',
    'tailwheel',
    'us',
    'F8',
    { landings: many(3, () => go(1, false, true)) },
    'nearly',
    ['more-decided', { count: 1 }],
  ],
  [
    'decided once, flown well twice',
    'tailwheel',
    'us',
    'F8',
    { landings: [go(1, true, true), go(1, false, true)] },
    'nearly',
    ['more-flown-well', { count: 1 }],
  ],
  [
    'decided once, flown well three times',
    'tailwheel',
    'us',
    'F8',
    {
      landings: [
        go(1, true, true, { goAroundFrom: 'approach' }),
        go(1, false, true, { goAroundFrom: 'flare' }),
        go(2, false, true, { goAroundFrom: 'bounce' }),
      ],
    },
    'met',
  ],
  [
    'taxi seen once of twice',
    'tailwheel',
    'us',
    'F1',
    { observations: [saw('F1', 1)] },
    'nearly',
    ['more-times', { count: 1, maxIntervention: 0 }],
  ],
  [
    'taxi with a word does not count',
    'tailwheel',
    'us',
    'F1',
    { observations: [saw('F1', 1, { intervention: 1 }), saw('F1', 1, { intervention: 1 })] },
    'not',
    ['more-times', { count: 2 }],
  ],
  [
    'ground briefed with a word counts',
    'tailwheel',
    'us',
    'G1',
    { observations: [saw('G1', 1, { intervention: 1 })] },
    'met',
  ],
  [
    'ground briefed with help does not',
    'tailwheel',
    'us',
    'G1',
    { observations: [saw('G1', 1, { intervention: 2 })] },
    'not',
  ],
  [
    'outside the last time',
    'tailwheel',
    'us',
    'F9',
    { observations: [saw('F9', 1), saw('F9', 2, { verdict: 'outside' })] },
    'nearly',
    ['last-outside'],
  ],
  [
    'outside, then within',
    'tailwheel',
    'us',
    'F9',
    { observations: [saw('F9', 1, { verdict: 'outside' }), saw('F9', 2)] },
    'met',
  ],
  ['at the edge is within', 'tailwheel', 'us', 'F9', { observations: [saw('F9', 1, { verdict: 'edge' })] }, 'met'],
  ['a house item stands on top of the pack', 'tailwheel', 'us', 'F10', {}, 'not'],
  ['an item waits for the one before it', 'tailwheel', 'us', 'F2', {}, 'not', ['first-items', { ids: ['F1'] }]],
  // The same in Europe and Australia: counts are the house's, the law another
  ['Europe, five own', 'tailwheel', 'eu', 'F4', { landings: [first(1), land(1), land(2), land(2), land(2)] }, 'met'],
  ['Australia, five own', 'tailwheel', 'au', 'F4', { landings: [first(1), land(1), land(2), land(2), land(2)] }, 'met'],
  ['Australia, slips are the house\u2019s', 'tailwheel', 'au', 'F10', { observations: [saw('F10', 3)] }, 'met'],
  // Part sign-offs
  [
    'signed in part, still holding',
    'tailwheel',
    'us',
    'F9',
    { parts: [{ itemId: 'F9', entryId: 'e1', by: 'H', on: '2026-11-01', lapsesOn: '2026-11-24' }] },
    'met',
  ],
  [
    'carried from another checkout, still holding',
    'tailwheel',
    'us',
    'F9',
    { parts: [{ itemId: 'F9', entryId: 'c1', by: 'H', on: '2026-11-01', lapsesOn: '2026-11-24', from: 'ZP-URV' }] },
    'met',
  ],
  [
    'carried from another checkout, lapsed yesterday',
    'tailwheel',
    'us',
    'F9',
    { parts: [{ itemId: 'F9', entryId: 'c1', by: 'H', on: '2026-09-24', lapsesOn: '2026-11-23', from: 'ZP-URV' }] },
    'not',
    ['carried-lapsed', { lapsesOn: '2026-11-23' }],
  ],
  [
    'signed in part, lapsed yesterday',
    'tailwheel',
    'us',
    'F9',
    { parts: [{ itemId: 'F9', entryId: 'e1', by: 'H', on: '2026-09-24', lapsesOn: '2026-11-23' }] },
    'not',
    ['part-lapsed', { lapsesOn: '2026-11-23' }],
  ],
  // Complex
  [
    'propeller credited by the European variant',
    'complex',
    'us',
    'V1',
    { experience: { held: ['VP'], groupHours: 0 } },
    'credited',
  ],
  [
    'propeller not credited by a tailwheel',
    'complex',
    'us',
    'V1',
    { experience: { held: ['tailwheel'], groupHours: 900 } },
    'not',
  ],
  [
    'never gear up, four times on one day',
    'complex',
    'us',
    'V7',
    { observations: many(4, () => saw('V7', 1)) },
    'nearly',
    ['more-days', { atLeast: 2 }],
  ],
  [
    'never gear up, four times on two days',
    'complex',
    'us',
    'V7',
    { observations: [saw('V7', 1), saw('V7', 1), saw('V7', 2), saw('V7', 2)] },
    'met',
  ],
  [
    'manual extension forbidden by the manual',
    'complex',
    'us',
    'V6',
    { waivers: [{ itemId: 'V6', reason: 'Flight manual 3.14 forbids it in training' }] },
    'waived',
  ],
  ['retraction asked in Australia too', 'complex', 'au', 'V5', { observations: many(3, () => saw('V5', 1)) }, 'met'],
  // High performance
  [
    'run of three, any attitude',
    'high-performance',
    'us',
    'P5',
    { landings: [first(1, { intended: 'three-point' }), land(2, { intended: 'mains-first' }), land(2)] },
    'met',
  ],
  [
    'in Europe it is the house\u2019s programme',
    'high-performance',
    'eu',
    'P2',
    { observations: [saw('P2', 1), saw('P2', 1)] },
    'met',
  ],
  // Multi-engine
  [
    'one stall of two kinds',
    'multi-engine',
    'us',
    'M5',
    { observations: [saw('M5', 1, { detail: stall('clean') })] },
    'nearly',
    ['variants', { variants: ['landing'] }],
  ],
  [
    'clean twice is not both',
    'multi-engine',
    'us',
    'M5',
    { observations: [saw('M5', 1, { detail: stall('clean') }), saw('M5', 1, { detail: stall('clean') })] },
    'nearly',
    ['variants', { variants: ['landing'] }],
  ],
  [
    'both kinds',
    'multi-engine',
    'us',
    'M5',
    { observations: [saw('M5', 1, { detail: stall('clean') }), saw('M5', 1, { detail: stall('landing') })] },
    'met',
  ],
  [
    'another failure does not show the climb',
    'multi-engine',
    'us',
    'M9',
    {
      observations: [
        saw('M9', 1, { detail: oneEngine('one-engine-circuit') }),
        saw('M9', 1, { detail: oneEngine('one-engine-circuit') }),
      ],
    },
    'nearly',
    ['variants', { variants: ['failure-in-the-climb'] }],
  ],
  [
    'failure in the climb twice',
    'multi-engine',
    'us',
    'M9',
    { observations: many(2, () => saw('M9', 1, { detail: oneEngine('failure-in-the-climb') })) },
    'met',
  ],
  [
    'loss-of-control speed waived with the sheet\u2019s figure',
    'multi-engine',
    'us',
    'M7',
    { waivers: [{ itemId: 'M7', reason: 'Sheet: no band below 6000 ft; blocked rudder shown' }] },
    'waived',
  ],
  [
    'Europe: six and a half of seven hours',
    'multi-engine',
    'eu',
    'MT',
    { observations: [saw('MT', 1, { minutes: 240 }), saw('MT', 2, { minutes: 150 })] },
    'nearly',
    ['more-hours', { minutes: 30 }],
  ],
  [
    'Europe: seven hours',
    'multi-engine',
    'eu',
    'MT',
    { observations: [saw('MT', 1, { minutes: 240 }), saw('MT', 2, { minutes: 180 })] },
    'met',
  ],
  [
    'Europe: asymmetric, just short',
    'multi-engine',
    'eu',
    'MA',
    { observations: [saw('MA', 1, { minutes: 209 })] },
    'nearly',
    ['more-hours', { minutes: 1 }],
  ],
  [
    'Europe: asymmetric, three and a half',
    'multi-engine',
    'eu',
    'MA',
    { observations: [saw('MA', 1, { minutes: 210 })] },
    'met',
  ],
  [
    'flight time does not make theory',
    'multi-engine',
    'eu',
    'MT',
    { flights: [{ id: 'f', lesson: 1, date: '2026-11-01', minutes: 600 }] },
    'not',
  ],
  // Sea
  [
    'five water landings over two days',
    'sea',
    'us',
    'W7',
    {
      landings: [
        first(1, { surface: 'water', intended: null }),
        land(1, { surface: 'water', intended: null }),
        ...many(3, () => land(2, { surface: 'water', intended: null })),
      ],
    },
    'met',
  ],
  [
    'land does not count on water',
    'sea',
    'us',
    'W7',
    { landings: [first(1), land(1), land(2), land(2), land(2)] },
    'not',
    ['more-in-a-row', { surface: 'water' }],
  ],
  [
    'a helped landing on land does not end a run on water',
    'sea',
    'us',
    'W7',
    {
      landings: [
        first(1, { surface: 'water' }),
        land(1, { surface: 'water' }),
        land(1, { class: 'assisted' }),
        ...many(3, () => land(2, { surface: 'water' })),
      ],
    },
    'met',
  ],
  ['six checks agreed on final', 'sea', 'us', 'W8', { gearChecks: many(6, () => check(1, 'water')) }, 'met'],
  [
    'five agreed, one stopped',
    'sea',
    'us',
    'W8',
    { gearChecks: [...many(5, () => check(1, 'water')), check(1, 'water', 'stop')] },
    'nearly',
    ['more-gear-checks', { count: 1 }],
  ],
  [
    'agreed downwind is not on final',
    'sea',
    'us',
    'W8',
    { gearChecks: many(6, () => check(1, 'water', 'agree', false)) },
    'not',
  ],
  [
    'checks for the runway are not for the lane',
    'sea',
    'us',
    'W8',
    { gearChecks: many(6, () => check(1, 'land')) },
    'not',
  ],
  [
    'go-around from the water approach',
    'sea',
    'us',
    'W12',
    { landings: [go(1, true, true, { surface: 'water' }), go(2, false, true, { surface: 'water' })] },
    'met',
  ],
  ['go-around over the runway', 'sea', 'us', 'W12', { landings: [go(1, true, true), go(2, false, true)] }, 'not'],
  [
    'rough water not to be had this season',
    'sea',
    'us',
    'W10',
    { waivers: [{ itemId: 'W10', reason: 'No swell within the limit; in March' }] },
    'waived',
  ],
  [
    'Europe: eight hours by the clock',
    'sea',
    'eu',
    'WH',
    { flights: many(8, (i) => ({ id: `f${i}`, lesson: i + 1, date: '2026-11-10', minutes: 60 })) },
    'met',
  ],
  [
    'Europe: a clock that was not tapped counts nothing',
    'sea',
    'eu',
    'WH',
    {
      flights: [
        ...many(7, (i) => ({ id: `f${i}`, lesson: i + 1, date: '2026-11-10', minutes: 60 })),
        { id: 'x', lesson: 8, date: '2026-11-11', minutes: null },
      ],
    },
    'nearly',
    ['more-hours', { minutes: 60, of: 'flights' }],
  ],
  [
    'Australia: floating hull, take-offs on two days',
    'sea',
    'au',
    'W5',
    { observations: [saw('W5', 1), saw('W5', 1), saw('W5', 2)] },
    'met',
  ],
  // New type
  [
    'the brief acknowledged',
    'new-type',
    'eu',
    'N1',
    { briefs: [{ id: 'b', lesson: 1, date: '2026-11-01', acknowledged: true }] },
    'met',
  ],
  [
    'the brief only saved',
    'new-type',
    'us',
    'N1',
    { briefs: [{ id: 'b', lesson: 1, date: '2026-11-01', acknowledged: false }] },
    'not',
    ['more-briefs', { count: 1 }],
  ],
  [
    'fifty hours in this gear and mass',
    'new-type',
    'us',
    'N6',
    { experience: { held: [], groupHours: 50 } },
    'credited',
  ],
  ['forty-nine', 'new-type', 'au', 'N6', { experience: { held: [], groupHours: 49 } }, 'not'],
  [
    'evidence beats credit',
    'new-type',
    'us',
    'N6',
    { experience: { held: [], groupHours: 50 }, landings: [first(1), land(1), land(1)] },
    'met',
  ],
  // Interval check: only what is thirty days old or younger
  [
    'systems order thirty days ago',
    'interval-check',
    'us',
    'I2',
    { observations: [{ ...saw('I2', 1), date: '2026-10-25' }] },
    'met',
  ],
  [
    'systems order thirty-one days ago',
    'interval-check',
    'us',
    'I2',
    { observations: [{ ...saw('I2', 1), date: '2026-10-24' }] },
    'not',
    ['more-times', { withinDays: 30 }],
  ],
  ['on target, twice', 'interval-check', 'eu', 'I5', { landings: [land(1), land(2)] }, 'met'],
  [
    'off target does not count here',
    'interval-check',
    'eu',
    'I5',
    { landings: [land(1), land(2, { class: 'own-off-target' })] },
    'nearly',
    ['more-landings', { asked: { accuracy: true } }],
  ],
  ['a full stop long ago', 'interval-check', 'us', 'I6', { landings: [land(1, { date: '2026-09-01' })] }, 'not'],
  // Aerobatic landings only, very powerful, short field
  [
    'two decided go-arounds',
    'aerobatic-landing',
    'us',
    'A5',
    { landings: [go(1, true, true), go(2, true, true)] },
    'met',
  ],
  [
    'one decided',
    'aerobatic-landing',
    'us',
    'A5',
    { landings: [go(1, true, true), go(2, false, true)] },
    'nearly',
    ['more-decided', { count: 1 }],
  ],
  [
    'two long briefs acknowledged',
    'powerful-type',
    'us',
    'B1',
    { briefs: many(2, (i) => ({ id: `b${i}`, lesson: i + 1, date: '2026-11-02', acknowledged: true })) },
    'met',
  ],
  [
    'short field wants them on target',
    'short-field',
    'us',
    'K4',
    { landings: [first(1), land(1), land(2, { class: 'own-off-target' }), land(2)] },
    'not',
    ['more-in-a-row', { count: 3 }],
  ],
  ['four on target', 'short-field', 'us', 'K4', { landings: [first(1), land(1), land(2), land(2)] }, 'met'],
];

describe('evidence, case by case', () => {
  it.each(CASES)('%s (%s, %s, %s)', (_, goal, pack, id, record, state, missing) => {
    const found = assessProgramme(programmeOf(goal, pack), rec(record)).find((i) => i.item.id === id);
    expect(found, `${goal}-${pack} has ${id}`).toBeDefined();
    expect({ state: found?.state, missing: found?.missing }).toMatchObject({ state });
    expect(found?.met).toBe(state === 'met' || state === 'waived' || state === 'credited');
    if (missing) {
      const [code, params] = missing;
      const one = found?.missing.find((x) => x.code === code);
      expect(one, JSON.stringify(found?.missing)).toBeDefined();
      if (params) expect(one?.params).toMatchObject(params);
    }
    if (found?.met) expect(found.missing).toEqual([]);
    else expect(found?.missing.length).toBeGreaterThan(0);
  });
  it('there are at least sixty', () => expect(CASES.length).toBeGreaterThanOrEqual(60));
  it('an item names exactly what it rests on', () => {
    const landings = [
      land(1, { crosswindKt: 9 }),
      land(1, { crosswindKt: 2 }),
      land(2, { crosswindKt: -6 }),
      land(2, { crosswindKt: 12, class: 'outside' }),
    ];
    const f7 = assessProgramme(programmeOf('tailwheel', 'us'), rec({ landings })).find((i) => i.item.id === 'F7');
    expect(f7?.evidence).toEqual([landings[0]?.id, landings[2]?.id]);
    if (f7)
      expect(recordsOf(f7, rec({ landings })).map((r) => [r.id, r.supports])).toEqual(
        landings.map((l, i) => [l.id, i === 0 || i === 2]),
      );
  });
});

describe('what a rule asks, and what stands behind a cell', () => {
  const ruleOf = (goal: string, pack: 'us' | 'eu', id: string) => {
    const found = programmeOf(goal, pack).items.find((i) => i.id === id);
    if (!found) throw new Error(id);
    return found;
  };
  it.each([
    [
      'tailwheel',
      'us',
      'F4',
      '5 unassisted three-point landings in a row, over 2 flights and 2 days, one the first of a flight',
    ],
    ['tailwheel', 'us', 'F7', '3 unassisted landings, crosswind 6 kt or more'],
    [
      'tailwheel',
      'us',
      'F8',
      '1 go-around decided by the pilot in time, 3 flown well, from the approach, flare and bounce',
    ],
    ['multi-engine', 'us', 'M5', 'seen twice within the standard, unassisted: clean and landing configuration'],
    ['interval-check', 'us', 'I5', '2 unassisted landings, on target, within 30 days'],
    ['sea', 'eu', 'WH', '8 h of dual flight'],
    ['multi-engine', 'eu', 'MA', '3.5 h of it'],
    ['sea', 'us', 'W8', '6 checks of wheels against surface agreed on final on water'],
    ['powerful-type', 'us', 'B1', '2 briefs acknowledged by the pilot'],
  ] as const)('%s %s %s', (goal, pack, id, words) => expect(asksWords(ruleOf(goal, pack, id).evidence)).toBe(words));
  const behind = (goal: string, pack: 'us' | 'eu', id: string, record: Partial<EvidenceRecord>) => {
    const found = assessProgramme(programmeOf(goal, pack), rec(record)).find((i) => i.item.id === id);
    return found
      ? recordsOf(found, rec(record)).map((r) => [r.lesson, r.kind, r.supports, itemRecordWords(r.shown)])
      : null;
  };
  it('hours by the clock and by hand, a clock that was not tapped left out', () => {
    expect(
      behind('sea', 'eu', 'WH', {
        flights: [
          { id: 'f1', lesson: 1, date: '2026-11-01', minutes: 75 },
          { id: 'f2', lesson: 2, date: '2026-11-02', minutes: null },
        ],
        observations: [saw('WH', 2, { minutes: 40 })],
      }),
    ).toEqual([
      [1, 'time', true, '1 h 15 by the clock'],
      [2, 'time', true, 'within, 0 h 40'],
    ]);
  });
  it('briefs and checks, also those that do not count', () => {
    expect(
      behind('powerful-type', 'us', 'B1', {
        briefs: [
          { id: 'b1', lesson: 1, date: '2026-11-01', acknowledged: true },
          { id: 'b2', lesson: 2, date: '2026-11-02', acknowledged: false },
        ],
      }),
    ).toEqual([
      [1, 'brief', true, 'acknowledged by the pilot'],
      [2, 'brief', false, 'not acknowledged'],
    ]);
    expect(
      behind('sea', 'us', 'W8', { gearChecks: [check(1, 'water'), check(1, 'water', 'stop'), check(1, 'land')] })?.map(
        (r) => r.slice(2),
      ),
    ).toEqual([
      [true, 'agreed on final'],
      [false, 'stopped on final'],
    ]);
  });
  it('pages of the lab count in briefs the pilot has acknowledged, all that are asked', () => {
    const programme = programmeOf('powerful-type', 'us');
    const asked = {
      ...programme,
      items: programme.items.map((i) =>
        i.id === 'B1'
          ? {
              ...i,
              evidence: {
                kind: 'briefs' as const,
                needed: 1,
                pages: ['ground' as const, 'slip' as const],
                withinDays: null,
              },
            }
          : i,
      ),
    };
    const brief = (n: number, acknowledged: boolean, pages: ('ground' | 'slip' | 'touch')[]) => ({
      id: `b${n}`,
      lesson: n,
      date: '2026-11-01',
      acknowledged,
      pages,
    });
    const one = (briefs: ReturnType<typeof brief>[]) => {
      const i = assessProgramme(asked, rec({ briefs })).find((x) => x.item.id === 'B1');
      return [i?.met, i?.missing.map(missingWords), i?.evidence];
    };
    const none = 'in a brief acknowledged by the pilot, from the lab: ';
    expect(one([])).toEqual([false, [`${none}Straight or swerving and Slip, within 90 days`], []]);
    expect(one([brief(1, true, ['touch'])])).toEqual([
      false,
      [`${none}Straight or swerving and Slip, within 90 days`],
      [],
    ]);
    expect(one([brief(1, true, ['ground']), brief(2, false, ['slip'])])).toEqual([
      false,
      [`${none}Slip, within 90 days`],
      ['b1'],
    ]);
    expect(one([brief(1, true, ['ground']), brief(2, true, ['slip'])])).toEqual([true, [], ['b1', 'b2']]);
  });
  it('go-arounds with what was decided and how it was flown; help and notes of what was seen', () => {
    expect(
      behind('tailwheel', 'us', 'F8', { landings: [go(1, true, true), go(1, false, false), land(1)] })?.map(
        (r) => r[3],
      ),
    ).toEqual([
      'go-around: sound decision, flown good, crosswind 8 kt',
      'go-around: told to go, flown not judged, crosswind 8 kt',
    ]);
    expect(
      behind('tailwheel', 'us', 'F1', {
        observations: [
          saw('F1', 1, { intervention: 2, note: 'tail swung wide' }),
          saw('F1', 2, { intervention: 1, verdict: 'edge' }),
        ],
      })?.map((r) => r.slice(2)),
    ).toEqual([
      [false, 'within, assisted: tail swung wide'],
      [false, 'edge, prompted'],
    ]);
  });
});

const arbitrary = fc.record({
  landings: fc.array(
    fc.record({
      lesson: fc.integer({ min: 1, max: 4 }),
      intended: fc.constantFrom('three-point', 'mains-first'),
      class: fc.constantFrom(
        'own' as const,
        'own-off-target' as const,
        'prompted' as const,
        'outside' as const,
        'not-judged' as const,
      ),
      kind: fc.constantFrom('full-stop' as const, 'touch-and-go' as const),
      crosswindKt: fc.constantFrom(null, 3, 7, -9),
      first: fc.boolean(),
    }),
    { maxLength: 14 },
  ),
  seen: fc.array(
    fc.record({
      id: fc.constantFrom('F1', 'F9', 'F10', 'G1'),
      lesson: fc.integer({ min: 1, max: 4 }),
      verdict: fc.constantFrom('within' as const, 'edge' as const, 'outside' as const),
      intervention: fc.integer({ min: 0, max: 3 }),
    }),
    { maxLength: 10 },
  ),
  order: fc.array(fc.nat(1000), { minLength: 30, maxLength: 30 }),
});
type Drawn = typeof arbitrary extends fc.Arbitrary<infer T> ? T : never;
const built = (a: Drawn) => ({
  landings: a.landings.map((l, i) => ({
    ...land(l.lesson, { ...l, firstOfSortie: l.first }),
    id: `a${i}`,
    number: i + 1,
  })),
  observations: a.seen.map((s, i) => ({
    ...saw(s.id, s.lesson, { verdict: s.verdict, intervention: s.intervention }),
    id: `b${i}`,
    at: `2026-11-0${s.lesson}T10:${String(i).padStart(2, '0')}:00Z`,
  })),
});
const shuffled = <T>(all: readonly T[], order: readonly number[]): T[] =>
  all
    .map((x, i) => ({ x, k: order[i % order.length] ?? 0 }))
    .sort((p, q) => p.k - q.k)
    .map((p) => p.x);

describe('what another open checkout has shown', () => {
  const items = programmeOf('tailwheel', 'us').items;
  const record = rec({
    landings: [first(1), land(1), land(2), land(2), land(3)],
    observations: [saw('G1', 1), saw('G2', 1), saw('F10', 2), saw('F13', 3, { verdict: 'outside' })],
  });
  const there = assessProgramme(programmeOf('tailwheel', 'us'), record);
  const offered = (same: { airframe: boolean; group: boolean }, of = items) =>
    new Map(carryOffers(of, there, record, same).map((o) => [o.item.id, [o.why, o.on]]));
  it('counts by the same rule, with the newest day of what it rests on', () => {
    const here = offered({ airframe: true, group: true });
    // Five own three-point landings on three days; knowledge on the first; what was outside is not met.
    expect(here.get('F4')).toEqual(['same-rule', '2026-11-03']);
    expect(here.get('G1')).toEqual(['same-rule', '2026-11-01']);
    expect(here.get('G2')).toEqual(['same-rule', '2026-11-01']);
    expect(here.get('F13')).toEqual(['not-met', null]);
    expect(here.get('F5')).toEqual(['not-met', null]);
  });
  it('asks again what belongs to the airframe, and what was flown in another gear or mass', () => {
    const other = offered({ airframe: false, group: false });
    expect(other.get('G1')?.[0]).toBe('same-rule');
    expect(other.get('G2')).toEqual(['airframe', null]);
    expect(other.get('F4')).toEqual(['other-group', null]);
    const stricter = items.map((i) =>
      i.id === 'F10' && i.evidence.kind === 'observed' ? { ...i, evidence: { ...i.evidence, needed: 2 } } : i,
    );
    expect(offered({ airframe: false, group: true }, stricter).get('F10')).toEqual(['other-rule', null]);
  });
  it('never carries a decision about the other checkout', () => {
    const decided = rec({
      waivers: [{ itemId: 'F5', reason: 'the handbook advises against' }],
      parts: [{ itemId: 'F9', entryId: 'e', by: 'H', on: '2026-11-20', lapsesOn: '2027-01-01' }],
    });
    const of = assessProgramme(programmeOf('tailwheel', 'us'), decided);
    expect(of.filter((i) => i.met).map((i) => i.item.id)).toEqual(expect.arrayContaining(['F5', 'F9']));
    expect(
      carryOffers(items, of, decided, { airframe: true, group: true }).filter((o) => o.why === 'same-rule'),
    ).toEqual([]);
  });
});

describe('the evidence engine', () => {
  const programme = programmeOf('tailwheel', 'us');
  it('gives the same answer twice, and for any order of the records', () => {
    fc.assert(
      fc.property(arbitrary, (a) => {
        const { landings, observations } = built(a);
        const once = assessProgramme(programme, rec({ landings, observations }));
        expect(assessProgramme(programme, rec({ landings, observations }))).toEqual(once);
        expect(
          assessProgramme(
            programme,
            rec({
              landings: shuffled(landings, a.order),
              observations: shuffled(observations, [...a.order].reverse()),
            }),
          ),
        ).toEqual(once);
      }),
      { numRuns: 150 },
    );
  });
  it('never rests on a record that is not there, says what is missing, and its state follows', () => {
    fc.assert(
      fc.property(arbitrary, (a) => {
        const { landings, observations } = built(a);
        const ids = new Set([...landings, ...observations].map((x) => x.id));
        for (const i of assessProgramme(programme, rec({ landings, observations }))) {
          expect(i.evidence.every((e) => ids.has(e))).toBe(true);
          expect(i.met).toBe(i.missing.length === 0);
          if (i.evidence.length > 0) expect(i.seen).toBe(true);
          expect(
            recordsOf(i, rec({ landings, observations }))
              .filter((r) => r.supports)
              .map((r) => r.id)
              .sort(),
          ).toEqual([...i.evidence].sort());
        }
      }),
      { numRuns: 100 },
    );
  });
  it('one more own crosswind landing never takes an item away that counts them', () => {
    fc.assert(
      fc.property(arbitrary, (a) => {
        const { landings } = built(a);
        const before = assessProgramme(programme, rec({ landings })).find((i) => i.item.id === 'F7');
        const after = assessProgramme(programme, rec({ landings: [...landings, land(5, { crosswindKt: 9 })] })).find(
          (i) => i.item.id === 'F7',
        );
        if (before?.met) expect(after?.met).toBe(true);
      }),
    );
  });
});

describe('packs and programmes', () => {
  it('every pack speaks of every goal, and every goal has a programme under it', () => {
    for (const key of PACKS) {
      const pack = RulePack.parse(read(`packs/${key}`));
      expect(pack.goals.map((g) => g.goal).sort()).toEqual([...GOALS].sort());
      for (const g of pack.goals) {
        const p = programmeOf(g.goal, key);
        expect(p.items.length, `${g.goal}-${key}`).toBeGreaterThan(3);
        expect(
          p.items.some((i) => i.safety),
          `${g.goal}-${key}`,
        ).toBe(true);
        const ids = p.items.map((i) => i.id);
        for (const i of p.items) {
          expect(
            i.prerequisites.every((x) => ids.includes(x)),
            `${g.goal}-${key} ${i.id}`,
          ).toBe(true);
          expect(asksWords(i.evidence).length).toBeGreaterThan(5);
        }
        expect(
          openWords(
            fillTemplate(g.template, {
              pilot: 'P',
              pilotCertificate: 'C',
              type: 'T',
              registration: 'R',
              goal: 'G',
              exactClass: 'E',
              trainedOn: 'L',
              date: 'D',
              instructor: 'I',
              instructorCertificate: 'IC',
              recentUntil: 'U',
              wheelLandings: 'wheel landings',
              variants: 'V',
            }).text,
          ),
          `${g.goal}-${key}`,
        ).toEqual([]);
      }
      expect(pack.recency.length).toBeGreaterThan(0);
    }
  });
  it('what ends with an examiner says so, and its recommendation ends', () => {
    for (const [key, goals] of [
      ['us', ['multi-engine', 'sea', 'multi-engine-sea']],
      ['eu', ['multi-engine', 'sea', 'multi-engine-sea']],
      ['au', ['multi-engine']],
    ] as const) {
      const decided = RulePack.parse(read(`packs/${key}`)).goals.filter((g) => g.decides === 'examiner');
      expect(decided.map((g) => g.goal)).toEqual(goals);
      expect(decided.every((g) => g.recommendation !== null)).toBe(true);
    }
  });
  it('a template leaves in braces what nothing is known of', () => {
    expect(fillTemplate('{pilot} in {type}, {recentUntil}', { pilot: 'Ada', recentUntil: null })).toEqual({
      text: 'Ada in {type}, {recentUntil}',
      open: ['type', 'recentUntil'],
    });
  });
});

describe('what stands between a checkout and its signature', () => {
  const facts: SigningFacts = {
    authorised: true,
    ownCheckout: false,
    lastFlownTogether: '2026-11-20',
    onDate: '2026-11-24',
    withinDays: 30,
    certificateUntil: '2026-11-24',
    signerLacks: [],
    ratings: [],
    reviewWithout: [],
    sheetOpen: [],
    modelHours: null,
    notRecent: [],
    openLimits: [],
    overrides: [],

    stops: [],
    prerequisites: [],
  };
  const items = (record: Partial<EvidenceRecord>, pack: 'us' | 'eu' = 'us') =>
    assessProgramme(programmeOf('tailwheel', pack), rec(record)).filter((i) => ['F4', 'F10'].includes(i.item.id));
  const codes = (record: Partial<EvidenceRecord>, f: Partial<SigningFacts> = {}, pack: 'us' | 'eu' = 'us') =>
    signingProblems(items(record, pack), rec(record), { ...facts, ...f }).map(
      (p) => `${p.code}${p.itemId ? ` ${p.itemId}` : ''}`,
    );
  const run = [first(1), land(1), land(2), land(2)];
  it.each<[string, Partial<SigningFacts>, string[]]>([
    ['the last day of a certificate still holds', {}, []],
    ['a certificate that ended yesterday', { certificateUntil: '2026-11-23' }, ['certificate']],
    ['no certificate in the ledger', { certificateUntil: null }, ['certificate']],
    ['lacking what the aeroplane demands', { signerLacks: ['tailwheel'] }, ['lacks']],
    [
      'four hours of five in the model',
      { modelHours: { needed: 5, have: 4, citation: '61.195(f)', inCommand: true, within: 'model' } },
      ['model-hours'],
    ],
    [
      'five of five',
      { modelHours: { needed: 5, have: 5, citation: '61.195(f)', inCommand: true, within: 'model' } },
      [],
    ],
    ['out of recency', { notRecent: [{ title: 'T', restore: 'three landings', citation: 'H' }] }, ['not-recent']],
    ['flown together thirty days ago', { lastFlownTogether: '2026-10-25' }, []],
    ['thirty-one', { lastFlownTogether: '2026-10-24' }, ['not-flown']],
    ['an open exceedance', { openLimits: [{ traceId: 't', what: 'vfe 110 kt', flownOn: '2026-11-01' }] }, ['limit']],
    ['a prerequisite that is short', { prerequisites: [{ text: '70 h', met: false }] }, ['prerequisite']],
    ['one that is not on record', { prerequisites: [{ text: '70 h', met: null }] }, ['prerequisite']],
    ['one that is shown', { prerequisites: [{ text: '70 h', met: true }] }, []],
    ['an instructor rating the law asks', { ratings: [{ text: 'R', citation: 'L', confirm: false }] }, ['rating']],
    ['a review in a class not held', { reviewWithout: ['multi-engine-land'] }, ['class']],
    ['a sheet that leaves open what it demands', { sheetOpen: ['the power'] }, ['sheet']],
    ['not authorised, and one\u2019s own', { authorised: false, ownCheckout: true }, ['own', 'not-authorised']],
  ])('%s', (_, f, expected) =>
    expect(codes({ landings: [...run, land(2)], observations: [saw('F10', 1)] }, f)).toEqual(expected),
  );
  it('a safety item never seen cannot be overridden, one seen but short can', () => {
    const wish = { itemId: 'F4', reason: 'r', approved: true };
    const eu = (record: Partial<EvidenceRecord>, f: Partial<SigningFacts> = {}) => codes(record, f, 'eu');
    expect(eu({ observations: [saw('F10', 1)] }, { overrides: [wish] })).toEqual(['not-seen F4']);
    expect(eu({ landings: run, observations: [saw('F10', 1)] })).toEqual(['item F4']);
    expect(eu({ landings: run, observations: [saw('F10', 1)] }, { overrides: [wish] })).toEqual([]);
    expect(eu({ landings: run, observations: [saw('F10', 1)] }, { overrides: [{ ...wish, approved: false }] })).toEqual(
      ['override F4'],
    );
    // In the United States landings are the law's own content: short is short, whoever asks.
    expect(codes({ landings: run, observations: [saw('F10', 1)] }, { overrides: [wish] })).toEqual(['legal F4']);
  });
  it('an item that is no safety item may be overridden unseen', () => {
    expect(codes({ landings: [...run, land(2)] })).toEqual(['item F10']);
    expect(
      codes({ landings: [...run, land(2)] }, { overrides: [{ itemId: 'F10', reason: 'r', approved: true }] }),
    ).toEqual([]);
  });
});
