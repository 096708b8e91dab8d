import { readFileSync } from 'node:fs';
import { gzipSync } from 'node:zlib';
import AxeBuilder from '@axe-core/playwright';
import type { Page } from '@playwright/test';
import { pedraAlva } from '@demo/aerodrome';
import { airframes, types } from '@demo/fleet';
import { seeded } from '@demo/random';
import { effectiveSheet } from '@/core/plan';
import { type RecorderChoices, csvOf, flyCircuits, gpxOf, igcOf, planFor, sense, sensorsOf } from '@/core/recorder';
import { Airframe, TypeSheet } from '@/domain/sheet';
import { TraceAnalysis } from '@/domain/trace';
import { as, enterRelease, expect, go, hydrated, test } from './help';

test.use({ spec: 'traces' });

const urze = types.find((t) => t.code === 'serrana-urze');
const frame = airframes.find((a) => a.registration === 'ZP-URZ');
function flight(change: Partial<RecorderChoices> = {}) {
  const choices: RecorderChoices = {
    runwayEnd: '22',
    windFromDeg: 250,
    windKt: 6,
    side: 'left',
    arrivals: ['touch-and-go', 'go-around'],
    airwork: [],
    errors: [],
    rateHz: 5,
    sensors: 'panel',
    ...change,
  };
  const made = planFor(
    effectiveSheet(TypeSheet.parse(urze), Airframe.parse(frame)),
    'ZP-URZ',
    pedraAlva,
    choices,
    seeded(11),
  );
  if (!made) throw new Error('no plan');
  const rows = sense(
    flyCircuits(made.plan),
    made.plan.runway,
    { ...sensorsOf(choices), wanderM: 0.3, noiseM: 0.05 },
    seeded(12),
  );
  return { rows, context: made.context };
}
const START = Date.UTC(2026, 10, 18, 10);
/** The table of a recorder whose header nobody knows. */
const odd = (rows: ReturnType<typeof flight>['rows']): string =>
  [
    'zaehler;breite;laenge;hoehe;fahrt',
    ...rows.map((r) =>
      [r.tS.toFixed(1), r.lat.toFixed(7), r.lon.toFixed(7), (r.altFt * 0.3048).toFixed(2), (r.iasKt * 1.852).toFixed(1)]
        .join(';')
        .replaceAll('.', ','),
    ),
  ].join('\n');
const choose = async (page: Page, name: string, text: string | Buffer) => {
  await page.getByLabel('Recording').setInputFiles({ name, mimeType: 'text/csv', buffer: Buffer.from(text) });
};
const panelOf = async (page: Page): Promise<void> => {
  await go(page, '/traces');
  await page
    .getByRole('row', { name: /lesson 4.*ZP-URV-.*csv/ })
    .getByRole('link')
    .click();
  await page.waitForURL('**/traces/trace-*');
  // Drawn once they are in sight.
  await page.locator('.curves').scrollIntoViewIfNeeded();
  await expect(page.locator('.curves canvas').first()).toBeVisible();
};

test('import: columns nobody knows are asked for once, previewed, kept on this device; then the flight has its recording', async ({
  browser,
  baseURL,
}) => {
  const context = await browser.newContext({ baseURL, viewport: { width: 1280, height: 800 } });
  const page = await as(context, 'helena');
  await go(page, '/traces/new');
  await page.getByLabel('Flight', { exact: true }).selectOption({
    label: await page
      .getByLabel('Flight', { exact: true })
      .locator('option', { hasText: 'Clara Moita Reis' })
      .first()
      .innerText(),
  });
  await page.waitForURL('**sortie=*');
  await hydrated(page);
  await choose(page, 'nothing.csv', 'hello');
  await expect(page.getByText(/No header row was found/)).toBeVisible();
  const { rows } = flight();
  await choose(page, 'odd.csv', odd(rows));
  await expect(page.getByRole('heading', { name: 'Assign the columns' })).toBeVisible();
  await expect(page.locator('.mapping')).toContainText('39,');
  const say = (header: string, role: string) => page.getByLabel(`What ${header} is`).selectOption({ label: role });
  await say('zaehler', 'seconds since the start');
  await say('breite', 'latitude');
  await say('laenge', 'longitude');
  await say('hoehe', 'height, satellite');
  await page.getByLabel('Unit of hoehe').selectOption('m');
  await say('fahrt', 'indicated airspeed');
  await page.getByLabel('Unit of fahrt').selectOption('km/h');
  await page.getByRole('button', { name: 'Use these columns' }).click();
  await expect(page.getByText('3 arrivals, 0 items of airwork')).toBeVisible();
  expect((await new AxeBuilder({ page }).analyze()).violations.map((v) => v.id)).toEqual([]);
  await page.getByRole('button', { name: 'Add it to the flight' }).click();
  await page.waitForURL('**/traces/trace-*');
  await expect(
    page.getByText('3 arrivals, 0 items of airwork, 0 limits exceeded.', { exact: false }).first(),
  ).toBeVisible();
  await expect(page.locator('.found')).toContainText('Go-around');

  // The same header again: not asked, because this device knows it.
  const { rows: second } = flight({ arrivals: ['low-pass'] });
  await go(page, page.url().replace(/traces\/.*/, 'traces/new'));
  await page.getByLabel('Flight', { exact: true }).selectOption({ index: 2 });
  await page.waitForURL('**sortie=*');
  await hydrated(page);
  await choose(page, 'odd.csv.gz', gzipSync(odd(second)));
  await expect(page.getByText('2 arrivals, 0 items of airwork')).toBeVisible();
  await expect(page.getByText('some as said on this device')).toBeVisible();
  await page.getByRole('button', { name: 'Change columns' }).click();
  await expect(page.getByLabel('What breite is')).toHaveValue('lat');
  await context.close();
});

test('a long file is read beside the page, which stays awake; stopping stops it', async ({ browser, baseURL }) => {
  const context = await browser.newContext({ baseURL });
  const page = await as(context, 'helena');
  await go(page, '/traces/new');
  await page.getByLabel('Flight', { exact: true }).selectOption({ index: 1 });
  await page.waitForURL('**sortie=*');
  await hydrated(page);
  const { rows } = flight({ rateHz: 10, arrivals: Array.from({ length: 9 }, () => 'touch-and-go' as const) });
  const lines = csvOf(rows, START).split('\n');
  const long = [
    ...lines,
    ...Array.from({ length: 5 }, (_, k) =>
      lines
        .slice(1)
        .map((l) => l.replace(/^\S+?Z/, new Date(Date.parse(l.slice(0, 24)) + (k + 1) * 3_600_000).toISOString())),
    ).flat(),
  ].join('\n');
  expect(long.length).toBeGreaterThan(10e6);
  // Frames drawn while the bar stands: a page that waits for the reading draws none.
  await page.evaluate(() => {
    const w = window as unknown as { frames: number };
    w.frames = 0;
    const tick = () => {
      if (document.querySelector('[role=progressbar]')) w.frames++;
      requestAnimationFrame(tick);
    };
    requestAnimationFrame(tick);
  });
  await choose(page, 'long.csv', long);
  await expect(page.getByRole('progressbar', { name: 'Reading' })).toBeVisible();
  await page.getByRole('button', { name: 'Stop' }).click();
  await expect(page.getByText('Reading was stopped.')).toBeVisible();
  await expect(page.getByRole('progressbar', { name: 'Reading' })).toBeHidden();
  await choose(page, 'long.csv', long);
  await expect(page.getByRole('heading', { name: 'Contents' })).toBeVisible({ timeout: 30_000 });
  expect(await page.evaluate(() => (window as unknown as { frames: number }).frames)).toBeGreaterThan(15);
  await context.close();
});

test('replay: events, curves with one cursor, two arrivals beside each other, the flight in other formats', async ({
  browser,
  baseURL,
}) => {
  const context = await browser.newContext({ baseURL, viewport: { width: 1280, height: 800 } });
  const page = await as(context, 'helena');
  await panelOf(page);
  const arrivals = page.locator('.found button', { hasText: 'Stop and go' });
  await arrivals.nth(2).click();
  await expect(page.getByRole('region', { name: 'Chosen arrival' })).toContainText('past the threshold');
  await expect(
    page.getByRole('region', { name: 'Chosen arrival' }).getByRole('row', { name: /^Threshold/ }),
  ).toContainText('mph');
  await page
    .getByRole('checkbox', { name: /Stop and go/ })
    .nth(5)
    .check();
  await expect(page.getByRole('heading', { name: /beside Stop and go/ })).toBeVisible();
  await expect(page.getByRole('img', { name: /^Load about the touch/ })).toBeVisible();
  // Pointing at a curve moves the cursor of the plan and the numbers.
  const curves = page.locator('.curves');
  const box = await curves.boundingBox();
  if (!box) throw new Error('no curves');
  const reading = page.locator('.replay-bar .mono');
  const before = await reading.innerText();
  await curves.scrollIntoViewIfNeeded();
  await curves.hover({ position: { x: box.width / 3, y: 40 } });
  await expect(reading).not.toHaveText(before);
  await expect(reading).toContainText(/^\d\d:\d\d:\d\d/);
  await page.getByRole('button', { name: 'Play at 60 times' }).click();
  const playing = await reading.innerText();
  await expect(reading).not.toHaveText(playing);
  await page.getByRole('button', { name: 'Stop', exact: true }).click();
  await page.getByText('Everything found, as a table').click();
  await expect(page.getByRole('row', { name: /Emergency descent/ })).toBeVisible();
  expect((await new AxeBuilder({ page }).analyze()).violations.map((v) => v.id)).toEqual([]);
  for (const [name, ending, part] of [
    ['GPX', 'gpx', '<trkpt '],
    ['KML', 'kml', '<LineString>'],
    ['GeoJSON', 'geojson', '"FeatureCollection"'],
    ['results, CSV', 'csv', 'sink (fpm)'],
    ['results, JSON', 'json', 'trace-analysis/1'],
  ] as const) {
    const [file] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('link', { name, exact: true }).click(),
    ]);
    expect(file.suggestedFilename()).toMatch(new RegExp(`^ZP-URV.*\\.${ending}$`));
    expect(readFileSync(await file.path(), 'utf8')).toContain(part);
  }
  await context.close();
});

test('join: what is ticked counts as measured and stands in the debrief; the eye’s word stays beside it', async ({
  browser,
  baseURL,
}) => {
  const context = await browser.newContext({ baseURL, viewport: { width: 1280, height: 800 } });
  const page = await as(context, 'helena');
  await panelOf(page);
  await page.getByRole('link', { name: 'Compare with taps' }).click();
  await expect(page.getByText('10 of 10 tapped landings are found')).toBeVisible();
  const first = page.getByRole('region', { name: 'Landing 1', exact: true });
  await first.getByLabel('across').check();
  await first.getByLabel('sink').check();
  await page.getByRole('region', { name: 'Airwork' }).getByRole('checkbox').last().check();
  await page.getByRole('button', { name: 'Accept ticked measures' }).click();
  await expect(page.getByText(/^Saved: \d+ measures? counts? as measured now/)).toBeVisible();
  await page.reload();
  await expect(first.getByLabel('across')).toBeChecked();
  await expect(first.getByLabel('nose')).not.toBeChecked();
  await expect(page.getByRole('region', { name: 'Airwork' })).toContainText('outside, measured');
  expect((await new AxeBuilder({ page }).analyze()).violations.map((v) => v.id)).toEqual([]);
  await page.getByRole('link', { name: 'Back to debrief' }).click();
  await page.locator('#landing-1').getByRole('button').click();
  await expect(page.locator('#landing-reasons')).toContainText(/Measured \S+ m; the standard allows/);
  await expect(page.locator('#landing-reasons')).toContainText('measured from the recording: place across, firmness');
  await context.close();
});

test('a limit passed flags the aeroplane everywhere until a chief says what was done', async ({ browser, baseURL }) => {
  const chief = await browser.newContext({ baseURL });
  const teacher = await browser.newContext({ baseURL });
  const helena = await as(teacher, 'helena');
  await panelOf(helena);
  await helena.getByText('ZP-URV is grounded').click();
  await expect(helena.getByText('It ends when somebody entitled has certified what was done')).toBeVisible();
  await go(helena, '/hangar');
  await expect(helena.getByText('grounded')).toBeVisible();
  const bento = await as(chief, 'bento');
  await expect(bento.getByRole('heading', { name: 'A limit exceeded, not yet released' })).toBeVisible();
  await panelOf(bento);
  await expect(bento.getByText('ZP-URV: Vne passed')).toBeVisible();
  // A release without its certifier is refused beside the field, and the form stays as it was.
  await go(bento, '/board');
  await bento.locator('#limits').getByText('Enter the release …').click();
  await bento.locator('#limits').getByRole('button', { name: 'Enter the release' }).click();
  await expect(bento.getByText('Give the name of who certified it.')).toBeVisible();
  await bento.getByLabel('Certified by').fill('Telmo Vaz Outeiro');
  await expect(bento.locator('#limits').getByRole('button', { name: 'Enter the release' })).toBeVisible();
  await enterRelease(bento);
  await panelOf(bento);
  await expect(bento.getByText(/Certified by Telmo Vaz Outeiro, licence B1 0417; entered by Bento/)).toBeVisible();
  await go(helena, '/hangar');
  await expect(helena.getByText('grounded')).toBeHidden();
  await chief.close();
  await teacher.close();
});

test('the interface for programs gives each format of one flight the same events, and says what is wrong', async ({
  browser,
  baseURL,
}) => {
  const context = await browser.newContext({ baseURL });
  const page = await as(context, 'helena');
  const { rows, context: asked } = flight({ arrivals: ['touch-and-go', 'low-pass', 'stop-and-go'] });
  const ask = async (name: string, buffer: Buffer) =>
    page.request.post('/api/v1/traces/analyse', {
      multipart: { file: { name, mimeType: 'application/octet-stream', buffer }, context: JSON.stringify(asked) },
    });
  const kinds: string[][] = [];
  for (const [name, text] of [
    ['a.csv', csvOf(rows, START)],
    ['b.gpx', gpxOf(rows, START)],
    ['c.igc', igcOf(rows, START)],
  ] as const) {
    const answer = await ask(name, Buffer.from(text));
    expect(answer.status()).toBe(200);
    kinds.push(TraceAnalysis.parse(await answer.json()).events.map((e) => e.kind));
  }
  kinds.push(
    TraceAnalysis.parse(await (await ask('d.gz', gzipSync(csvOf(rows, START)))).json()).events.map((e) => e.kind),
  );
  expect(kinds[0]).toEqual(['takeoff', 'touch-and-go', 'low-pass', 'stop-and-go', 'landing']);
  for (const k of kinds) expect(k).toEqual(kinds[0]);
  const json = await page.request.post('/api/v1/traces/analyse', {
    data: { text: csvOf(rows, START), context: asked },
  });
  expect(TraceAnalysis.parse(await json.json()).events).toHaveLength(5);
  expect((await ask('x.csv', Buffer.from('hello'))).status()).toBe(422);
  expect((await page.request.post('/api/v1/traces/analyse', { data: { text: 'x', context: {} } })).status()).toBe(400);
  expect(
    (
      await page.request.post('/api/v1/traces/analyse', { headers: { 'content-type': 'application/json' }, data: '{' })
    ).status(),
  ).toBe(400);
  const stranger = await browser.newContext({ baseURL });
  expect(
    (await stranger.request.post('/api/v1/traces/analyse', { data: { text: 'x', context: asked } })).status(),
  ).toBe(404);
  expect(
    (
      await stranger.request.post('/api/traces', {
        multipart: { sortie: 'x', file: { name: 'a', mimeType: 'text/csv', buffer: Buffer.from('x') } },
      })
    ).status(),
  ).toBe(401);
  await stranger.close();
  await context.close();
});

test('another pilot’s recording answers like one that is not there', async ({ browser, baseURL }) => {
  const staff = await browser.newContext({ baseURL });
  const helena = await as(staff, 'helena');
  await panelOf(helena);
  const address = new URL(helena.url()).pathname;
  const other = await browser.newContext({ baseURL });
  const duarte = await as(other, 'duarte');
  for (const path of [
    address,
    `${address}/join`,
    `/api${address}/series`,
    `/api${address}/export?as=csv`,
    `/api/v1${address}`,
  ]) {
    const denied = await duarte.request.get(path);
    const absent = await duarte.request.get(path.replace(/trace-[^/?]+/, 'trace-none'));
    expect([path, denied.status()]).toEqual([path, 404]);
    expect(absent.status()).toBe(404);
  }
  await go(duarte, '/traces');
  await expect(duarte.getByRole('row', { name: /tablet-/ })).toBeVisible();
  await expect(duarte.getByRole('row', { name: /ZP-URV-/ })).toHaveCount(0);
  await staff.close();
  await other.close();
});

test('the simulated recorder flies, writes and finds', async ({ browser, baseURL }) => {
  const context = await browser.newContext({ baseURL });
  const page = await as(context, 'bento');
  await go(page, '/lab');
  await page.getByRole('link', { name: /Simulated recorder/ }).click();
  await page.waitForURL('**/lab/recorder');
  await hydrated(page);
  await page.getByLabel('clearing turn').check();
  await page.getByRole('button', { name: '+ low pass' }).click();
  await page.getByRole('button', { name: 'Fly and record' }).click();
  await expect(page.getByText('Everything flown was found, nothing was invented.')).toBeVisible({ timeout: 20_000 });
  await expect(page.getByRole('row', { name: /Low pass/ })).toContainText('found');
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'The file' }).click(),
  ]);
  expect(readFileSync(await file.path(), 'utf8')).toContain('#simulated panel log');
  expect((await new AxeBuilder({ page }).analyze()).violations.map((v) => v.id)).toEqual([]);
  await context.close();
});
