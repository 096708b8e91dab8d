import type { TypeSheet } from '@/domain/sheet';
import { distanceTable, gate, handbook, house, note, placard, seat } from './helpers';

export const serranaCarvalho: TypeSheet = {
  schema: 'type-sheet/1', code: 'serrana-carvalho', name: 'Serrana Carvalho', maker: 'Serrana', revision: 'handbook revision 11',
  summary: 'Heavy four-seat tailwheel on spring-steel gear, constant-speed propeller, flap to 40 degrees.',
  dial: { unit: 'kt', table: [{ ias: 45, correction: 3.6 }, { ias: 60, correction: 1.8 }, { ias: 80, correction: 0.8 }, { ias: 110, correction: 0 }, { ias: 160, correction: -2 }], source: 'handbook', ref: 'Handbook 5.2' },
  gear: { layout: 'tailwheel', retractable: false, steerDeg: handbook(22, 'Handbook 7.5'), freeCaster: true, brakes: 'toe brakes, both front seats', trackM: handbook(2.55, 'Handbook 1.2'), wheelbaseM: handbook(6.05, 'Handbook 1.2') },
  surface: 'land',
  engine: { count: 1, powerHp: handbook(245, 'Handbook 1.3'), propeller: 'constant-speed', footOnPower: 'right', usableFuelL: handbook(235, 'Handbook 2.7'), flowLPerH: handbook(52, 'Handbook 5.8, 65 %') },
  seats: { count: 4, arrangement: 'side by side' },
  flapSteps: [0, 10, 20, 30, 40],
  masses: { maxTakeoffKg: handbook(1450, 'Handbook 2.4'), emptyKg: handbook(885, 'weighing report'), maxBaggageKg: placard(54, 'Baggage door'), refMassKg: 1450 },
  wing: { areaM2: handbook(16.3, 'Handbook 1.2'), spanM: handbook(10.95, 'Handbook 1.2'), bestGlideRatio: handbook(9.1, 'Handbook 3.3') },
  speeds: {
    vr: handbook(54, 'Handbook 4.2'), vx: handbook(64, 'Handbook 4.2'), vy: handbook(82, 'Handbook 4.2'), va: handbook(116, 'Handbook 2.2'), bestGlide: handbook(78, 'Handbook 3.3'),
    vno: handbook(138, 'Handbook 2.2'), vne: handbook(168, 'Handbook 2.2'),
    vfe: [{ flapDeg: 10, speed: handbook(104, 'Handbook 2.2') }, { flapDeg: 20, speed: handbook(88, 'Handbook 2.2') }, { flapDeg: 30, speed: handbook(88, 'Handbook 2.2') }, { flapDeg: 40, speed: handbook(88, 'Handbook 2.2') }],
  },
  stalls: [
    { flapDeg: 0, speed: handbook(58, 'Handbook 5.1') }, { flapDeg: 10, speed: handbook(55.5, 'Handbook 5.1') }, { flapDeg: 20, speed: handbook(53, 'Handbook 5.1') },
    { flapDeg: 30, speed: handbook(51.5, 'Handbook 5.1') }, { flapDeg: 40, speed: handbook(50, 'Handbook 5.1') },
  ],
  approach: [
    gate('Downwind', 1000, 3900, house(84, 'Flying order 9'), 10, '18 inHg, 2300 rpm', false),
    gate('Base', 620, 2500, handbook(76, 'Handbook 4.5'), 20, '15 inHg', false, 20),
    gate('Final', 300, 1150, handbook(70, 'Handbook 4.5'), 40, '13 inHg', true),
    gate('Fence', 50, 0, handbook(66, 'Handbook 4.5'), 40, 'closing', true),
  ],
  sanctionedMargin: { ratio: 1.27, source: 'Handbook 4.5, short final' },
  crosswind: {
    limitationKt: null, demonstratedKt: handbook(14, 'Handbook 4.5, demonstrated'), tailwindLimitKt: null,
    flapTable: [{ upToKt: 6, maxFlapDeg: 40, reason: 'full flap, slowest touch' }, { upToKt: 12, maxFlapDeg: 30, reason: 'the upwind flap turns the aeroplane' }, { upToKt: 16, maxFlapDeg: 20, reason: 'aileron needs the air' }],
    flapTableSource: 'Flying order 9',
  },
  landing: { usualAttitude: 'mains-first', wheelLandings: 'allowed', aimPointM: house(80, 'Flying order 9') },
  distances: { takeoff: distanceTable(1450, 1150, 270, 460), landing: distanceTable(1450, 1150, 230, 450), ref: 'Handbook 5.5 and 5.9' },
  instructorSeat: seat({ 'stick or wheel': ['reached', ''], rudder: ['reached', ''], brakes: ['reached', 'toe'], throttle: ['reached', ''], mixture: ['reached', ''], flap: ['reached', 'lever on the floor'], trim: ['reached', ''], fuel: ['reached', ''], ignition: ['seen only', 'left panel'], 'canopy or doors': ['reached', 'own door'], 'airspeed indicator': ['seen only', 'read across'] }),
  exits: [note('handbook', 'Front doors; windows open outward in flight and on the ground.', 'Handbook 3.9')],
  goAroundFlow: ['full power, foot with it', 'pitch to the climb picture', 'flap to 20 degrees', 'positive climb', 'flap up in steps above 70 kt'],
  handling: [
    note('handbook', 'Spring gear gives back what it is given: one skip, then go around.', 'Handbook 4.5'),
    note('instructor', 'The wheel travels far beyond where it usually stops: full aileron is more than half a turn.', 'H. Serpa'),
    note('house', 'In strong wind stop on the runway, flap up, then taxi.', 'Flying order 9'),
  ],
};
