/**
 * Takes the README's pictures from the demo at a fixed instant. `--only a,b` takes some; `--out DIR` puts them
 * elsewhere; `--full` takes whole pages; `--tablet` takes the wide ones at 820 x 1180.
 */
import './lib/help.mjs';
import { spawnSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { parseArgs } from 'node:util';
import { type Page, chromium } from '@playwright/test';
import { CHROMIUM, NO_HINTS, FIXED_NOW, type RunningServer, seedFolder, startServer } from './lib/server';

const { values } = parseArgs({
  options: {
    only: { type: 'string' },
    out: { type: 'string', default: 'docs/screenshots' },
    theme: { type: 'string' },
    full: { type: 'boolean' },
    tablet: { type: 'boolean' },
  },
});
const only = values.only?.split(',');
mkdirSync(values.out, { recursive: true });
const folder = process.env.JEITO_SHOT_DATA ?? mkdtempSync(path.join(tmpdir(), 'jeito-shots-'));
if (!process.env.JEITO_SHOT_DATA) seedFolder(folder);
const server = await startServer(folder);
const schools: RunningServer[] = [];
const browser = await chromium.launch(CHROMIUM);

async function open(email: string, size: { width: number; height: number }): Promise<Page> {
  const context = await browser.newContext({ viewport: size, baseURL: server.url });
  await context.addCookies(NO_HINTS);
  if (values.theme)
    await context.addInitScript((t) => {
      localStorage.setItem('jeito-theme', t);
      localStorage.setItem('jeito-theme-fly', t);
    }, values.theme);
  const page = await context.newPage();
  await page.goto('/sign-in');
  await page.getByLabel('E-mail').fill(email);
  await page.getByLabel('Password').fill('pedra-alva-2026');
  await page.getByRole('button', { name: 'Sign in' }).click();
  await page.waitForURL('**/board');
  return page;
}
const wide = values.tablet ? { width: 820, height: 1180 } : { width: 1280, height: 800 };
const tablet = { width: 820, height: 1180 };
const checkoutOf = async (page: Page, name: string): Promise<string> => {
  await page.goto('/checkouts');
  return (await page.getByRole('link', { name }).first().getAttribute('href')) ?? '';
};
const phone = { width: 390, height: 844 };
/** Duarte's next flight on this device, with a wind logged. */
async function cockpitOn(size: { width: number; height: number }) {
  const page = await open(HELENA, size);
  await page.goto(`${await checkoutOf(page, 'Duarte')}/fly`);
  await page.waitForLoadState('networkidle');
  await page.clock.setFixedTime(new Date(FIXED_NOW));
  await page.getByRole('button', { name: 'Prepare this device' }).click();
  await page.waitForURL('**/fly?sortie=*');
  const wind = page.getByRole('button', { name: /Log the wind/ });
  await wind.waitFor();
  if (/^No wind/.test((await wind.getAttribute('aria-label')) ?? '')) {
    await wind.click();
    for (let i = 0; i < 8; i++) await page.getByRole('button', { name: 'Mean, kt more' }).click();
    await page.getByRole('button', { name: 'Log this wind' }).click();
  }
  const tap = async (group: string, name: string | RegExp) =>
    page
      .getByRole('group', { name: group, exact: true })
      .getByRole('button', { name, exact: typeof name === 'string' })
      .click();
  return { page, tap };
}
/** The panel's recording of the demo. */
async function traceOn(email: string): Promise<Page> {
  const page = await open(email, wide);
  await page.goto('/traces');
  await page
    .getByRole('row', { name: /lesson 4.*ZP-URV-.*csv/ })
    .getByRole('link')
    .click();
  await page.locator('.curves canvas').waitFor();
  await page.waitForTimeout(500);
  return page;
}
const BENTO = 'bento@pedra-alva.example';
const HELENA = 'helena@pedra-alva.example';

const shots: Record<string, () => Promise<Page>> = {
  board: async () => {
    const page = await open(HELENA, wide);
    await page.getByRole('heading', { name: 'Your to-do' }).waitFor();
    return page;
  },
  open: async () => {
    const page = await open(HELENA, wide);
    await page.goto('/checkouts/new');
    await page.waitForLoadState('networkidle');
    await page.getByLabel('Pilot', { exact: true }).selectOption({ label: 'Gaspar Ribeira Alta' });
    await page.getByLabel('Aeroplane', { exact: true }).selectOption({ label: 'ZP-CAV · Serrana Carvalho' });
    return page;
  },
  checkout: async () => {
    const page = await open(HELENA, wide);
    await page.goto(await checkoutOf(page, 'Clara Moita Reis'));
    return page;
  },
  // A folder of its own: what a school sees in its first hour.
  'set-up': async () => {
    const empty = mkdtempSync(path.join(tmpdir(), 'jeito-shots-school-'));
    const made = spawnSync(process.execPath, ['node_modules/tsx/dist/cli.mjs', 'scripts/set-up-link.ts'], {
      env: { ...process.env, JEITO_DATA: empty, JEITO_NOW: FIXED_NOW },
      encoding: 'utf8',
    });
    const school = await startServer(empty);
    schools.push(school);
    const context = await browser.newContext({ viewport: wide, baseURL: school.url });
    await context.addCookies(NO_HINTS);
    const page = await context.newPage();
    await page.goto(`/set-up/${/^set-up (\S+)$/m.exec(made.stdout)?.[1] ?? ''}`);
    await page.locator('html[data-hydrated]').waitFor({ state: 'attached' });
    const type = async (fields: Record<string, string>) => {
      for (const [id, text] of Object.entries(fields)) await page.locator(`#${id}`).fill(text);
    };
    const password = 'five quiet herons';
    await type({ 'c-name': 'Noor Vantage', 'c-email': 'noor@school.example', 'c-mass': '71' });
    await type({ 'c-password': password, 'c-again': password });
    await page.getByRole('button', { name: 'Begin' }).click();
    await page.waitForURL('**/set-up');
    await page.locator('html[data-hydrated]').waitFor({ state: 'attached' });
    await type({
      'p-school': 'Marsh Flyers',
      'p-name': 'Quiet Marsh',
      'p-ident': 'QM01',
      'p-lat': '52.1',
      'p-lon': '12.4',
      'p-elevation': '180',
    });
    await type({ 'r-0-ident': '08', 'r-0-bearing': '85', 'r-0-length': '900', 'r-0-width': '30' });
    await page.getByText('Circuit, lights, landmarks').click();
    await type({ 'r-0-1-landmark': 'the mill', 'r-0-1-landmark-m': '240' });
    await page.getByRole('button', { name: 'Another' }).click();
    await type({ 'r-1-ident': '15W', 'r-1-bearing': '152', 'r-1-length': '1200', 'r-1-width': '60' });
    await page.locator('#r-1-surface').selectOption('water');
    await page.evaluate(() => scrollTo(0, 0));
    return page;
  },
  'type-editor': async () => {
    const page = await open(BENTO, wide);
    await page.goto('/hangar/new');
    await page.locator('html[data-hydrated]').waitFor({ state: 'attached' });
    await page.getByRole('button', { name: 'Begin from the sample Light tailwheel' }).click();
    await page.waitForURL('**/edit');
    await page.locator('html[data-hydrated]').waitFor({ state: 'attached' });
    await page.getByLabel('name', { exact: true }).fill('Marsh One');
    await page.getByRole('button', { name: '3 Speeds' }).click();
    await page.locator('#step-reference').fill('Handbook 4.2');
    for (const [id, kt] of [
      ['vr', '46'],
      ['vx', '52'],
    ] as const)
      await page.locator(`[id="speeds.${id}"]`).fill(kt);
    await page.getByText('Kept on the server').waitFor();
    await page.evaluate(() => scrollTo(0, 0));
    return page;
  },
  brief: async () => {
    const page = await open(HELENA, wide);
    await page.goto(`${await checkoutOf(page, 'Duarte')}/brief`);
    await page.waitForLoadState('networkidle');
    await page.getByLabel('METAR').fill('ZPAV 241425Z 26011G17KT CAVOK 18/07 Q1016');
    await page.waitForTimeout(300);
    return page;
  },
  'capture-circuits': async () => {
    const { page, tap } = await cockpitOn(tablet);
    await page.getByRole('button', { name: /^Stopped/ }).click();
    await tap('Touched down', 'three-point');
    await page.getByRole('radio', { name: 'in the box, a wheel off left', exact: true }).click();
    await tap('Crab at touchdown', 'left');
    await tap('Bounces', '1');
    await tap('Bounce handled by', 'held');
    await tap('Who flew the landing', /prompted/);
    await page.evaluate(() => window.scrollTo(0, 0));
    return page;
  },
  'capture-airwork': async () => {
    const { page, tap } = await cockpitOn(tablet);
    await page
      .getByRole('navigation', { name: 'Views of the flight' })
      .getByRole('button', { name: 'Airwork' })
      .click();
    await page.getByRole('button', { name: /^F9/ }).click();
    for (const q of ['height', 'speed', 'heading']) await page.getByRole('button', { name: `Set ${q} more` }).click();
    await tap('speed, greatest seen', /^\+5/);
    await tap('height, greatest seen', 'inside');
    await tap('heading, greatest seen', /^–10/);
    await tap('bank, greatest seen', 'inside');
    return page;
  },
  'capture-circuits-landscape': async () => {
    const { page, tap } = await cockpitOn(wide);
    await page.getByRole('button', { name: /^Stopped/ }).click();
    await page.getByRole('radio', { name: 'in the box, on the line', exact: true }).click();
    await page.getByRole('button', { name: /^Clean, three-point/ }).click();
    await tap('Firmness', 'normal');
    return page;
  },
  'capture-airwork-landscape': async () => {
    const { page, tap } = await cockpitOn(wide);
    await page
      .getByRole('navigation', { name: 'Views of the flight' })
      .getByRole('button', { name: 'Airwork' })
      .click();
    await page.getByRole('button', { name: /^Steep turn/ }).click();
    for (const q of ['height', 'speed', 'bank', 'heading'])
      await page.getByRole('button', { name: `Set ${q} more` }).click();
    await tap('bank, greatest seen', 'inside');
    await tap('height, greatest seen', /^\+100/);
    await page.getByRole('button', { name: /^Steep turn/ }).evaluate((b) => b.scrollIntoView());
    return page;
  },
  // Not for the README: looked at while working.
  'pilot-phone': async () => {
    const page = await open('duarte@pedra-alva.example', phone);
    await page.getByRole('region', { name: 'To do' }).waitFor();
    return page;
  },
  'circuits-phone': async () => (await cockpitOn(phone)).page,
  'airwork-phone': async () => {
    const { page } = await cockpitOn(phone);
    await page
      .getByRole('navigation', { name: 'Views of the flight' })
      .getByRole('button', { name: 'Airwork' })
      .click();
    await page.getByRole('button', { name: /^F9/ }).click();
    return page;
  },
  'fly-ground': async () => {
    const { page } = await cockpitOn(tablet);
    await page.getByRole('navigation', { name: 'Views of the flight' }).getByRole('button', { name: 'Ground' }).click();
    await page.getByRole('button', { name: /^Exchange of control/ }).click();
    return page;
  },
  'fly-stall': async () => {
    const { page } = await cockpitOn(tablet);
    await page
      .getByRole('navigation', { name: 'Views of the flight' })
      .getByRole('button', { name: 'Airwork' })
      .click();
    await page.getByRole('button', { name: /^Stall/ }).click();
    return page;
  },
  'fly-surprise': async () => {
    const { page, tap } = await cockpitOn(tablet);
    await page
      .getByRole('navigation', { name: 'Views of the flight' })
      .getByRole('button', { name: 'Airwork' })
      .click();
    await page.getByRole('button', { name: /^F13/ }).click();
    await tap('Position', 'downwind');
    await tap('Engine failure now: where? The pilot says', '22');
    return page;
  },
  'fly-found': async () => {
    const { page } = await cockpitOn(tablet);
    await page
      .getByRole('navigation', { name: 'Views of the flight' })
      .getByRole('button', { name: 'Airwork' })
      .click();
    await page.getByRole('button', { name: /^Power setting noted/ }).click();
    await page.getByRole('button', { name: /^Slow approach trials/ }).click();
    return page;
  },
  'fly-more': async () => {
    const { page } = await cockpitOn(tablet);
    await page.getByRole('button', { name: /^More/ }).click();
    await page.getByRole('button', { name: /^Downwind.* more$/ }).click();
    return page;
  },
  'fly-clock': async () => {
    const { page } = await cockpitOn(tablet);
    await page.getByRole('button', { name: /^Flight clock/ }).click();
    await page.getByRole('button', { name: /^off blocks/ }).click();
    return page;
  },
  'fly-between': async () => {
    const { page, tap } = await cockpitOn(tablet);
    for (const cell of ['in the box, on the line', 'long, a wheel off left', 'in the box, a wheel off left']) {
      await page.getByRole('button', { name: /^Stopped/ }).click();
      await page.getByRole('radio', { name: cell, exact: true }).click();
      await page.getByRole('button', { name: /^Clean, three-point/ }).click();
      await tap('Who flew the landing', /^unassisted/);
      await page.waitForTimeout(200);
    }
    await page.locator('.sofar summary').click();
    return page;
  },
  'fly-stage': async () => {
    const page = await open(HELENA, wide);
    await page.goto(`${await checkoutOf(page, 'Duarte')}/fly`);
    return page;
  },
  'fly-power': async () => {
    const { page, tap } = await cockpitOn(tablet);
    await page
      .getByRole('navigation', { name: 'Views of the flight' })
      .getByRole('button', { name: 'Airwork' })
      .click();
    await page.getByRole('button', { name: /^Power setting noted/ }).click();
    await tap('Phase as on the sheet', /^Downwind/);
    await page.getByRole('button', { name: 'Speed it gave more' }).click();
    await page.getByRole('button', { name: 'Save this setting' }).click();
    await page.waitForTimeout(1500);
    const chief = await open(BENTO, wide);
    await chief.goto('/hangar/serrana-urze');
    await chief.getByRole('heading', { name: 'Power settings noted in flight' }).scrollIntoViewIfNeeded();
    return chief;
  },
  'fly-wheels': async () => {
    const page = await open(BENTO, tablet);
    await page.goto('/checkouts/new');
    await page.waitForLoadState('networkidle');
    await page.getByLabel('Pilot', { exact: true }).selectOption({ label: 'Sara Lapa Funda' });
    await page.getByLabel('Aeroplane', { exact: true }).selectOption({ label: 'ZP-MAR · Orla Maré' });
    const boxes = page.getByRole('checkbox');
    await boxes.first().waitFor();
    for (const id of await boxes.evaluateAll((all) =>
      all.filter((b) => (b as HTMLInputElement).checked && !(b as HTMLInputElement).disabled).map((b) => b.id),
    ))
      await page.locator(`[id="${id}"]`).uncheck();
    await page.getByRole('checkbox', { name: /high.performance/i }).check();
    await page.getByRole('button', { name: 'Open and brief' }).click();
    await page.waitForURL(/\/brief$/);
    await page.waitForLoadState('networkidle');
    await page.getByRole('button', { name: /Take the simulated station/ }).click();
    await page.getByRole('button', { name: 'Save brief' }).click();
    await page.waitForURL('**/fly');
    await page.waitForLoadState('networkidle');
    await page.getByRole('button', { name: 'Prepare this device' }).click();
    await page.waitForURL('**/fly?sortie=*');
    await page.getByRole('button', { name: 'Wheels', exact: true }).click();
    return page;
  },
  'fly-debrief': async () => {
    const { page } = await cockpitOn(tablet);
    await page.getByRole('button', { name: /^Stopped/ }).click();
    await page.getByRole('radio', { name: 'in the box, on the line', exact: true }).click();
    await page.getByRole('button', { name: /^Clean, three-point/ }).click();
    await page
      .getByRole('group', { name: 'Who flew the landing' })
      .getByRole('button', { name: /^unassisted/ })
      .click();
    await page
      .getByRole('navigation', { name: 'Views of the flight' })
      .getByRole('button', { name: 'Airwork' })
      .click();
    await page.getByRole('button', { name: /^Stall/ }).click();
    await page.getByRole('group', { name: 'Recovery' }).getByRole('button', { name: 'unloaded first' }).click();
    await page
      .getByRole('group', { name: 'Stall who flew it' })
      .getByRole('button', { name: /^unassisted/ })
      .click();
    await page.waitForTimeout(1500);
    await page.getByRole('link', { name: 'Debrief' }).click();
    await page.waitForURL('**/debrief');
    await page.getByRole('heading', { name: 'Ground and airwork' }).scrollIntoViewIfNeeded();
    return page;
  },
  'fly-paper': async () => {
    const { page } = await cockpitOn(tablet);
    await page.goto(page.url().replace('view=circuits', 'view=paper'));
    await page
      .getByLabel('Landings', { exact: true })
      .fill('T 3 3 B 0 0 0 0 0 0\n= = = = 1L = SL = 1H 1\nT 3 Q B 0 0 0 0 0 0\nG 0');
    return page;
  },
  help: async () => {
    const page = await open(HELENA, wide);
    await page.goto('/schedule');
    await page.waitForLoadState('networkidle');
    await page.getByRole('button', { name: 'Help and theme' }).click();
    await page.getByRole('dialog').waitFor();
    await page.waitForTimeout(400);
    return page;
  },
  'lesson-plan': async () => {
    const page = await open(HELENA, wide);
    await page.goto(`${await checkoutOf(page, 'Vale Carmo')}/plan`);
    await page.waitForLoadState('networkidle');
    return page;
  },
  'debrief-findings': async () => {
    const page = await open(BENTO, wide);
    await page.goto(`${await checkoutOf(page, 'Ivo Salgado')}/debrief#findings`);
    await page.waitForSelector('[role=img] svg');
    await page.locator('#findings').scrollIntoViewIfNeeded();
    await page.evaluate(() => {
      document.getElementById('findings')?.scrollIntoView();
      window.scrollBy(0, -70);
    });
    return page;
  },
  'debrief-self': async () => {
    const page = await open('joana@pedra-alva.example', wide);
    await page.goto('/checkouts');
    await page.locator('main').getByRole('link').first().click();
    await page.waitForURL('**/checkouts/*-*');
    await page.goto(`${page.url()}/debrief`);
    await page.waitForLoadState('networkidle');
    return page;
  },
  'debrief-standard': async () => {
    const page = await open(BENTO, wide);
    await page.goto('/people/standard');
    return page;
  },
  debrief: async () => {
    const page = await open(HELENA, wide);
    await page.goto(`${await checkoutOf(page, 'Vale Carmo')}/debrief`);
    await page.waitForSelector('[role=img] svg');
    return page;
  },
  'trace-replay': async () => {
    const page = await traceOn(HELENA);
    await page
      .getByRole('button', { name: /Stop and go/ })
      .nth(2)
      .click();
    await page.getByRole('button', { name: 'Runway', exact: true }).click();
    await page.waitForTimeout(600);
    return page;
  },
  'trace-join': async () => {
    const page = await traceOn(HELENA);
    await page.goto(`${page.url()}/join`);
    return page;
  },
  'trace-work-replay': async () => {
    const page = await traceOn(BENTO);
    await page
      .getByRole('button', { name: /Stop and go/ })
      .nth(2)
      .click();
    await page
      .getByRole('checkbox', { name: /Stop and go/ })
      .nth(5)
      .check();
    await page.waitForTimeout(900);
    return page;
  },
  'trace-work-whole': async () => {
    const page = await traceOn(BENTO);
    await page.getByRole('button', { name: 'Whole flight' }).click();
    await page.waitForTimeout(600);
    return page;
  },
  'trace-work-tablet': async () => {
    const page = await open(HELENA, tablet);
    await page.goto('/traces');
    await page
      .getByRole('row', { name: /tablet-/ })
      .getByRole('link')
      .click();
    await page.locator('.curves canvas').waitFor();
    await page.waitForTimeout(600);
    return page;
  },
  'trace-work-recorder': async () => {
    const page = await open(BENTO, wide);
    await page.goto('/lab/recorder');
    await page.getByRole('button', { name: 'Fly and record' }).click();
    await page.getByText(/nothing was invented/).waitFor();
    await page.waitForTimeout(400);
    return page;
  },
  'trace-work-list': async () => {
    const page = await open(BENTO, wide);
    await page.goto('/traces');
    return page;
  },
  'trace-work-columns': async () => {
    const page = await open(HELENA, wide);
    await page.goto('/traces');
    await page.getByRole('link', { name: 'Add a recording' }).click();
    await page.getByLabel('Flight', { exact: true }).selectOption({ index: 1 });
    await page.waitForURL('**sortie=*');
    await page.waitForLoadState('networkidle');
    const rows = Array.from(
      { length: 40 },
      (_, i) => `${i},${(39.31 + i * 1e-5).toFixed(6)},${(-7.42 - i * 1e-5).toFixed(6)},${1400 + i},${60 + (i % 5)}`,
    );
    await page.getByLabel('Recording').setInputFiles({
      name: 'odd.csv',
      mimeType: 'text/csv',
      buffer: Buffer.from(['zaehler,breite,laenge,hoehe,fahrt', ...rows].join('\n')),
    });
    await page.getByRole('heading', { name: 'Assign the columns' }).waitFor();
    return page;
  },
  sign: async () => {
    const page = await open(HELENA, wide);
    await page.goto(`${await checkoutOf(page, 'Clara Moita Reis')}/sign`);
    return page;
  },
  'ledger-verify': async () => {
    const page = await open(HELENA, wide);
    await page.goto('/ledger');
    return page;
  },
  'book-ready': async () => {
    const page = await open(HELENA, wide);
    await page.goto(`${await checkoutOf(page, 'Rui Casal Ferro')}/sign`);
    await page.waitForLoadState('networkidle');
    await page
      .getByRole('button', { name: /^F7, lesson/ })
      .last()
      .click();
    return page;
  },
  'book-blocked': async () => {
    const page = await open(BENTO, wide);
    await page.goto(`${await checkoutOf(page, 'Nuno Castro')}/sign`);
    return page;
  },
  'book-entry': async () => {
    const page = await open(BENTO, wide);
    await page.goto('/ledger?q=Sara');
    await page.locator('main').getByRole('link', { name: 'Sara Lapa Funda' }).first().click();
    await page.waitForURL('**/ledger/*-*');
    return page;
  },
  verify: async () => {
    const page = await open(BENTO, wide);
    await page.goto('/ledger?q=Sara');
    await page.locator('main').getByRole('link', { name: 'Sara Lapa Funda' }).first().click();
    await page.waitForURL('**/ledger/*-*');
    await page.getByRole('link', { name: 'Check this entry' }).click();
    await page.waitForURL('**/verify*');
    return page;
  },
  'book-rules': async () => {
    const page = await open(BENTO, wide);
    await page.goto('/rules');
    return page;
  },
  'book-programme': async () => {
    const page = await open(BENTO, wide);
    await page.goto('/rules/programme/sea-eu');
    return page;
  },
  'book-edit': async () => {
    const page = await open(BENTO, wide);
    await page.goto('/rules/programme/tailwheel-us/edit');
    await page.waitForLoadState('networkidle');
    await page.getByRole('button', { name: 'items', exact: true }).click();
    return page;
  },
  'book-account': async () => {
    const page = await open(BENTO, wide);
    await page.goto('/account');
    return page;
  },
  'people-recency': async () => {
    const page = await open(BENTO, wide);
    await page.goto('/people');
    return page;
  },
  schedule: async () => {
    const page = await open(BENTO, wide);
    await page.goto('/schedule');
    await page.waitForLoadState('networkidle');
    return page;
  },
  'work-schedule-day': async () => {
    const page = await open(BENTO, wide);
    await page.goto('/schedule?day=2026-11-25');
    await page.waitForLoadState('networkidle');
    return page;
  },
  'work-booking': async () => {
    const page = await open(HELENA, wide);
    await page.goto('/schedule?kind=lesson');
    await page.waitForLoadState('networkidle');
    await page.getByLabel('Checkout', { exact: true }).selectOption({ index: 1 });
    await page.getByLabel('Aeroplane', { exact: true }).selectOption({ label: 'ZP-URA Serrana Urze' });
    await page.getByRole('button', { name: 'Best three slots' }).click();
    await page
      .getByRole('button', { name: /^Book / })
      .first()
      .waitFor();
    return page;
  },
  'work-person': async () => {
    const page = await open(BENTO, wide);
    await page.goto('/people/pilot-ines');
    return page;
  },
  'work-person-instructor': async () => {
    const page = await open(BENTO, wide);
    await page.goto('/people/pilot-helena');
    return page;
  },
  'work-settings': async () => {
    const page = await open(BENTO, wide);
    await page.goto('/settings');
    return page;
  },
  'work-times': async () => {
    const page = await open(BENTO, wide);
    await page.goto('/schedule/times');
    return page;
  },
  'work-notices': async () => {
    const page = await open(HELENA, wide);
    await page.goto('/notices');
    return page;
  },
  'work-new-person': async () => {
    const page = await open(BENTO, wide);
    await page.goto('/people/new');
    await page.waitForLoadState('networkidle');
    await page.getByLabel('instructor').check();
    return page;
  },
  'work-board-chief': async () => open(BENTO, wide),
  'work-board-pilot': async () => open('duarte@pedra-alva.example', wide),
  'work-aerodrome': async () => {
    const page = await open(BENTO, wide);
    await page.goto('/rules/aerodrome/ZPAV/edit');
    await page.waitForLoadState('networkidle');
    await page.getByRole('button', { name: 'runways', exact: true }).click();
    return page;
  },
  'work-import': async () => {
    const page = await open(BENTO, wide);
    await page.goto('/people/pilot-duarte/import');
    await page.waitForLoadState('networkidle');
    await page.getByLabel(/Logbook as CSV/).setInputFiles({
      name: 'log.csv',
      mimeType: 'text/csv',
      buffer: Buffer.from(
        'Date,Aircraft Type,Registration,Total time,PIC,Landings day,Landings night,Remarks\n2026-10-02,Alvor C1,ZP-ALV,1:10,1:10,3,0,circuits\n2026-10-09,Alvor C1,ZP-ALV,0:50,0:50,2,1,dusk\n2026-11-17,Serrana Urze,ZP-URZ,0:55,0,7,0,lesson\n17/13/2026,Alvor C1,ZP-ALV,1:00,,1,0,odd\n2026-09-20,Tern 2,ZP-TRN,1:20,1:20,2,0,away\n',
      ),
    });
    await page.getByText(/new flights/).waitFor();
    return page;
  },
  hangar: async () => {
    const page = await open(HELENA, wide);
    await page.goto('/hangar');
    return page;
  },
  kneeboard: async () => {
    const page = await open(HELENA, wide);
    await page.goto(`${await checkoutOf(page, 'Duarte')}/brief`);
    await page.waitForLoadState('networkidle');
    await page.getByRole('link', { name: 'Card' }).click();
    await page.waitForURL('**/print/kneeboard/*');
    return page;
  },
  'hangar-type': async () => {
    const page = await open(HELENA, wide);
    await page.goto('/hangar/serrana-carvalho');
    return page;
  },
  differences: async () => {
    const page = await open(BENTO, wide);
    await page.goto(`${await checkoutOf(page, 'Gaspar')}/differences`);
    return page;
  },
  'sight-picture': async () => {
    const page = await open(BENTO, wide);
    await page.goto('/lab/sight-picture?type=lume-faisca&old=alvor-c1&offset=15&t=0.34');
    await page.waitForTimeout(500);
    return page;
  },
  'circuit-pace': async () => {
    const page = await open(BENTO, wide);
    await page.goto(`/lab/circuit?checkout=${(await checkoutOf(page, 'Gaspar')).split('/').pop() ?? ''}&at=92`);
    await page.waitForTimeout(1500);
    return page;
  },
  'lab-ground': async () => {
    const page = await open(BENTO, wide);
    await page.goto('/lab/ground?type=serrana-carvalho&feet=continuous&delay=0.5');
    await page.waitForTimeout(2000);
    return page;
  },
};

const WORKING =
  /^(circuit-pace$|differences$|checkout$|lesson-plan$|verify$|work-|book-|debrief-findings|circuits-|debrief-self|debrief-standard|hangar$|trace-join$|airwork-|fly-|trace-work-|capture-.*-landscape)/;
for (const [name, make] of Object.entries(shots)) {
  if (only ? !only.includes(name) : WORKING.test(name)) continue;
  const page = await make();
  await page.waitForLoadState('networkidle');
  await page.waitForTimeout(400);
  await page.screenshot({ path: path.join(values.out, `${name}.png`), fullPage: values.full ?? false });
  console.log(`${name}.png`);
  await page.context().close();
}
await browser.close();
await server.stop();
for (const school of schools) await school.stop();
if (!process.env.JEITO_SHOT_DATA) rmSync(folder, { recursive: true, force: true });
