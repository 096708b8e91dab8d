import { PDFDocument } from 'pdf-lib';
import { as, checkoutOf, expect, go, hydrated, test } from './help';

test.use({ spec: 'brief' });

test('the brief follows what is typed, names a bad group, loses nothing on reload', async ({ browser, baseURL }) => {
  const context = await browser.newContext({ baseURL });
  const page = await as(context, 'helena');
  const brief = `${await checkoutOf(page, 'Tomé Arruda Lis')}/brief`;
  await go(page, brief);
  await expect(page.getByText('No verdict: paste a report or type the wind you see.')).toBeVisible();
  const metar = page.getByLabel('METAR');
  await metar.fill('ZPAV 241425Z 26O11G17KT CAVOK 18/07 Q1016');
  await expect(page.getByText('The group "26O11G17KT" cannot be read.')).toBeVisible();
  await page.getByRole('button', { name: 'Save brief' }).click();
  await expect(page).toHaveURL(new RegExp(`${brief}$`));
  await metar.fill('ZPAV 241425Z 26011G17KT CAVOK 18/07 Q1016');
  await page.getByLabel('Runway', { exact: true }).selectOption('22');
  await expect(page.getByText('Crosswind 8 kt from the right, 12 in gusts.')).toBeVisible();
  await expect(page.getByText(/260° true, 262° magnetic/)).toBeVisible();
  await page.getByText(/^Mass \d+ kg/).click();
  await page.getByLabel('One thing to focus on').fill('Feet alive');
  await page.getByRole('spinbutton', { name: 'Fuel' }).fill('20');
  await expect(page.getByText(/^Mass 507 kg/)).toBeVisible();
  await page.reload();
  await hydrated(page);
  await expect(metar).toHaveValue('ZPAV 241425Z 26011G17KT CAVOK 18/07 Q1016');
  await page.getByText(/^Mass 507 kg/).click();
  await expect(page.getByLabel('One thing to focus on')).toHaveValue('Feet alive');
  await page.getByRole('spinbutton', { name: 'Fuel' }).fill('');
  await page.getByRole('button', { name: 'Save brief' }).click();
  await expect(page.getByText(/Give the fuel in litres|Enter a number/)).toBeVisible();
  await page.getByRole('spinbutton', { name: 'Fuel' }).fill('999');
  await expect(page.getByText(/above the maximum of 560 kg/)).toBeVisible();
  await page.getByRole('spinbutton', { name: 'Fuel' }).fill('200');
  await page.getByRole('button', { name: 'Save brief' }).click();
  await expect(page.getByText(/The tanks hold \d+ L usable/)).toBeVisible();
  await context.close();
});

test('the weather of a school comes from its address: a bad one is refused, one that leads inside is said in the brief, the simulated one is gone', async ({
  browser,
  baseURL,
}) => {
  const context = await browser.newContext({ baseURL });
  const chief = await as(context, 'bento');
  const brief = `${await checkoutOf(chief, 'Tomé Arruda Lis')}/brief`;
  await go(chief, brief);
  await expect(chief.getByRole('button', { name: /Take the simulated station/ })).toBeVisible();
  await expect(chief.locator('.fact.wind')).toContainText('simulated');
  await go(chief, '/settings');
  const school = chief.getByRole('form', { name: 'School' });
  await school.getByLabel('Address of the METAR').fill('weather.example');
  await school.getByLabel('Reason').fill('Our station');
  await school.getByRole('button', { name: 'Save' }).click();
  await expect(school.getByText(/begins with http:/)).toBeVisible();
  await school.getByLabel('Address of the METAR').fill('http://127.0.0.1:4010/fresh');
  await school.getByRole('button', { name: 'Save' }).click();
  await expect(school.getByRole('status')).toContainText('Saved as version');
  await go(chief, brief);
  await expect(chief.getByText('The weather address leads to a private or local address')).toBeVisible();
  await expect(chief.getByRole('button', { name: /Take the/ })).toHaveCount(0);
  await expect(chief.locator('.fact.wind')).toContainText('no wind');
  await expect(chief.getByText(/simulated station/i)).toHaveCount(0);
  await go(chief, '/settings');
  await school.getByLabel('Address of the METAR').fill('');
  await school.getByLabel('Reason').fill('Demo again');
  await school.getByRole('button', { name: 'Save' }).click();
  await expect(school.getByRole('status')).toContainText('Saved as version');
  await context.close();
});

test('an old wind gives no verdict, a wind heard now does', async ({ browser, baseURL }) => {
  const context = await browser.newContext({ baseURL });
  const page = await as(context, 'bento');
  await go(page, `${await checkoutOf(page, 'Gaspar Ribeira Alta')}/brief`);
  const day = page.getByLabel('Day of the lesson');
  await day.fill('11/12/2026');
  await page.getByRole('button', { name: /^Save/ }).click();
  await expect(page.getByText('Enter the date as 24 Nov 2026.')).toBeVisible();
  await day.fill('24.11.2026');
  await day.blur();
  await expect(day).toHaveValue('24 Nov 2026');
  await day.press('ArrowUp');
  await expect(day).toHaveValue('25 Nov 2026');
  await day.press('ArrowDown');
  await page.getByLabel('METAR').fill('ZPAV 241350Z 26011KT CAVOK 18/07 Q1016');
  await page.getByLabel('Runway', { exact: true }).selectOption('22');
  await expect(page.getByText(/this wind is 40.min old, more than 10 min/)).toBeVisible();
  await page.getByLabel('Wind observed').check();
  await page.getByLabel('From (deg)').fill('400');
  await expect(page.getByText('Give degrees from 0 to 360, or VRB.')).toBeVisible();
  await page.getByLabel('From (deg)').fill('300');
  await page.getByLabel('Mean (kt)').fill('14');
  await page.getByLabel('Gust (kt)').fill('22');
  // Heavy tailwheel, 14 gusting 22 almost square across: beyond the house, beyond the flap table.
  await expect(
    page
      .getByText(
        /^Outside: .*The instructor.s own limit of 15 kt governs|^Outside: .*instructor.s own limit of 15 kt governs/,
      )
      .first(),
  ).toBeVisible();
  await expect(page.getByText('no flap setting in this crosswind')).toBeVisible();
  await page.getByLabel('Runway', { exact: true }).selectOption('29');
  await expect(page.getByRole('region', { name: 'Runway and wind' }).getByText(/^Maximum flap/)).toBeVisible();
  await context.close();
});

test('a first brief takes the runway the wind asks for until one is chosen; the card prints as two A5 sides', async ({
  browser,
  baseURL,
}) => {
  const context = await browser.newContext({ baseURL });
  const page = await as(context, 'bento');
  await go(page, `${await checkoutOf(page, 'Gaspar Ribeira Alta')}/brief`);
  const runway = page.getByLabel('Runway', { exact: true });
  await page.getByLabel('METAR').fill('ZPAV 241425Z 29012KT CAVOK 18/07 Q1016');
  await expect(runway).toHaveValue('29');
  await page.getByLabel('METAR').fill('ZPAV 241425Z 22012KT CAVOK 18/07 Q1016');
  await expect(runway).toHaveValue('22');
  await runway.selectOption('04');
  await page.getByLabel('METAR').fill('ZPAV 241425Z 29012KT CAVOK 18/07 Q1016');
  await expect(page.getByText(/best today/).first()).toBeAttached();
  await expect(runway).toHaveValue('04');
  await context.close();
  const desk = await browser.newContext({ baseURL });
  const helena = await as(desk, 'helena');
  for (const pilot of ['Duarte Sá Nogal']) {
    await go(helena, `${await checkoutOf(helena, pilot)}/brief`);
    await helena.getByRole('link', { name: 'Card' }).click();
    await helena.getByRole('article', { name: 'Card, back' }).waitFor();
    await helena.evaluate(() => document.fonts.ready.then(() => undefined));
    const sides = await PDFDocument.load(await helena.pdf({ preferCSSPageSize: true }));
    const mm = sides.getPages().map((p) => [p.getWidth(), p.getHeight()].map((pt) => Math.round((pt * 25.4) / 72)));
    expect(mm, pilot).toEqual([
      [148, 210],
      [148, 210],
    ]);
    // Nothing written is cut off at the foot of a side.
    const cut = await helena
      .locator('.a5')
      .evaluateAll((all) => all.filter((e) => e.scrollHeight > e.clientHeight + 1).length);
    expect(cut, pilot).toBe(0);
  }
  await desk.close();
});
