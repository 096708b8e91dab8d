import type { Airframe, TypeSheet } from '@/domain/sheet';
import { alvorC1, alvorC4G } from './alvor';
import { dialTable, h, house, measured, note } from './helpers';
import { bronzeB15, bronzeB6, lumeFaisca } from './lume-bronze';
import { orlaMare, planaltoP1R, planaltoP2 } from './planalto-orla';
import { serranaCarvalho, serranaEsteva, serranaUrze } from './serrana';

export const types: TypeSheet[] = [alvorC1, alvorC4G, serranaUrze, serranaEsteva, serranaCarvalho, lumeFaisca, bronzeB6, bronzeB15, planaltoP1R, planaltoP2, orlaMare];

const plain = (registration: string, typeCode: string, hours: number, rest: Partial<Airframe> = {}): Airframe => ({
  schema: 'airframe/1', registration, typeCode, emptyKg: null, emptyArmM: null, dialTable: null, crosswindLimitKt: null, flapTable: null, flapTableSource: null, modifications: [], attributes: [], equipment: [],
  hoursToInspection: { value: hours, source: 'house', ref: 'maintenance board' }, deferredDefects: [], insurer: null, ...rest,
});
const weighed = (kg: number, when: string) => ({ value: kg, source: 'measured' as const, ref: `weighing report, ${when}` });

export const airframes: Airframe[] = [
  plain('ZP-ALV', 'alvor-c1', 31),
  plain('ZP-CGA', 'alvor-c4g', 44),
  plain('ZP-CGE', 'alvor-c4g', 12, {
    emptyKg: weighed(771, 'April 2026'), emptyArmM: measured(2.37, 'weighing report, April 2026'),
    modifications: [
      { name: 'Electric propeller control', effect: 'One switch instead of the lever: the speed is chosen, not pulled; no lever to push forward on final.', source: 'handbook', ref: 'Supplement 2' },
      { name: 'Electronic ignition', effect: 'The engine needs the bus: when the battery is flat it stops.', source: 'handbook', ref: 'Supplement 3' },
      { name: 'Envelope protection', effect: 'The stick pushes back near the stall and in steep bank; it is switched off for stalls and steep turns.', source: 'handbook', ref: 'Supplement 5' },
    ],
    attributes: [
      { key: 'lever-order', value: 'throttle and electric propeller', source: 'handbook', ref: 'Supplement 2' }, { key: 'ignition', value: 'needs the bus', source: 'handbook', ref: 'Supplement 3' }, { key: 'protection', value: 'stick force and warnings', source: 'handbook', ref: 'Supplement 5' },
    ],
    insurer: note('house', 'Type checkout and 5 h dual before hire.', 'Policy 2026, clause 7'),
  }),
  plain('ZP-URZ', 'serrana-urze', 22, { emptyKg: weighed(356, 'March 2025') }),
  plain('ZP-URA', 'serrana-urze', 8, { emptyKg: weighed(349, 'June 2024'), deferredDefects: [{ text: 'Cabin heat inoperative', since: '2026-10-30', until: 'next inspection' }] }),
  plain('ZP-EST', 'serrana-esteva', 36),
  plain('ZP-CAV', 'serrana-carvalho', 27, { emptyKg: weighed(892, 'May 2025') }),
  plain('ZP-CAD', 'serrana-carvalho', 40, {
    emptyKg: weighed(906, 'January 2026'),
    crosswindLimitKt: house(12, 'Flying order 9, modified airframe'),
    flapTable: [{ upToKt: 8, maxFlapDeg: 30, reason: 'ailerons droop with flap and lose authority' }, { upToKt: 12, maxFlapDeg: 10, reason: 'drooping ailerons: keep them working' }],
    flapTableSource: 'Flying order 9, modified airframe',
    modifications: [{ name: 'Drooping ailerons', effect: 'Ailerons droop with flap: slower over the fence in calm air, less roll in crosswind.', source: 'handbook', ref: 'Supplement 4' }],
    attributes: [{ key: 'adverse-yaw', value: 'strong', source: 'handbook', ref: 'Supplement 4' }],
    insurer: note('house', 'Tailwheel time 25 h or 10 h dual before hire.', 'Policy 2026, clause 7'),
  }),
  plain('ZP-FAI', 'lume-faisca', 18),
  plain('ZP-BSE', 'bronze-b6', 15, { dialTable: dialTable([[55, -6.5], [66, -6], [80, -5], [110, -3.5], [150, -1]]), insurer: note('house', 'Instructor on board below 20 h on type.', 'Policy 2026, clause 9') }),
  plain('ZP-BQZ', 'bronze-b15', 9, { insurer: note('house', 'Named pilots only.', 'Policy 2026, clause 11') }),
  plain('ZP-PUR', 'planalto-p1r', 33),
  plain('ZP-PDO', 'planalto-p2', 21, { equipment: ['oxygen for two'] }),
  plain('ZP-MAR', 'orla-mare', 19, { emptyKg: weighed(1822, 'February 2026'), equipment: ['bilge pump, electric'], hoursToInspection: h(19, 'hull inspection, 8.2') }),
];
