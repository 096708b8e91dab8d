import type { Goal, Role } from '@/domain/words';

export interface DemoPerson {
  key: string;
  name: string;
  email: string;
  roles: Role[];
  massKg: number;
  authorised: Goal[];
  ownCrosswindKt: number | null;
  certificate: string;
  until: string;
  /** Types flown regularly, and one the instructor has let slip, days since the last flight. */
  types: string[];
  slipped?: { type: string; daysAgo: number };
}
export interface DemoPilot {
  key: string;
  name: string;
  massKg: number;
  person: string | null;
  email: string | null;
  holds: { kind: string; gainedOn: string }[];
  experience: string;
  hours: number;
  crosswindCredit: { group: string; kt: number; date: string } | null;
  certificate: string;
  /** Type, hours, days since the last flight; from the experience line when not given. */
  flown: [typeCode: string, hours: number, daysAgo: number, pic?: number][];
}

export const DEMO_PASSWORD = 'pedra-alva-2026';

export const people: DemoPerson[] = [
  {
    key: 'helena',
    name: 'Helena Serpa Dorna',
    email: 'helena@pedra-alva.example',
    roles: ['instructor'],
    massKg: 66,
    authorised: [
      'tailwheel',
      'high-performance',
      'complex',
      'variant',
      'flight-review',
      'new-type',
      'interval-check',
      'aerobatic-landing',
      'short-field',
    ],
    ownCrosswindKt: 12,
    certificate: 'instructor ZP-FI 0412',
    until: '2027-06-30',
    types: [
      'alvor-c1',
      'alvor-c4g',
      'serrana-urze',
      'serrana-esteva',
      'serrana-carvalho',
      'lume-faisca',
      'planalto-p1r',
    ],
  },
  {
    key: 'bento',
    name: 'Bento Quadra Luz',
    email: 'bento@pedra-alva.example',
    roles: ['chief', 'instructor'],
    massKg: 84,
    authorised: [
      'tailwheel',
      'high-performance',
      'complex',
      'multi-engine',
      'sea',
      'multi-engine-sea',
      'variant',
      'pressurised',
      'ski',
      'flight-review',
      'new-type',
      'interval-check',
      'aerobatic-landing',
      'powerful-type',
      'short-field',
    ],
    ownCrosswindKt: 15,
    certificate: 'instructor ZP-FI 0107',
    until: '2027-09-30',
    types: [
      'alvor-c1',
      'serrana-urze',
      'serrana-carvalho',
      'lume-faisca',
      'bronze-b6',
      'bronze-b15',
      'planalto-p1r',
      'orla-mare',
    ],
    slipped: { type: 'planalto-p2', daysAgo: 118 },
  },
  {
    key: 'vasco',
    name: 'Vasco Teles Brito',
    email: 'vasco@pedra-alva.example',
    roles: ['instructor', 'pilot'],
    massKg: 79,
    authorised: ['tailwheel', 'new-type'],
    ownCrosswindKt: 10,
    certificate: 'instructor ZP-FI 0533',
    until: '2026-12-31',
    types: ['alvor-c1', 'serrana-urze', 'alvor-c4g'],
  },
];

const sep = (gainedOn: string) => ({ kind: 'single-engine-land', gainedOn });
const pilot = (
  key: string,
  name: string,
  massKg: number,
  holds: { kind: string; gainedOn: string }[],
  experience: string,
  hours: number,
  extra: Partial<DemoPilot> = {},
): DemoPilot => ({
  key,
  name,
  massKg,
  holds,
  experience,
  hours,
  person: null,
  email: `${key}@pedra-alva.example`,
  crosswindCredit: null,
  certificate: `private pilot ZP-PP ${1000 + hours}`,
  flown: [['alvor-c1', Number(/Alvor C1, (\d+) h/.exec(experience)?.[1] ?? 0), 12 + (hours % 40)]],
  ...extra,
});

const day = (kind: string, gainedOn: string) => ({ kind, gainedOn });
const TEACHES = ['instructor-single-engine', 'FI', 'AU-train-type', 'AU-train-features'];
const SINGLES = ['tailwheel', 'TW', 'AU-tailwheel', 'high-performance', 'complex', 'RU', 'VP'];
export const pilots: DemoPilot[] = [
  // Instructors hold licences and fly: what they hold and have flown decides what they may teach.
  pilot(
    'helena',
    'Helena Serpa Dorna',
    66,
    [sep('2006-03-02'), ...[...SINGLES, 'T', 'EFIS', ...TEACHES].map((k) => day(k, '2010-05-04'))],
    'instructor, 3900 h',
    3900,
    {
      person: 'helena',
      email: null,
      certificate: 'instructor ZP-FI 0412',
      flown: [
        ['alvor-c1', 2100, 4],
        ['serrana-urze', 820, 3],
        ['serrana-carvalho', 260, 9],
        ['planalto-p1r', 180, 12],
      ],
    },
  ),
  pilot(
    'bento',
    'Bento Quadra Luz',
    84,
    [
      sep('1995-07-19'),
      ...[...SINGLES, 'T', 'EFIS', ...TEACHES].map((k) => day(k, '1999-04-11')),
      ...[
        'multi-engine-land',
        'multi-engine-sea',
        'single-engine-sea',
        'MEP-variant:planalto-p2',
        'MEP-variant:orla-mare',
        'AU-hull',
        'AU-retractable',
        'AU-propeller',
        'instructor-multi-engine',
        'CRI-ME',
        'AU-train-multi-engine',
      ].map((k) => day(k, '2004-09-30')),
    ],
    'instructor, 7300 h',
    7300,
    {
      person: 'bento',
      email: null,
      certificate: 'instructor ZP-FI 0107',
      flown: [
        ['alvor-c1', 3000, 6],
        ['serrana-urze', 700, 5],
        ['planalto-p2', 410, 118, 372],
        ['orla-mare', 330, 8, 301],
        ['bronze-b15', 120, 20],
      ],
    },
  ),
  pilot('duarte', 'Duarte S\u00e1 Nogal', 76, [sep('2019-05-11')], 'Alvor C1, 180 h', 210),
  pilot('ines', 'In\u00eas Vale Carmo', 61, [sep('2021-08-02')], 'Alvor C1, 95 h', 110),
  pilot('clara', 'Clara Moita Reis', 58, [sep('2017-03-20')], 'Alvor C1, 240 h', 320),
  pilot('rui', 'Rui Casal Ferro', 88, [sep('2014-06-30')], 'Alvor C1, 400 h', 455),
  pilot('tome', 'Tom\u00e9 Arruda Lis', 71, [sep('2023-09-14')], 'Alvor C1, 70 h', 82),
  pilot('joana', 'Joana Pires Atalaia', 64, [sep('2020-01-25')], 'Alvor C1, 130 h', 150),
  pilot(
    'vasco',
    'Vasco Teles Brito',
    79,
    [
      sep('2009-04-18'),
      { kind: 'tailwheel', gainedOn: '2012-07-03' },
      { kind: 'TW', gainedOn: '2012-07-03' },
      ...TEACHES.slice(0, 2).map((k) => day(k, '2013-04-02')),
    ],
    'instructor, 2100 h',
    2140,
    {
      person: 'vasco',
      email: null,
      flown: [
        ['alvor-c1', 1400, 3],
        ['serrana-urze', 240, 9],
        ['alvor-c4g', 310, 21],
      ],
      crosswindCredit: { group: 'light-tailwheel', kt: 10, date: '2026-09-20' },
    },
  ),
  pilot(
    'lidia',
    'L\u00eddia Fonte Maior',
    69,
    [sep('2016-10-08'), { kind: 'tailwheel', gainedOn: '2024-05-19' }, { kind: 'TW', gainedOn: '2024-05-19' }],
    'Serrana Urze, 60 h',
    260,
    {
      flown: [
        ['alvor-c1', 190, 300],
        ['serrana-urze', 60, 20],
      ],
    },
  ),
  pilot('gaspar', 'Gaspar Ribeira Alta', 92, [sep('1998-02-12')], 'Alvor C1, 900 h', 980),
  pilot('amelia', 'Am\u00e9lia Torre Seca', 55, [sep('2022-04-29')], 'Alvor C1, 88 h', 96),
  pilot('nuno', 'Nuno Castro Bravo', 82, [sep('2018-11-03')], 'Alvor C1, 150 h', 190),
  pilot('sara', 'Sara Lapa Funda', 63, [sep('2015-07-22')], 'Alvor C1, 310 h', 340),
  pilot('elias', 'Elias Monte Raso', 77, [sep('2011-09-09')], 'Alvor C1, 500 h', 620),
  pilot('ivo', 'Ivo Salgado Mendes', 74, [sep('2019-02-11')], 'Alvor C1, 160 h', 175),
  pilot('teresa', 'Teresa Olmo Vidal', 66, [sep('2018-05-03')], 'Alvor C1, 210 h', 230),
  pilot('marta', 'Marta Eira Velha', 60, [sep('2020-06-17')], 'Alvor C1, 120 h', 133),
];
