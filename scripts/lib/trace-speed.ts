/**
 * How long a long recording takes to read and analyse, against the bare split of its text into cells in the same run.
 */
import { seeded } from '@demo/random';
import Papa from 'papaparse';
import { pedraAlva } from '@demo/aerodrome';
import { types } from '@demo/fleet';
import { TypeSheet } from '@/domain/sheet';
import { type SuiteFlight, csvOf, flyCircuits, planFor, sense, sensorsOf, suiteFlight } from '@/core/recorder';
import { analyseTrace, readTrace } from '@/core/trace';

const median = (xs: number[]): number => [...xs].sort((a, b) => a - b)[Math.floor(xs.length / 2)] ?? Number.NaN;

/** The table: 72 000 rows of 24 columns, a flight of circuits and airwork. */
function twoHours(f: SuiteFlight): { text: string; rows: number } {
  const arrivals = Array.from(
    { length: 25 },
    (_, i) => f.plan.arrivals[i % (f.plan.arrivals.length - 1)] ?? f.plan.arrivals[0],
  ).flatMap((x) => (x && x.end !== 'full-stop' ? [x] : []));
  const flown = flyCircuits({ ...f.plan, arrivals: [...arrivals, ...f.plan.arrivals.slice(-1)] });
  const rows = sense(flown, f.plan.runway, { ...f.sensors, rateHz: 10 }, seeded(8)).slice(0, 72_000);
  const r = seeded(9);
  const near = (x: number, by: number, digits: number) => (x + (r() - 0.5) * by).toFixed(digits);
  const lines = [
    'Lcl Date,Lcl Time,UTCOfst,Latitude,Longitude,AltMSL,AltGPS,IAS,GndSpd,TRK,HDG,VSpd,Pitch,Roll,NormAc,RPM,MAP,FFlow,CHT1,CHT2,CHT3,CHT4,Flap,OilT',
  ];
  for (const s of rows) {
    const at = new Date(Date.UTC(2026, 10, 24, 9) + s.tS * 1000).toISOString();
    lines.push(
      [
        at.slice(0, 10),
        at.slice(11, 21),
        '+00:00',
        s.lat.toFixed(7),
        s.lon.toFixed(7),
        s.altFt.toFixed(1),
        (s.altFt + 12).toFixed(1),
        s.iasKt.toFixed(2),
        s.gsKt.toFixed(2),
        s.trackDeg.toFixed(1),
        s.headingDeg.toFixed(1),
        s.vsFpm.toFixed(0),
        s.pitchDeg.toFixed(2),
        s.bankDeg.toFixed(2),
        s.nz.toFixed(3),
        s.rpm.toFixed(0),
        near(22, 2, 2),
        near(9, 2, 2),
        near(185, 10, 0),
        near(185, 10, 0),
        near(185, 10, 0),
        near(185, 10, 0),
        '0',
        near(90, 2, 1),
      ].join(','),
    );
  }
  return { text: lines.join('\n'), rows: rows.length };
}

/** Two hours of circuits on the demo's field as a panel would record them. */
export function longFlight(): string {
  const [type] = types;
  if (!type) throw new Error('no type');
  const choices = {
    runwayEnd: '22',
    windFromDeg: 250,
    windKt: 6,
    side: 'left' as const,
    arrivals: Array.from({ length: 30 }, () => 'touch-and-go' as const),
    airwork: ['steep-turn' as const],
    errors: [],
    rateHz: 10,
    sensors: 'panel' as const,
  };
  const made = planFor(TypeSheet.parse(type), 'ZP-URZ', pedraAlva, choices, seeded(3));
  if (!made) throw new Error('no plan');
  return csvOf(
    sense(flyCircuits(made.plan), made.plan.runway, sensorsOf(choices), seeded(4)).slice(0, 72_000),
    Date.UTC(2026, 10, 24, 8),
    true,
    'panel',
  );
}

/** One line with the times, the ratios and the memory used. */
export function traceSpeed(): string {
  const f = suiteFlight(6, seeded(7));
  const { text, rows } = twoHours(f);
  // A flight of two hours at 10 Hz in 24 columns, read and analysed; the floor is the bare split of the same text into
  // cells.
  const run = (work: () => unknown) =>
    median(
      Array.from({ length: 5 }, () => {
        const t = performance.now();
        work();
        return performance.now() - t;
      }),
    );
  let most = 0;
  const whole = run(() => {
    const t = readTrace(text);
    if (t.ok) analyseTrace(t.trace, f.context);
    const m = process.memoryUsage();
    most = Math.max(most, m.heapUsed + m.arrayBuffers);
  });
  const reading = run(() => readTrace(text));
  const bare = run(() => Papa.parse(text));
  const read = readTrace(text);
  const events = read.ok ? analyseTrace(read.trace, f.context).events.length : 0;
  return `a table of ${(text.length / 1e6).toFixed(1)} MB, ${rows} rows, ${events} events: read ${reading.toFixed(0)} ms, read and analysed ${whole.toFixed(0)} ms; split into cells ${bare.toFixed(0)} ms; ${(reading / bare).toFixed(2)} and ${(whole / bare).toFixed(2)} x floor; ${(most / 1e6).toFixed(0)} MB of memory in use at most, the text included`;
}
