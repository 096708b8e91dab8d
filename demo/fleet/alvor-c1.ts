import type { TypeSheet } from '@/domain/sheet';
import { distanceTable, gate, handbook, house, note, seat } from './helpers';

export const alvorC1: TypeSheet = {
  schema: 'type-sheet/1', code: 'alvor-c1', name: 'Alvor C1', maker: 'Alvor', revision: 'handbook revision 6',
  summary: 'Side-by-side nosewheel trainer; the type most pilots come from.',
  dial: { unit: 'kt', table: [{ ias: 40, correction: 0.5 }, { ias: 70, correction: 0.5 }, { ias: 100, correction: 0 }, { ias: 130, correction: -1 }], source: 'handbook', ref: 'Handbook 5.3' },
  gear: { layout: 'nosewheel', retractable: false, steerDeg: handbook(12, 'Handbook 7.4'), freeCaster: false, brakes: 'toe brakes, both seats', trackM: handbook(2.3, 'Handbook 1.2'), wheelbaseM: handbook(1.55, 'Handbook 1.2') },
  surface: 'land',
  engine: { count: 1, powerHp: handbook(112, 'Handbook 1.3'), propeller: 'fixed', footOnPower: 'right', usableFuelL: handbook(92, 'Handbook 2.7'), flowLPerH: handbook(23, 'Handbook 5.8, 65 %') },
  seats: { count: 2, arrangement: 'side by side' },
  flapSteps: [0, 10, 20, 30],
  masses: { maxTakeoffKg: handbook(760, 'Handbook 2.4'), emptyKg: handbook(508, 'weighing report'), maxBaggageKg: handbook(54, 'Handbook 2.4'), refMassKg: 760 },
  wing: { areaM2: handbook(12.6, 'Handbook 1.2'), spanM: handbook(9.8, 'Handbook 1.2'), bestGlideRatio: handbook(9.2, 'Handbook 3.4') },
  speeds: {
    vr: handbook(51, 'Handbook 4.2'), vx: handbook(58, 'Handbook 4.2'), vy: handbook(68, 'Handbook 4.2'), va: handbook(95, 'Handbook 2.2'), bestGlide: handbook(62, 'Handbook 3.4'),
    vno: handbook(110, 'Handbook 2.2'), vne: handbook(145, 'Handbook 2.2'),
    vfe: [{ flapDeg: 10, speed: handbook(88, 'Handbook 2.2') }, { flapDeg: 20, speed: handbook(88, 'Handbook 2.2') }, { flapDeg: 30, speed: handbook(88, 'Handbook 2.2') }],
  },
  stalls: [{ flapDeg: 0, speed: handbook(47, 'Handbook 5.2') }, { flapDeg: 10, speed: handbook(45, 'Handbook 5.2') }, { flapDeg: 20, speed: handbook(43.5, 'Handbook 5.2') }, { flapDeg: 30, speed: handbook(42, 'Handbook 5.2') }],
  approach: [
    gate('Downwind', 900, 3400, house(72, 'Flying order 7'), 0, '2000 rpm', false),
    gate('Base', 560, 2150, handbook(66, 'Handbook 4.4'), 20, '1500 rpm', false, 20),
    gate('Final', 300, 1100, handbook(60, 'Handbook 4.4'), 30, '1400 rpm', true),
    gate('Fence', 50, 0, handbook(55, 'Handbook 4.4'), 30, 'idle', true),
  ],
  sanctionedMargin: null,
  crosswind: { limitationKt: null, demonstratedKt: handbook(15, 'Handbook 4.5, demonstrated'), tailwindLimitKt: null, flapTable: [{ upToKt: 10, maxFlapDeg: 30, reason: 'full flap, no penalty' }, { upToKt: 15, maxFlapDeg: 20, reason: 'less flap keeps the aileron working' }], flapTableSource: 'Flying order 7' },
  landing: { usualAttitude: 'mains-first', wheelLandings: 'not applicable', aimPointM: house(60, 'Flying order 7') },
  distances: { takeoff: distanceTable(760, 640, 240, 430), landing: distanceTable(760, 640, 150, 370), ref: 'Handbook 5.5 and 5.9' },
  instructorSeat: seat({ 'stick or wheel': ['reached', ''], rudder: ['reached', ''], brakes: ['reached', 'toe'], throttle: ['reached', ''], mixture: ['reached', ''], flap: ['reached', ''], trim: ['reached', ''], fuel: ['reached', ''], ignition: ['seen only', 'key on the left'], 'canopy or doors': ['reached', 'own door'], 'airspeed indicator': ['seen only', 'read across, parallax 2 kt'] }),
  exits: [note('handbook', 'Door each side, handle forward of the elbow.', 'Handbook 3.9')],
  goAroundFlow: ['full power', 'pitch to the horizon', 'flap to 20°', 'positive climb', 'flap up in steps'],
  handling: [note('handbook', 'A swerve dies by itself: the weight is ahead of the main wheels.', 'Handbook 7.4'), note('instructor', 'Lands flat if the yoke is relaxed at touchdown.', 'H. Serpa')],
};
