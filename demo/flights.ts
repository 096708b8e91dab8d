import type { AirworkDetail, CaptureEvent, CapturedLanding } from '@/domain/capture';
import { UNSEEN } from '@/domain/unseen';
import { type Attitude, type EventType, GO_AROUND_FROM, type LandingKind, meant } from '@/domain/words';
import { seeded, seededId } from './random';

/** How a demo pilot lands. Shares are of landings; the rest are good. */
export interface Hand {
  slight: number;
  bad: number;
  prompted: number;
  helped: number;
  bias: 'left' | 'none';
  firm: number;
}

export const STEADY: Hand = { slight: 0.08, bad: 0, prompted: 0, helped: 0, bias: 'none', firm: 0.1 };
export const LEARNING: Hand = { slight: 0.3, bad: 0.16, prompted: 0.25, helped: 0.16, bias: 'none', firm: 0.3 };
export const FIRST: Hand = { slight: 0.3, bad: 0.35, prompted: 0.25, helped: 0.4, bias: 'none', firm: 0.4 };
export const LEFT: Hand = { slight: 0.2, bad: 0.06, prompted: 0.15, helped: 0.05, bias: 'left', firm: 0.25 };

export interface Plan {
  attitude: Attitude;
  kind: LandingKind;
  hand: Hand;
  goAround?: CapturedLanding['goAroundWord'];
  trigger?: CapturedLanding['trigger'];
  /** What this pilot does each time, put over what the hand gives. */
  habit?: (l: CapturedLanding, at: HabitAt) => CapturedLanding;
}
/** Which landing of the checkout it is, from 0, the gates of its brief, and chance. */
export interface HabitAt {
  nth: number;
  gates: readonly { name: string; target: number | null }[];
  random: () => number;
}
export interface LessonPlan {
  seed: number;
  sortieId: string;
  author: string;
  startedAt: string;
  runwayEnd: string;
  wind: { fromDegMag: number; kt: number; gustKt: number | null };
  fenceTarget: number;
  gates?: readonly { name: string; target: number | null }[];
  /** Landings flown in the lessons before. */
  before?: number;
  /** Go-arounds flown in the lessons before. */
  arounds?: number;
  landings: Plan[];
  items: {
    itemId: string;
    verdict: 'within' | 'edge' | 'outside';
    intervention: number;
    note?: string;
    detail?: AirworkDetail;
  }[];
  /** Where the flight was recorded: when each landing ended and each item was noted, UTC ms. */
  times?: { landings: readonly number[]; items: readonly number[] };
}

/** The capture events of one lesson, as the cockpit would have sent them. */
export function lessonEvents(plan: LessonPlan): CaptureEvent[] {
  const random = seeded(plan.seed);
  const deviceId = seededId(random);
  const events: CaptureEvent[] = [];
  let seq = 0;
  let clock = Date.parse(plan.startedAt);
  const add = (type: EventType, subjectId: string, payload: unknown) =>
    events.push({
      eventId: seededId(random),
      deviceId,
      deviceSeq: ++seq,
      sortieId: plan.sortieId,
      subjectId,
      author: plan.author,
      type,
      v: 1,
      deviceTime: new Date(clock).toISOString(),
      payload,
    });

  for (const [i, { itemId, verdict, intervention, note, detail }] of plan.items.entries()) {
    clock = plan.times?.items[i] ?? clock + 90_000;
    add('item-observed', seededId(random), {
      itemId,
      verdict,
      intervention,
      note: note ?? '',
      ...(detail ? { detail } : {}),
    });
  }
  for (const [i, landing] of plan.landings.entries()) {
    const ended = plan.times?.landings[i];
    clock = ended === undefined ? clock + 3 * 60_000 : ended - 2 * 60_000;
    const wind = { ...plan.wind, at: new Date(clock).toISOString() };
    add('wind-logged', seededId(random), wind);
    clock = ended ?? clock + 3 * 60_000;
    const endedAt = new Date(clock).toISOString();
    clock += 40_000;
    const id = seededId(random);
    const plain = captured(landing, plan, wind, endedAt, random);
    add(
      'landing-saved',
      id,
      landing.habit ? landing.habit(plain, { nth: (plan.before ?? 0) + i, gates: plan.gates ?? [], random }) : plain,
    );
  }
  return events;
}

function captured(
  p: Plan,
  plan: LessonPlan,
  wind: NonNullable<CapturedLanding['wind']>,
  endedAt: string,
  random: () => number,
): CapturedLanding {
  const { hand } = p;
  const side = hand.bias === 'left' || random() < 0.5 ? ('left' as const) : ('right' as const);
  const grade = (): 'good' | 'slight' | 'bad' => {
    const x = random();
    return x < hand.bad ? 'bad' : x < hand.bad + hand.slight ? 'slight' : 'good';
  };
  const sided = () => {
    const g = grade();
    return g === 'good'
      ? { band: 'none' as const, side: null }
      : { band: g === 'slight' ? ('slight' as const) : ('marked' as const), side };
  };
  const swing = grade();
  const bounceGrade = grade();
  const x = random();
  const intervention = x < hand.helped ? 2 : x < hand.helped + hand.prompted ? 1 : 0;
  const lateralLeft = hand.bias === 'left' && random() < 0.82;
  const across = random();
  const blank: CapturedLanding = {
    ...UNSEEN,
    kind: p.kind,
    intended: meant(p.attitude),
    intervention,
    trigger: p.trigger ?? 'not-met',
    wind,
    endedAt,
    runwayEnd: plan.runwayEnd,
  };
  if (p.kind === 'go-around') {
    const slow = grade();
    const nth = plan.landings.filter((x) => x.kind === 'go-around').indexOf(p) + (plan.arounds ?? 0);
    const from = GO_AROUND_FROM[nth % GO_AROUND_FROM.length] ?? 'approach';
    return {
      ...blank,
      goAroundFrom: from,
      goAroundWhy: from === 'bounce' ? 'bounce-or-porpoise' : from === 'flare' ? 'off-the-line' : 'too-high-or-low',
      intervention: p.goAround === 'told-for-safety' ? 1 : intervention,
      goAroundWord: p.goAround ?? 'before',
      trigger: null,
      goAroundExecution: {
        power: 'within',
        attitude: slow === 'bad' ? 'outside' : 'within',
        speed: slow === 'good' ? 'within' : 'edge',
        configurationOrder: 'within',
        tracking: 'within',
        secondContact: 'within',
      },
    };
  }
  return {
    ...blank,
    touched: grade() === 'bad' ? (p.attitude === 'three-point' ? 'mains-first' : 'flat') : p.attitude,
    along: grade() === 'bad' ? 'long' : 'in-the-box',
    lateral: lateralLeft
      ? across < 0.25
        ? 'beyond-left'
        : 'wheel-left'
      : across < hand.slight
        ? side === 'left'
          ? 'wheel-left'
          : 'wheel-right'
        : 'line',
    fenceSpeed: Math.round(plan.fenceTarget + (random() - 0.4) * (hand.bad > 0.1 ? 10 : 4)),
    drift: sided(),
    crab: sided(),
    swing: swing === 'good' ? { band: 'none', side: null } : { band: swing === 'slight' ? 'small' : 'large', side },
    bounce:
      bounceGrade === 'good'
        ? { count: 0, handling: null }
        : bounceGrade === 'slight'
          ? { count: 1, handling: 'held' }
          : { count: 2, handling: random() < 0.5 ? 'power' : 'pushed' },
    aileron: grade() === 'bad' ? 'released-early' : 'kept',
    stick: grade() === 'bad' ? 'released-early' : 'kept',
    rollout: p.attitude === 'mains-first' ? (swing === 'bad' ? 'released-early' : 'kept') : null,
    configuration: 'right',
    firmness: random() < hand.firm ? 'firm' : 'normal',
  };
}

/** A good hand, so that what is planted stands alone. */
export const PLAIN: Hand = { slight: 0.14, bad: 0, prompted: 0.08, helped: 0, bias: 'none', firm: 0.15 };
type Habit = NonNullable<Plan['habit']>;
const arrived = (l: CapturedLanding): boolean => l.kind !== 'go-around' && l.kind !== 'low-pass';

/** The falling speed stands still between two gates, more often than not. */
export const plateau: Habit = (l, { nth, gates, random }) => {
  if (!arrived(l)) return l;
  const stands = nth % 5 !== 0 && random() < 0.75;
  const read = gates
    .slice(0, -1)
    .flatMap((g, i): [string, number][] =>
      g.target === null
        ? []
        : [
            [
              g.name,
              Math.round(stands && i > 0 ? (gates[i - 1]?.target ?? g.target) : g.target + (random() - 0.5) * 2),
            ],
          ],
    );
  const fence = gates[gates.length - 1]?.target ?? null;
  return {
    ...l,
    gateSpeeds: Object.fromEntries(read),
    fenceSpeed: fence === null ? null : Math.round(fence + (stands ? 2 : random() * 2 - 1)),
  };
};
/** In the box at first; from the second lesson the aim moves down the runway. */
export const creeping: Habit = (l, { nth, random }) => {
  if (!arrived(l)) return l;
  const long = nth >= 9 && random() < 0.25 + (nth - 9) * 0.06;
  return {
    ...l,
    along: long ? (nth > 18 && random() < 0.3 ? 'very-long' : 'long') : 'in-the-box',
    notes: long && random() < 0.5 ? [...l.notes, 'aim-point-crept-long'] : l.notes,
  };
};
/** Wheel landings end with the tail held up until the rudder is gone. */
export const tailUp: Habit = (l, { nth, random }) => {
  if (!arrived(l) || l.intended !== 'mains-first' || (nth % 3 === 0 && random() < 0.8)) return l;
  return {
    ...l,
    notes: [...l.notes, 'tail-kept-up-long'],
    swing: random() < 0.6 ? { band: 'late-correction', side: nth % 2 === 0 ? 'left' : 'right' } : l.swing,
  };
};
/** The crosswind aileron is kept in three-point landings and let go when wheel landings come in. */
export const letsGo: Habit = (l, { nth }) =>
  !arrived(l) ? l : { ...l, aileron: l.intended === 'mains-first' && nth % 5 !== 0 ? 'not' : 'kept' };
