/**
 * `npm run bench:lab`: how fast the models of the lab step, as ratios. Ten seconds of a roll and five of a landing against
 * the time they take to happen; 2000 rolls, as many as a map wants. With `--drawing`, on a built application: pictures a
 * second while a roll is played, against the same page standing still. Never asserted in tests.
 */
import './lib/help.mjs';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { type Page, chromium } from '@playwright/test';
import { groundRun } from '@/core/ground';
import { FOOT_MAP_RUNS, LAB_MODELS, type LabDay, type Settings, footMap, rollInput } from '@/core/lab';
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
  const roll = rollInput(sheet, start, day);
  const alone = median(
    Array.from({ length: 40 }, () => {
      const from = performance.now();
      // Long enough that it does not stop: ten seconds of it.
      groundRun({ ...roll, groundSpeedMs: 20, rollingFriction: 0, forS: 10 });
      return performance.now() - from;
    }),
  );
  console.log(`ground   10 s stepped alone in ${alone.toFixed(2)} ms: ${Math.round(10_000 / alone)} x real time`);
  const from = performance.now();
  for (const done of footMap(sheet, { ...start, steering: 'free' }, day)) void done;
  console.log(`map of ${FOOT_MAP_RUNS} rolls in ${((performance.now() - from) / 1000).toFixed(1)} s`);
}

/** Pictures a second over three seconds. */
const rate = (page: Page): Promise<number> =>
  // As text: what the compiler adds to a named function is not known in the page.
  page.evaluate<number>(`new Promise((done) => {
    const from = performance.now();
    let n = 0;
    (function next() {
      n++;
      if (performance.now() - from < 3000) requestAnimationFrame(next);
      else done((1000 * n) / (performance.now() - from));
    })();
  })`);
if (process.argv.includes('--drawing')) {
  const { CHROMIUM, NO_HINTS, seedFolder, startServer } = await import('./lib/server');
  const folder = mkdtempSync(path.join(tmpdir(), 'jeito-bench-lab-'));
  seedFolder(folder);
  const server = await startServer(folder);
  const browser = await chromium.launch(CHROMIUM);
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, baseURL: server.url });
  await context.addCookies(NO_HINTS);
  const page = await context.newPage();
  await page.goto('/sign-in');
  await page.getByLabel('E-mail').fill('helena@pedra-alva.example');
  await page.getByLabel('Password').fill('pedra-alva-2026');
  await page.getByRole('button', { name: 'Sign in' }).click();
  await page.waitForURL('**/board');
  for (const at of ['ground?feet=continuous&delay=0.5', 'take-off', 'touch']) {
    await page.goto(`/lab/${at}`);
    await page.waitForLoadState('networkidle');
    const still = await rate(page);
    await page.getByRole('button', { name: 'Play' }).click();
    const played = await rate(page);
    console.log(
      `${at.split('?')[0]?.padEnd(8)} ${played.toFixed(0)} pictures a second played, ${still.toFixed(0)} still: ${(played / still).toFixed(2)}`,
    );
  }
  await browser.close();
  await server.stop();
  rmSync(folder, { recursive: true, force: true });
}
