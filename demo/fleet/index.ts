import type { Airframe, TypeSheet } from '@/domain/sheet';
import { alvorC1, alvorC4G } from './alvor';
import { withDynamics } from './dynamics';
import { dialTable, flow, h, house, measured, note, withView } from './helpers';
import { bronzeB15, bronzeB6, lumeFaisca } from './lume-bronze';
import { orlaMare, planaltoP1R, planaltoP2 } from './planalto-orla';
import { serranaCarvalho, serranaEsteva, serranaUrze } from './serrana';

/**
 * Directions in degrees from the pilot's seat, walked out on the hangar floor; the P1R has not been measured yet, on
 * purpose.
 */
export const types: TypeSheet[] = [
  withView(
    alvorC1,
    [
      [-90, 32],
      [-60, 30],
      [-30, 21],
      [-10, 11],
      [0, 9.5],
      [20, 10],
      [45, 13],
      [70, 19],
      [90, 27],
    ],
    { gates: [2, 0, -1, 0.5], level: 2, climb: 8, glide: -3, slip: [0, 12, -10], wheel: 6 },
    {
      eyeLateralM: -0.28,
      parts: [
        ['windscreen post, left', -32, -20, -44, 22],
        ['strut, left', -62, -4, -88, 24],
        ['door frame, left', -104, -20, -106, 26],
        ['strut, right', 66, 0, 84, 18],
      ],
      references: [
        ['top of the cowling', 0, 9.5, 'level'],
        ['strip on the panel top', 8, 12, 'wheel'],
      ],
    },
  ),
  withView(
    alvorC4G,
    [
      [-90, 30],
      [-60, 28],
      [-30, 18],
      [-10, 10],
      [0, 9],
      [20, 9.5],
      [45, 12],
      [70, 17],
      [90, 24],
    ],
    { gates: [2, 0, -1.5, 0], level: 1, climb: 7, glide: -3, slip: [0, 12, -10], wheel: 5 },
    {
      eyeLateralM: -0.3,
      parts: [
        ['canopy rail, left', -60, 26, -110, 30],
        ['wing leading edge, left', -58, 24, -86, 14],
        ['wing leading edge, right', 58, 20, 86, 14],
      ],
      references: [['top of the cowling', 0, 9, 'level']],
    },
  ),
  withView(
    serranaUrze,
    [
      [0, 6],
      [10, 7],
      [20, 11],
      [30, 18],
      [45, 29],
      [60, 38],
      [90, 46],
    ],
    { gates: [4, 1, -1, 1], level: 4, climb: 9, glide: -2, slip: [2, 15, -14], threePoint: 12, wheel: 3 },
    {
      parts: [
        ['strut, left', -40, -6, -74, 30],
        ['strut, right', 40, -6, 74, 30],
        ['wing root, left', -24, -20, -60, -22],
        ['wing root, right', 24, -20, 60, -22],
        ['rear strut, left', -66, -4, -96, 34],
        ['rear strut, right', 66, -4, 96, 34],
        ['wing, left', -60, -22, -118, -14],
        ['wing, right', 60, -22, 118, -14],
      ],
      references: [
        ['top of the cowling', 0, 6, 'level'],
        ['foot of the left strut', -58, 16, 'three-point'],
      ],
    },
  ),
  withView(
    serranaEsteva,
    [
      [0, 7],
      [10, 8],
      [20, 12],
      [30, 19],
      [45, 30],
      [60, 39],
      [90, 46],
    ],
    { gates: [5, 2, -2, 1], level: 5, climb: 11, glide: -3, slip: [2, 15, -14], threePoint: 13, wheel: 4 },
    {
      parts: [
        ['strut, left', -40, -6, -74, 30],
        ['strut, right', 40, -6, 74, 30],
        ['rear strut, left', -68, -4, -98, 36],
        ['rear strut, right', 68, -4, 98, 36],
        ['wing, left', -58, -20, -116, -12],
        ['wing, right', 58, -20, 116, -12],
      ],
      references: [['top of the cowling', 0, 7, 'level']],
    },
  ),
  withView(
    serranaCarvalho,
    [
      [-90, 34],
      [-60, 31],
      [-30, 20],
      [-10, 9],
      [0, 7],
      [20, 8],
      [45, 12],
      [70, 18],
      [90, 26],
    ],
    { gates: [5, 2, 0, 2], level: 5, climb: 10, glide: -1, slip: [2, 12, -12], threePoint: 11, wheel: 5 },
    {
      eyeLateralM: -0.3,
      parts: [
        ['windscreen post, left', -30, -20, -40, 26],
        ['strut, left', -58, 0, -78, 26],
        ['window frame, left', -92, -24, -96, 34],
        ['strut, right', 64, 2, 84, 20],
        ['window frame, right', 90, -24, 94, 26],
      ],
      references: [
        ['rivet line of the cowling', 0, 7, 'level'],
        ['left end of the panel top', -24, 16, 'three-point'],
      ],
    },
  ),
  withView(
    lumeFaisca,
    [
      [0, 5],
      [10, 6],
      [20, 10],
      [30, 17],
      [45, 28],
      [60, 38],
      [90, 45],
    ],
    { gates: [3, 0, -1, 0.5], level: 3, climb: 11, glide: -2, slip: [1, 18, -14], threePoint: 13, wheel: 5 },
    {
      parts: [
        ['cabane strut, left', -17, -26, -21, 10],
        ['cabane strut, right', 17, -26, 21, 10],
        ['lower wing root, left', -38, 22, -72, 26],
        ['lower wing root, right', 38, 22, 72, 26],
        ['flying wire, left', -34, -10, -62, 24],
        ['flying wire, right', 34, -10, 62, 24],
        ['rear cabane strut, left', -74, -28, -84, 24],
        ['rear cabane strut, right', 74, -28, 84, 24],
        ['lower wing, left', -72, 26, -112, 28],
        ['lower wing, right', 72, 26, 112, 28],
      ],
      references: [
        ['front cabane bolt', 0, 4, 'level'],
        ['foot of the left cabane strut', -21, 10, 'three-point'],
      ],
    },
  ),
  withView(
    bronzeB6,
    [
      [0, 4.5],
      [10, 5.5],
      [20, 9],
      [30, 15],
      [45, 26],
      [60, 36],
      [90, 44],
    ],
    { gates: [5, 3, 1, 2], level: 5, climb: 10, glide: 0, slip: [3, 12, -12], threePoint: 12, wheel: 4 },
    {
      parts: [
        ['windscreen frame, left', -24, -18, -27, 12],
        ['windscreen frame, right', 24, -18, 27, 12],
        ['canopy rail, left', -52, 30, -112, 34],
        ['canopy rail, right', 52, 30, 112, 34],
        ['wing leading edge, left', -58, 22, -84, 16],
        ['wing leading edge, right', 58, 22, 84, 16],
      ],
      references: [['top of the ring cowl', 0, 4.5, 'level']],
    },
  ),
  withView(
    bronzeB15,
    [
      [0, 3.5],
      [10, 4.5],
      [20, 8],
      [30, 14],
      [45, 24],
      [60, 34],
      [90, 42],
    ],
    { gates: [3, 6.5, 3, 1.5, 3], level: 6.5, climb: 9, glide: 1, slip: [3, 10, -10], threePoint: 12, wheel: 3 },
    {
      parts: [
        ['windscreen frame, left', -22, -18, -25, 10],
        ['windscreen frame, right', 22, -18, 25, 10],
        ['canopy rail, left', -52, 30, -112, 34],
        ['canopy rail, right', 52, 30, 112, 34],
        ['wing leading edge, left', -58, 22, -84, 16],
        ['wing leading edge, right', 58, 22, 84, 16],
      ],
      references: [['top of the cowling', 0, 3.5, 'level']],
    },
  ),
  planaltoP1R,
  withView(
    planaltoP2,
    [
      [-90, 20],
      [-60, 16],
      [-45, 12],
      [-30, 13],
      [-10, 11.5],
      [0, 10.5],
      [20, 11],
      [45, 12],
      [70, 15],
      [90, 22],
    ],
    { gates: [2, 0, -1, 1], level: 1.5, climb: 8, glide: -2, slip: [0, 8, -8], wheel: 5 },
    {
      eyeLateralM: -0.3,
      parts: [
        ['nacelle, left', -52, 14, -84, 12],
        ['nacelle, right', 52, 12, 84, 10],
        ['window frame, left', -98, -18, -100, 24],
      ],
      references: [['top of the nose', 0, 10.5, 'level']],
    },
  ),
  withView(
    orlaMare,
    [
      [-90, 26],
      [-60, 22],
      [-30, 16],
      [-10, 12],
      [0, 11],
      [20, 12],
      [45, 15],
      [70, 20],
      [90, 27],
    ],
    { gates: [2, 1, 0, 2], level: 2, climb: 8, glide: -1, slip: [1, 8, -8], wheel: 5 },
    {
      eyeLateralM: -0.32,
      parts: [
        ['window frame, left', -88, -20, -91, 26],
        ['float strut, left', -104, -2, -100, 12],
        ['float strut, right', 104, -2, 100, 10],
      ],
      references: [['mooring cleat on the bow', 0, 11, 'level']],
    },
  ),
].map(withDynamics);

const plain = (registration: string, typeCode: string, hours: number, rest: Partial<Airframe> = {}): Airframe => ({
  schema: 'airframe/1',
  registration,
  typeCode,
  emptyKg: null,
  emptyArmM: null,
  dialTable: null,
  crosswindLimitKt: null,
  flapTable: null,
  flapTableSource: null,
  modifications: [],
  attributes: [],
  equipment: [],
  flows: [],
  goAroundFlow: null,
  electrical: null,
  hoursToInspection: { value: hours, source: 'house', ref: 'maintenance board' },
  deferredDefects: [],
  insurer: null,
  ...rest,
});
const electricalOf = (t: TypeSheet): NonNullable<TypeSheet['electrical']> => {
  if (!t.electrical) throw new Error(t.code);
  return t.electrical;
};
const weighed = (kg: number, when: string) => ({
  value: kg,
  source: 'measured' as const,
  ref: `weighing report, ${when}`,
});

export const airframes: Airframe[] = [
  plain('ZP-ALV', 'alvor-c1', 31),
  plain('ZP-CGA', 'alvor-c4g', 44),
  plain('ZP-CGE', 'alvor-c4g', 12, {
    emptyKg: weighed(771, 'April 2026'),
    emptyArmM: measured(2.37, 'weighing report, April 2026'),
    modifications: [
      {
        name: 'Electric propeller control',
        effect: 'One switch instead of the lever: the speed is chosen, not pulled; no lever to push forward on final.',
        source: 'handbook',
        ref: 'Supplement 2',
      },
      {
        name: 'Electronic ignition',
        effect: 'The engine needs the bus: when the battery is flat it stops.',
        source: 'handbook',
        ref: 'Supplement 3',
      },
      {
        name: 'Envelope protection',
        effect:
          'The stick pushes back near the stall and in steep bank; it is switched off for stalls and steep turns.',
        source: 'handbook',
        ref: 'Supplement 5',
      },
    ],
    attributes: [
      { key: 'lever-order', value: 'throttle and electric propeller', source: 'handbook', ref: 'Supplement 2' },
      { key: 'ignition', value: 'needs the bus', source: 'handbook', ref: 'Supplement 3' },
      { key: 'protection', value: 'stick force and warnings', source: 'handbook', ref: 'Supplement 5' },
    ],
    flows: [
      flow(
        'Before landing',
        'Supplement 2',
        'fuel to the fuller tank',
        'mixture',
        'propeller switch to climb and land',
        'flap',
        'harness',
      ),
    ],
    goAroundFlow: [
      'full power, propeller switch checked at climb and land',
      'pitch to 7°',
      'flap to 20°',
      'positive climb',
      'flap up in steps above 75 kt',
    ],
    electrical: {
      ...electricalOf(alvorC4G),
      ref: 'Handbook 3.8, Supplements 2 and 3',
      consumers: [
        ...electricalOf(alvorC4G).consumers,
        { name: 'ignition', amps: 2.4, shedAtMin: null, dependsOn: [], backupMin: 0 },
        { name: 'propeller control', amps: 1.1, shedAtMin: null, dependsOn: [], backupMin: 0 },
      ],
    },
    insurer: note('house', 'Type checkout and 5 h dual before hire.', 'Policy 2026, clause 7'),
  }),
  plain('ZP-URZ', 'serrana-urze', 22, { emptyKg: weighed(356, 'March 2025') }),
  plain('ZP-URA', 'serrana-urze', 8, {
    emptyKg: weighed(349, 'June 2024'),
    deferredDefects: [{ text: 'Cabin heat inoperative', since: '2026-10-30', until: 'next inspection' }],
  }),
  plain('ZP-URV', 'serrana-urze', 14, { emptyKg: weighed(354, 'September 2025') }),
  plain('ZP-EST', 'serrana-esteva', 36),
  plain('ZP-CAV', 'serrana-carvalho', 27, { emptyKg: weighed(892, 'May 2025') }),
  plain('ZP-CAD', 'serrana-carvalho', 40, {
    emptyKg: weighed(906, 'January 2026'),
    crosswindLimitKt: house(12, 'Flying order 9, modified airframe'),
    flapTable: [
      { upToKt: 8, maxFlapDeg: 30, reason: 'ailerons droop with flap and lose authority' },
      { upToKt: 12, maxFlapDeg: 10, reason: 'drooping ailerons: keep them working' },
    ],
    flapTableSource: 'Flying order 9, modified airframe',
    modifications: [
      {
        name: 'Drooping ailerons',
        effect: 'Ailerons droop with flap: slower over the threshold in calm air, less roll in crosswind.',
        source: 'handbook',
        ref: 'Supplement 4',
      },
    ],
    attributes: [{ key: 'adverse-yaw', value: 'strong', source: 'handbook', ref: 'Supplement 4' }],
    insurer: note('house', 'Tailwheel time 25 h or 10 h dual before hire.', 'Policy 2026, clause 7'),
  }),
  plain('ZP-FAI', 'lume-faisca', 18),
  plain('ZP-BSE', 'bronze-b6', 15, {
    dialTable: dialTable([
      [55, -6.5],
      [66, -6],
      [80, -5],
      [110, -3.5],
      [150, -1],
    ]),
    insurer: note('house', 'Instructor on board below 20 h on type.', 'Policy 2026, clause 9'),
  }),
  plain('ZP-BQZ', 'bronze-b15', 9, { insurer: note('house', 'Named pilots only.', 'Policy 2026, clause 11') }),
  plain('ZP-PUR', 'planalto-p1r', 33),
  plain('ZP-PDO', 'planalto-p2', 21, { equipment: ['oxygen for two'] }),
  plain('ZP-MAR', 'orla-mare', 19, {
    emptyKg: weighed(1822, 'February 2026'),
    equipment: ['bilge pump, electric'],
    hoursToInspection: h(19, 'hull inspection, 8.2'),
  }),
];
