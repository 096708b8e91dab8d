/**
 * "Engine failure now: where?": the answer of the reach model for a place named by its leg and height, as it is asked in
 * the aeroplane.
 */
import { needNumbers } from '../guard';
import { convertReference } from '../wind/components';
import { sheetOn, surfaceOfStrip } from '../sheet';
import { circuitPace, placeAt, type PacePoint, type PaceSheet } from './pace';
import { endPlaces, heldAt, reachFrom, type ReachSample } from './reach-along';

export interface StopField {
  sheet: PaceSheet;
  variationDeg: number;
  circuitHeightFt: number;
  /** Air density over that of the standard at sea level. */
  sigma: number;
  turnBackFt: number;
  reactionS: number;
  bankDeg: number;
  /** Landing distance over 50 ft on the runway briefed, every factor in it; absent or null = not known. */
  over50M?: number | null;
  strips: readonly {
    surface: string;
    lengthM: number;
    elevationFt: number;
    eastM: number;
    northM: number;
    ends: readonly { ident: string; trueBearingDeg: number; circuit?: 'left' | 'right' | undefined }[];
  }[];
}
export interface StopHere {
  heightFt: number;
  leg: PacePoint['leg'];
  /** `ahead`, `field` or the runway end the model would take. */
  answer: string;
  verdict: ReachSample['verdict'];
  marginFt: number | null;
  ends: ReachSample['ends'];
  ahead: boolean;
  held: ReachSample['held'];
  retracted: ReachSample['retracted'];
  oneEngineFpm: number | null;
}

/** Turned where the lab starts from: 500 ft, base at 45 degrees; to the left where the runway says nothing. */
const SHAPE = { crosswindTurnFt: 500, bankDeg: 25, baseAngleDeg: 45, spacingM: null };
const SAMPLES = 240;

/**
 * The part of the circuit flown at a height on a leg: the middle of what is nearest to it. Null when the leg is not
 * flown.
 */
function placeOn(points: readonly PacePoint[], leg: PacePoint['leg'], heightFt: number): PacePoint | null {
  const total = points[points.length - 1]?.tS ?? 0;
  const on = Array.from({ length: SAMPLES }, (_, i) => placeAt(points, (total * (i + 0.5)) / SAMPLES)).filter(
    (p): p is PacePoint => p !== null && p.leg === leg,
  );
  if (on.length === 0) return null;
  const best = Math.min(...on.map((p) => Math.abs(p.heightFt - heightFt)));
  const near = on.filter((p) => Math.abs(p.heightFt - heightFt) <= best + 1);
  return near[Math.floor(near.length / 2)] ?? null;
}

/**
 * The height flown on a leg of today's circuit, to start the question from; null when the leg is not flown.
 * @returns ft
 * @throws BadNumber when a number handed in is none
 */
export function heightOn(
  field: StopField,
  runwayEnd: string,
  wind: { fromMagneticDeg: number; kt: number },
  leg: PacePoint['leg'],
): number | null {
  needNumbers('heightOn', { field, runwayEnd, wind, leg });
  const points = circuitOf(field, runwayEnd, wind)?.points ?? [];
  const total = points[points.length - 1]?.tS ?? 0;
  const on = Array.from({ length: SAMPLES }, (_, i) => placeAt(points, (total * (i + 0.5)) / SAMPLES)).filter(
    (p): p is PacePoint => p !== null && p.leg === leg,
  );
  return on[Math.floor(on.length / 2)]?.heightFt ?? null;
}

function circuitOf(field: StopField, runwayEnd: string, wind: { fromMagneticDeg: number; kt: number }) {
  const strip = field.strips.find((s) => s.ends.some((e) => e.ident === runwayEnd));
  const end = strip?.ends.find((e) => e.ident === runwayEnd);
  if (!strip || !end) return null;
  const windFromDeg = convertReference(wind.fromMagneticDeg, 'magnetic', 'true', field.variationDeg);
  const pace = circuitPace(
    field.sheet,
    {
      ident: end.ident,
      trueBearingDeg: end.trueBearingDeg,
      lengthM: strip.lengthM,
      elevationFt: strip.elevationFt,
      surface: strip.surface,
    },
    {
      ...SHAPE,
      side: end.circuit ?? 'left',
      windFromDeg,
      windKt: wind.kt,
      sigma: field.sigma,
      circuitHeightFt: field.circuitHeightFt,
    },
  );
  return { points: pace.points, strip, end, windFromDeg };
}

/**
 * Where a model of the reach would go from here, in the wind given (magnetic). Every usable runway end is tried;
 * straight ahead counts where the glide and the roll fit into what is left.
 * Source: steady glide with the drag of what is out.
 * @param heightFt above the field, as read now
 * @returns null when the runway is not known, or the circuit cannot be flown by the sheet's numbers
 * @throws BadNumber when a number handed in is none
 */
export function stopHere(
  field: StopField,
  runwayEnd: string,
  wind: { fromMagneticDeg: number; kt: number },
  leg: PacePoint['leg'],
  heightFt: number,
): StopHere | null {
  needNumbers('stopHere', { field, runwayEnd, wind, leg, heightFt });
  const circuit = circuitOf(field, runwayEnd, wind);
  const at = circuit && placeOn(circuit.points, leg, heightFt);
  if (!circuit || !at) return null;
  const usable = field.strips.filter((s) =>
    field.sheet.surface === 'amphibian'
      ? true
      : field.sheet.surface === 'sea'
        ? s.surface === 'water'
        : s.surface !== 'water',
  );
  const ends = endPlaces(
    { ident: circuit.end.ident, trueBearingDeg: circuit.end.trueBearingDeg, lengthM: circuit.strip.lengthM },
    usable,
  );
  const here = sheetOn(field.sheet, surfaceOfStrip(circuit.strip.surface)) ?? field.sheet;
  const held = heldAt(here, circuit.points, at);
  const found = reachFrom(
    field.sheet,
    { ...at, heightFt },
    { trueBearingDeg: circuit.end.trueBearingDeg, lengthM: circuit.strip.lengthM, surface: circuit.strip.surface },
    ends,
    {
      sigma: field.sigma,
      windFromDeg: circuit.windFromDeg,
      windKt: wind.kt,
      bankDeg: field.bankDeg,
      reactionS: field.reactionS,
      turnBackFt: field.turnBackFt,
      over50M: field.over50M ?? null,
    },
    held,
  );
  const best = found.ends.find((e) => e.id === found.bestId) ?? null;
  return {
    heightFt,
    leg,
    answer: found.ahead ? 'ahead' : found.verdict === 'no' ? 'field' : (found.bestId ?? 'field'),
    verdict: found.verdict,
    marginFt: found.ahead ? found.aheadMarginFt : (best?.marginFt ?? null),
    ends: found.ends,
    ahead: found.ahead,
    held: found.held,
    retracted: found.retracted,
    oneEngineFpm: found.oneEngineFpm,
  };
}
