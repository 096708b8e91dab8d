/**
 * `npm run bench:felt`: how the built application feels on a processor four times slower. Blocking time, largest paint
 * and script of the pages that carry most; the longest answer to a key, a slider, a tap and a dropped booking. Beside
 * each its ratio to a floor of the same run: an empty page of the same shell.
 */
import './lib/help.mjs';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { type CDPSession, type Page, chromium } from '@playwright/test';
import { CHROMIUM, seedFolder, startServer } from './lib/server';

const SLOWER = 4;
const RUNS = 3;
const folder = mkdtempSync(path.join(tmpdir(), 'jeito-felt-'));
seedFolder(folder);
const server = await startServer(folder);
const browser = await chromium.launch(CHROMIUM);
const median = (xs: number[]): number => [...xs].sort((a, b) => a - b)[Math.floor(xs.length / 2)] ?? Number.NaN;

/** Kept in the page from its first line: tasks over 50 ms, paints, answers to events. Written as text, so that no build step is in it. */
const WATCH = `
  window.felt = { blocked: 0, paint: 0, events: [] };
  new PerformanceObserver((l) => { for (const e of l.getEntries()) window.felt.blocked += Math.max(0, e.duration - 50); }).observe({ type: 'longtask', buffered: true });
  new PerformanceObserver((l) => { for (const e of l.getEntries()) window.felt.paint = e.startTime; }).observe({ type: 'largest-contentful-paint', buffered: true });
  new PerformanceObserver((l) => { for (const e of l.getEntries()) if (e.interactionId) window.felt.events.push(e.duration); }).observe({ type: 'event', durationThreshold: 16, buffered: true });
`;
interface Felt {
  blocked: number;
  paint: number;
  events: number[];
}
const felt = (page: Page): Promise<Felt> => page.evaluate('window.felt');

const context = await browser.newContext({ baseURL: server.url, viewport: { width: 1280, height: 800 } });
const desk = await context.newPage();
await desk.goto('/sign-in');
await desk.locator('html[data-hydrated]').waitFor({ state: 'attached' });
await desk.getByLabel('E-mail').fill('helena@pedra-alva.example');
await desk.getByLabel('Password').fill('pedra-alva-2026');
await desk.getByRole('button', { name: 'Sign in' }).click();
await desk.waitForURL('**/board');
const checkoutOf = async (name: string): Promise<string> => {
  await desk.goto('/checkouts');
  return (await desk.getByRole('link', { name }).first().getAttribute('href')) ?? '';
};
const [ines, duarte] = [await checkoutOf('Inês'), await checkoutOf('Duarte')];
await desk.goto('/traces');
const trace = (await desk.locator('main table a').first().getAttribute('href')) ?? '';
await desk.goto(`${duarte}/fly`);
await desk.locator('html[data-hydrated]').waitFor({ state: 'attached' });
await desk.getByRole('button', { name: 'Prepare this device' }).click();
await desk.waitForURL('**/fly?sortie=*');
const fly = desk.url().replace(server.url, '');
const state = await context.storageState({ indexedDB: true });

/** A page in a cold browser, slowed down. */
async function cold(route: string): Promise<{ page: Page; kB: number; leave: () => Promise<void> }> {
  const own = await browser.newContext({
    baseURL: server.url,
    viewport: { width: 1280, height: 800 },
    storageState: state,
    serviceWorkers: 'block',
  });
  await own.addInitScript(WATCH);
  const page = await own.newPage();
  const cdp: CDPSession = await own.newCDPSession(page);
  await cdp.send('Network.enable');
  await cdp.send('Emulation.setCPUThrottlingRate', { rate: SLOWER });
  const kinds = new Map<string, string>();
  let bytes = 0;
  cdp.on('Network.responseReceived', (e) => kinds.set(e.requestId, e.type));
  cdp.on('Network.loadingFinished', (e) => {
    if (kinds.get(e.requestId) === 'Script') bytes += e.encodedDataLength;
  });
  await page.goto(route);
  await page.locator('html[data-hydrated]').waitFor({ state: 'attached' });
  // Quiet for half a second: everything the page does by itself is done.
  for (let quiet = 0, last = -1; quiet < 5;) {
    await page.waitForTimeout(100);
    const now = (await felt(page)).blocked;
    quiet = now === last ? quiet + 1 : 0;
    last = now;
  }
  return { page, kB: bytes / 1000, leave: () => own.close() };
}

const PAGES: [string, string][] = [
  ['floor: notices, empty', '/notices'],
  ['board', '/board'],
  ['brief', `${duarte}/brief`],
  ['fly, circuits', fly],
  ['debrief', `${ines}/debrief`],
  ['progress', `${ines}/progress`],
  ['replay', trace],
  ['sign', `${ines}/sign`],
  ['schedule', '/schedule'],
  ['circuit', `/lab/circuit`],
];
let floor: { blocked: number; paint: number } | null = null;
console.log(`${SLOWER} x slower, median of ${RUNS}; in brackets: times the floor`);
for (const [name, route] of PAGES) {
  const runs: { blocked: number; paint: number; kB: number }[] = [];
  for (let i = 0; i < RUNS; i++) {
    const { page, kB, leave } = await cold(route);
    const { blocked, paint } = await felt(page);
    runs.push({ blocked, paint, kB });
    await leave();
  }
  const blocked = median(runs.map((r) => r.blocked));
  const paint = median(runs.map((r) => r.paint));
  floor ??= { blocked, paint };
  const times = (x: number, f: number) => (f > 0 ? ` (${(x / f).toFixed(1)})` : '');
  console.log(
    `${name.padEnd(24)} blocked ${blocked.toFixed(0).padStart(5)} ms${times(blocked, floor.blocked)}, largest paint ${paint.toFixed(0).padStart(5)} ms${times(paint, floor.paint)}, script ${median(runs.map((r) => r.kB)).toFixed(0)} kB`,
  );
}

/** The longest answers to what a hand does, each in its own page. */
async function answers(name: string, route: string, act: (page: Page) => Promise<void>): Promise<void> {
  const { page, leave } = await cold(route);
  await page.evaluate('window.felt.events.length = 0');
  await act(page);
  await page.waitForTimeout(600);
  const { events } = await felt(page);
  const worst = Math.max(0, ...events);
  console.log(
    `${name.padEnd(24)} ${events.length === 0 ? 'every answer under 16 ms' : `median ${median(events).toFixed(0)} ms, longest ${worst.toFixed(0)} ms of ${events.length}`}`,
  );
  await leave();
}
await answers('floor: a key, board', '/board', async (page) => {
  for (let i = 0; i < 12; i++) await page.keyboard.press('x', { delay: 60 });
});
await answers('key in METAR', `${duarte}/brief`, async (page) => {
  const metar = page.getByLabel('METAR');
  await metar.fill('ZPAV 241425Z 26011G17KT CAVOK 18/07 Q101');
  await page.waitForTimeout(400);
  await page.evaluate('window.felt.events.length = 0');
  await metar.pressSequentially('6 NOSIG', { delay: 120 });
});
await answers('circuit, wind slider', '/lab/circuit', async (page) => {
  const wind = page.getByRole('slider', { name: /wind/i }).first();
  await wind.focus();
  for (let i = 0; i < 8; i++) await page.keyboard.press('ArrowRight', { delay: 120 });
});
await answers('capture tap', fly, async (page) => {
  await page.getByRole('button', { name: /^Stopped/ }).click();
  for (const name of ['three-point', 'mains first', 'three-point'])
    await page.getByRole('group', { name: 'Touched down', exact: true }).getByRole('button', { name }).click();
  await page.getByRole('button', { name: 'Speed and roll-out' }).click();
  for (let i = 0; i < 4; i++) await page.getByRole('button', { name: 'Speed at the threshold more' }).click();
});
await answers('schedule, drop', '/schedule', async (page) => {
  const block = page.locator('.sch-block[aria-roledescription*="moved"]').first();
  await block.scrollIntoViewIfNeeded();
  const box = await block.boundingBox();
  if (!box) throw new Error('no booking can be moved');
  await page.mouse.move(box.x + 12, box.y + 8);
  await page.mouse.down();
  for (let i = 1; i <= 6; i++) await page.mouse.move(box.x + 12, box.y + 8 + i * 8);
  await page.mouse.up();
});

await browser.close();
await server.stop();
rmSync(folder, { recursive: true, force: true });
