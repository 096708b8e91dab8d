/**
 * `npm run size`: encoded bytes of script that a cold browser loads for each route of the built application. Fails when
 * a budget is passed.
 */
import './lib/help.mjs';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { type BrowserContext, chromium } from '@playwright/test';
import { CHROMIUM, seedFolder, startServer } from './lib/server';

/** kB of compressed script; the cockpit's is a promise to the tablet in the aeroplane. */
const BUDGET_KB: Record<string, number> = { '/fly': 200 };

const folder = mkdtempSync(path.join(tmpdir(), 'jeito-size-'));
seedFolder(folder);
const server = await startServer(folder);
const browser = await chromium.launch(CHROMIUM);

async function scriptBytes(context: BrowserContext, route: string): Promise<number> {
  const page = await context.newPage();
  const cdp = await context.newCDPSession(page);
  await cdp.send('Network.enable');
  await cdp.send('Network.setCacheDisabled', { cacheDisabled: true });
  const kinds = new Map<string, string>();
  const open = new Set<string>();
  let bytes = 0;
  cdp.on('Network.requestWillBeSent', (e) => open.add(e.requestId));
  cdp.on('Network.loadingFailed', (e) => open.delete(e.requestId));
  cdp.on('Network.responseReceived', (e) => kinds.set(e.requestId, e.type));
  cdp.on('Network.loadingFinished', (e) => {
    open.delete(e.requestId);
    if (kinds.get(e.requestId) === 'Script') bytes += e.encodedDataLength;
  });
  await page.goto(route);
  await page.locator('html[data-hydrated]').waitFor({ state: 'attached' });
  // What is asked for lazily is asked for within two frames; then everything asked for has to have come.
  for (let quiet = 0; quiet < 5; quiet = open.size === 0 ? quiet + 1 : 0)
    await page.evaluate(() => new Promise<void>((r) => requestAnimationFrame(() => requestAnimationFrame(() => r()))));
  await page.close();
  return bytes;
}

const context = await browser.newContext({ baseURL: server.url });
const desk = await context.newPage();
await desk.goto('/sign-in');
await desk.locator('html[data-hydrated]').waitFor({ state: 'attached' });
await desk.getByLabel('E-mail').fill('helena@pedra-alva.example');
await desk.getByLabel('Password').fill('pedra-alva-2026');
await desk.getByRole('button', { name: 'Sign in' }).click();
await desk.waitForURL('**/board');
await desk.goto('/checkouts');
const checkout = (await desk.getByRole('link', { name: 'Duarte' }).first().getAttribute('href')) ?? '';
await desk.goto(`${checkout}/fly`);
await desk.locator('html[data-hydrated]').waitFor({ state: 'attached' });
await desk.getByRole('button', { name: 'Prepare this device' }).click();
await desk.waitForURL('**/fly?sortie=*');
const fly = desk.url().replace(server.url, '');

const named: [string, string][] = [
  ['/sign-in', '/sign-in'],
  ['/board', '/board'],
  ['/checkouts', '/checkouts'],
  ['/checkouts/new', '/checkouts/new'],
  ['/checkouts/[id]', checkout],
  ['/checkouts/[id]/brief', `${checkout}/brief`],
  ['/fly', fly],
  ['/checkouts/[id]/debrief', `${checkout}/debrief`],
  ['/checkouts/[id]/sign', `${checkout}/sign`],
  ['/hangar', '/hangar'],
  ['/hangar/[type]', '/hangar/serrana-carvalho'],
  ['/ledger', '/ledger'],
];
// A cold browser: nothing kept by the service worker, so that every script is counted as it comes over the network.
const cold = await browser.newContext({
  baseURL: server.url,
  serviceWorkers: 'block',
  storageState: await context.storageState(),
});
let over = false;
for (const [name, route] of named) {
  const kB = (await scriptBytes(cold, route)) / 1000;
  if (kB === 0) throw new Error(`${name}: no script was counted`);
  const budget = BUDGET_KB[name];
  const bad = budget !== undefined && kB > budget;
  over ||= bad;
  console.log(
    `${name.padEnd(26)} ${kB.toFixed(budget === undefined ? 0 : 1).padStart(5)} kB${budget === undefined ? '' : `  budget ${budget} kB: ${bad ? 'PASSED OVER' : 'kept'}`}`,
  );
}
await browser.close();
await server.stop();
rmSync(folder, { recursive: true, force: true });
process.exit(over ? 1 : 0);
