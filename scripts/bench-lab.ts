/**
 * `npm run bench:lab`: how fast the models of the lab step, as ratios. Ten seconds of a roll and five of a landing against
 * the time they take to happen; 2000 rolls, as many as a sweep of settings wants. Never asserted in tests.
 */
import './lib/help.mjs';
import { LAB_MODELS, type LabDay, type Settings } from '@/core/lab';
import { types } from '@demo/fleet';

const day: LabDay = {
  ...{ rhoKgM3: 1.225, crosswindKt: 0, gustKt: null, runwayWidthM: 18, runwayIdent: '22', circuitHeightFt: 1000 },
  ...{ windWords: null, limits: [], eyeHeightM: null },
};
const median = (xs: number[]): number => [...xs].sort((a, b) => a - b)[Math.floor(xs.length / 2)] ?? NaN;
const sheet = types.find((t) => t.code === 'serrana-urze');
if (!sheet) throw new Error('no such type in the demo fleet');

for (const page of ['ground', 'touch'] as const) {
  const model = LAB_MODELS[page];
  const start = model.start(sheet, day);
  const once = (settings: Settings) => {
    const from = performance.now();
    const { frames } = model.compute(sheet, settings, day, null);
    return { ms: performance.now() - from, simulatedMs: 1000 * (frames[frames.length - 1]?.tS ?? 0) };
  };
  for (let i = 0; i < 20; i++) once(start);
  const runs = Array.from({ length: 60 }, () => once(start));
  const ms = median(runs.map((r) => r.ms));
  const simulated = runs[0]?.simulatedMs ?? NaN;
  console.log(
    `${page.padEnd(8)} ${(simulated / 1000).toFixed(1)} s simulated and drawn in ${ms.toFixed(2)} ms: ${Math.round(simulated / ms)} x real time`,
  );
  if (page === 'touch') continue;
  const from = performance.now();
  let lost = 0;
  for (let i = 0; i < 2000; i++) {
    const at = {
      ...start,
      foot: (i % 25) / 10,
      delay: 0.1 + 0.1 * (Math.floor(i / 25) % 8),
      swerve: 0.5 + (i % 10) / 2,
    };
    if (model.compute(sheet, at, day, null).tone === 'outside') lost++;
  }
  console.log(
    `2000 rolls, foot by delay by swerve, in ${((performance.now() - from) / 1000).toFixed(1)} s; ${lost} lost`,
  );
}
