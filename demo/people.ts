import type { Goal, Role } from '@/domain/words';

export interface DemoPerson { key: string; name: string; email: string; roles: Role[]; massKg: number; authorised: Goal[]; ownCrosswindKt: number | null }
export interface DemoPilot { key: string; name: string; massKg: number; person: string | null; email: string | null; holds: { kind: string; gainedOn: string }[]; experience: string; hours: number; crosswindCredit: { group: string; kt: number; date: string } | null; /** Type, hours, days since the last flight; from the experience line when not given. */ flown: [typeCode: string, hours: number, daysAgo: number][] }

export const DEMO_PASSWORD = 'pedra-alva-2026';

export const people: DemoPerson[] = [
  { key: 'helena', name: 'Helena Serpa Dorna', email: 'helena@pedra-alva.example', roles: ['instructor'], massKg: 66, authorised: ['tailwheel', 'high-performance', 'complex', 'new-type', 'interval-check'], ownCrosswindKt: 12 },
  { key: 'bento', name: 'Bento Quadra Luz', email: 'bento@pedra-alva.example', roles: ['chief', 'instructor'], massKg: 84, authorised: ['tailwheel', 'high-performance', 'complex', 'multi-engine', 'sea', 'new-type', 'interval-check'], ownCrosswindKt: 15 },
  { key: 'vasco', name: 'Vasco Teles Brito', email: 'vasco@pedra-alva.example', roles: ['instructor', 'pilot'], massKg: 79, authorised: ['tailwheel', 'new-type'], ownCrosswindKt: 10 },
];

const sep = (gainedOn: string) => ({ kind: 'single-engine-land', gainedOn });
const pilot = (key: string, name: string, massKg: number, holds: { kind: string; gainedOn: string }[], experience: string, hours: number, extra: Partial<DemoPilot> = {}): DemoPilot => ({
  key, name, massKg, holds, experience, hours, person: null, email: `${key}@pedra-alva.example`, crosswindCredit: null, flown: [['alvor-c1', Number(/Alvor C1, (\d+) h/.exec(experience)?.[1] ?? 0), 12 + (hours % 40)]], ...extra,
});

export const pilots: DemoPilot[] = [
  pilot('duarte', 'Duarte S\u00e1 Nogal', 76, [sep('2019-05-11')], 'Alvor C1, 180 h', 210),
  pilot('ines', 'In\u00eas Vale Carmo', 61, [sep('2021-08-02')], 'Alvor C1, 95 h', 110),
  pilot('clara', 'Clara Moita Reis', 58, [sep('2017-03-20')], 'Alvor C1, 240 h', 320),
  pilot('rui', 'Rui Casal Ferro', 88, [sep('2014-06-30')], 'Alvor C1, 400 h', 455),
  pilot('tome', 'Tom\u00e9 Arruda Lis', 71, [sep('2023-09-14')], 'Alvor C1, 70 h', 82),
  pilot('joana', 'Joana Pires Atalaia', 64, [sep('2020-01-25')], 'Alvor C1, 130 h', 150),
  pilot('vasco', 'Vasco Teles Brito', 79, [sep('2009-04-18'), { kind: 'tailwheel', gainedOn: '2012-07-03' }], 'instructor, 2100 h', 2140, { person: 'vasco', email: null, flown: [['alvor-c1', 1400, 3], ['serrana-urze', 240, 9], ['alvor-c4g', 310, 21]], crosswindCredit: { group: 'light-tailwheel', kt: 10, date: '2026-09-20' } }),
  pilot('lidia', 'L\u00eddia Fonte Maior', 69, [sep('2016-10-08'), { kind: 'tailwheel', gainedOn: '2024-05-19' }, { kind: 'TW', gainedOn: '2024-05-19' }], 'Serrana Urze, 60 h', 260, { flown: [['alvor-c1', 190, 300], ['serrana-urze', 60, 20]] }),
  pilot('gaspar', 'Gaspar Ribeira Alta', 92, [sep('1998-02-12')], 'Alvor C1, 900 h', 980),
  pilot('amelia', 'Am\u00e9lia Torre Seca', 55, [sep('2022-04-29')], 'Alvor C1, 88 h', 96),
  pilot('nuno', 'Nuno Castro Bravo', 82, [sep('2018-11-03')], 'Alvor C1, 150 h', 190),
  pilot('sara', 'Sara Lapa Funda', 63, [sep('2015-07-22')], 'Alvor C1, 310 h', 340),
  pilot('elias', 'Elias Monte Raso', 77, [sep('2011-09-09')], 'Alvor C1, 500 h', 620),
  pilot('ivo', 'Ivo Salgado Mendes', 74, [sep('2019-02-11')], 'Alvor C1, 160 h', 175),
  pilot('teresa', 'Teresa Olmo Vidal', 66, [sep('2018-05-03')], 'Alvor C1, 210 h', 230),
  pilot('marta', 'Marta Eira Velha', 60, [sep('2020-06-17')], 'Alvor C1, 120 h', 133),
];
