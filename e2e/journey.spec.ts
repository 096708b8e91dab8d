import { rmSync } from 'node:fs';
import AxeBuilder from '@axe-core/playwright';
import { type Browser, type Page, expect, test } from '@playwright/test';
import { type RunningServer, startServer } from '../scripts/lib/server';
import { allSent, go, goAround, hydrated, landing, logWind, prepareDevice, tap, view } from './help';
import { emptyFolder, setUpLink, strangePages } from './school';

const SECRETS = { noor: 'five quiet herons', ida: 'four slow barges', ada: 'six green gates' };
test.use({ actionTimeout: 20_000 });
let folder: string;
let server: RunningServer;
let token: string | null;
test.beforeAll(async () => {
  folder = emptyFolder();
  token = setUpLink(folder);
  server = await startServer(folder);
});
test.afterAll(async ({ browser }) => {
  // A page that is open asks now and then; a server that is asked does not stop.
  await Promise.all(browser.contexts().map((c) => c.close()));
  await server.stop();
  rmSync(folder, { recursive: true, force: true });
});
const fresh = async (browser: Browser): Promise<Page> =>
  (await browser.newContext({ baseURL: server.url, reducedMotion: 'reduce' })).newPage();

/** The main job on the real interface, by a school that had nothing: from an empty folder to a signed entry. */
test('from an empty folder to a signed tailwheel checkout, with the interface alone', async ({ browser }) => {
  test.setTimeout(600_000);
  const begun = Date.now();
  const chief = await fresh(browser);
  await setUp(chief);
  const sheet = await newType(chief, browser);
  await aeroplane(chief, sheet);
  const desk = await invited(chief, browser, { name: 'Ida Fenwick', email: 'ida@school.example' }, SECRETS.ida, true);
  const pilot = await invited(chief, browser, { name: 'Ada Vole', email: 'ada@school.example' }, SECRETS.ada, false);
  await qualified(chief, desk);

  // Before the numbers of the type are confirmed nothing is opened on it.
  await go(desk, '/checkouts/new');
  await desk.getByRole('button', { name: 'Open and brief' }).click();
  await expect(desk.getByText('Choose the pilot.')).toBeVisible();
  await desk.getByLabel('Pilot', { exact: true }).selectOption({ label: 'Ada Vole' });
  await desk
    .getByLabel('Aeroplane', { exact: true })
    .selectOption({ label: 'QM-ONE · Marsh One · sample, not confirmed' });
  await expect(desk.getByRole('row', { name: /^tailwheel/ })).toContainText('missing');
  await expect(desk.getByLabel(/Tailwheel endorsement/)).toBeChecked();
  await expect(desk.getByText('Pilot in command: the instructor')).toBeVisible();
  await desk.getByRole('button', { name: 'Open and brief' }).click();
  await expect(desk.getByText(/samples nobody has confirmed/)).toBeVisible();
  await confirmAll(chief, sheet);
  await go(desk, '/checkouts/new');
  await desk.getByLabel('Pilot', { exact: true }).selectOption({ label: 'Ada Vole' });
  await desk.getByLabel('Aeroplane', { exact: true }).selectOption({ label: 'QM-ONE · Marsh One' });
  await desk.getByRole('button', { name: 'Open and brief' }).click();
  await desk.waitForURL(/\/checkouts\/[0-9a-f-]{36}\/brief$/);
  await hydrated(desk);
  const checkout = new URL(desk.url()).pathname.replace('/brief', '');

  // Lesson 1, two days ago.
  await brief(desk, checkout, '2026-11-22', 1);
  // The pilot acknowledges before it is flown; nobody does it for them.
  await acknowledge(pilot, checkout, 1);
  await prepareDevice(desk, checkout);
  await view(desk, 'Ground');
  // What was asked on the ground is one tap each, and counted.
  for (const [i, id] of ['G1', 'G2', 'G3', 'G4', 'G5'].entries()) {
    await tap(desk, id, 'knew it');
    await expect(desk.getByText(`${i + 1} of 5 saved`)).toBeVisible();
  }
  await view(desk, 'Airwork');
  for (const id of ['F1', 'F1', 'F2', 'F3', 'F3', 'F6', 'F9', 'F10', 'F11', 'F13', 'F14']) await item(desk, id);
  await view(desk, 'Landings');
  await logWind(desk, 7, 9);
  for (const meant of ['wheel', 'wheel', 'three-point', 'three-point'] as const)
    await landing(desk, meant, /^unassisted/, true);
  await goAround(desk, 'before the trigger');
  await allSent(desk, 5);

  // Lesson 2, today.
  await brief(desk, checkout, '2026-11-24', 2);
  await prepareDevice(desk, checkout);
  await logWind(desk, 7, 9);
  for (const meant of ['three-point', 'three-point', 'three-point', 'wheel'] as const)
    await landing(desk, meant, /^unassisted/, true);
  await goAround(desk, 'exercise', 'flare');
  await goAround(desk, 'at the trigger', 'bounce');
  await allSent(desk, 6);

  await go(desk, `${checkout}/debrief`);
  await expect(desk.getByRole('heading', { level: 1 })).toHaveText('Lesson 2: 4 landings, 4 unassisted; 2 go-arounds');
  await expect(desk.getByText('4 of 4 in the box; 0 left of the line, 4 on it, 0 right.')).toBeVisible();
  await expect(desk.locator('[role=img] svg').first()).toBeVisible();

  await go(desk, `${checkout}/sign`);
  // A flown brief is told and holds nothing up: nobody acknowledges it any more.
  await expect(desk.getByText('Lesson 2 was flown on a brief the pilot had not acknowledged.')).toBeVisible();
  await go(pilot, `${checkout}/brief`);
  await expect(pilot.getByText('This lesson was flown; its brief was not acknowledged before.')).toBeVisible();

  const open = await desk
    .getByRole('row')
    .filter({ hasText: /not met|nearly/ })
    .allInnerTexts();
  await expect(desk.getByRole('heading', { level: 1 }), open.join('\n')).toHaveText('Everything is there to sign');
  await desk.getByLabel('Crosswind up to').fill('8');
  await desk.getByLabel('Remark').fill('Well flown.');
  await desk.getByLabel('Your password').fill('not my password');
  await desk.getByRole('button', { name: 'Sign this checkout' }).click();
  await expect(desk.getByText('This is not your password. Type it again; nothing was signed.')).toBeVisible();
  await expect(desk.getByLabel('Remark')).toHaveValue('Well flown.');
  await desk.getByLabel('Your password').fill(SECRETS.ida);
  await desk.getByRole('button', { name: 'Sign this checkout' }).click();
  await desk.waitForURL(/\/ledger\/[0-9a-f-]{36}$/);
  const entry = new URL(desk.url()).pathname;
  await expect(desk.getByRole('heading', { level: 1 })).toHaveText(/^Sign-off 1: Ada Vole, tailwheel$/);
  await expect(desk.getByText('crosswind up to 8 kt.')).toBeVisible();

  const pdf = await desk.request.get((await desk.getByRole('link', { name: 'PDF' }).getAttribute('href')) ?? '');
  expect(pdf.headers()['content-type']).toBe('application/pdf');
  await go(desk, '/ledger');
  await expect(desk.getByText('Checked just now: all 1 entries')).toBeVisible();
  // Anybody holds the paper against the ledger.
  const anybody = await fresh(browser);
  await go(anybody, '/verify');
  await anybody
    .locator('input[type=file]')
    .setInputFiles({ name: 'sign-off.pdf', mimeType: 'application/pdf', buffer: await pdf.body() });
  await expect(anybody.getByText(/Ada Vole/).first()).toBeVisible();
  await go(pilot, '/ledger');
  await expect(pilot.getByRole('link', { name: 'Ada Vole' }).first()).toBeVisible();
  await go(desk, '/people');
  await expect(desk.getByRole('row', { name: /Ada Vole/ })).toContainText('tailwheel');
  const minutes = (Date.now() - begun) / 60_000;
  console.log(
    `From an empty folder to a signed and verified entry: ${minutes.toFixed(1)} min of the application's time.`,
  );

  await go(chief, '/set-up');
  for (const step of ['First type', 'First aeroplane', 'People'])
    await expect(chief.getByRole('listitem').filter({ hasText: step })).toContainText('done');
  const stages = ['', '/brief', '/fly', '/debrief', '/progress', '/plan', '/differences', '/sign'];
  expect(await strangePages(chief, [...stages.map((s) => `${checkout}${s}`), entry, sheet, `${sheet}/edit`])).toEqual(
    [],
  );
});

async function setUp(page: Page): Promise<void> {
  await go(page, `/set-up/${token}`);
  await page.getByLabel('Name').fill('Noor Vantage');
  await page.getByLabel('E-mail').fill('noor@school.example');
  await page.getByLabel('Your mass').fill('71');
  await page.getByLabel('Password', { exact: true }).fill(SECRETS.noor);
  await page.getByLabel('Password again').fill(SECRETS.noor);
  await page.getByRole('button', { name: 'Begin' }).click();
  await page.waitForURL('**/set-up');
  await hydrated(page);
  await page.getByLabel('Name of the school').fill('Marsh Flyers');
  await page.getByLabel('Name of the aerodrome').fill('Quiet Marsh');
  await page.getByLabel('Identifier').fill('QM01');
  await page.getByLabel('Time zone').selectOption('Europe/Berlin');
  await page.getByLabel('Latitude').fill('52.1');
  await page.getByLabel('Longitude').fill('12.4');
  await page.locator('#p-elevation').fill('180');
  await page.getByLabel('Lower end', { exact: true }).fill('08');
  await page.getByLabel('Its bearing').fill('85');
  await page.getByLabel('Length').fill('900');
  await page.getByLabel('Width').fill('30');
  await page.getByLabel('Surface').selectOption('grass');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByRole('link', { name: 'Go to the board' })).toBeVisible();
}

/** A type by the editor, from a sample of its kind: what cannot wait is entered, the rest stays a sample. */
async function newType(chief: Page, browser: Browser): Promise<string> {
  await go(chief, '/hangar');
  await chief.getByRole('link', { name: 'New type' }).click();
  await chief.waitForURL('**/hangar/new');
  await hydrated(chief);
  await chief.getByRole('button', { name: 'Begin from the sample Light tailwheel' }).click();
  await chief.waitForURL('**/edit');
  await hydrated(chief);
  const address = new URL(chief.url()).pathname;
  await chief.getByLabel('name', { exact: true }).fill('Marsh One');
  await chief.getByLabel('maker', { exact: true }).fill('Marsh');
  await chief.getByLabel('brakes', { exact: true }).fill('heel brakes, front seat');
  await expect(chief.getByText('Kept on the server')).toBeVisible();
  // Half way: another machine goes on, and what both enter stays.
  const other = await (
    await browser.newContext({ baseURL: server.url, storageState: await chief.context().storageState() })
  ).newPage();
  await go(other, address);
  await expect(other.getByLabel('name', { exact: true })).toHaveValue('Marsh One');
  await other.getByLabel('in a sentence').fill('Light tandem tailwheel');
  await chief.getByLabel('handbook revision').fill('2');
  await expect(other.getByText('Kept on the server')).toBeVisible();
  // The same field on both: nothing is written over, and what was entered here is a tap away.
  await chief.context().setOffline(true);
  await chief.getByLabel('maker', { exact: true }).fill('Marsh Works');
  await expect(chief.getByText(/kept on this device/i).first()).toBeVisible();
  await other.getByLabel('maker', { exact: true }).fill('Fen Works');
  await expect(other.getByText('Kept on the server')).toBeVisible();
  await chief.context().setOffline(false);
  await expect(chief.getByText('maker: Noor Vantage changed it on another machine')).toBeVisible({ timeout: 30_000 });
  await expect(chief.getByLabel('maker', { exact: true })).toHaveValue('Fen Works');
  await chief.getByRole('button', { name: 'Put mine' }).click();
  await expect(other.getByLabel('maker', { exact: true })).toHaveValue('Marsh Works', { timeout: 30_000 });
  await expect(other.getByLabel('handbook revision')).toHaveValue('2');
  await other.context().close();

  await expect(chief.getByText(/a signature can wait for it/)).toBeVisible();
  for (const feature of ['glass', 'turbocharged', 'pressurised', 'singleLeverPower', 'digitalEngineControl', 'skis'])
    await chief.locator(`[id="features.${feature}"]`).selectOption('no');
  await chief.locator('#step-reference').fill('Handbook 1');
  await chief.getByRole('button', { name: 'Enter ceiling or highest operating altitude' }).click();
  await chief.locator('[id="features.ceilingFt"]').fill('13000');
  await expect(chief.getByLabel('reference of features.ceilingFt')).toHaveValue('Handbook 1');
  await expect(chief.getByText(/a signature can wait for it/)).toHaveCount(0);
  await chief.getByRole('button', { name: '3 Speeds' }).click();
  await chief.locator('[id="masses.refMassKg"]').fill('900');
  await chief.getByRole('button', { name: 'Put it in the hangar' }).click();
  await expect(chief.getByText('Not saved: one field to correct')).toBeVisible();
  await chief.getByRole('button', { name: '5 Approach' }).click();
  for (const [i, step] of ['full power', 'attitude held', 'climb'].entries()) {
    await chief.getByRole('button', { name: 'Add to go-around flow' }).click();
    await chief.locator(`[id="goAroundFlow.${i}"]`).fill(step);
  }
  await chief.getByRole('button', { name: '6 Distances' }).click();
  await chief.getByRole('button', { name: 'Paste take-off' }).click();
  const rows = chief.getByLabel(/Rows from a spreadsheet/);
  await rows.fill('mass\tpressure altitude\tair\tground roll\tover 50 ft\n900\t0\t15\tx\t320');
  await chief.getByRole('button', { name: 'Take these rows' }).click();
  await expect(chief.getByText('Line 2, ground roll: "x" is not a number.')).toBeVisible();
  const table = [700, 900].flatMap((kg) =>
    [0, 4000].flatMap((ft) =>
      [0, 35].map((c) => [kg, ft, c, kg / 5 + ft / 100 + c, kg / 3 + ft / 50 + c].map(Math.round)),
    ),
  );
  await rows.fill(table.map((r) => r.join('\t')).join('\n'));
  await chief.getByRole('button', { name: 'Take these rows' }).click();
  await expect(chief.locator('[id="distances.takeoff.7.groundRollM"]')).toHaveValue('255');
  expect((await new AxeBuilder({ page: chief }).analyze()).violations.map((v) => v.id)).toEqual([]);
  await chief.getByRole('button', { name: 'Put it in the hangar' }).click();
  await chief.waitForURL('**/hangar/marsh-one');
  await expect(chief.getByText(/^Sample: \d+ entries are not confirmed/)).toBeVisible();
  return '/hangar/marsh-one';
}

/** Every sample of every step, one by one, with where it is printed. */
async function confirmAll(chief: Page, sheet: string): Promise<void> {
  await go(chief, `${sheet}/edit`);
  const steps = chief.getByRole('navigation', { name: 'Steps' }).getByRole('button');
  for (let n = 0; n < (await steps.count()); n++) {
    await steps.nth(n).click();
    await chief.locator('#step-reference').fill(`Handbook ${n + 1}`);
    const confirm = chief.getByRole('button', { name: /^Confirm / });
    for (let left = await confirm.count(); left > 0; left--) {
      await confirm.first().click();
      await expect(confirm).toHaveCount(left - 1);
    }
  }
  await expect(chief.getByText(/not confirmed\. It can be saved/)).toHaveCount(0);
  await chief.getByLabel('Reason').fill('Every number held against the flight manual');
  await chief.getByRole('button', { name: 'Save as version 2' }).click();
  await chief.waitForURL(`**${sheet}`);
  await expect(chief.getByText(/^Sample: /)).toHaveCount(0);
}

async function aeroplane(chief: Page, sheet: string): Promise<void> {
  await go(chief, sheet);
  await chief.getByLabel('Registration').fill('qm-one');
  await chief.getByLabel('Empty mass').fill('560');
  await chief.getByRole('button', { name: 'Add aeroplane' }).click();
  await expect(chief.getByText('Say which weighing report these stand in.')).toBeVisible();
  await chief.getByLabel('Weighing report').fill('W 12 of 3 March');
  await chief.getByRole('button', { name: 'Add aeroplane' }).click();
  await expect(chief.getByRole('row', { name: /QM-ONE/ })).toContainText('560');
}

/** Somebody the chief adds, on their own device by the link that is shown once. */
async function invited(
  chief: Page,
  browser: Browser,
  who: { name: string; email: string },
  secret: string,
  teaches: boolean,
): Promise<Page> {
  await go(chief, '/people/new');
  await chief.getByLabel('Name', { exact: true }).fill(who.name);
  await chief.getByLabel('E-mail').fill(who.email);
  await chief.getByLabel('Mass').fill('68');
  await chief.getByLabel('Total hours').fill('400');
  await chief.getByLabel('Licence or certificate').fill('P 4411');
  if (teaches) {
    await chief.getByLabel('instructor', { exact: true }).check();
    await chief.getByRole('group', { name: 'May sign' }).getByLabel('tailwheel').check();
  }
  await chief.getByRole('button', { name: 'Add this person' }).click();
  await expect(chief.getByRole('img', { name: `QR code of the link for ${who.name}` })).toBeVisible();
  const link = await chief.locator('.link-text').innerText();
  const page = await fresh(browser);
  await go(page, link);
  await expect(page.getByText(`${who.name}, choose the password of your account at Marsh Flyers.`)).toBeVisible();
  await page.getByLabel('Password', { exact: true }).fill('short');
  await page.getByRole('button', { name: 'Choose it and sign in' }).click();
  await expect(page.getByText('At least twelve characters: a few')).toBeVisible();
  await page.getByLabel('Password', { exact: true }).fill(secret);
  await page.getByLabel('Password again').fill(secret);
  await page.getByRole('button', { name: 'Choose it and sign in' }).click();
  await page.waitForURL('**/board');
  expect((await page.goto(link))?.status()).toBe(404);
  return page;
}

/** What the law and the school ask of who teaches: entered by the chief, flown and logged by the instructor. */
async function qualified(chief: Page, desk: Page): Promise<void> {
  await go(chief, '/people');
  await chief.getByRole('link', { name: 'Ida Fenwick' }).first().click();
  await chief.waitForURL(/\/people\/pilot-/);
  await hydrated(chief);
  for (const held of ['single-engine-land', 'tailwheel', 'instructor-single-engine']) {
    await chief.locator('#held-kind').selectOption(held);
    await chief.locator('#held-on').fill('2019-05-01');
    await chief.getByRole('button', { name: 'Add', exact: true }).click();
    await expect(chief.locator('#held-kind')).toHaveValue('');
  }
  await chief.getByLabel('Certificate of Ida Fenwick').fill('CFI 4411');
  await chief.getByLabel('Last day of it, Ida Fenwick').fill('2027-05-31');
  const certificate = chief.locator('form', { has: chief.getByLabel('Certificate of Ida Fenwick') });
  await certificate.getByRole('button', { name: 'Save' }).click();
  await expect
    .poll(async () => {
      await go(desk, '/account');
      return desk.locator('main').innerText();
    })
    .toContain('CFI 4411, to 31 May 2027');
  await desk.getByLabel('Flown on').fill('2026-11-20');
  await desk.getByLabel('Take-offs').fill('4');
  await desk.getByLabel('Landings', { exact: true }).fill('4');
  await desk.getByLabel('of them full stops').fill('4');
  await desk.getByLabel('Hours').fill('1.2');
  await desk.locator('#typeCode').selectOption({ label: 'Marsh One' });
  await desk.getByRole('button', { name: 'Log this flight' }).click();
  await expect(desk.getByRole('table', { name: 'Your own flights' })).toContainText('Marsh One');
}

async function brief(page: Page, checkout: string, day: string, lesson: number): Promise<void> {
  await go(page, `${checkout}/brief`);
  await expect(page.getByRole('heading', { level: 1 })).toHaveText(`Brief for lesson ${lesson}`);
  await page.getByLabel('Wind observed').check();
  await page.locator('#typedDir').fill('155');
  await page.locator('#typedKt').fill('9');
  await page.locator('#typedReference').selectOption('true');
  await page.getByLabel('Runway', { exact: true }).selectOption('08');
  await expect(page.getByText(/^Crosswind 9 kt from the right\./).first()).toBeVisible();
  await page.getByLabel('Day of the lesson').fill(day);
  await page.getByRole('button', { name: 'Save brief' }).click();
  await page.waitForURL(`**${checkout}/fly`);
}

/** One item as seen; what its row says has counted one more, however many there were before. */
async function item(page: Page, id: string): Promise<void> {
  const row = page.getByRole('button', { name: new RegExp(`^${id} `) });
  const before = /this flight: .*?(?:, (\d+) times)?$/.exec(await row.innerText());
  const now = before ? Number(before[1] ?? 1) + 1 : 1;
  await row.click();
  const plain = page.getByRole('button', { name: 'As seen', exact: true });
  if (await plain.isVisible()) await plain.click();
  await tap(page, `${id} how it went`, 'in standard');
  await tap(page, `${id} who flew it`, /^unassisted/);
  await expect(page.getByText(`${id} saved: within.`)).toBeVisible();
  await expect(row).toContainText(now > 1 ? `unassisted, ${now} times` : 'this flight: within, unassisted');
}

async function acknowledge(page: Page, checkout: string, lesson: number): Promise<void> {
  await go(page, `${checkout}/brief`);
  await expect(page.getByRole('heading', { level: 1 })).toHaveText(`Brief for lesson ${lesson}`);
  await page.getByRole('button', { name: 'I have read and understood this brief' }).click();
  await expect(page.getByText(/^Acknowledged by Ada Vole/)).toBeVisible();
}
