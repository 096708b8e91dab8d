/** What the pages of the lab say: the answer, why, and what was assumed. Read as an instructor would say it. */
import { type Coded, sentence } from '@/domain/coded';
import { downTo, fixed, upTo, withUnit } from '../format';

interface Speed {
  value: number;
  unit: string;
}
const at = (s: Speed): string => withUnit(s.value, s.unit);
const s1 = (s: number): string => withUnit(s, 's', 1);
const deg = (d: number): string => `${fixed(d)}\u00b0`;
const deg1 = (d: number): string => `${fixed(d, 1)}\u00b0`;

const inWind = (share: number | null): string =>
  share === null ? '' : `; with this wind for ${upTo(Math.abs(share) * 100)} % of the ${share > 0 ? 'right' : 'left'}`;

export const LAB_WORDS = {
  // Straight or swerving
  'run-held': (p: { speed: Speed; swerveDeg: number; footS: number; mostM: number; greatestDeg: number }) =>
    `A ${deg1(p.swerveDeg)} swerve at ${at(p.speed)} with the foot at ${s1(p.footS)}: it comes back, ` +
    `${withUnit(p.mostM, 'm', 1)} off the line and ${deg(p.greatestDeg)} at most.`,
  'run-alone-dies': (p: { speed: Speed; swerveDeg: number; mostM: number }) =>
    `No foot at all at ${at(p.speed)}: a ${deg1(p.swerveDeg)} swerve dies by itself, ${withUnit(p.mostM, 'm', 1)} off the line.`,
  'run-alone-drifts': (p: { speed: Speed; swerveDeg: number; mostM: number; afterS: number }) =>
    `No foot at all at ${at(p.speed)}: a ${deg1(p.swerveDeg)} swerve does not come back, ` +
    `${withUnit(p.mostM, 'm', 1)} off the line after ${s1(p.afterS)}.`,
  'run-loop': (p: {
    speed: Speed;
    swerveDeg: number;
    footS: number | null;
    atS: number;
    why: 'turned' | 'wheel-lifted' | 'slid';
    wing: 'left' | 'right' | null;
  }) =>
    `${p.footS === null ? 'No foot' : `Foot at ${s1(p.footS)}`}: the ${deg1(p.swerveDeg)} swerve at ${at(p.speed)} is lost. After ${s1(p.atS)} ${
      p.why === 'slid'
        ? 'the main wheels slide sideways and a ground loop begins'
        : p.why === 'wheel-lifted'
          ? 'the inner wheel lifts in a ground loop'
          : 'the nose is past 45\u00b0 in a ground loop'
    }${p.wing === null ? '' : `, ${p.wing} wing down`}.`,
  'run-off': (p: { speed: Speed; footS: number | null; atS: number }) =>
    `${p.footS === null ? 'No foot' : `Foot at ${s1(p.footS)}`} at ${at(p.speed)}: off the edge of the runway after ${s1(p.atS)}.`,
  'run-weaves': (p: { speed: Speed; delayS: number; swings: number }) =>
    `At ${at(p.speed)}, ${s1(p.delayS)} behind what is seen, the feet make the weave grow: ${p.swings} swings, each wider than the last.`,
  'run-doubles': (p: { doubleS: number; tail: boolean }) =>
    `${p.tail ? 'The centre of gravity is behind the main wheels' : 'At this speed'}: a small error doubles every ${downTo(p.doubleS, 1)} s.`,
  'run-halves': (p: { halfS: number; nosewheel: boolean; steered: boolean }) =>
    p.nosewheel
      ? `The centre of gravity is ahead of the main wheels: a small error halves every ${s1(p.halfS)} by itself.`
      : `${p.steered ? 'The steered tailwheel' : 'The fin'} still holds it: a small error halves every ${s1(p.halfS)}.`,
  'run-free-doubles': (p: { doubleS: number }) =>
    `With the tailwheel castering free or off the ground a small error doubles every ${downTo(p.doubleS, 1)} s: the pilot is all there is.`,
  'run-band': (p: { from: Speed; to: Speed | null }) =>
    p.to === null
      ? `By itself it swerves above ${at(p.from)}.`
      : `By itself it swerves between ${at(p.from)} and ${at(p.to)}; above that the fin holds it.`,
  'run-fade': (p: { fade: Speed; crosswindKt: number; downBy: Speed }) =>
    `Tail up, below ${at(p.fade)} full rudder no longer holds ${withUnit(p.crosswindKt, 'kt')} of crosswind: tail down by ${at(p.downBy)}.`,
  'run-fade-runs-out': (p: { crosswindKt: number }) =>
    `In ${withUnit(p.crosswindKt, 'kt')} the rudder runs out before the tail can safely come down. ` +
    'Not a wheel landing in this crosswind; another runway, another attitude, or not today.',
  'run-fade-withheld': (p: { demonstratedKt: number; holdsKt: number }) =>
    `No speed to lower the tail at: the model holds ${withUnit(p.holdsKt, 'kt')} where ${withUnit(p.demonstratedKt, 'kt')} was demonstrated, so it is not to be believed.`,
  'run-grip': (p: { left: number; right: number; mostG: number }) =>
    `The tyres hold ${downTo(Math.min(p.left, p.right), 2)} of the load on them and no more; ${upTo(p.mostG, 2)} g sideways was reached.`,
  'run-outer': (p: { percent: number }) => `The outer wheel carried ${fixed(p.percent)} % of the load of both.`,
  'run-brakes': () => 'Brakes for direction are the last resort: they take the grip the tyre needs sideways.',
  'run-assumed-planar': () => 'Planar: no bounce, no roll of the body, tyres up to the grip of the surface.',
  'run-assumed-wash': () => 'No propeller wash over the tail; the third wheel steers or casters as set.',
  'run-assumed-feet': () =>
    'Feet: full travel in 0.15 s; short strokes of 0.12 s that answer the turning, or pressure that follows the nose. A steady wind is held from the start.',
  'run-assumed-lift': () =>
    'The wing takes load off the wheels with the square of the speed, 0.9 of it at the stall speed with the tail down, 0.3 with it up.',
  'map-latest': (p: { speed: Speed; footS: number }) =>
    `At ${at(p.speed)} a foot up to ${withUnit(p.footS, 's', 2)} after the swerve still holds it; later is lost.`,
  'map-always': (p: { speed: Speed; footS: number }) =>
    `At ${at(p.speed)} every foot up to ${withUnit(p.footS, 's', 2)} holds it.`,
  'map-never': (p: { speed: Speed }) => `At ${at(p.speed)} not even the earliest foot holds it.`,
  // Take-off roll
  'take-straight': (p: { flies: Speed; afterS: number; mostM: number; greatestDeg: number }) =>
    `It flies at ${at(p.flies)} after ${fixed(p.afterS)} s: ` +
    `${upTo(p.mostM, 1)} m off the line and ${upTo(p.greatestDeg)}\u00b0 of swing at most.`,
  'take-lost': (p: { speed: Speed; atS: number; why: 'turned' | 'wheel-lifted' | 'slid'; tail: boolean }) =>
    `Lost after ${s1(p.atS)}, at ${at(p.speed)}${p.tail ? ' with the tail up' : ''}: ${
      p.why === 'slid'
        ? 'the main wheels slide sideways'
        : p.why === 'wheel-lifted'
          ? 'the inner wheel lifts'
          : 'the nose is past 45\u00b0'
    }. Close the throttle at the first swing that grows.`,
  'take-edge': (p: { speed: Speed; atS: number }) =>
    `Off the edge of the runway after ${s1(p.atS)}, at ${at(p.speed)}. Close the throttle before that.`,
  'take-slow': (p: { flies: Speed; forS: number }) =>
    `It does not reach ${at(p.flies)} within ${fixed(p.forS)} s on this surface.`,
  'take-foot': (p: { speed: Speed; share: number; foot: 'left' | 'right'; windShare: number | null }) =>
    `Full power at ${at(p.speed)} asks for ${upTo(p.share * 100)} % of the ${p.foot} foot${inWind(p.windShare)}.`,
  'take-gyro': (p: { overS: number; swings: 'left' | 'right'; share: number }) =>
    `Raised in ${s1(p.overS)}, the tail adds a swing to the ${p.swings} that takes ${upTo(p.share * 100)} % of the foot more.`,
  'take-raised': (p: { speed: Speed; share: number; before: number | null; wind: boolean }) =>
    `Raised at ${at(p.speed)}, ${p.wind ? 'power and wind take' : 'power takes'} ` +
    `${p.share > 1 ? `more than the whole foot: too early${p.wind ? ' in this wind' : ''}` : `${upTo(p.share * 100)} % of the foot`}` +
    `${p.before === null ? '.' : `; on the steered tailwheel it was ${upTo(Math.min(1, p.before) * 100)} %.`}`,
  'take-at-once': (p: { share: number; foot: 'left' | 'right' }) =>
    `Power at once, hardly rolling: ${p.share > 1 ? 'more than the whole' : `${upTo(p.share * 100)} % of the`} ${p.foot} foot, at once.`,
  'take-opposite': () => 'Two propellers that turn opposite ways: what one asks for the other takes back.',
  'take-assumed-wash': () =>
    '0.6 of the shaft\u2019s power goes into the air; wing and fuselage take half the turn out of the wash.',
  'take-assumed-roll': () =>
    'Planar: no bounce, no lifting wing, full power until it flies; the wing takes load off the wheels as speed grows.',
  'take-assumed-differential': () => 'No differential power and no brake, which a castering wheel is steered with.',
  'take-assumed-feet': () =>
    'Feet: full travel in 0.15 s; the foot that leads knows power and steady wind, the other answers the nose.',
  // The touch
  'touch-stays': (p: { loadG: number; word: string }) =>
    `It stays down: ${upTo(p.loadG, 1)} g at the touch, ${p.word}.`,
  'touch-skips': (p: { hops: number; highestFt: number; loadG: number }) =>
    `It skips ${p.hops === 1 ? 'once' : `${p.hops} times`}, ${withUnit(p.highestFt, 'ft', 1)} at most, and settles; ${upTo(p.loadG, 1)} g at worst.`,
  'touch-porpoise': (p: { first: number; worst: number }) =>
    `It gets worse: ${upTo(p.first, 1)} g at the first touch, ${upTo(p.worst, 1)} g later. Go around at the second bounce, at the latest.`,
  'touch-flies': (p: { highestFt: number; ratio: number }) =>
    `It flies again: ${withUnit(p.highestFt, 'ft')} up at ${fixed(p.ratio, 2)} of the stall speed. Hold the attitude, power, and go around.`,
  'touch-load': (p: { sinkFpm: number; loadG: number; strokeM: number }) =>
    `${withUnit(p.sinkFpm, 'ft/min')} stopped over ${withUnit(p.strokeM * 100, 'cm')} of gear is ${upTo(p.loadG, 1)} g.`,
  'touch-tail': () =>
    'The wheels are ahead of the centre of gravity: the touch pitches the nose up, the wing lifts more, and it flies again.',
  'touch-nose': () =>
    'The wheels are behind the centre of gravity: the touch pitches the nose down and the wing lifts less.',
  'touch-fast': (p: { ratio: number }) =>
    `At ${fixed(p.ratio, 2)} of the stall speed the wing still carries the weight: what goes up stays up.`,
  'touch-gear': (p: { restitution: number }) =>
    `This gear gives back ${fixed(p.restitution * 100)} % of the speed it is met with; a spring throws, an oleo swallows.`,
  'touch-side': (p: { crabDeg: number; sideKt: number }) =>
    `${deg1(p.crabDeg)} of crab is ${upTo(p.sideKt, 1)} kt sideways over the wheels at the touch.`,
  'touch-push': () => 'A push in a bounce arrives when it is coming down already: the next touch is the harder one.',
  'touch-pull': () => 'A pull at the touch adds lift when the wheels have just arrived: it flies again, slower.',
  'touch-early': () =>
    'Weight forward before the touch lets the nose down into it: the sink at the touch is higher than it was.',
  'touch-right': () => 'Weight forward as the wheels are felt takes the lift off the wing: it stays.',
  'touch-late': () => 'Weight forward after the skip comes on the way down.',
  'touch-torque': (p: { side: 'left' | 'right'; atOnceDeg: number; fedDeg: number; afterS: number; fedS: number }) =>
    `Full power at once rolls it ${upTo(p.atOnceDeg)}\u00b0 to the ${p.side} in ${s1(p.afterS)} without aileron; ` +
    `fed in over ${fixed(p.fedS)} s, ${upTo(p.fedDeg)}\u00b0.`,
  'touch-torque-none': () => 'The propellers turn opposite ways: power rolls it neither way.',
  'touch-torque-unknown': () =>
    'What full power rolls is not computed: turning, propeller turns or moment of inertia in roll are not on the sheet.',
  'touch-assumed-torque': () => 'Torque: no aileron and no wash over the wing; the wing damps the roll, unstalled.',
  'touch-assumed-wing': () => 'Tailwheel types: the wing is just short of the stall in the three-point attitude.',
  'touch-assumed-wing-nose': () =>
    'Nosewheel types: the wing stalls at 14\u00b0; the nosewheel touches in the attitude of three wheels down.',
  'touch-assumed-gear': () =>
    'Gear: a spring with the damping that gives the rebound of the sheet; no roll, both wheels at once.',
  'touch-assumed-tail': () =>
    'Pitch: a centre of gravity a tenth of the chord ahead of neutral, and a tail that damps.',
  // Crosswind
  'wind-held': (p: { crosswindKt: number; bankDeg: number; rudder: number; aileron: number }) =>
    `${withUnit(p.crosswindKt, 'kt')} is held with ${upTo(p.bankDeg)}\u00b0 of bank, ${upTo(p.rudder * 100)} % of rudder and ${upTo(p.aileron * 100)} % of aileron.`,
  'wind-short': (p: { crosswindKt: number; holdsKt: number }) =>
    `Wing low holds ${withUnit(Math.floor(p.holdsKt), 'kt')} at this speed; ${withUnit(p.crosswindKt, 'kt')} is more than the rudder gives.`,
  'wind-holds': ({ holdsKt }: { holdsKt: number }) =>
    `At this speed the rudder holds ${withUnit(Math.floor(holdsKt), 'kt')} with a wing low.`,
  'wind-over': (p: { crosswindKt: number; limitKt: number; whose: string }) =>
    `${withUnit(p.crosswindKt, 'kt')} is above the ${p.whose} of ${withUnit(p.limitKt, 'kt')}: not today.`,
  'wind-clear': (p: { part: string; cm: number; touchDeg: number | null }) =>
    `${p.part} clears the ground by ${withUnit(Math.floor(p.cm), 'cm')} at that bank${
      p.touchDeg === null ? '' : `; it touches at ${deg(Math.floor(p.touchDeg))}`
    }.`,
  'wind-touches': (p: { part: string; touchDeg: number }) =>
    `${p.part} touches the ground at ${deg(Math.floor(p.touchDeg))} of bank: less than this wind asks for.`,
  'wind-decrab': (p: { heightFt: number; seconds: number; driftM: number; driftKt: number }) =>
    `Straightened at ${withUnit(p.heightFt, 'ft')} with the wings level: ${s1(p.seconds)} to the touch, ` +
    `${withUnit(p.driftM, 'm', 1)} downwind and ${upTo(p.driftKt, 1)} kt sideways.`,
  'wind-crab': (p: { crabDeg: number; sideKt: number }) =>
    `Kept to the touch, ${deg(p.crabDeg)} of crab is ${upTo(p.sideKt, 1)} kt sideways over the wheels.`,
  'wind-flap': (p: { flapDeg: number; reason: string }) => `Flap ${deg(p.flapDeg)} at most in this wind: ${p.reason}.`,
  'wind-propeller': (p: { wind: 'left' | 'right'; worse: boolean }) =>
    `Take-off: the propeller asks for ${p.worse ? 'the same foot as' : 'the other foot than'} a wind from the ${p.wind}; ` +
    `${p.worse ? 'this is the side that uses the rudder up' : 'the two take from each other'}.`,
  'wind-assumed-tas': () =>
    'Approach speed taken as true airspeed at this density; the wind is steady, a gust is its greatest.',
  'wind-assumed-linear': () => 'Bank from the side force of the sheet; rudder and aileron grow with the sideslip.',
  'wind-assumed-gear': () => 'Flat ground, gear and tyres that do not give; the lower wheel on the ground.',
  // Side picture
  'side-seen': (p: {
    seat: string;
    belowDeg: number;
    part: string | null;
    share: number;
    spacingM: number;
    heightFt: number;
  }) =>
    `Downwind at ${withUnit(p.heightFt, 'ft')} and ${withUnit(p.spacingM, 'm')}, from the ${p.seat}: the runway lies ${deg(p.belowDeg)} below the horizon` +
    `${p.part === null ? '' : `, ${p.share < 0.34 ? 'near the top of' : p.share > 0.66 ? 'near the foot of' : 'half-way down'} the ${p.part}`}.`,
  'side-hidden': (p: { seat: string; belowDeg: number; sillDeg: number }) =>
    `From the ${p.seat} the runway is hidden: ${deg(p.belowDeg)} below the horizon, and the sill ends at ${deg(p.sillDeg)}.`,
  'side-wing': (p: { bankDeg: number }) =>
    `At ${deg(p.bankDeg)} of bank the picture moves by as much: judge it with the wings level.`,
  'side-key': (p: { behindDeg: number; afterS: number }) =>
    `Base is turned when the touchdown point is ${deg(p.behindDeg)} behind the wing, ${fixed(p.afterS)} s past abeam.`,
  'side-close': (p: { spacingM: number; belowDeg: number }) =>
    `A hundred metres closer, ${withUnit(p.spacingM, 'm')}, and it lies at ${deg(p.belowDeg)}.`,
  'side-eye': (p: { eyeM: number; own: boolean }) =>
    `Eye ${withUnit(p.eyeM, 'm', 2)} above the ground on three wheels, ${p.own ? 'as measured for this pilot' : 'as on the sheet'}.`,
  'side-assumed': () => 'Level flight at the pitch of the sheet, no drift; the field is flat.',
  'side-assumed-parts': () =>
    'Parts of the airframe as walked out from the seat; what is not on the sheet is not drawn.',
  // Slip
  'slip-loses': (p: { speed: Speed; share: number; sinkFpm: number; extraFpm: number; perS: number }) =>
    `${p.share >= 1 ? 'A full slip' : `${fixed(p.share * 100)} % of a full slip`} at ${at(p.speed)} loses ` +
    `${withUnit(Math.round(p.sinkFpm / 10) * 10, 'ft/min')}, ${withUnit(Math.round(p.extraFpm / 10) * 10, 'ft/min')} more than without: ${withUnit(p.perS, 'ft', 1)} a second.`,
  'slip-path': (p: { slipDeg: number; cleanDeg: number }) =>
    `The path is ${deg1(p.slipDeg)} against ${deg1(p.cleanDeg)} without.`,
  'slip-turn': (p: { lostFt: number; seconds: number }) =>
    `A slipped quarter turn onto final loses ${withUnit(Math.ceil(p.lostFt / 10) * 10, 'ft')} in ${fixed(p.seconds)} s.`,
  'slip-leave': (p: { floatM: number; speed: Speed }) =>
    `Each ${at(p.speed)} too many when it is left floats about ${withUnit(Math.ceil(p.floatM / 10) * 10, 'm')} further.`,
  'slip-skid': (p: { innerKt: number; outerKt: number; under: boolean; awayDeg: number }) =>
    `Foot into the final turn: the ${p.under ? 'inner' : 'outer'} wing stalls ${fixed(Math.abs(p.outerKt - p.innerKt))} kt before the other ` +
    `and the aeroplane rolls ${p.under ? 'under, further into the turn' : 'out of the turn'}: ${deg(p.awayDeg)} to ${p.under ? 'inverted' : 'level'}.`,
  'slip-note': ({ text }: { text: string }) => text,
  'slip-low': () =>
    'No big slips low: it takes a second or two and 30 to 50 ft to leave one. Passengers dislike it; say so first.',
  'slip-assumed': () =>
    'Power off; lift equal to weight, the bank of the slip not added; indicated speed as in straight flight.',
  'slip-assumed-turn': () =>
    'The final turn: speed across the span, load and aileron; which wing is first, not what a spin does.',
  // Slow approach
  'slow-found': (p: { speed: Speed; trials: number; governed: 'trials' | 'floor' }) =>
    `Trial result ${at(p.speed)} from ${p.trials} trials${p.governed === 'floor' ? ': the trials allow less, the floor governs' : ''}. Not a gate until the chief puts it on the sheet.`,
  'slow-not-yet': (p: { left: number | null; speed: Speed; power: number }) =>
    `Not yet: ${p.left === null ? 'many more trials' : p.left === 1 ? 'one more trial' : `${p.left} more trials`}; ` +
    `the most useful next is ${at(p.speed)} with ${p.power === 0 ? 'idle power' : `${fixed(p.power * 100)} % of power`}.`,
  'slow-why-few': (p: { have: number; least: number }) => `${p.have} of ${p.least} trials that say anything at all.`,
  'slow-why-one': () => 'All trials ended alike: nothing says where it begins to work.',
  'slow-why-idle': () => 'No trial with idle power.',
  'slow-why-flat': () => 'In these trials more speed did not help: something else decided; look at them again.',
  'slow-why-range': () => 'The answer would lie outside the speeds and powers that were tried.',
  'slow-why-bound': () => 'The trials are too few, or too scattered, to be sure at any speed that was tried.',
  'slow-why-below': () => 'Fewer than three full arrests at or below that speed.',
  'slow-floor': (p: { floor: Speed; handbook: boolean }) =>
    `Never below ${at(p.floor)}, ${p.handbook ? 'the handbook\u2019s speed' : '1.2 of the stall'}, gust added.`,
  'slow-sink': (p: {
    sinkFpm: number;
    pathDeg: number;
    idleDeg: number | null;
    nAvail: number;
    by: 'wing' | 'elevator';
  }) =>
    `${withUnit(Math.ceil(p.sinkFpm / 10) * 10, 'ft/min')} down ${deg1(p.pathDeg)}` +
    `${p.idleDeg === null ? '' : `, idle ${deg1(p.idleDeg)}: prefer steep to dragged`}; ` +
    `wing and elevator give ${downTo(p.nAvail, 2)} g, limited by the ${p.by}.`,
  'slow-climbs': () => 'With this power it does not come down.',
  'slow-stop': (p: { heightFt: number; speed: Speed }) =>
    `An engine stop below ${withUnit(Math.ceil(p.heightFt / 10) * 10, 'ft')} cannot be flared: the nose must go down to ${at(p.speed)} first. Brief that height.`,
  'slow-stop-here': (p: { heightFt: number }) =>
    `After an engine stop the flare takes ${withUnit(Math.ceil(p.heightFt / 10) * 10, 'ft')} at this speed: from lower it cannot be flared. Brief that height.`,
  'slow-stop-never': () => 'After an engine stop no height makes a flare possible at these numbers.',
  'slow-assumed-fit': () =>
    'Logistic fit on speed over stall and power with a weak prior; the answer is where the lower 90 % bound of a full arrest reaches 99 %.',
  'slow-assumed-drag': () =>
    'Sink from the polar of the best glide with the drag of flap and gear; thrust from power and propeller.',
  'slow-assumed-stop': () => '1.5 s to notice the stop; the nose lowered to gain speed at a quarter of g.',
  model: () => 'Model, not the flight manual. It is for talking about; nothing here permits a flight.',
} as const;
export type LabCode = keyof typeof LAB_WORDS;
/** A sentence of the lab. */
export const labWords = (s: Coded<typeof LAB_WORDS>): string => sentence(LAB_WORDS, s);
