import { readFileSync } from 'node:fs';
import AxeBuilder from '@axe-core/playwright';
import { moinhoVelho } from '@demo/aerodrome';
import { airframes, types } from '@demo/fleet';
import { seeded } from '@demo/random';
import { effectiveSheet } from '@/core/plan';
import { type RecorderChoices, csvOf, flyCircuits, planFor, sense, sensorsOf } from '@/core/recorder';
import { sunTimes } from '@/core/sun';
import { Airframe, TypeSheet } from '@/domain/sheet';
import { as, checkoutOf, expect, go, hydrated, landing, logWind, prepareDevice, tap, test, view } from './help';

test.use({ spec: 'pilot' });

const PHONE = { viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true };

test('on a phone: the invitation, the brief, the assessment, the progress, the record taken along', async ({
  browser,
  baseURL,
}) => {
  const office = await as(await browser.newContext({ baseURL }), 'bento');
  await go(office, '/people/pilot-duarte');
  await office.getByRole('button', { name: 'Make a new link to choose a password' }).click();
  await expect(office.getByRole('img', { name: /QR code of the link/ })).toBeVisible();
  const link = await office.locator('.link-text').innerText();

  const phone = await (await browser.newContext({ baseURL, ...PHONE, acceptDownloads: true })).newPage();
  const fits = async () =>
    expect(await phone.evaluate(() => document.documentElement.scrollWidth - innerWidth)).toBeLessThanOrEqual(0);
  await go(phone, link);
  await phone.getByLabel('Password', { exact: true }).fill('three calm otters');
  await phone.getByLabel('Password again').fill('three calm otters');
  await phone.getByRole('button', { name: 'Choose it and sign in' }).click();
  await phone.waitForURL('**/board');
  await hydrated(phone);

  // One thing to do, in sentences; the rest of what waits below it.
  await expect(phone.getByRole('heading', { name: 'Today 15:00 to 16:45 with Helena' })).toBeVisible();
  const todo = phone.getByRole('region', { name: 'To do' });
  await expect(todo.getByRole('heading', { name: 'Read and acknowledge the brief of lesson 4' })).toBeVisible();
  await expect(todo).toContainText('Three-point landings, half the gust spread and 57 mph over the threshold.');
  await expect(todo.getByRole('link', { name: 'Assess lesson 3 yourself' })).toBeVisible();
  await fits();
  expect((await new AxeBuilder({ page: phone }).analyze()).violations).toEqual([]);
  const bar = phone.getByRole('navigation', { name: 'Main' });
  await expect(bar.getByRole('link', { name: 'Home' })).toHaveAttribute('aria-current', 'page');
  await expect(bar.getByRole('link', { name: 'People' })).toHaveCount(0);

  await todo.getByRole('link', { name: 'Open the brief' }).click();
  await phone.waitForURL(/\/brief$/);
  await hydrated(phone);
  await fits();
  await phone.getByRole('button', { name: 'I have read and understood this brief' }).click();
  await expect(phone.getByText(/^Acknowledged by Duarte/)).toBeVisible();

  await bar.getByRole('link', { name: 'Home' }).click();
  await phone.waitForURL('**/board');
  await expect(todo.getByRole('heading', { name: 'Assess lesson 3 yourself' })).toBeVisible();
  await todo.getByRole('link', { name: 'Start' }).click();
  await phone.waitForURL(/debrief\?lesson=3/);
  await hydrated(phone);
  const many = phone.getByRole('group', { name: 'How many unassisted' });
  await many.getByRole('button').last().click();
  await phone.getByRole('group', { name: 'Which was the best' }).getByRole('button', { name: 'none' }).click();
  await phone.getByRole('group', { name: 'What to work on' }).getByRole('button').first().click();
  await expect(phone.locator('[data-self]')).toBeAttached();
  await fits();

  await bar.getByRole('link', { name: 'Home' }).click();
  await phone.waitForURL('**/board');
  const progress = phone.locator('.panel').filter({ has: phone.getByRole('heading', { name: 'Your progress' }) });
  await expect(progress.getByRole('img', { name: /^\d+ of \d+ items met$/ })).toBeVisible();
  await expect(progress).toContainText(/unassisted and to the standard|was helped, or outside/);
  const work = phone.locator('.panel').filter({ has: phone.getByRole('heading', { name: 'To work on' }) });
  await expect(work.getByRole('link', { name: /^Evidence/ }).first()).toBeVisible();
  await progress.getByRole('link', { name: 'Lesson by lesson' }).click();
  await phone.waitForURL(/\/progress$/);
  await fits();

  await bar.getByRole('link', { name: 'Home' }).click();
  await phone.waitForURL('**/board');
  const take = async (name: string): Promise<string> => {
    const [download] = await Promise.all([phone.waitForEvent('download'), phone.getByRole('link', { name }).click()]);
    return readFileSync(await download.path(), 'utf8');
  };
  expect(await take('Logbook, CSV')).toContain('ZPAV');
  const record = JSON.parse(await take('Whole record, JSON')) as { schema: string };
  expect(record.schema).toBe('record/1');
  expect(await take('Calendar file')).toContain('BEGIN:VEVENT');
  // As an application it opens here, and the flights of the device are one touch away.
  const manifest = (await (await phone.request.get('/manifest.webmanifest')).json()) as {
    start_url: string;
    shortcuts: { url: string }[];
  };
  expect([manifest.start_url, manifest.shortcuts[0]?.url]).toEqual(['/board', '/fly']);
  await phone.getByRole('link', { name: 'Install on this device' }).click();
  await phone.waitForURL('**/settings#install');
  await expect(phone.getByText(/Install it from the menu of the browser/)).toBeVisible();
  await fits();
  // Nobody else’s.
  expect((await phone.request.get('/api/people/pilot-clara/record')).status()).toBe(404);
});

test('a lesson at another aerodrome: its runway and circuit, its sun, its recording', async ({ browser, baseURL }) => {
  const desk = await as(await browser.newContext({ baseURL, viewport: { width: 1280, height: 800 } }), 'helena');
  const checkout = await checkoutOf(desk, 'Clara Moita Reis');
  await go(desk, `${checkout}/brief`);
  await desk.getByLabel('METAR').fill('ZPAV 241425Z 09006KT CAVOK 14/06 Q1019');
  await expect(desk.getByText('This is the report of ZPAV')).toHaveCount(0);
  await desk.getByLabel('Flown at').selectOption({ label: 'Moinho Velho ZPMV' });
  await expect(desk.getByText('This is the report of ZPAV; the lesson is flown at ZPMV.')).toBeVisible();
  await desk.getByLabel('METAR').fill('ZPMV 241425Z 09006KT CAVOK 16/06 Q1019');
  const runway = desk.getByLabel('Runway', { exact: true });
  await expect(runway).toHaveValue('08');
  expect(await runway.locator('option').allInnerTexts()).toEqual(['08 grass 760 m, best today', '26 grass 760 m']);
  await desk.getByRole('button', { name: 'Save brief' }).click();
  await desk.waitForURL(`**${checkout}/fly`);
  await expect(desk.getByText(/at ZPMV, runway 08/)).toBeVisible();
  await desk.goto(`${checkout}/brief`);
  await expect(desk.getByText(/mill wall/).first()).toBeVisible();

  // In the cockpit: its runways, and the engine that stops on the right-hand circuit of 08.
  await prepareDevice(desk, checkout);
  const sortie = new URL(desk.url()).searchParams.get('sortie') ?? '';
  await logWind(desk, 9, 6);
  await landing(desk, 'three-point');
  await view(desk, 'Airwork');
  await desk.getByRole('button', { name: /^F13/ }).click();
  await tap(desk, 'Position', 'downwind');
  await expect(
    desk.getByRole('group', { name: /^Engine failure now/ }).getByRole('button', { name: '08' }),
  ).toBeVisible();

  // A recording flown there is read there, whatever page it was sent from.
  const urze = types.find((t) => t.code === 'serrana-urze');
  const frame = airframes.find((a) => a.registration === 'ZP-URZ');
  const choices: RecorderChoices = {
    runwayEnd: '08',
    windFromDeg: 90,
    windKt: 6,
    side: 'right',
    arrivals: ['touch-and-go'],
    airwork: [],
    errors: [],
    rateHz: 5,
    sensors: 'panel',
  };
  const made = planFor(
    effectiveSheet(TypeSheet.parse(urze), Airframe.parse(frame)),
    'ZP-URZ',
    moinhoVelho,
    choices,
    seeded(21),
  );
  if (!made) throw new Error('no plan');
  const rows = sense(flyCircuits(made.plan), made.plan.runway, sensorsOf(choices), seeded(22));
  await go(desk, `/traces/new?sortie=${sortie}`);
  await desk.getByLabel('Recording').setInputFiles({
    name: 'mv.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(csvOf(rows, Date.UTC(2026, 10, 24, 10))),
  });
  await expect(desk.getByText(/2 arrivals/)).toBeVisible();
  await desk.getByRole('button', { name: 'Add it to the flight' }).click();
  await desk.waitForURL('**/traces/trace-*');
  await expect(desk.getByText('Moinho Velho').first()).toBeAttached();

  // The schedule books it by its own sun, half a minute of longitude or an hour away.
  const [home, there] = [-7.42, moinhoVelho.longitudeDeg].map((longitudeDeg) =>
    sunTimes('2026-11-27', { latitudeDeg: 39.12, longitudeDeg }),
  );
  expect((there?.sunset ?? '') > (home?.sunset ?? '')).toBe(true);
  await go(desk, '/schedule?kind=lesson');
  await expect(desk.getByLabel('Flown at')).toBeVisible();
});
