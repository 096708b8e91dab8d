/** Human names and units of the fields of a sheet, by path. One catalogue for the editor, the differences and the findings. */
const NAMES: Record<string, string> = {
  dial: 'airspeed indicator', 'dial.table': 'error table', gear: 'gear', engine: 'engine', seats: 'seats', flapSteps: 'flap settings', masses: 'masses', wing: 'wing', drag: 'drag', loadFactor: 'load factor', speeds: 'speeds', twin: 'one engine out',
  stalls: 'stall, power off', approach: 'approach schedule', sanctionedMargin: 'margin the handbook sanctions', powerTable: 'power table', temperatures: 'temperatures', coolingClimb: 'cooling climb', crosswind: 'crosswind', landing: 'landing', distances: 'distances', loading: 'loading', electrical: 'electrics', geometry: 'geometry',
  instructorSeat: 'from the instructor\u2019s seat', equipment: 'equipment', flows: 'checks and flows', exits: 'emergency exits', goAroundFlow: 'go-around flow', attributes: 'handling attributes', handling: 'handling notes', afterLimit: 'after a limit was passed', channel: 'limit', modifications: 'modifications', deferredDefects: 'deferred defects', insurer: 'insurer\u2019s terms',
  name: 'name', maker: 'maker', summary: 'in a sentence', revision: 'handbook revision', code: 'code', unit: 'unit', source: 'source', ref: 'reference', ias: 'indicated', correction: 'calibrated less indicated',
  layout: 'layout', retractable: 'retractable', steerDeg: 'steering', freeCaster: 'casters free', brakes: 'brakes', trackM: 'track', wheelbaseM: 'wheelbase', surface: 'surface', count: 'number', powerHp: 'power, each', propeller: 'propeller', footOnPower: 'foot on power', induction: 'induction', usableFuelL: 'usable fuel', flowLPerH: 'fuel flow', propEfficiency: 'propeller efficiency', staticThrustN: 'static thrust',
  arrangement: 'arrangement', maxTakeoffKg: 'maximum take-off', emptyKg: 'empty', maxBaggageKg: 'baggage at most', refMassKg: 'reference mass of the speeds', areaM2: 'area', spanM: 'span', bestGlideRatio: 'best glide ratio', positive: 'positive', negative: 'negative',
  vr: 'Vr', vx: 'Vx', vy: 'Vy', va: 'Va', bestGlide: 'best glide', vno: 'Vno', vne: 'Vne', vloExtend: 'gear extension', vloRetract: 'gear retraction', vle: 'gear extended', vfe: 'flap limits', vmca: 'Vmca', vsse: 'Vsse', vyse: 'Vyse', oneEngineClimbFpm: 'climb on one engine', oneEngineCeilingFt: 'ceiling on one engine', goAroundDecisionFt: 'no go-around on one engine below',
  flap: 'flap', deltaCd0: 'drag coefficient added', flapDeg: 'flap', speed: 'speed', heightFt: 'height above the field', distanceM: 'to the threshold', power: 'power', finalGate: 'on final', bankDeg: 'bank', ratio: 'ratio', phase: 'phase', setting: 'setting', low: 'low', high: 'high', note: 'note',
  limitationKt: 'limitation', demonstratedKt: 'demonstrated', tailwindLimitKt: 'tailwind limit', flapTable: 'flap by crosswind', flapTableSource: 'source of the table', upToKt: 'up to', maxFlapDeg: 'flap at most', reason: 'reason', usualAttitude: 'usual attitude', wheelLandings: 'wheel landings', aimPointM: 'aim point', minWidthM: 'least width', speedSchool: 'approach speed',
  takeoff: 'take-off', massKg: 'mass', pressureAltFt: 'pressure altitude', oatC: 'air', groundRollM: 'ground roll', over50FtM: 'over 50 ft', datum: 'datum', emptyArmM: 'empty arm', stations: 'stations', role: 'who or what', armM: 'arm', maxKg: 'at most', fuelArmM: 'fuel arm', envelope: 'envelope', envelopeRef: 'source of the envelope', trim: 'trim', rows: 'settings',
  batteryAh: 'battery', usableShare: 'usable share', consumers: 'consumers', amps: 'draws', shedAtMin: 'switched off after', dependsOn: 'needs', backupMin: 'own cell', lengthM: 'length', heightM: 'height', noseToMainM: 'nose to main wheels', propDiameterM: 'propeller', tyreDiameterM: 'tyre', groundPitchDeg: 'attitude on three wheels', eyeHeightM: 'eye above ground', noseToEyeM: 'nose to eye',
  lamps: 'what the lamps mean', wheel: 'wheel', state: 'lamp', means: 'means',
  sight: 'view from the seat', profile: 'where the nose ends', azimuthDeg: 'to the side', depressionDeg: 'below the axis', eyeLateralM: 'eye beside the centreline', attitudes: 'attitudes', pitchDeg: 'pitch', yawDeg: 'nose to the side', parts: 'parts in the view', fromAzimuthDeg: 'from, to the side', fromDepressionDeg: 'from, below the axis', toAzimuthDeg: 'to, to the side', toDepressionDeg: 'to, below the axis', references: 'reference parts', attitude: 'attitude',
  runways: 'runways', airspace: 'airspace on the way out', elevationFt: 'elevation', widthM: 'width', slopePct: 'slope towards the first end, per cent', centre: 'middle, from the reference point', eastM: 'east', northM: 'north', ends: 'ends', ident: 'designator', trueBearingDeg: 'true bearing', landmark: 'go around if not down by', alongM: 'past the threshold', slopeLightsDeg: 'slope lights', fromKm: 'from, km', toKm: 'to, km', floorFt: 'floor', variationDeg: 'variation, west negative', timeZone: 'time zone', latitudeDeg: 'latitude, north positive', longitudeDeg: 'longitude, east positive', circuitHeightFt: 'height of the circuit',
  items: 'items', title: 'title', topic: 'topic', goal: 'goal', where: 'where', citation: 'citation', citations: 'citations', safety: 'safety item', waivable: 'may be waived', prerequisites: 'first', evidence: 'evidence', needed: 'how many', maxIntervention: 'help at most (0 none, 1 a word)', minDays: 'on at least so many days', variants: 'each of these', withinDays: 'within days', minSorties: 'over at least so many flights', windKt: 'one in a crosswind of', minCrosswindKt: 'in a crosswind of', fullStop: 'full stops only', prompted: 'with a word counts too', accuracy: 'on target only', sound: 'decided in time', good: 'flown well', from: 'from',
  credit: 'may be credited', holds: 'by holding', groupHours: 'by hours of the same gear and mass', confirm: 'to be confirmed', forms: 'captured with', needsWindKt: 'needs a crosswind of', minHours: 'hours at least', goals: 'goals', essence: 'essence', decides: 'who decides', written: 'what is written', lasts: 'how long it lasts', instructorNeeds: 'what the instructor holds', template: 'text of the entry', recommendation: 'recommendation', validMonths: 'holds so many months', monthEnd: 'to the end of that month', courseMonths: 'course at most, months', organisation: 'organisation', instructor: 'instructor', modelHours: 'hours in the model', picHours: 'hours in command', authority: 'authority', caution: 'caution', endorsementGoals: 'goal that gives each endorsement', picRule: 'pilot in command', logRule: 'logging', notCovered: 'not covered', recency: 'recent experience', dated: 'by date', windowDays: 'in so many days', soleManipulator: 'alone on the controls', tailwheel: 'tailwheel', night: 'night', when: 'of which aeroplanes', within: 'flying within', classes: 'classes', days: 'days', months: 'months',
  criteria: 'criteria', group: 'group', measured: 'measured', eye: 'by eye', required: 'required', airwork: 'airwork', limits: 'limits', quantity: 'quantity', edgeShare: 'edge, share of the tolerance', boxM: 'touchdown box', before: 'before the aim point', past: 'past it', set: 'value set', signing: 'signing', teach: 'to teach and sign', partDays: 'a part sign-off holds, days', overrideNeedsChief: 'a chief says yes to an override', intervals: 'checks fall due', of: 'of', signWithinDays: 'signer has flown within, days',
  control: 'control', reach: 'reach', steps: 'steps', text: 'text', key: 'attribute', value: 'value', others: 'other sources', windmillingDeltaCd0: 'stopped propeller', gearDeltaCd0: 'gear', registration: 'registration', typeCode: 'type', dialTable: 'error table of this dial', crosswindLimitKt: 'crosswind limit', effect: 'effect', hoursToInspection: 'to the next inspection', since: 'since', until: 'until',
};
const UNITS: [RegExp, string][] = [[/M2$/, 'm\u00b2'], [/LPerH$/, 'L/h'], [/Kg$/, 'kg'], [/Fpm$/, 'ft/min'], [/Ft$/, 'ft'], [/Kt$/, 'kt'], [/Deg$/, '\u00b0'], [/Hp$/, 'hp'], [/Ah$/, 'Ah'], [/Min$/, 'min'], [/[a-z]L$/, 'L'], [/[a-z]N$/, 'N'], [/oatC$/, '\u00b0C'], [/M$/, 'm'], [/^amps$/, 'A'], [/^hoursToInspection$/, 'h'], [/^flapSteps$/, '\u00b0'], [/^bestGlideRatio$/, ': 1'], [/^(positive|negative)$/, 'g']];
const DIAL_SPEED = /^(vr|vx|vy|va|bestGlide|vno|vne|vloExtend|vloRetract|vle|vmca|vsse|vyse|speed|ias|correction|coolingClimb)$/;

const keyOf = (path: string): string => path.split('.').filter((p) => !/^\d+$/.test(p)).pop() ?? '';

/** The name of a field, for example `flap limits` or `reference mass of the speeds`. */
export const fieldName = (path: string): string => NAMES[path] ?? NAMES[keyOf(path)] ?? keyOf(path);

/** The unit of a field; a speed of the sheet has the dial's. Empty where there is none. */
export function fieldUnit(path: string, dialUnit: string): string {
  const key = keyOf(path.replace(/\.(value|others\.\d+\.value)$/, ''));
  if (DIAL_SPEED.test(key)) return dialUnit;
  return UNITS.find(([test]) => test.test(key))?.[1] ?? '';
}

/** A path in words: `approach schedule, Base, speed`. `root` is the sheet, for the names of rows. */
export function pathWords(path: string, root: unknown): string {
  const words: string[] = [];
  let at: unknown = root;
  let so = '';
  for (const part of path.split('.')) {
    so = so === '' ? part : `${so}.${part}`;
    at = typeof at === 'object' && at !== null ? (at as Record<string, unknown>)[part] : undefined;
    if (/^\d+$/.test(part)) words.push(rowName(at, Number(part)));
    else if (part !== 'value') words.push(fieldName(so));
  }
  return words.join(', ');
}

/** What a row of a list is called: its name, its flap, its key, or its number. */
export function rowName(row: unknown, index: number): string {
  if (typeof row !== 'object' || row === null) return `no. ${index + 1}`;
  const r = row as Record<string, unknown>;
  for (const key of ['name', 'phase', 'control', 'key', 'title', 'topic', 'goal', 'id', 'of', 'text']) if (typeof r[key] === 'string') return String(r[key]).slice(0, 40);
  if (typeof r.flapDeg === 'number') return `flap ${r.flapDeg}\u00b0`;
  return `no. ${index + 1}`;
}
