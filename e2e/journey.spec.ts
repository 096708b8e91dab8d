import { type Page } from '@playwright/test';
import {
  allSent,
  as,
  expect,
  go,
  goAround,
  hydrated,
  landing,
  logWind,
  PASSWORD,
  prepareDevice,
  tap,
  test,
  view,
} from './help';

test.use({ spec: 'journey' });

/** The main job on the real interface: from a new checkout to a signed entry. */
test('an instructor takes a pilot from Open to Sign', async ({ browser, baseURL }) => {
  test.setTimeout(300_000);
  const deskContext = await browser.newContext({ baseURL });
  const pilotContext = await browser.newContext({ baseURL });
  const desk = await as(deskContext, 'helena');
  const pilot = await as(pilotContext, 'elias');

  await desk.getByRole('link', { name: 'New checkout' }).click();
  await desk.waitForURL('**/checkouts/new');
  await hydrated(desk);
  await desk.getByRole('button', { name: 'Open and brief' }).click();
  await expect(desk.getByText('Choose the pilot.')).toBeVisible();
  await desk.getByLabel('Pilot', { exact: true }).selectOption({ label: 'Elias Monte Raso' });
  await desk.getByLabel('Aeroplane', { exact: true }).selectOption({ label: 'ZP-URZ · Serrana Urze' });
  await expect(desk.getByRole('row', { name: /^tailwheel/ })).toContainText('missing');
  await expect(desk.getByLabel(/Tailwheel endorsement/)).toBeChecked();
  await expect(desk.getByText('Pilot in command: the instructor')).toBeVisible();
  await desk.getByRole('button', { name: 'Open and brief' }).click();
  await desk.waitForURL(/\/checkouts\/[0-9a-f-]{36}\/brief$/);
  const checkout = new URL(desk.url()).pathname.replace('/brief', '');

  // Lesson 1, two days ago.
  await brief(desk, checkout, '2026-11-22', 1);
  await prepareDevice(desk, checkout);
  await view(desk, 'Ground');
  for (const id of ['G1', 'G2', 'G3', 'G4', 'G5']) await item(desk, id);
  await view(desk, 'Airwork');
  for (const id of ['F1', 'F1', 'F2', 'F3', 'F3', 'F6', 'F9', 'F10', 'F11', 'F13', 'F14']) await item(desk, id);
  await view(desk, 'Landings');
  await logWind(desk, 7, 9);
  for (const meant of ['wheel', 'wheel', 'three-point', 'three-point'] as const)
    await landing(desk, meant, /^unassisted/, true);
  await goAround(desk, 'before the trigger');
  await allSent(desk, 5);

  // The pilot cannot sign for having read it twice, nor the instructor for the pilot.
  await acknowledge(pilot, checkout, 1);

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
  await expect(desk.getByText('The pilot has not acknowledged the brief of lesson 2.')).toBeVisible();
  await expect(desk.getByRole('button', { name: /Not ready/ })).toBeDisabled();
  await acknowledge(pilot, checkout, 2);

  await go(desk, `${checkout}/sign`);
  const open = await desk
    .getByRole('row')
    .filter({ hasText: /not met|nearly/ })
    .allInnerTexts();
  await expect(desk.getByRole('heading', { level: 1 }), open.join('\n')).toHaveText('Everything is there to sign');
  await desk.getByLabel('Crosswind up to').fill('10');
  await desk.getByLabel('Remark').fill('Well flown.');
  await desk.getByLabel('Your password').fill('not my password');
  await desk.getByRole('button', { name: 'Sign this checkout' }).click();
  await expect(desk.getByText('This is not your password. Type it again; nothing was signed.')).toBeVisible();
  await expect(desk.getByLabel('Remark')).toHaveValue('Well flown.');
  await desk.getByLabel('Your password').fill(PASSWORD);
  await desk.getByRole('button', { name: 'Sign this checkout' }).click();
  await desk.waitForURL(/\/ledger\/[0-9a-f-]{36}$/);
  await expect(desk.getByRole('heading', { level: 1 })).toHaveText(/^Sign-off \d+: Elias Monte Raso, tailwheel$/);
  await expect(desk.getByText('crosswind up to 10 kt.')).toBeVisible();

  const pdf = await desk.request.get((await desk.getByRole('link', { name: 'PDF' }).getAttribute('href')) ?? '');
  expect(pdf.headers()['content-type']).toBe('application/pdf');
  expect((await pdf.body()).subarray(0, 5).toString()).toBe('%PDF-');

  await go(pilot, '/ledger');
  await expect(pilot.getByRole('link', { name: 'Elias Monte Raso' }).first()).toBeVisible();
  await go(desk, '/people');
  await expect(desk.getByRole('row', { name: /Elias Monte Raso/ })).toContainText('tailwheel');
  await deskContext.close();
  await pilotContext.close();
});

async function brief(page: Page, checkout: string, day: string, lesson: number): Promise<void> {
  await go(page, `${checkout}/brief`);
  await expect(page.getByRole('heading', { level: 1 })).toHaveText(`Brief for lesson ${lesson}`);
  await page.getByLabel('METAR').fill('ZPAV 241425Z 29009KT CAVOK 14/06 Q1019');
  await page.getByLabel('Runway', { exact: true }).selectOption('22');
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
  await expect(page.getByText(/^Acknowledged by Elias Monte Raso/)).toBeVisible();
}
