/** The fields of a type sheet in the order of a flight manual, so that somebody with the manual open turns no page twice. */
export const SHEET_STEPS = {
  general: [
    ...['name', 'maker', 'summary', 'revision', 'surface', 'code', 'seats'],
    ...['engine.count', 'engine.powerHp', 'engine.propeller', 'engine.footOnPower', 'engine.induction'],
    ...['gear.layout', 'gear.retractable', 'gear.steerDeg', 'gear.freeCaster', 'gear.brakes', 'gear.lamps'],
    ...['features', 'equipment'],
  ],
  limits: [
    ...['masses.maxTakeoffKg', 'masses.maxBaggageKg', 'loadFactor', 'flapSteps', 'speeds.va', 'speeds.vno'],
    ...['speeds.vne', 'speeds.vloExtend', 'speeds.vloRetract', 'speeds.vle', 'speeds.vfe', 'crosswind'],
    ...['temperatures', 'afterLimit'],
  ],
  speeds: [
    ...['dial', 'masses.refMassKg', 'speeds.vr', 'speeds.vx', 'speeds.vy', 'speeds.bestGlide', 'coolingClimb'],
    'twin',
  ],
  stalls: ['stalls'],
  approach: ['approach', 'sanctionedMargin', 'landing', 'goAroundFlow', 'onLand'],
  distances: ['distances'],
  loading: ['masses.emptyKg', 'loading'],
  fuel: ['engine.usableFuelL', 'engine.flowLPerH', 'powerTable'],
  electrics: ['electrical'],
  geometry: [
    ...['wing', 'gear.trackM', 'gear.wheelbaseM', 'geometry', 'drag', 'engine.propEfficiency', 'engine.staticThrustN'],
    ...['sight', 'instructorSeat'],
  ],
  dynamics: ['dynamics'],
  handling: ['flows', 'exits', 'manoeuvres', 'attributes', 'handling'],
} as const satisfies Record<string, readonly string[]>;
export type SheetStep = keyof typeof SHEET_STEPS;

const STEPS = Object.keys(SHEET_STEPS) as SheetStep[];
/**
 * The step a field is entered at; what no step names is *general*.
 * @param path of a field of a sheet, such as `speeds.vfe.1.speed`
 * @returns the step
 * @example stepOf('speeds.vfe.1.speed') // 'limits'
 */
export function stepOf(path: string): SheetStep {
  const under = (field: string) => path === field || path.startsWith(`${field}.`);
  return STEPS.find((s) => SHEET_STEPS[s].some(under)) ?? 'general';
}
