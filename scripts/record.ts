/**
 * `npm run record -- --type serrana-urze --out flight.csv`: the simulated recorder from the shell, on the demo's field
 * and fleet. Writes the file, and beside it
 * what was flown (`.flown.json`) and the context of an analysis (`.context.json`). Options: --runway 22 --wind 260/8
 * --side left|right --arrivals touch-and-go,go-around --airwork steep-turn,stall --errors left-bias,late-round-out
 * --sensors panel|tablet|poor --rate 5 --format csv|gpx|igc --style plain|metric|panel --seed 1 --start
 * 2026-11-24T09:00:00Z
 */
import './lib/help.mjs';
import { writeFileSync } from 'node:fs';
import { parseArgs } from 'node:util';
import { pedraAlva } from '@demo/aerodrome';
import { airframes, types } from '@demo/fleet';
import { seeded } from '@demo/random';
import { z } from 'zod';
import { effectiveSheet } from '@/core/plan';
import {
  AIRWORK_FLOWN,
  ARRIVAL_KINDS,
  PILOT_ERRORS,
  SENSOR_SETS,
  csvOf,
  flyCircuits,
  gpxOf,
  igcOf,
  planFor,
  sense,
  sensorsOf,
  truthOf,
} from '@/core/recorder';
import { Airframe, TypeSheet } from '@/domain/sheet';

const list = <T extends string>(of: readonly T[]) =>
  z
    .string()
    .default('')
    .transform((s) => s.split(',').filter(Boolean))
    .pipe(z.array(z.enum(of)));
const Options = z.object({
  type: z.string(),
  out: z.string({ error: 'Say where to write: --out flight.csv' }),
  runway: z.string().default('22'),
  wind: z
    .string()
    .regex(/^\d{1,3}\/\d{1,2}$/, 'Wind as direction/knots, for example 260/8.')
    .default('260/8'),
  side: z.enum(['left', 'right']).default('left'),
  arrivals: list(ARRIVAL_KINDS),
  airwork: list(AIRWORK_FLOWN),
  errors: list(PILOT_ERRORS),
  sensors: z.enum(SENSOR_SETS).default('panel'),
  rate: z.coerce.number().min(1).max(20).default(5),
  format: z.enum(['csv', 'gpx', 'igc']).default('csv'),
  style: z.enum(['plain', 'metric', 'panel']).default('panel'),
  seed: z.coerce.number().int().default(1),
  start: z.iso.datetime().default('2026-11-24T09:00:00Z'),
});
const text = { type: 'string' } as const;
const { values } = parseArgs({
  options: {
    type: { ...text, default: 'serrana-urze' },
    out: text,
    runway: text,
    wind: text,
    side: text,
    arrivals: text,
    airwork: text,
    errors: text,
    sensors: text,
    rate: text,
    format: text,
    style: text,
    seed: text,
    start: text,
  },
});
const parsed = Options.safeParse(values);
if (!parsed.success) {
  for (const i of parsed.error.issues) console.error(`--${i.path.join('.')}: ${i.message}`);
  process.exit(1);
}
const o = parsed.data;
const sheet = types.find((t) => t.code === o.type);
const frame = airframes.find((a) => a.typeCode === o.type);
if (!sheet || !frame) {
  console.error(`--type: one of ${types.map((t) => t.code).join(', ')}`);
  process.exit(1);
}
const random = seeded(o.seed);
const [windFromDeg = 0, windKt = 0] = o.wind.split('/').map(Number);
const choices = {
  runwayEnd: o.runway,
  windFromDeg,
  windKt,
  side: o.side,
  arrivals: o.arrivals,
  airwork: o.airwork,
  errors: o.errors,
  rateHz: o.rate,
  sensors: o.sensors,
};
const made = planFor(
  effectiveSheet(TypeSheet.parse(sheet), Airframe.parse(frame)),
  frame.registration,
  pedraAlva,
  choices,
  random,
);
if (!made) {
  console.error(`--runway: one of ${pedraAlva.runways.flatMap((r) => r.ends.map((e) => e.ident)).join(', ')}`);
  process.exit(1);
}
const flown = flyCircuits(made.plan);
const rows = sense(flown, made.plan.runway, sensorsOf(choices), random);
const startMs = Date.parse(o.start);
writeFileSync(
  o.out,
  o.format === 'gpx'
    ? gpxOf(rows, startMs)
    : o.format === 'igc'
      ? igcOf(rows, startMs)
      : csvOf(rows, startMs, o.sensors !== 'tablet', o.style),
);
writeFileSync(`${o.out}.flown.json`, JSON.stringify(truthOf(flown), null, 2));
writeFileSync(`${o.out}.context.json`, JSON.stringify(made.context, null, 2));
console.log(`${o.out}: ${rows.length} rows, ${flown.events.length} events, ${flown.airwork.length} items of airwork.`);
