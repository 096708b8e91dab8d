/**
 * `npm run friction`: taps and fields a working instructor needs for each step of a checkout, walked in the real interface of
 * the demo, beside what they were before and what is aimed at. A step that can no longer be walked fails.
 */
import './lib/help.mjs';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { type Locator, type Page, chromium } from '@playwright/test';
import { CHROMIUM, FIXED_NOW, NO_HINTS, seedFolder, startServer } from './lib/server';

interface Step {
  name: string;
  /** Taps and fields as they were first counted, and what is aimed at; null = no worse than before. */
  before: [taps: number, fields: number | null];
  aim: number | null;
  taps: number;
  fields: number;
}
const steps: Step[] = [];
let now: Step | null = null;
const step = (name: string, before: Step['before'], aim: number | null = null): void => {
  now = { name, before, aim, taps: 0, fields: 0 };
  steps.push(now);
};
async function tap(what: Locator): Promise<void> {
  await what.click();
  if (now) now.taps += 1;
}
async function choose(what: Locator, label: string): Promise<void> {
  await what.selectOption({ label });
  if (now) now.fields += 1;
}

const folder = mkdtempSync(path.join(tmpdir(), 'jeito-friction-'));
seedFolder(folder);
const server = await startServer(folder);
const browser = await chromium.launch(CHROMIUM);

async function signedIn(key: string): Promise<Page> {
  const context = await browser.newContext({ baseURL: server.url, viewport: { width: 820, height: 1180 } });
  await context.addCookies(NO_HINTS);
  const page = await context.newPage();
  await page.goto('/sign-in');
  await page.getByLabel('E-mail').fill(`${key}@pedra-alva.example`);
  await page.getByLabel('Password').fill('pedra-alva-2026');
  await page.getByRole('button', { name: 'Sign in' }).click();
  await page.waitForURL('**/board');
  await ready(page);
  return page;
}
const ready = (page: Page) => page.locator('html[data-hydrated]').waitFor({ state: 'attached' });
async function prepared(page: Page, href: string): Promise<void> {
  await page.goto(`${href}/fly`);
  await ready(page);
  await page.getByRole('button', { name: 'Prepare this device' }).click();
  await page.waitForURL('**/fly?sortie=*');
  await page.clock.setFixedTime(new Date(FIXED_NOW));
  await page.getByRole('button', { name: /Log the wind/ }).waitFor();
}
const checkoutOf = async (page: Page, name: string): Promise<string> => {
  await page.goto('/checkouts');
  return (await page.locator('main').getByRole('link', { name }).first().getAttribute('href')) ?? '';
};
const group = (page: Page, name: string | RegExp) => page.getByRole('group', { name, exact: typeof name === 'string' });

const page = await signedIn('helena');

step('open a checkout', [2, 3]);
await tap(page.getByRole('link', { name: 'New checkout' }));
await page.waitForURL('**/checkouts/new');
await ready(page);
await choose(page.getByLabel('Pilot', { exact: true }), 'Gaspar Ribeira Alta');
await choose(page.getByLabel('Aeroplane', { exact: true }), 'ZP-URZ · Serrana Urze');
await tap(page.getByRole('button', { name: 'Open and brief' }));
await page.waitForURL('**/brief');
await ready(page);

step('brief', [5, 5]);
await tap(page.getByRole('button', { name: /Take the simulated station/ }));
await tap(page.getByRole('button', { name: 'Save brief' }));
await page.waitForURL('**/fly');
const gaspar = page
  .url()
  .replace(/\/fly$/, '')
  .replace(server.url, '');
await prepared(page, gaspar);

step('wind, as observed', [25, null], 3);
await tap(page.getByRole('button', { name: /Log the wind/ }));
await tap(group(page, 'Winds observed').getByRole('button').first());
await page.getByRole('dialog').waitFor({ state: 'detached' });

step('wind, entered anew', [25, null]);
await tap(page.getByRole('button', { name: /Log the wind/ }));
const rose = page.getByRole('slider', { name: 'From, magnetic' });
const box = await rose.boundingBox();
if (!box) throw new Error('there is no rose');
await rose.click({ position: { x: box.width * 0.5, y: box.height * 0.2 } });
if (now) (now as Step).taps += 1;
await tap(group(page, 'Mean, in one tap').getByRole('button', { name: '12' }));
await tap(page.getByRole('button', { name: /^Log this wind/ }));
await page.getByRole('dialog').waitFor({ state: 'detached' });

step('landing, clean', [4, null]);
await tap(page.getByRole('button', { name: /^Stopped/ }));
await tap(page.getByRole('radio', { name: 'in the box, on the line', exact: true }));
await tap(page.getByRole('button', { name: /^Clean, three-point/ }));
await tap(page.getByRole('button', { name: /^unassisted/ }));
await page.getByText(/Landing 1 saved/).waitFor();

step('landing, every criterion its items need', [21, null], 9);
await tap(page.getByRole('button', { name: /^Stopped/ }));
await tap(page.getByRole('radio', { name: 'in the box, a wheel off left', exact: true }));
await tap(page.getByRole('button', { name: /^Clean, three-point/ }));
await tap(group(page, 'Into-wind aileron').getByRole('button', { name: 'kept' }));
await tap(group(page, 'Stick back').getByRole('button', { name: 'kept' }));
await tap(page.getByRole('button', { name: 'Speed at the threshold more' }));
await tap(group(page, 'Firmness').getByRole('button', { name: 'normal' }));
await tap(page.getByRole('button', { name: /^unassisted/ }));
await page.getByText(/Landing 2 saved/).waitFor();

step('ground items, five', [12, null], 6);
await tap(page.getByRole('button', { name: 'Ground', exact: true }));
for (const id of ['G1', 'G2', 'G3', 'G4', 'G5']) await tap(group(page, id).getByRole('button', { name: 'knew it' }));
await page.getByText('5 of 5 saved').waitFor();

step('a number far away, typed (96 to 160)', [64, null], 6);
await tap(page.getByRole('button', { name: 'Airwork', exact: true }));
await tap(page.getByRole('button', { name: /Steep turn/ }).first());
await tap(page.getByRole('button', { name: /^Set speed not seen/ }));
const keys = page.getByRole('dialog');
for (const k of ['1', '6', '0']) await tap(keys.getByRole('button', { name: k, exact: true }));
await tap(keys.getByRole('button', { name: 'Set' }));
// The way to the item is no part of the number.
if (now) (now as Step).taps -= 2;

await prepared(page, gaspar);
await page.getByRole('button', { name: 'Airwork', exact: true }).click();
step('a manoeuvre, entry and exit', [64, null], 6);
await tap(page.getByRole('button', { name: /^Performance manoeuvre/ }));
await tap(group(page, 'Item').getByRole('button', { name: /^wing-over/ }));
await tap(page.getByRole('button', { name: /^Entered as planned/ }));
await tap(page.getByRole('button', { name: /^Left as entered/ }));
await tap(group(page, 'Performance manoeuvre who flew it').getByRole('button', { name: /^unassisted/ }));
await page.getByText(/Performance manoeuvre saved: within/).waitFor();

step('a limit seen exceeded', [0, null], 2);
await tap(page.getByRole('button', { name: 'Limit exceeded' }));
await tap(group(page, 'Limit exceeded').getByRole('button', { name: 'Vne' }));
await page.getByText(/Vne exceeded: saved/).waitFor();

const bento = await signedIn('bento');
const water = await checkoutOf(bento, 'Lídia Fonte Maior');
await bento.goto(`${water}/brief`);
await ready(bento);
await bento.getByLabel('Runway', { exact: true }).selectOption('18W');
await bento.getByRole('button', { name: /^Save (brief|new version)/ }).click();
await bento.waitForURL('**/fly');
await prepared(bento, water);
step('wheels against the surface', [9, null], 6);
await tap(bento.getByRole('button', { name: 'Wheels', exact: true }));
await tap(group(bento, 'Where am I landing').getByRole('button', { name: 'water' }));
await tap(group(bento, 'All lamps').getByRole('button', { name: 'unlit' }));
await tap(group(bento, 'All wheels seen').getByRole('button', { name: 'up' }));
await tap(group(bento, 'Word from the other seat').getByRole('button', { name: /water/ }));
await tap(bento.getByRole('button', { name: 'Said and seen' }));
await bento.locator('.decision:not(.stop)').waitFor();

const front = await (async () => {
  await page.getByRole('button', { name: 'Landings', exact: true }).click();
  const count = () => page.locator('main button:visible, main a:visible').count();
  const flying = await count();
  await page.getByRole('button', { name: /^Stopped/ }).click();
  const stopped = await count();
  await page.getByRole('button', { name: /^Clean, three-point/ }).click();
  return { flying, stopped, clean: await count(), places: await page.locator('main input[type=radio]').count() };
})();

await browser.close();
await server.stop();
rmSync(folder, { recursive: true, force: true });

const pad = (t: string, n: number) => t.padEnd(n);
console.log(`${pad('step', 44)}${pad('before', 12)}${pad('now', 12)}aim`);
let worse = 0;
for (const s of steps) {
  const was =
    s.before[0] === 0 ? 'not there' : s.before[1] === null ? `${s.before[0]}` : `${s.before[0]} / ${s.before[1]}`;
  const is = s.before[1] === null ? `${s.taps}` : `${s.taps} / ${s.fields}`;
  const over = s.taps > (s.aim ?? s.before[0]) || s.fields > (s.before[1] ?? Infinity);
  if (over) worse += 1;
  console.log(`${pad(s.name, 44)}${pad(was, 12)}${pad(is, 12)}${s.aim ?? 'no worse'}${over ? '  PASSED OVER' : ''}`);
}
console.log(
  `buttons of a landing, tailwheel: ${front.flying} while flown (aim 40), ${front.stopped} when stopped, ${front.clean} once clean; ` +
    `the runway is one choice of ${front.places} places. Before: 85 with the places counted`,
);
process.exit(worse > 0 || front.flying > 40 ? 1 : 0);
