import type { TypeSheet } from '@/domain/sheet';

const MARK = 'sample';
const isRecord = (x: unknown): x is Record<string, unknown> => typeof x === 'object' && x !== null && !Array.isArray(x);
/** Keys under which a sheet names where a number or a table comes from. */
const REFERENCES = /^(ref|envelopeRef|flapTableSource)$/;

/**
 * What on a sheet nobody has confirmed: every number, table and text whose source is *sample*, or whose reference still
 * begins with that word. A table has one source for all its rows.
 * @param sheet a type sheet or an airframe, whole or half filled
 * @returns paths, in the order of the sheet; empty = all of it is confirmed
 * @example unconfirmed({ speeds: { vr: { value: 60, source: 'sample', ref: 'sample' } } }) // ['speeds.vr']
 */
export function unconfirmed(sheet: unknown): string[] {
  const found: string[] = [];
  const walk = (x: unknown, path: string): void => {
    if (Array.isArray(x)) return x.forEach((y, i) => walk(y, `${path}.${i}`));
    if (!isRecord(x)) return;
    const open =
      x.source === MARK ||
      Object.entries(x).some(([k, v]) => REFERENCES.test(k) && typeof v === 'string' && /^\s*sample\b/i.test(v));
    if (open) found.push(path);
    for (const [k, v] of Object.entries(x)) walk(v, path === '' ? k : `${path}.${k}`);
  };
  walk(sheet, '');
  return found;
}

/**
 * A sheet as a start for another type: its shape stays, and every number, table and text on it has to be confirmed with
 * a source of its own. What the sheet says without a source (its name, the mass of the speeds, the go-around, lamps,
 * reach, equipment and the like) is left out, to be entered.
 * @param sheet the sheet it is made from
 * @param of what it is made from, in words
 * @returns a sheet that is not complete
 */
export function asSample(sheet: TypeSheet, of: string): Record<string, unknown> {
  const ref = `${MARK}: ${of}`;
  const mark = (x: unknown): unknown => {
    if (Array.isArray(x)) return x.map(mark);
    if (!isRecord(x)) return x;
    const made = Object.fromEntries(
      Object.entries(x)
        .filter(([k]) => k !== 'others')
        .map(([k, v]) => [k, typeof v === 'string' && REFERENCES.test(k) ? ref : mark(v)]),
    );
    return typeof x.source === 'string' && typeof x.ref === 'string' ? { ...made, source: MARK } : made;
  };
  const marked = mark(sheet) as TypeSheet;
  const unseen = (gates: TypeSheet['approach']) => gates.map((g) => ({ ...g, pitchDeg: null }));
  return {
    ...marked,
    ...{ code: '', name: '', maker: '', summary: '', revision: '' },
    gear: { ...marked.gear, brakes: '', lamps: [] },
    features: { ...notSaid, ceilingFt: null },
    masses: { ...marked.masses, refMassKg: null },
    twin: marked.twin ? { ...marked.twin, accelerateStop: [] } : null,
    approach: unseen(marked.approach),
    dynamics: { ...marked.dynamics, propellerTurns: 'not said' },
    onLand: marked.onLand ? { ...marked.onLand, approach: unseen(marked.onLand.approach), goAroundFlow: [] } : null,
    powerTable: marked.powerTable.filter((row) => row.ias !== null || row.flowLPerH !== null),
    temperatures: marked.temperatures.filter((t) => t.low !== null || t.high !== null).map((t) => ({ ...t, note: '' })),
    ...{ sanctionedMargin: null, sight: null, goAroundFlow: [], instructorSeat: [] },
    ...{ equipment: [], attributes: [], handling: [], afterLimit: [], manoeuvres: [] },
  };
}
const notSaid = {
  ...{ glass: 'not said', turbocharged: 'not said', pressurised: 'not said' },
  ...{ singleLeverPower: 'not said', digitalEngineControl: 'not said', skis: 'not said' },
};
