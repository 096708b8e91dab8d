import { ktPerUnit } from '@/core/speeds';
import type { FoundEvent, TraceAnalysis } from '@/domain/trace';

export type Dial = 'kt' | 'mph';

export type FoundItem = TraceAnalysis['airwork'][number];

/** Found kinds in the field's words. */
export const FOUND_NAME: Record<FoundEvent['kind'] | FoundItem['kind'], string> = {
  takeoff: 'Take-off',
  landing: 'Landing, full stop',
  'touch-and-go': 'Touch and go',
  'stop-and-go': 'Stop and go',
  'go-around': 'Go-around',
  'low-pass': 'Low pass',
  'steep-turn': 'Steep turn',
  'slow-flight': 'Slow flight',
  stall: 'Stall',
  'climb-reversal': 'Climbing reversal',
  loop: 'Loop',
  roll: 'Roll',
  'emergency-descent': 'Emergency descent',
  'engine-out': 'Engine out',
  'clearing-turn': 'Clearing turn',
};
/** Minutes and seconds since the first sample. */
export function elapsed(s: number): string {
  const whole = Math.max(0, Math.round(s));
  const h = Math.floor(whole / 3600);
  return `${h > 0 ? `${h}:` : ''}${String(Math.floor((whole % 3600) / 60)).padStart(h > 0 ? 2 : 1, '0')}:${String(whole % 60).padStart(2, '0')}`;
}
/** The moment an event turns on: the touch, the lowest point, the lift-off. */
export const momentOf = (e: FoundEvent): number => e.touchdown?.tS ?? e.lowestS ?? e.liftoff?.tS ?? e.startS;

const fix = (x: number, digits = 0) => (x < 0 ? `\u2013${Math.abs(x).toFixed(digits)}` : x.toFixed(digits));
const signed = (x: number, digits = 0) => `${x >= 0 ? '+' : ''}${fix(x, digits)}`;
const side = (x: number, digits: number, unit: string) =>
  `${Math.abs(x).toFixed(digits)}${unit === '\u00b0' ? unit : ` ${unit}`} ${x < 0 ? 'left' : 'right'}`;
/** A speed of the analysis in the unit painted on the aeroplane's dial. */
export const dialText = (kt: number, unit: Dial): string => `${fix(kt / ktPerUnit(unit))} ${unit}`;
/** A difference of speeds, with its sign. */
export const dialOff = (kt: number, unit: Dial): string => {
  const off = Math.round(kt / ktPerUnit(unit));
  return `${off > 0 ? '+' : off < 0 ? '\u2013' : '\u00b1'}${Math.abs(off)} ${unit}`;
};
/** Names, values and units of everything measured of an event; what the file cannot support is left out. */
export function measuresText(e: FoundEvent, unit: Dial): [name: string, value: string][] {
  const out: [string, string][] = [];
  const t = e.touchdown;
  const add = (name: string, v: number | null | undefined, say: (x: number) => string, off = '') => {
    if (v !== null && v !== undefined) out.push([name, `${say(v)}${off}`]);
  };
  if (t) {
    const u = t.uncertainty;
    const ofDial = (kt: number | null | undefined) => (kt == null ? null : kt / ktPerUnit(unit));
    add('Touched', t.alongM, (x) => `${fix(x)} m past the threshold`, within(u?.alongM, 'm'));
    add('Across', t.lateralM, (x) => side(x, 1, 'm'), within(u?.lateralM, 'm', 1));
    add('Indicated', t.iasKt, (x) => dialText(x, unit), within(ofDial(u?.iasKt), unit));
    add('Over the ground', t.gsKt, (x) => dialText(x, unit), within(ofDial(u?.gsKt), unit));
    add('Sink', t.sinkFpm, (x) => `${fix(x)} ft/min`, within(u?.sinkFpm, 'ft/min'));
    add('Nose', t.crabDeg, (x) => side(x, 1, '\u00b0'), within(u?.crabDeg, '\u00b0', 1));
    add('Drift', t.driftKt, (x) => side(x, 1, 'kt'), within(u?.driftKt, 'kt', 1));
    add('Bounces', t.bounces, (x) => fix(x));
    add('Greatest load', t.peakG, (x) => `${x.toFixed(2)} g`);
  }
  const r = e.rollout?.uncertainty;
  add('Swing in the roll-out', e.rollout?.swingDeg, (x) => side(x, 1, '\u00b0'), within(r?.swingDeg, '\u00b0', 1));
  add('Farthest from the centreline', e.rollout?.lateralM, (x) => side(x, 1, 'm'), within(r?.lateralM, 'm', 1));
  add('Lowest', e.lowestHeightFt, (x) => `${fix(x)} ft`);
  const { liftoff } = e;
  add(
    'Lifted off',
    liftoff?.alongM,
    (x) => `${fix(x)} m past the threshold`,
    within(liftoff?.uncertainty?.alongM, 'm'),
  );
  add('Lift-off, indicated', liftoff?.iasKt, (x) => dialText(x, unit));
  return out;
}
/** What a measure may be off by, one standard deviation, rounded up; nothing where that is not known. */
const within = (sd: number | null | undefined, unit: string, digits = 0): string =>
  sd == null || !Number.isFinite(sd)
    ? ''
    : `, \u00b1${(Math.ceil(sd * 10 ** digits - 1e-9) / 10 ** digits).toFixed(digits)}${unit === '\u00b0' ? unit : ` ${unit}`}`;
export function itemText(a: FoundItem, unit: Dial): [name: string, value: string][] {
  const out: [string, string][] = [];
  if (a.maxBankDeg !== null && Math.abs(a.maxBankDeg) > 10) out.push(['Bank', side(a.maxBankDeg, 0, '\u00b0')]);
  if (a.heightDeviationFt.min !== null && a.heightDeviationFt.max !== null)
    out.push(['Height about the entry', `${signed(a.heightDeviationFt.min)} to ${signed(a.heightDeviationFt.max)} ft`]);
  if (a.speedDeviationKt.min !== null && a.speedDeviationKt.max !== null)
    out.push([
      'Speed about the entry',
      `${signed(a.speedDeviationKt.min / ktPerUnit(unit))} to ${signed(a.speedDeviationKt.max / ktPerUnit(unit))} ${unit}`,
    ]);
  if (a.rolloutErrorDeg !== null)
    out.push([
      'Roll-out',
      `${Math.abs(a.rolloutErrorDeg).toFixed(0)}\u00b0 ${a.rolloutErrorDeg > 0 ? 'late' : 'early'}`,
    ]);
  if (a.peakG !== null) out.push(['Greatest load', `${a.peakG.toFixed(2)} g`]);
  if (a.heightLossFt !== null && a.heightLossFt > 20) out.push(['Height lost', `${a.heightLossFt.toFixed(0)} ft`]);
  return out;
}
export const sureWord = (c: number): string => (c >= 0.8 ? 'sure' : c >= 0.55 ? 'fair' : 'weak');
