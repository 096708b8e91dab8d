import { cpSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { type BrowserContext, type Page, expect, test as base } from '@playwright/test';
import { NO_HINTS, type RunningServer, startServer } from '../scripts/lib/server';
import { composeProgramme } from '../src/core/plan';
import { type Programme, ProgrammeSource } from '../src/domain/programme';
import { flightOf } from '../tests/meet';
import { SEEDED } from './setup';

export const PASSWORD = 'pedra-alva-2026';
export const mail = (key: string): string => `${key}@pedra-alva.example`;

/**
 * A server per spec file, on a copy of the seeded demo: each file names itself by `test.use({ spec })`, and another
 * name is another worker.
 */
export const test = base.extend<object, { server: RunningServer; spec: string }>({
  spec: ['', { scope: 'worker', option: true }],
  server: [
    async ({ spec: _spec }, use) => {
      const folder = mkdtempSync(path.join(tmpdir(), 'jeito-e2e-'));
      cpSync(SEEDED, folder, { recursive: true });
      rmSync(path.join(folder, 'server.lock'), { force: true });
      const server = await startServer(folder);
      await use(server);
      await server.stop();
      expect(refusedByPolicy).toEqual([]);
      rmSync(folder, { recursive: true, force: true });
    },
    { scope: 'worker', timeout: 60_000 },
  ],
  baseURL: async ({ server }, use) => use(server.url),
});
export { expect };

/** What a page was kept from running or loading by its own policy: there is nothing of the kind in any walk. */
const refusedByPolicy: string[] = [];
const watched = new WeakSet<Page>();
function watchPolicy(page: Page): void {
  if (watched.has(page)) return;
  watched.add(page);
  page.on('console', (m) => {
    if (/Content Security Policy/i.test(m.text())) refusedByPolicy.push(`${page.url()}: ${m.text().slice(0, 300)}`);
  });
}

/** Waits until React has taken the page over: what is typed before is not heard. */
export const hydrated = (page: Page): Promise<void> =>
  page.locator('html[data-hydrated]').waitFor({ state: 'attached' });

/** A page is ready for typing once React has taken it over. */
export async function go(page: Page, address: string): Promise<void> {
  watchPolicy(page);
  await page.goto(address);
  await hydrated(page);
}

export async function signIn(page: Page, key: string, password = PASSWORD): Promise<void> {
  await go(page, '/sign-in');
  await page.getByLabel('E-mail').fill(mail(key));
  await page.getByLabel('Password').fill(password);
  await page.getByRole('button', { name: 'Sign in' }).click();
}
/** Sessions of this worker's server: who was signed in once through the page comes back by the cookie it gave. */
const sessions = new Map<string, Awaited<ReturnType<BrowserContext['cookies']>>>();

/** A page of somebody signed in, at their board. */
export async function as(context: BrowserContext, key: string): Promise<Page> {
  const page = await context.newPage();
  await context.addCookies(NO_HINTS);
  const known = sessions.get(key);
  if (known) {
    await context.addCookies(known);
    await go(page, '/board');
    if (new URL(page.url()).pathname === '/board') return page;
  }
  await signIn(page, key);
  await page.waitForURL('**/board');
  sessions.set(key, await context.cookies());
  return page;
}

/** The address of a pilot's newest checkout, as this page's user sees it. */
export async function checkoutOf(page: Page, name: string): Promise<string> {
  await go(page, '/checkouts');
  const href = await page.locator('main').getByRole('link', { name }).first().getAttribute('href');
  expect(href).toMatch(/^\/checkouts\//);
  return href ?? '';
}

export const tap = (page: Page, group: string, name: string | RegExp) =>
  page
    .getByRole('group', { name: group, exact: true })
    .getByRole('button', { name, exact: typeof name === 'string' })
    .click();

export async function prepareDevice(page: Page, checkout: string): Promise<void> {
  await go(page, `${checkout}/fly`);
  await page.getByRole('button', { name: 'Prepare this device' }).click();
  await page.waitForURL('**/fly?sortie=*');
  await expect(page.getByRole('button', { name: /Log the wind/ })).toBeVisible();
  await expect(page.getByRole('button', { name: /^Flight clock/ })).toBeVisible();
}

/** The chief enters the release after a limit was passed, as it was certified; of several the one named. */
export async function enterRelease(page: Page, of = ''): Promise<void> {
  await go(page, '/board');
  const limits = page.locator('#limits').getByRole('listitem').filter({ hasText: of });
  await limits.getByText('Enter the release …').click();
  await limits
    .getByLabel('What was done, and where it is entered')
    .fill('Fabric, hinges and stops inspected: order 118.');
  await limits.getByLabel('Certified by').fill('Telmo Vaz Outeiro');
  await limits.getByLabel('Certificate', { exact: true }).fill('licence B1 0417');
  await limits.getByRole('button', { name: 'Enter the release' }).click();
  await expect(limits).toHaveCount(0);
}

/** Single fields of a landing not saved yet, as they are durable on this device. */
export const fieldsKept = (page: Page): Promise<number> =>
  page.evaluate(
    () =>
      new Promise<number>((resolve, reject) => {
        const opening = indexedDB.open('jeito');
        opening.onerror = () => reject(new Error('no store on this device'));
        opening.onsuccess = () => {
          const asked = opening.result.transaction('events').objectStore('events').getAll();
          asked.onerror = () => reject(new Error('the store cannot be read'));
          asked.onsuccess = () => {
            opening.result.close();
            const events = asked.result as { type: string; sent: number }[];
            resolve(events.filter((e) => e.type === 'field-set' && e.sent === 0).length);
          };
        };
      }),
  );

/** Moves what has the focus by one place: picked up, moved and put down, each as the page says it aloud. */
export async function moveByKeys(page: Page, arrow: 'ArrowLeft' | 'ArrowDown'): Promise<void> {
  const said = page.locator('[id^="DndLiveRegion"]');
  await page.keyboard.press('Space');
  await expect(said.filter({ hasText: /moved over/i })).toHaveCount(1);
  const taken = await said.filter({ hasText: /moved over/i }).innerText();
  await page.keyboard.press(arrow);
  await expect(said.filter({ hasText: /moved over/i })).not.toHaveText(taken);
  await page.keyboard.press('Space');
  await expect(said.filter({ hasText: /dropped/i })).toHaveCount(1);
}

/** Two frames: whatever a key press sets going has begun by then. */
export const settled = (page: Page): Promise<void> =>
  page.evaluate(() => new Promise<void>((r) => requestAnimationFrame(() => requestAnimationFrame(() => r()))));

/** Logs a wind by the steppers: from the runway's direction, turned and raised. */
export async function logWind(page: Page, tens: number, kt: number): Promise<void> {
  await page.getByRole('button', { name: /Log the wind/ }).click();
  for (let i = 0; i < tens; i++) await page.getByRole('button', { name: 'From, magnetic more' }).click();
  for (let i = 0; i < kt; i++) await page.getByRole('button', { name: 'Mean, kt more' }).click();
  await page.getByRole('button', { name: 'Log this wind' }).click();
  await expect(page.getByRole('dialog')).toHaveCount(0);
}

/** The number the next landing will have: what is said of an earlier one is not taken for it. */
const nextNumber = async (page: Page): Promise<number> =>
  Number(/\d+/.exec(await page.getByRole('heading', { level: 1 }).innerText())?.[0]);

/** One landing as it is tapped in a hurry; `looked` = each row was looked at, so that every item may count it. */
export async function landing(
  page: Page,
  meant: 'three-point' | 'wheel',
  whose: RegExp = /^unassisted/,
  looked = false,
): Promise<void> {
  const number = await nextNumber(page);
  await tap(page, 'Intended', meant);
  await page.getByRole('button', { name: /^Stopped/ }).click();
  await tap(page, 'Touched down', meant === 'wheel' ? 'mains first' : 'three-point');
  if (looked) {
    for (const row of ['Drift at touchdown', 'Crab at touchdown', 'Swing in the roll-out'])
      await tap(page, row, 'none');
    await tap(page, 'Bounces', '0');
    await tap(page, 'What was seen', 'Speed and roll-out');
    for (const row of ['Into-wind aileron', 'Stick back']) await tap(page, row, 'kept');
    if (meant === 'wheel') await tap(page, 'Tail lowered, roll-out in sequence', 'in sequence');
  }
  await page.getByRole('radio', { name: 'in the box, on the line', exact: true }).click();
  await page.getByRole('button', { name: meant === 'wheel' ? /^Clean, mains first/ : /^Clean, three-point/ }).click();
  // Place, clean, whose: the third tap saves.
  await tap(page, 'Who flew the landing', whose);
  await expect(page.getByRole('status').filter({ hasText: `Landing ${number} saved on this device` })).toBeVisible();
}

export async function goAround(
  page: Page,
  when: string,
  from: 'approach' | 'flare' | 'bounce' = 'approach',
): Promise<void> {
  const number = await nextNumber(page);
  await tap(page, 'Kind', 'go-around');
  await page.getByRole('button', { name: when, exact: true }).click();
  await tap(page, 'From where', from);
  await page.getByRole('button', { name: 'All six seen, all good' }).click();
  await tap(page, 'Who flew the go-around', /^unassisted/);
  await page.getByRole('button', { name: 'Save go-around' }).click();
  await expect(page.getByRole('status').filter({ hasText: `Go-around ${number} saved` })).toBeVisible();
}

/** The views of the cockpit. */
export const view = (page: Page, name: 'Landings' | 'Airwork' | 'Ground' | 'Wheels') =>
  page.getByRole('navigation', { name: 'Views of the flight' }).getByRole('button', { name, exact: true }).click();

/** Waits until everything on the device is sent. */
export async function allSent(page: Page, landings: number): Promise<void> {
  await expect(page.getByText(`${landings} on this device, ${landings} sent`, { exact: true })).toBeVisible({
    timeout: 20_000,
  });
}

export const programmeOf = (goal: string): Programme =>
  composeProgramme(
    ProgrammeSource.parse(JSON.parse(readFileSync(`content/programmes/${goal}.json`, 'utf8'))),
    'us',
  ) as Programme;

export async function openOn(page: Page, pilot: string, aeroplane: string): Promise<void> {
  await go(page, '/checkouts/new');
  await page.getByLabel('Pilot', { exact: true }).selectOption({ label: pilot });
  await page.getByLabel('Aeroplane', { exact: true }).selectOption({ label: aeroplane });
}
export async function submitOpen(page: Page): Promise<string> {
  await page.getByRole('button', { name: 'Open and brief' }).click();
  await page.waitForURL(/\/checkouts\/[0-9a-f-]{36}\/brief$/);
  return new URL(page.url()).pathname.replace('/brief', '');
}

/** Briefs a lesson, the pilot acknowledges, and a flight comes in from a device. */
export async function flownLesson(
  desk: Page,
  pilot: Page,
  checkout: string,
  author: string,
  day: string,
  runway: string,
  programme: Programme,
  without: readonly string[],
  second: boolean,
  at = '09:45:00Z',
): Promise<string> {
  await go(desk, `${checkout}/brief`);
  await desk.getByLabel('METAR').fill('ZPAV 241425Z 29009KT CAVOK 14/06 Q1019');
  await desk.getByLabel('Runway', { exact: true }).selectOption(runway);
  await desk.getByLabel('Day of the lesson').fill(day);
  await desk.getByRole('button', { name: 'Save brief' }).click();
  await desk.waitForURL(`**${checkout}/fly`);
  // Read before the flight: a flown brief is no longer to be acknowledged.
  await go(pilot, `${checkout}/brief`);
  await pilot.getByRole('button', { name: 'I have read and understood this brief' }).click();
  await expect(pilot.getByText(/^Acknowledged by/)).toBeVisible();
  await prepareDevice(desk, checkout);
  const sortieId = new URL(desk.url()).searchParams.get('sortie') ?? '';
  const events = flightOf(
    programme,
    {
      sortieId,
      author,
      startedAt: `${day}T${at}`,
      runwayEnd: '22',
      waterEnd: '18W',
      fence: runway === '22' ? 54 : 76,
      windDeg: 290,
      ...(runway === '22' ? {} : { wheels: ['left', 'right', 'nose'] }),
    },
    without,
    second,
  );
  const answer = await desk.request.post('/api/sync', { data: { events, sentAt: new Date().toISOString() } });
  expect(((await answer.json()) as { refused: unknown[] }).refused).toEqual([]);
  return sortieId;
}
