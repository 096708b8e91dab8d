import { cpSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { type BrowserContext, type Page, chromium } from '@playwright/test';
import { CHROMIUM, type RunningServer, startServer } from '../scripts/lib/server';
import { PASSWORD, checkoutOf, expect, go, mail, tap, test, view } from './help';
import { SEEDED } from './setup';

test.use({ spec: 'offline' });

/** A device of its own: a profile on disk that outlives the browser, and a field that can be switched off. */
async function field(): Promise<{
  server: RunningServer;
  device: (offline?: boolean) => Promise<BrowserContext>;
  close: () => Promise<void>;
}> {
  const folder = mkdtempSync(path.join(tmpdir(), 'jeito-offline-'));
  const profile = mkdtempSync(path.join(tmpdir(), 'jeito-profile-'));
  cpSync(SEEDED, folder, { recursive: true });
  rmSync(path.join(folder, 'server.lock'), { force: true });
  const server = await startServer(folder);
  return {
    server,
    device: () =>
      chromium.launchPersistentContext(profile, {
        ...CHROMIUM,
        headless: true,
        baseURL: server.url,
        viewport: { width: 820, height: 1180 },
      }),
    close: async () => {
      await server.stop();
      for (const f of [folder, profile]) rmSync(f, { recursive: true, force: true });
    },
  };
}
async function signedIn(context: BrowserContext): Promise<Page> {
  const page = await context.newPage();
  await go(page, '/sign-in');
  await page.getByLabel('E-mail').fill(mail('helena'));
  await page.getByLabel('Password').fill(PASSWORD);
  await page.getByRole('button', { name: 'Sign in' }).click();
  await page.waitForURL('**/board');
  return page;
}
/** Takes the next flight of a checkout along; briefs it first when that is still to do. The address of the flight. */
async function take(page: Page, name: string): Promise<string> {
  const checkout = await checkoutOf(page, name);
  await go(page, `${checkout}/fly`);
  if (!(await page.getByRole('button', { name: 'Prepare this device' }).isVisible())) {
    await go(page, `${checkout}/brief`);
    await page.getByRole('button', { name: 'Save brief' }).click();
    await page.waitForURL('**/fly');
  }
  await page.getByRole('button', { name: 'Prepare this device' }).click();
  await page.waitForURL('**/fly?sortie=*');
  return page.url();
}

/** The common case in few taps; saved means durable here. */
async function landed(page: Page, touched: string): Promise<void> {
  const heading = page.getByRole('heading', { level: 1 });
  const number = Number((await heading.innerText()).replace(/\D/g, ''));
  await page.getByRole('button', { name: /^Stopped/ }).click();
  await tap(page, 'Touched down', touched);
  await tap(page, 'Who flew the landing', /^unassisted/);
  await page.getByRole('button', { name: 'Save landing' }).click();
  await expect(heading).toHaveText(`Landing ${number + 1}`);
}

test('prepared with the network, opened cold without it: six landings and four items, killed in between, are sent in order', async () => {
  test.setTimeout(120_000);
  const { server, device, close } = await field();
  let context = await device();
  let page = await signedIn(context);
  const address = await take(page, 'Duarte Sá Nogal');
  const sortie = new URL(address).searchParams.get('sortie') ?? '';
  await server.kill();
  await context.close();

  // A cold start: a new browser on the same profile, no field to ask.
  context = await device();
  page = await context.newPage();
  await page.goto(address);
  await expect(page.getByRole('heading', { name: 'Landing 1' })).toBeVisible();
  for (const touched of ['three-point', 'mains first', 'three-point', 'flat']) await landed(page, touched);
  await expect(page.getByText(/^4 on this device, 0 sent/)).toBeVisible();
  // Killed without a word: nothing of what was confirmed may be missing.
  await context.close();
  context = await device();
  page = await context.newPage();
  await page.goto(address);
  await expect(page.getByRole('heading', { name: 'Landing 5' })).toBeVisible();
  for (const touched of ['tail first', 'three-point']) await landed(page, touched);
  await view(page, 'Airwork');
  const items = page.getByRole('region', { name: 'Airwork', exact: true });
  const names: string[] = [];
  for (const i of [0, 1, 2, 3]) {
    const button = items.getByRole('button', { expanded: false }).nth(i);
    names.push((await button.locator('.mono').innerText()).trim());
    await button.click();
    await tap(page, `${names[i] ?? ''} how it went`, 'in standard');
    await tap(page, `${names[i] ?? ''} who flew it`, /^unassisted/);
    await expect(page.getByText(`${names[i] ?? ''} saved`)).toBeVisible();
  }

  // The field comes back: exactly these, in this order, and sending again changes nothing.
  const back = await startServer(server.dataFolder, {}, server.port);
  await page.reload();
  await expect(page.getByText(/^6 on this device, 6 sent/)).toBeVisible({ timeout: 30_000 });
  const { events } = (await (await context.request.get(`/api/sorties/${sortie}`)).json()) as {
    events: { type: string; deviceSeq: number; payload: { touched?: string; itemId?: string } }[];
  };
  const ordered = [...events].sort((a, b) => a.deviceSeq - b.deviceSeq);
  expect(ordered.filter((e) => e.type === 'landing-saved').map((e) => e.payload.touched)).toEqual([
    'three-point',
    'mains-first',
    'three-point',
    'flat',
    'tail-first',
    'three-point',
  ]);
  expect(ordered.filter((e) => e.type === 'item-observed').map((e) => e.payload.itemId)).toEqual(names);
  expect(new Set(ordered.map((e) => e.deviceSeq)).size).toBe(ordered.length);
  await context.close();
  await back.stop();
  await close();
});

test('flights A and B taken along, the field gone: B opens as B, what was not taken says so and lists what is here', async () => {
  test.setTimeout(120_000);
  const { server, device, close } = await field();
  let context = await device();
  const page = await signedIn(context);
  await take(page, 'Duarte Sá Nogal');
  const b = await take(page, 'Tomé Arruda Lis');
  await server.kill();
  await context.close();
  context = await device();
  const cold = await context.newPage();
  await cold.goto(b);
  await expect(cold.locator('header').getByText('Tomé')).toBeVisible();
  await expect(cold.locator('header').getByText('Duarte')).toHaveCount(0);
  await cold.goto(`${server.url}/fly?sortie=00000000-0000-4000-8000-000000000000`);
  await expect(cold.getByRole('heading', { name: 'Not prepared on this device' })).toBeVisible();
  await cold.goto(`${server.url}/fly`);
  const here = cold.getByRole('list', { name: 'Flights on this device' }).getByRole('link');
  await expect(here).toHaveCount(2);
  const others = await context.newPage();
  for (const path of ['/board', '/schedule?day=2026-11-25', '/ledger', '/people/pilot-ines']) {
    await others.goto(`${server.url}${path}`);
    await expect(others.getByRole('heading', { name: 'No network' }), path).toBeVisible();
    expect(new URL(others.url()).pathname).toBe(path.split('?')[0]);
  }
  await others.getByRole('link', { name: 'Flights on this device' }).click();
  await expect(others.getByRole('list', { name: 'Flights on this device' })).toBeVisible();
  expect((await here.allInnerTexts()).map((t) => t.split(',')[0]).sort()).toEqual([
    'Duarte Sá Nogal',
    'Tomé Arruda Lis',
  ]);
  await context.close();
  await close();
});

test('a full device says so, keeps what is on the screen, and records again when there is room', async () => {
  test.setTimeout(120_000);
  const { device, close } = await field();
  const context = await device();
  const page = await signedIn(context);
  const address = await take(page, 'Duarte Sá Nogal');
  await page.close();
  // The browser remembers for a while that there was room: it asks again once nobody holds the store.
  await new Promise((resolve) => setTimeout(resolve, 4000));
  const full = await context.newPage();
  const cdp = await context.newCDPSession(full);
  const { origin } = new URL(address);
  await cdp.send('Storage.overrideQuotaForOrigin', { origin, quotaSize: 1 });
  await go(full, address);
  await full.getByRole('button', { name: /^Stopped/ }).click();
  await full.getByRole('radio', { name: 'short, on the line', exact: true }).click();
  await full.getByRole('button', { name: /^Clean, three-point/ }).click();
  await tap(full, 'Who flew the landing', /^unassisted/);
  await expect(full.getByRole('alert').filter({ hasText: 'NOT SAVED' })).toBeVisible();
  await expect(full.getByRole('heading', { level: 1 })).toHaveText('Landing 1');
  await expect(full.getByRole('radio', { name: 'short, on the line', exact: true })).toBeChecked();
  await cdp.send('Storage.overrideQuotaForOrigin', { origin });
  await tap(full, 'Who flew the landing', /^unassisted/);
  await expect(full.getByText(/Landing 1 saved on this device/)).toBeVisible();
  await expect(full.getByText(/^1 on this device, 1 sent/)).toBeVisible({ timeout: 20_000 });
  await context.close();
  await close();
});

test('a device that was never prepared says without the network what works and what waits', async () => {
  test.setTimeout(120_000);
  const { server, device, close } = await field();
  const context = await device();
  const page = await signedIn(context);
  await page.evaluate(() => navigator.serviceWorker.ready.then(() => undefined));
  await server.kill();
  await page.goto(`${server.url}/ledger`);
  await expect(page.getByRole('heading', { name: 'No network' })).toBeVisible();
  await page.getByRole('link', { name: 'Flights on this device' }).click();
  await expect(page.getByText(/No flight|nothing/i).first()).toBeVisible();
  await context.close();
  await close();
});
