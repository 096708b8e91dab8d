import type { DistanceRow, Gate, Sourced } from '@/domain/sheet';
import type { z } from 'zod';

type Source = Sourced['source'];
const from = (source: Source) => (value: number, ref: string): Sourced => ({ value, source, ref });
export const handbook = from('handbook');
export const placard = from('placard');
export const house = from('house');
export const instructor = from('instructor');
export const measured = from('measured');

export const note = (source: Source, text: string, ref: string) => ({ text, source, ref });

/** One gate of an approach schedule: name, height, distance, speed, flap, power; on final from the third. */
export const gate = (name: string, heightFt: number, distanceM: number, speed: Sourced, flapDeg: number, power: string, finalGate: boolean, bankDeg = 0): Gate => ({ name, heightFt, distanceM, speed, flapDeg, power, finalGate, bankDeg });

type Row = z.infer<typeof DistanceRow>;
/** Distance rows at two masses × two heights × two temperatures, scaled from one handbook point by the usual square laws. */
export function distanceTable(atKg: number, lowKg: number, groundRollM: number, over50FtM: number): Row[] {
  const rows: Row[] = [];
  for (const massKg of [lowKg, atKg]) for (const pressureAltFt of [0, 4000]) for (const oatC of [0, 30]) {
    const factor = (massKg / atKg) ** 2 * (1 + pressureAltFt / 4000 * 0.24) * (1 + (oatC - 15) * 0.006);
    rows.push({ massKg, pressureAltFt, oatC, groundRollM: Math.round(groundRollM * factor / 5) * 5, over50FtM: Math.round(over50FtM * factor / 5) * 5 });
  }
  return rows;
}

/** The instructor's seat: what it reaches, with what is not reached named. */
export function seat(reach: Record<string, ['reached' | 'seen only' | 'not reached', string]>) {
  return Object.entries(reach).map(([control, [r, text]]) => ({ control: control as never, reach: r, note: text }));
}
