import type { Airframe, TypeSheet } from '@/domain/sheet';
import { alvorC1 } from './alvor-c1';
import { handbook, house } from './helpers';
import { serranaCarvalho } from './serrana-carvalho';
import { serranaUrze } from './serrana-urze';

export const types: TypeSheet[] = [alvorC1, serranaUrze, serranaCarvalho];

const plain = (registration: string, typeCode: string): Airframe => ({ schema: 'airframe/1', registration, typeCode, emptyKg: null, dialTable: null, crosswindLimitKt: null, flapTable: null, flapTableSource: null, modifications: [] });

export const airframes: Airframe[] = [
  plain('ZP-ALV', 'alvor-c1'),
  { ...plain('ZP-URZ', 'serrana-urze'), emptyKg: handbook(356, 'weighing report, March 2025') },
  { ...plain('ZP-URA', 'serrana-urze'), emptyKg: handbook(349, 'weighing report, June 2024') },
  { ...plain('ZP-CAV', 'serrana-carvalho'), emptyKg: handbook(892, 'weighing report, May 2025') },
  {
    ...plain('ZP-CAD', 'serrana-carvalho'),
    emptyKg: handbook(906, 'weighing report, January 2026'),
    crosswindLimitKt: house(12, 'Flying order 9, modified airframe'),
    flapTable: [{ upToKt: 8, maxFlapDeg: 30, reason: 'ailerons droop with flap and lose authority' }, { upToKt: 12, maxFlapDeg: 10, reason: 'drooping ailerons: keep them working' }],
    flapTableSource: 'Flying order 9, modified airframe',
    modifications: [{ name: 'Drooping ailerons', effect: 'Ailerons droop with flap: slower over the fence in calm air, less roll in crosswind.', source: 'handbook', ref: 'Supplement 4' }],
  },
];
