import AxeBuilder from '@axe-core/playwright';
import { pedraAlva } from '../demo/aerodrome';
import { worstCase } from '../src/core/wind';
import { as, checkoutOf, expect, go, hydrated, moveByKeys, test } from './help';

test.use({ spec: 'hangar' });

test('a flap limit that a gate breaks: found, saved as a version, briefed and carded once the checkout is moved', async ({
  browser,
  baseURL,
}) => {
  const context = await browser.newContext({ baseURL });
  const chief = await as(context, 'bento');
  const gaspar = await checkoutOf(chief, 'Gaspar Ribeira Alta');

  await go(chief, '/hangar/serrana-carvalho');
  await expect(chief.getByText(/does not fit|do not fit/)).toHaveCount(0);
  await chief.getByRole('link', { name: 'Edit', exact: true }).click();
  await chief.waitForURL('**/serrana-carvalho/edit');
  await hydrated(chief);
  await chief.getByRole('button', { name: '2 Limits' }).click();
  await expect(chief.getByText('The sheet is consistent.')).toBeVisible();
  await chief.locator('[id="speeds.vfe.1.speed"]').fill('72');
  await expect(chief.getByText('Base: flap is selected at 76\u00a0kt, above its limit of 72\u00a0kt.')).toBeVisible();
  await expect(chief.getByText('The lever would be moved above its limit on every approach.').first()).toBeVisible();
  await expect(chief.getByText(/speeds, flap limits, flap 20°, speed/)).toBeVisible();
  await chief.getByRole('button', { name: 'Save as version 2' }).click();
  await expect(chief.getByText('Say why, in a few words: the next reader needs it.')).toBeVisible();
  // What is typed survives a reload.
  await chief.reload();
  await hydrated(chief);
  await chief.getByRole('button', { name: '2 Limits' }).click();
  await expect(chief.locator('[id="speeds.vfe.1.speed"]')).toHaveValue('72');
  await expect(chief.getByText('Kept on the server')).toBeVisible();
  await chief.getByLabel('Reason', { exact: true }).fill('Placard of the new flap motor');
  await chief.getByRole('button', { name: 'Save as version 2' }).click();
  await chief.waitForURL('**/hangar/serrana-carvalho');
  await expect(chief.getByText('Base: flap is selected at 76\u00a0kt, above its limit of 72\u00a0kt.')).toBeVisible();
  await expect(chief.getByText('Placard of the new flap motor').first()).toBeVisible();

  // The open checkout keeps its version: no warning yet.
  await go(chief, `${gaspar}/brief`);
  await expect(chief.getByText(/Type sheet: Base/)).toHaveCount(0);
  await go(chief, gaspar);
  await expect(chief.getByText('A newer type sheet is available')).toBeVisible();
  await chief.getByRole('button', { name: 'Update to sheet version 2' }).click();
  await expect(chief.getByText('Say why, in a few words.')).toBeVisible();
  await chief.getByLabel('Reason').fill('Fly under the new placard');
  await chief.getByRole('button', { name: 'Update to sheet version 2' }).click();
  await expect(chief.getByText('A newer type sheet is available')).toHaveCount(0);

  const warning = 'Type sheet: Base: flap is selected at 76\u00a0kt, above its limit of 72\u00a0kt.';
  await go(chief, `${gaspar}/brief`);
  await expect(chief.getByText(warning)).toBeVisible();
  await chief.getByRole('button', { name: /Take the simulated station/ }).click();
  await chief.getByRole('button', { name: 'Save brief' }).click();
  await chief.waitForURL(/\/fly$/);
  await go(chief, `${gaspar}/brief`);
  await chief.getByRole('link', { name: 'Card' }).click();
  await chief.waitForURL('**/print/kneeboard/*');
  await expect(chief.getByText(warning)).toBeVisible();
  await expect(chief.getByText(/type sheet version 2/).first()).toBeVisible();
  expect((await new AxeBuilder({ page: chief }).analyze()).violations.map((v) => v.id)).toEqual([]);
  await context.close();
});

test('an empty number is refused beside its field and nothing typed is lost', async ({ browser, baseURL }) => {
  const context = await browser.newContext({ baseURL });
  const chief = await as(context, 'bento');
  await go(chief, '/hangar/alvor-c1/edit');
  await hydrated(chief);
  await chief.getByRole('button', { name: '7 Loading' }).click();
  await chief.locator('[id="masses.emptyKg"]').fill('');
  await chief.getByLabel('reference of masses.emptyKg').fill('weighed again');
  await chief.getByLabel('Reason').fill('weighing');
  await chief.getByRole('button', { name: 'Save as version 2' }).click();
  await expect(chief.getByText('Not saved: one field to correct')).toBeVisible();
  await expect(chief.locator('.claim').getByText('Give a number.')).toBeVisible();
  await expect(chief.getByLabel('reference of masses.emptyKg')).toHaveValue('weighed again');
  for (const name of [
    '5 Approach',
    '7 Loading',
    '12 Flows and handling',
    '11 Ground and slip',
    '10 Geometry',
    '9 Electrics',
  ]) {
    await chief.getByRole('button', { name }).click();
    expect(
      (await new AxeBuilder({ page: chief }).analyze()).violations.map(
        (v) => `${name} ${v.id} ${v.nodes[0]?.html ?? ''}`,
      ),
    ).toEqual([]);
  }
  await context.close();
  const other = await browser.newContext({ baseURL });
  const helena = await as(other, 'helena');
  await go(helena, '/hangar/alvor-c1/edit');
  await expect(helena.getByText('Not found, or you do not have access')).toBeVisible();
  await other.close();
});

const RUNWAY = pedraAlva.runways[0]?.ends[1]?.trueBearingDeg ?? 0;
const said = (kt: number, gust: number | null, from: string) =>
  `Crosswind ${Math.ceil(kt)} kt from the ${from}${gust === null ? '' : `, ${Math.ceil(gust)} in gusts`}.`;

test('three reports give the verdicts core gives; three damaged ones are named', async ({ browser, baseURL }) => {
  const context = await browser.newContext({ baseURL });
  const page = await as(context, 'helena');
  await go(page, `${await checkoutOf(page, 'Duarte Sá Nogal')}/brief`);
  await page.getByLabel('Runway', { exact: true }).selectOption('22');
  const metar = page.getByLabel('METAR');
  const wind = page.getByRole('region', { name: 'Runway and wind' });

  const gusting = worstCase(
    { variable: false, arcFromDeg: null, arcToDeg: null, windFromDeg: 260, windKt: 11, gustKt: 17 },
    RUNWAY,
  );
  await metar.fill('METAR ZPAV 241425Z 26011G17KT CAVOK 18/07 Q1016');
  await expect(wind.getByText(said(gusting.worstCrosswindKt, gusting.worstGustCrosswindKt, 'right'))).toBeVisible();
  await expect(wind.getByText(/260° true, 262° magnetic/)).toBeVisible();
  await expect(page.getByRole('region', { name: 'Runway needed' })).toContainText('Take-off');

  const north = worstCase(
    { variable: false, arcFromDeg: 330, arcToDeg: 30, windFromDeg: 360, windKt: 8, gustKt: null },
    RUNWAY,
  );
  await metar.fill('METAR ZPAV 241425Z 36008KT 330V030 CAVOK 18/07 Q1016');
  await expect(
    wind.getByText(said(north.worstCrosswindKt, null, north.maxFromRightKt >= north.maxFromLeftKt ? 'right' : 'left')),
  ).toBeVisible();
  await expect(wind.getByText(/^Outside: tailwind \d+ kt.*, beyond the .* tailwind limit of \d+ kt/)).toBeVisible();

  await metar.fill('METAR ZPAV 241425Z VRB04KT CAVOK 18/07 Q1016');
  await expect(wind.getByText('Crosswind 4 kt from the right.')).toBeVisible();
  await expect(wind.getByText(/^variable;/)).toBeVisible();

  for (const [text, group] of [
    ['ZPAV 241425Z 26O11G17KT CAVOK 18/07 Q1016', '"26O11G17KT"'],
    ['ZPAV 241425Z 37011KT CAVOK 18/07 Q1016', '"37011KT"'],
    ['ZPAV 241425Z 26011KT CAV0K 18/07 Q1016', '"CAV0K"'],
  ] as const) {
    await metar.fill(text);
    await expect(page.getByRole('alert').filter({ hasText: group })).toBeVisible();
    await expect(metar).toHaveValue(text);
    await expect(wind.getByText('No verdict: paste a report or type the wind you see.')).toBeVisible();
  }
  await metar.fill('METAR ZPAV 241425Z 26011KT CAVOK 18/07');
  await expect(page.getByText(/QNH not known\. Density altitude/)).toBeVisible();
  await expect(
    page.getByRole('region', { name: 'Runway needed' }).getByText('QNH not known: runway not computed.').first(),
  ).toBeVisible();
  await context.close();
});

test('a change marks every number that follows from it', async ({ browser, baseURL }) => {
  const context = await browser.newContext({ baseURL });
  const page = await as(context, 'bento');
  await go(page, `${await checkoutOf(page, 'Vasco Teles Brito')}/brief`);
  await page.getByLabel('METAR').fill('ZPAV 241425Z 26006KT CAVOK 18/07 Q1016');
  await page.getByText(/^Mass \d+ kg/).click();
  const before = await page.getByRole('region', { name: 'Gate by gate' }).locator('td.num').last().innerText();
  await page.getByLabel('Maximum flap').selectOption('10');
  const gates = page.getByRole('region', { name: 'Gate by gate' });
  await expect(gates.locator('.fresh').first()).toBeVisible();
  await expect(gates.locator('td.num').last()).not.toHaveText(before);
  await expect(gates.locator('td.num .fresh').last()).toHaveAttribute(
    'data-was',
    before
      .replace(/\s*\(was.*/, '')
      .trim()
      .replace(' ', '\u00a0'),
  );
  await expect(page.getByRole('region', { name: 'Runway needed' }).locator('.fresh').first()).toBeVisible();
  await page.getByRole('spinbutton', { name: 'Fuel' }).fill('60');
  await expect(page.getByRole('region', { name: 'Mass and balance' }).locator('.fresh').first()).toBeVisible();
  await context.close();
});

test('a brief is arranged by keyboard, own items stand on the card, the chief makes it the house’s order', async ({
  browser,
  baseURL,
}) => {
  const context = await browser.newContext({ baseURL });
  const page = await as(context, 'bento');
  const joana = await checkoutOf(page, 'Joana Pires Atalaia');
  await go(page, `${joana}/brief`);
  await page.getByRole('button', { name: 'Arrange' }).click();
  const order = () =>
    page.locator('.blocks > section').evaluateAll((all) => all.map((s) => s.getAttribute('aria-label')));
  await page.getByRole('button', { name: 'Fuel and time up' }).click();
  await expect
    .poll(async () => ((now) => now.indexOf('Fuel and time') - now.indexOf('Mass and balance'))(await order()))
    .toBe(-1);
  const moved = await order();
  await page.getByRole('button', { name: 'Move Exchange of control' }).focus();
  await moveByKeys(page, 'ArrowLeft');
  await expect
    .poll(async () => (await order()).indexOf('Exchange of control'))
    .toBeLessThan(moved.indexOf('Exchange of control'));
  await page.getByRole('button', { name: 'Hide Airspace floors on departure' }).click();
  await page.getByLabel('Own item').fill('Gliders');
  await page.getByLabel('Text', { exact: true }).fill('West of the field until noon');
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(page.getByText('West of the field until noon')).toBeVisible();
  expect((await new AxeBuilder({ page }).analyze()).violations.map((v) => `${v.id} ${v.nodes[0]?.html ?? ''}`)).toEqual(
    [],
  );
  await page.getByRole('button', { name: 'Save as school order' }).click();
  await expect(page.getByText('Saved: new briefs of this goal start in this order.')).toBeVisible();
  await page.getByRole('button', { name: 'Done arranging' }).click();
  expect((await order()).includes('Airspace floors on departure')).toBe(false);
  await page.getByRole('button', { name: 'Save brief' }).click();
  await page.waitForURL(/\/fly$/);
  await go(page, `${joana}/brief`);
  await page.getByRole('link', { name: 'Card' }).click();
  await page.waitForURL('**/print/kneeboard/*');
  await expect(page.getByRole('article', { name: 'Card, back' })).toContainText('West of the field until noon');
  const pdf = await page.request.get((await page.getByRole('link', { name: 'PDF' }).getAttribute('href')) ?? '');
  expect((await pdf.body()).subarray(0, 5).toString()).toBe('%PDF-');
  await context.close();
});

test('the HTTP interface reads with a token, imports a sheet back exactly, and answers alike when denied', async ({
  browser,
  baseURL,
  playwright,
}) => {
  const context = await browser.newContext({ baseURL });
  const page = await as(context, 'bento');
  await go(page, '/account');
  await page.getByRole('button', { name: 'Create token' }).click();
  await expect(page.getByText('Name it after what will use it.')).toBeVisible();
  await expect(page.getByText('Choose what it is for.')).toBeVisible();
  await page.getByLabel('Used by').fill('spreadsheet');
  await page.getByLabel('Type sheets and airframes').check();
  await page.getByLabel('Import type sheets (chief)').check();
  await page.getByLabel('Checkouts and briefs').check();
  await page.getByRole('button', { name: 'Create token' }).click();
  const token = (await page.locator('[data-token]').innerText()).trim();
  expect((await new AxeBuilder({ page }).analyze()).violations.map((v) => v.id)).toEqual([]);
  const api = await playwright.request.newContext({
    baseURL: baseURL ?? '',
    extraHTTPHeaders: { authorization: `Bearer ${token}` },
  });
  const one = (await (await api.get('/api/v1/types/orla-mare')).json()) as { version: number; sheet: unknown };
  const back = await api.put('/api/v1/types/orla-mare', {
    data: { baseVersion: one.version, reason: 'there and back', sheet: one.sheet },
  });
  expect(await back.json()).toEqual({ version: one.version, unchanged: true });
  const bad = await api.put('/api/v1/types/orla-mare', {
    data: { baseVersion: one.version, reason: 'no stalls', sheet: { ...(one.sheet as object), stalls: [] } },
  });
  expect(bad.status()).toBe(400);
  expect(JSON.stringify(await bad.json())).toContain('sheet.stalls');
  expect(((await (await api.get('/api/v1/airframes')).json()) as unknown[]).length).toBe(15);
  const people = await api.get('/api/v1/people');
  expect([people.status(), await people.text()]).toEqual([403, expect.stringContaining('was not given')]);
  // The readable page: every example is asked as it stands.
  await go(page, '/account/interface');
  const panels = await page.locator('section[id^="get-"]').all();
  expect(panels.length).toBeGreaterThan(14);
  for (const panel of panels) {
    await panel.getByRole('button', { name: /^Run / }).click();
    await expect(panel.getByRole('status')).toHaveText(/^200 in \d+ ms/);
  }
  await expect(page.getByLabel('Answer of /api/v1/changes')).toContainText('"version"');
  expect((await new AxeBuilder({ page }).analyze()).violations.map((v) => v.id)).toEqual([]);
  await go(page, '/account');
  const nobody = await playwright.request.newContext({ baseURL: baseURL ?? '' });
  const denied = await Promise.all(
    [
      '/api/v1/types',
      '/api/v1/types/orla-mare',
      '/api/v1/types/none',
      '/api/v1/airframes/ZP-URZ',
      '/api/v1/briefs/none',
    ].map(async (p) => {
      const r = await nobody.get(p);
      return `${r.status()} ${await r.text()}`;
    }),
  );
  denied.push(
    await (async () => {
      const r = await api.get('/api/v1/types/none');
      return `${r.status()} ${await r.text()}`;
    })(),
  );
  expect(new Set(denied).size).toBe(1);
  await page.getByRole('button', { name: 'End spreadsheet' }).click();
  await expect(page.getByText('No token yet.')).toBeVisible();
  expect((await api.get('/api/v1/types')).status()).toBe(404);
  await context.close();
});

test('an airframe is edited as a difference from its type, and shown as one', async ({ browser, baseURL }) => {
  const context = await browser.newContext({ baseURL });
  const chief = await as(context, 'bento');
  await go(chief, '/hangar/lume-faisca');
  await chief.getByRole('link', { name: 'Edit ZP-FAI' }).click();
  await chief.waitForURL('**/lume-faisca/ZP-FAI/edit');
  await hydrated(chief);
  await chief.getByRole('button', { name: 'Enter crosswind limit' }).click();
  await chief.locator('[id="crosswindLimitKt"]').fill('11');
  await chief.getByLabel('source of crosswindLimitKt').selectOption('house');
  await chief.getByLabel('reference of crosswindLimitKt').fill('Flying order 11');
  await chief.getByRole('button', { name: 'add another source of crosswind limit' }).click();
  await chief.getByLabel('other value 0').fill('13');
  await expect(chief.getByText('+2')).toBeVisible();
  await chief.getByLabel('reference of crosswindLimitKt.others.0').fill('B. Quadra');
  await chief.getByRole('button', { name: 'deferred defects' }).click();
  await chief.getByRole('button', { name: 'Add to deferred defects' }).click();
  await chief.getByLabel('Reason').fill('Order of November');
  await chief.getByRole('button', { name: 'Save as version 2' }).click();
  await expect(chief.getByText('Write something, or remove the row.').first()).toBeVisible();
  await chief.locator('[id="deferredDefects.0.text"]').fill('Left repeater dial dim');
  await chief.locator('[id="deferredDefects.0.since"]').fill('2026-11-20');
  await chief.locator('[id="deferredDefects.0.until"]').fill('next inspection');
  await chief.getByRole('button', { name: 'Save as version 2' }).click();
  await chief.waitForURL('**/hangar/lume-faisca');
  const line = chief.getByRole('row', { name: /ZP-FAI/ });
  await expect(line).toContainText('Crosswind at most 11');
  await expect(line).toContainText('instructor 13');
  await expect(line).toContainText('Left repeater dial dim, since 20 Nov 2026, until next inspection');
  await expect(line).toContainText('2, Bento Quadra Luz');
  await context.close();
});

test('two aeroplanes: the block appears, the interval becomes metres, and a bad one is refused beside its field', async ({
  browser,
  baseURL,
}) => {
  const context = await browser.newContext({ baseURL });
  const page = await as(context, 'helena');
  await go(page, `${await checkoutOf(page, 'Tomé Arruda Lis')}/brief`);
  await expect(page.getByRole('region', { name: 'Two aeroplanes' })).toHaveCount(0);
  await page.getByRole('button', { name: /Take the simulated station/ }).click();
  await page.getByText(/^Mass \d+ kg/).click();
  await page.getByLabel('two aeroplanes').check();
  await page.getByLabel('The other aeroplane').fill('ZP-URA');
  await page.getByLabel('Rendezvous', { exact: true }).fill('north bridge');
  await page.getByLabel('Break interval').fill('4');
  const block = page.getByRole('region', { name: 'Two aeroplanes' });
  await expect(block).toContainText(/ZP-URA: we lead.*Meet north bridge.*Break 4 s apart: \d+.m/);
  await page.getByLabel('Break interval').fill('90');
  await page.getByRole('button', { name: 'Save brief' }).click();
  await expect(page.getByText('At most 60 s.')).toBeVisible();
  await expect(page.getByLabel('The other aeroplane')).toHaveValue('ZP-URA');
  await page.getByLabel('Break interval').fill('4');
  await page.getByRole('button', { name: 'Save brief' }).click();
  await page.waitForURL(/\/fly$/);
  await context.close();
});

test('the pilot reads the brief and its card; another pilot gets nothing', async ({ browser, baseURL }) => {
  const context = await browser.newContext({ baseURL });
  const pilot = await as(context, 'duarte');
  await go(pilot, `${await checkoutOf(pilot, 'Duarte Sá Nogal')}/brief`);
  await expect(pilot.getByRole('button', { name: 'Arrange' })).toHaveCount(0);
  await expect(pilot.getByRole('region', { name: 'Gate by gate' })).toContainText('mph');
  await pilot.getByText('In knots').click();
  await expect(pilot.getByText(/Threshold \d+.kt; indicated/)).toBeVisible();
  await pilot.getByRole('link', { name: 'Card' }).click();
  await pilot.waitForURL('**/print/kneeboard/*');
  const speeds = await pilot.locator('.a5 .speed').allInnerTexts();
  expect(speeds.every((s) => /\d+\smph/.test(s))).toBe(true);
  const card = new URL(pilot.url()).pathname;
  const pdf = (await pilot.getByRole('link', { name: 'PDF' }).getAttribute('href')) ?? '';
  expect((await pilot.request.get(pdf)).status()).toBe(200);
  await context.close();
  const other = await browser.newContext({ baseURL });
  const nuno = await as(other, 'elias');
  expect((await nuno.goto(card))?.status()).toBe(404);
  expect((await nuno.request.get(pdf)).status()).toBe(404);
  await other.close();
});
