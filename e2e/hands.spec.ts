import { as, checkoutOf, expect, go, prepareDevice, settled, test } from './help';
import { reachOf } from './reach';

test.use({ spec: 'hands' });

test('in the cockpit every control is 56 px, at four sizes', async ({ browser, baseURL }) => {
  const context = await browser.newContext({ baseURL, viewport: { width: 820, height: 1180 } });
  const page = await as(context, 'helena');
  await prepareDevice(page, await checkoutOf(page, 'Duarte Sá Nogal'));
  const found: string[] = [];
  for (const view of ['Landings', 'Airwork', 'Ground']) {
    await page
      .getByRole('navigation', { name: 'Views of the flight' })
      .getByRole('button', { name: view, exact: true })
      .click();
    for (const [width, height] of [
      [390, 844],
      [820, 1180],
      [1180, 820],
      [1280, 800],
    ] as const) {
      await page.setViewportSize({ width, height });
      await settled(page);
      const r = await reachOf(page, 56);
      for (const s of r.small) found.push(`${view} at ${width}: small ${s}`);
      for (const s of [...r.tiny, ...r.cut]) found.push(`${view} at ${width}: ${s}`);
      if (r.over > 0) found.push(`${view} at ${width}: ${r.over} px too wide, ${r.widest}`);
    }
  }
  expect(found).toEqual([]);
  await context.close();
});

test('few tabs from the wind to saving; a stage leads to its heading; sections are jumped to; a dialog gives the focus back', async ({
  browser,
  baseURL,
}) => {
  const context = await browser.newContext({ baseURL });
  const page = await as(context, 'helena');
  const duarte = await checkoutOf(page, 'Duarte Sá Nogal');
  await go(page, `${duarte}/brief`);
  await page.getByLabel('METAR').focus();
  const save = page.getByRole('button', { name: /^Save/ });
  let tabs = 0;
  for (; tabs < 60 && !(await save.evaluate((e) => e === document.activeElement)); tabs++)
    await page.keyboard.press('Tab');
  expect(tabs).toBeLessThan(15);
  await page.locator('.stages a', { hasText: 'Debrief' }).focus();
  await page.keyboard.press('Enter');
  await page.waitForURL('**/debrief');
  await expect(page.locator('main h1')).toBeFocused();
  await page.keyboard.press('j');
  const second = page.locator('main h2:focus');
  await expect(second).toHaveCount(1);
  const top = await second.evaluate((e) => e.getBoundingClientRect().top);
  const strip = await page.locator('header.strip').evaluate((e) => e.getBoundingClientRect().bottom);
  expect(top).toBeGreaterThanOrEqual(strip);
  const name = await second.innerText();
  await page.keyboard.press('j');
  await page.keyboard.press('k');
  await expect(page.locator('main h2:focus')).toHaveText(name);
  const help = page.getByRole('button', { name: 'Help' });
  await help.focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('dialog')).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await expect(help).toBeFocused();
  await context.close();
});

test('sections fold to one line, stay so on this device, and open for who is led into one', async ({
  browser,
  baseURL,
}) => {
  const context = await browser.newContext({ baseURL });
  const page = await as(context, 'helena');
  const ines = await checkoutOf(page, 'Inês Vale Carmo');
  await go(page, `${ines}/debrief`);
  const landings = page.locator('section.folding', { has: page.getByRole('heading', { name: 'Landing by landing' }) });
  await landings.getByRole('button', { name: 'Landing by landing: fold' }).click();
  await expect(landings.getByRole('table')).toBeHidden();
  await expect(landings.locator('.fold-answer')).not.toBeEmpty();
  await page.reload();
  await expect(landings.getByRole('button', { name: 'Landing by landing: open' })).toBeVisible();
  await expect(landings.getByRole('table')).toBeHidden();
  await page.emulateMedia({ media: 'print' });
  await expect(landings.getByRole('table').first()).toBeVisible();
  await page.emulateMedia({ media: 'screen' });
  await page.evaluate(() => (window.location.hash = '#landing-1'));
  await expect(landings.getByRole('table').first()).toBeVisible();
  await page.getByRole('button', { name: 'On this page' }).click();
  await page.getByRole('button', { name: 'Fold all' }).click();
  await expect(page.locator('section.folding > div:visible')).toHaveCount(0);
  await expect(page.locator('main h2:visible').first()).toBeVisible();
  await page.getByRole('button', { name: 'Open all' }).click();
  await expect(landings.getByRole('table').first()).toBeVisible();
  await context.close();
});
