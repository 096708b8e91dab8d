/**
 * `npm run bench`: speed as ratios to a floor measured in the same run. Never asserted in tests.
 * Pages: median of 50 after warm-up, production build, demo data, against the same server's sign-in page with no
 * session (the floor). Core: a whole brief and a whole programme's evidence against the bare JSON parse of what they
 * read. Writers: 20 parallel through the queue against 20 one after the other.
 */
import './lib/help.mjs';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { seedFolder, signInCookie, startServer } from './lib/server';
import { Pilots } from '@/server/account/tables';

const onlyTap = process.argv.includes('--tap');
const median = (xs: number[]): number => [...xs].sort((a, b) => a - b)[Math.floor(xs.length / 2)] ?? NaN;
const folder = mkdtempSync(path.join(tmpdir(), 'jeito-bench-'));
seedFolder(folder);
const server = await startServer(folder);

const cookie = await signInCookie(server.url, 'helena@pedra-alva.example');
async function time(route: string, headers: Record<string, string> = {}): Promise<{ median: number; worst: number }> {
  const once = async () => {
    const started = performance.now();
    const response = await fetch(server.url + route, { headers, redirect: 'manual' });
    await response.arrayBuffer();
    if (response.status !== 200) throw new Error(`${route} answered ${response.status}`);
    return performance.now() - started;
  };
  for (let i = 0; i < 10; i++) await once();
  const seen: number[] = [];
  for (let i = 0; i < 50; i++) seen.push(await once());
  return { median: median(seen), worst: Math.max(...seen) };
}

const list = (await (await fetch(`${server.url}/api/palette`, { headers: { cookie } })).json()) as {
  title: string;
  href: string;
}[];
const checkoutFor = (name: string) =>
  list.find((x) => x.title.startsWith(name) && x.href.startsWith('/checkouts/'))?.href ?? '';
const checkout = checkoutFor('Clara');
const floor = await time('/sign-in');
console.log(`floor: /sign-in without a session  ${floor.median.toFixed(1)} ms`);
console.log('page                          median      worst   x floor');
for (const route of onlyTap
  ? []
  : [
      '/board',
      '/checkouts',
      '/checkouts/new',
      checkout,
      `${checkout}/brief`,
      `${checkout}/differences`,
      `/lab/sight-picture?checkout=${checkout.split('/').pop() ?? ''}`,
      `/lab/circuit?checkout=${checkout.split('/').pop() ?? ''}`,
      `${checkout}/fly`,
      `${checkout}/debrief`,
      `${checkout}/progress`,
      `${checkout}/plan`,
      `${checkout}/sign`,
      '/hangar',
      '/hangar/serrana-carvalho',
      '/people',
      '/ledger',
      '/fly',
    ]) {
  const t = await time(route, { cookie });
  console.log(
    `${route
      .replace(checkout, '/checkouts/[id]')
      .replace(/checkout=.*/, 'checkout=[id]')
      .padEnd(
        36,
      )} ${t.median.toFixed(1).padStart(6)} ms ${t.worst.toFixed(1).padStart(7)} ms   ${(t.median / floor.median).toFixed(1)}`,
  );
}
{
  // Frames of the flown sight picture in three seconds, against an empty page's own frames on this machine (the floor).
  const { chromium } = await import('@playwright/test');
  const { CHROMIUM } = await import('./lib/server');
  const browser = await chromium.launch(CHROMIUM);
  const context = await browser.newContext({ baseURL: server.url, viewport: { width: 1280, height: 800 } });
  const [name, value] = [cookie.slice(0, cookie.indexOf('=')), cookie.slice(cookie.indexOf('=') + 1)];
  await context.addCookies([{ name, value, url: server.url }]);
  const page = await context.newPage();
  // As text: the function's own helper names do not exist in the page.
  const frames = () =>
    page.evaluate<number>(
      'new Promise((done) => { let n = 0; const started = performance.now(); requestAnimationFrame(function tick() { n++; if (performance.now() - started < 3000) requestAnimationFrame(tick); else done(n / 3); }); })',
    );
  await page.goto('/sign-in');
  const still = onlyTap ? 0 : await frames();
  await page.goto('/lab/sight-picture?type=lume-faisca&old=alvor-c1&offset=15');
  await page.waitForLoadState('networkidle');
  await page.getByRole('button', { name: 'Fly the approach' }).click();
  const flown = onlyTap ? 0 : await frames();
  console.log(
    `sight picture flown ${flown.toFixed(0)} frames/s; a still page ${still.toFixed(0)} frames/s, ${(flown / still).toFixed(2)} x floor`,
  );
  if (!onlyTap) {
    // A replay of two hours at ten rows a second: playing, and zooming in and out by the wheel, each for three seconds.
    const { longFlight } = await import('./lib/trace-speed');
    await page.goto('/traces/new');
    const sortie = await page.getByLabel('Flight', { exact: true }).locator('option').nth(1).getAttribute('value');
    const kept = await page.request.post('/api/traces', {
      multipart: {
        sortie: sortie ?? '',
        file: { name: 'two-hours.csv', mimeType: 'text/csv', buffer: Buffer.from(longFlight()) },
      },
    });
    const { id } = (await kept.json()) as { id: string };
    await page.goto(`/traces/${id}`);
    await page.locator('.curves canvas').first().waitFor();
    await page.waitForTimeout(1000);
    await page.getByRole('button', { name: 'Play at 60 times' }).click();
    const played = await frames();
    await page.getByRole('button', { name: 'Stop', exact: true }).click();
    const box = await page.locator('.curves').boundingBox();
    await page.mouse.move((box?.x ?? 0) + 600, (box?.y ?? 0) + 100);
    const zooming = frames();
    for (let i = 0; i < 40; i++) {
      await page.mouse.wheel(0, i % 20 < 10 ? -240 : 240);
      await page.waitForTimeout(60);
    }
    const zoomed = await zooming;
    console.log(
      `replay of two hours at 10 Hz: playing ${played.toFixed(0)} frames/s, zooming ${zoomed.toFixed(0)} frames/s; a still page ${still.toFixed(0)} frames/s, ${(played / still).toFixed(2)} and ${(zoomed / still).toFixed(2)} x floor`,
    );
  }
  // Tap to durable and visible, processor slowed four times; the floor is the same click with nothing to keep.
  await page.goto(`${checkoutFor('Duarte')}/fly`);
  await page.waitForLoadState('networkidle');
  await page.getByRole('button', { name: 'Prepare this device' }).click();
  await page.waitForURL('**/fly?sortie=*');
  await page.getByRole('button', { name: /^Eyes out/ }).waitFor();
  const cdp = await context.newCDPSession(page);
  await cdp.send('Emulation.setCPUThrottlingRate', { rate: 4 });
  const tapTimes: number[] = [];
  const floorTimes: number[] = [];
  const timed = (name: string, seen: string) =>
    page.evaluate<number>(`new Promise((done, fail) => {
    setTimeout(() => fail(new Error(${JSON.stringify(name)} + ' changed nothing')), 10000);
    const button = [...document.querySelectorAll('button')].find((b) => b.textContent.startsWith(${JSON.stringify(name)}));
    const before = ${seen};
    const started = performance.now();
    const watch = new MutationObserver(() => { if (${seen} !== before) { watch.disconnect(); requestAnimationFrame(() => done(performance.now() - started)); } });
    watch.observe(document.body, { subtree: true, childList: true, characterData: true, attributes: true });
    button.click();
  })`);
  for (let i = 0; i < 40; i++) {
    // A low pass is saved with one tap more; after each save nothing is chosen again.
    floorTimes.push(
      await timed(
        'low pass',
        "[...document.querySelectorAll('button')].find((b) => b.textContent === 'low pass').getAttribute('aria-pressed')",
      ),
    );
    // Nobody taps twice within a blink: what the first tap still had to keep is kept by then.
    await page.waitForTimeout(200);
    tapTimes.push(await timed('Save', "document.querySelector('h1').textContent"));
  }
  const p95 = (xs: number[]) => [...xs].sort((a, b) => a - b)[Math.floor(xs.length * 0.95)] ?? NaN;
  console.log(
    `saved and visible at 4 x slow-down: median ${median(tapTimes).toFixed(0)} ms, 95th percentile ${p95(tapTimes).toFixed(0)} ms; a tap drawn ${median(floorTimes).toFixed(0)} ms, ${(p95(tapTimes) / p95(floorTimes)).toFixed(1)} x floor`,
  );
  await browser.close();
}
await server.stop();

process.env.JEITO_DATA = folder;
const { write } = await import('@/server/floor/write');
const { closeDatabase } = await import('@/server/floor/connection');
const add = (n: number) =>
  write(
    async (t) =>
      void (await Pilots.insert(
        {
          id: `bench-${n}`,
          name: 'Bench',
          massKg: 80,
          experience: '',
          hours: 0,
          crosswindCredit: null,
          experienceSince: {},
          createdAt: '2026-01-01T00:00:00.000Z',
        },
        t,
      )),
  );
await add(0);
let started = performance.now();
for (let i = 1; i <= 20; i++) await add(i);
const serial = performance.now() - started;
started = performance.now();
await Promise.all(Array.from({ length: 20 }, (_, i) => add(100 + i)));
const parallel = performance.now() - started;
console.log(
  `20 writers one after the other ${serial.toFixed(0)} ms; in parallel through the queue ${parallel.toFixed(0)} ms, ${(parallel / serial).toFixed(2)} x floor`,
);
const { traceSpeed } = await import('./lib/trace-speed');
console.log(traceSpeed());
await closeDatabase();
rmSync(folder, { recursive: true, force: true });
