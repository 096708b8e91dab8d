import { randomUUID } from 'node:crypto';
import type { AirworkDetail, CaptureEvent, CapturedLanding } from '@/domain/capture';
import { STALLS, type StallKind } from '@/domain/airwork';
import type { Programme } from '@/domain/programme';
import { UNSEEN } from '@/domain/unseen';
import type { EventType } from '@/domain/words';

const isStall = (v: string): v is StallKind => (STALLS as readonly string[]).includes(v);
const NONE = { band: 'none', side: null } as const;
/** Everything of a go-around seen, and good. */
export const SIX = {
  power: 'within',
  attitude: 'within',
  speed: 'within',
  configurationOrder: 'within',
  tracking: 'within',
  secondContact: 'within',
} as const;
export interface Flight {
  sortieId: string;
  author: string;
  startedAt: string;
  runwayEnd: string;
  waterEnd?: string;
  fence: number;
  /** Magnetic direction that blows across the runway. */
  windDeg: number;
  /** Wheels of an amphibian, a lit lamp one that is down; each landing then has its check on final. */
  wheels?: readonly string[];
}

/**
 * Capture events of one flight that go half-way to every item of a programme: two such flights on two days meet them
 * all. What is named in `without` is left out. Landings are full stops of the pilot's own, in nine knots across. The
 * second flight begins with wheel landings, so that each attitude is the first of a flight once.
 */
export function flightOf(
  programme: Programme,
  flight: Flight,
  without: readonly string[] = [],
  wheelFirst = false,
): CaptureEvent[] {
  const deviceId = randomUUID();
  const events: CaptureEvent[] = [];
  let clock = Date.parse(flight.startedAt);
  /** Half of the longest flight time asked. */
  let block = 0;
  const add = (type: EventType, payload: unknown) => {
    clock += 60_000;
    events.push({
      eventId: randomUUID(),
      deviceId,
      deviceSeq: events.length + 1,
      sortieId: flight.sortieId,
      subjectId: randomUUID(),
      author: flight.author,
      type,
      v: 1,
      deviceTime: new Date(clock).toISOString(),
      payload,
    });
  };
  const wind = () => ({ fromDegMag: flight.windDeg, kt: 9, gustKt: null, at: new Date(clock).toISOString() });
  const check = (water: boolean) => {
    const each = <T>(v: T) => Object.fromEntries((flight.wheels ?? []).map((w) => [w, v]));
    add('gear-checked', {
      surface: water ? 'water' : 'land',
      lamps: each(water ? 'unlit' : 'lit'),
      seen: each(water ? 'up' : 'down'),
      spoken: water ? 'water-up' : 'land-down',
      onFinal: true,
      decision: 'agree',
      reasons: [],
    });
  };
  const land = (attitude: CapturedLanding['intended'], water: boolean) => {
    if (flight.wheels) check(water);
    add('landing-saved', {
      ...UNSEEN,
      kind: 'full-stop',
      runwayEnd: water ? (flight.waterEnd ?? flight.runwayEnd) : flight.runwayEnd,
      intended: attitude,
      touched: attitude,
      along: 'in-the-box',
      lateral: 'line',
      drift: NONE,
      crab: NONE,
      swing: NONE,
      bounce: { count: 0, handling: null },
      aileron: 'kept',
      stick: 'kept',
      rollout: 'kept',
      configuration: 'right',
      firmness: 'normal',
      intervention: 0,
      trigger: 'not-met',
      fenceSpeed: flight.fence,
      wind: wind(),
      endedAt: new Date(clock).toISOString(),
    } satisfies CapturedLanding);
  };
  const from = ['approach', 'flare', 'bounce'] as const;
  let nth = wheelFirst ? 2 : 0;
  const around = (water: boolean) =>
    add('landing-saved', {
      ...UNSEEN,
      kind: 'go-around',
      runwayEnd: water ? (flight.waterEnd ?? flight.runwayEnd) : flight.runwayEnd,
      intended: null,
      goAroundWord: 'at',
      goAroundFrom: from[nth++ % 3] ?? 'approach',
      goAroundExecution: SIX,
      intervention: 0,
      wind: wind(),
      endedAt: new Date(clock).toISOString(),
    } satisfies CapturedLanding);
  const detail = (v: string): AirworkDetail =>
    isStall(v)
      ? {
          form: 'stall',
          stall: v,
          lookOut: true,
          cue: 'horn',
          cueSpeed: null,
          recovery: 'unloaded-first',
          heightLostFt: null,
          seen: {},
        }
      : {
          form: 'asymmetric',
          item: v as 'control-speed',
          heightFt: 5500,
          saidSimulated: true,
          firstCue: 'heading-moved',
          recovery: 'at-first-cue',
          set: {},
          seen: { heading: 'inside', speed: 'inside', height: 'inside' },
        };
  const see = (itemId: string, d: AirworkDetail | null, minutes: number | null = null) =>
    add('item-observed', {
      itemId,
      verdict: 'within',
      intervention: 0,
      note: '',
      detail: d,
      pilotId: null,
      ...(minutes === null ? {} : { minutes }),
    });
  add('timer-marked', { mark: 'off-block', at: new Date(clock).toISOString() });
  const asked = programme.items.filter((i) => !without.includes(i.id));
  const wheel = (i: (typeof asked)[number]): number =>
    'attitude' in i.evidence && i.evidence.attitude === 'mains-first' ? 0 : 1;
  for (const { id, evidence: rule } of wheelFirst ? [...asked].sort((a, b) => wheel(a) - wheel(b)) : asked) {
    const water = 'surface' in rule && rule.surface === 'water';
    const half = (n: number) => Array.from({ length: Math.max(1, Math.ceil(n / 2)) });
    switch (rule.kind) {
      case 'run':
        half(rule.needed).forEach(() => land((rule.attitude ?? 'three-point') as CapturedLanding['intended'], water));
        break;
      case 'count':
        half(rule.needed).forEach(() => land((rule.attitude ?? 'three-point') as CapturedLanding['intended'], water));
        break;
      case 'go-arounds':
        half(Math.max(rule.sound, rule.good)).forEach(() => around(water));
        break;
      case 'observed':
        for (const v of rule.variants.length > 0 ? rule.variants : [null])
          half(rule.needed).forEach(() => see(id, v === null ? null : detail(v)));
        break;
      case 'hours':
        if (rule.from === 'item') see(id, null, Math.ceil(rule.needed * 30));
        else block = Math.max(block, rule.needed * 30 * 60_000);
        break;
      case 'gear-checks':
        half(rule.needed).forEach(() => check(water));
        break;
      case 'briefs':
        break;
    }
  }
  clock = Math.max(clock + 600_000, Date.parse(flight.startedAt) + 120_000 + block);
  add('timer-marked', { mark: 'on-block', at: new Date(clock).toISOString() });
  return events;
}
