import type { TypeSheet } from '@/domain/sheet';
import { distanceTable, gate, handbook, house, instructor, note, placard, seat } from './helpers';

export const serranaUrze: TypeSheet = {
  schema: 'type-sheet/1', code: 'serrana-urze', name: 'Serrana Urze', maker: 'Serrana', revision: 'handbook revision 3',
  summary: 'Light tandem tailwheel, stick and heel brakes, no flap. Airspeed indicator in miles per hour.',
  dial: { unit: 'mph', table: [{ ias: 35, correction: 3.4 }, { ias: 45, correction: 2 }, { ias: 60, correction: 0.8 }, { ias: 80, correction: 0 }, { ias: 110, correction: -1 }], source: 'measured', ref: 'House flight test, four-way runs' },
  gear: { layout: 'tailwheel', retractable: false, steerDeg: handbook(25, 'Handbook 7.2'), freeCaster: true, brakes: 'heel brakes, front seat only', trackM: handbook(1.86, 'Handbook 1.2'), wheelbaseM: handbook(4.7, 'Handbook 1.2') },
  surface: 'land',
  engine: { count: 1, powerHp: handbook(95, 'Handbook 1.3'), propeller: 'fixed', footOnPower: 'right', usableFuelL: placard(64, 'Tank placard'), flowLPerH: handbook(20, 'Handbook 5.6, 2300 rpm') },
  seats: { count: 2, arrangement: 'tandem' },
  flapSteps: [0],
  masses: { maxTakeoffKg: handbook(560, 'Handbook 2.4'), emptyKg: handbook(352, 'weighing report'), maxBaggageKg: placard(14, 'Baggage placard'), refMassKg: 560 },
  wing: { areaM2: handbook(16.2, 'Handbook 1.2'), spanM: handbook(10.7, 'Handbook 1.2'), bestGlideRatio: handbook(8.8, 'Handbook 3.3') },
  speeds: {
    vr: null, vx: handbook(52, 'Handbook 4.2'), vy: handbook(63, 'Handbook 4.2'), va: handbook(79, 'Handbook 2.2'), bestGlide: handbook(58, 'Handbook 3.3'),
    vno: handbook(95, 'Handbook 2.2'), vne: placard(122, 'Panel placard'), vfe: [],
  },
  stalls: [{ flapDeg: 0, speed: handbook(38, 'Handbook 5.1') }],
  approach: [
    gate('Downwind', 900, 3200, house(66, 'Flying order 7'), 0, '1900 rpm', false),
    gate('Base', 560, 2050, house(62, 'Flying order 7'), 0, '1500 rpm', false, 25),
    gate('Final', 300, 1050, handbook(58, 'Handbook 4.5'), 0, 'idle', true),
    gate('Fence', 50, 0, instructor(54, 'H. Serpa, technique'), 0, 'idle', true),
  ],
  sanctionedMargin: null,
  crosswind: { limitationKt: null, demonstratedKt: null, tailwindLimitKt: house(5, 'House rules, flying order 4'), flapTable: [], flapTableSource: null },
  landing: { usualAttitude: 'three-point', wheelLandings: 'allowed', aimPointM: house(60, 'Flying order 7') },
  distances: { takeoff: distanceTable(560, 460, 150, 330), landing: distanceTable(560, 460, 130, 320), ref: 'Handbook 5.4 and 5.7' },
  instructorSeat: seat({ 'stick or wheel': ['reached', ''], rudder: ['reached', ''], brakes: ['not reached', 'heel brakes at the front only'], throttle: ['reached', ''], mixture: ['not reached', ''], trim: ['reached', ''], fuel: ['seen only', ''], ignition: ['not reached', 'front panel; brief who switches off'], 'canopy or doors': ['reached', 'door jettison behind the right hip'], 'airspeed indicator': ['seen only', 'over the pilot\u2019s shoulder'] }),
  exits: [note('handbook', 'One door, right side; red jettison pull ahead of the hinge.', 'Handbook 3.8'), note('instructor', 'Rear seat leaves second: front seat forward first.', 'H. Serpa')],
  goAroundFlow: ['full power over two seconds', 'foot with the power', 'hold the attitude until the speed comes', 'climb at 63 mph'],
  handling: [
    note('handbook', 'Tailwheel steers to 25 degrees, then casters free.', 'Handbook 7.2'),
    note('measured', 'Wheel landings run 60 m longer than three-point landings here.', 'House records 2025'),
    note('instructor', 'Over the nose only sky in the three-point attitude: use the left edge, 60 m ahead.', 'H. Serpa'),
  ],
};
