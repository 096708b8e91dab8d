import { as, expect, settled, test } from './help';

test.use({ spec: 'look' });

test('keys go places, the finder finds, natives win on a control, and they can be turned off', async ({
  browser,
  baseURL,
}) => {
  const context = await browser.newContext({ baseURL });
  const page = await as(context, 'helena');
  await page.getByRole('heading', { name: 'Your to-do' }).waitFor();
  await page.keyboard.press('g');
  await page.keyboard.press('h');
  await page.waitForURL('**/hangar');
  await page.keyboard.press('g');
  await page.keyboard.press('l');
  await page.waitForURL('**/lab');
  await page.keyboard.press('/');
  await page.getByRole('combobox').fill('ines tail');
  await page.keyboard.press('Enter');
  await page.waitForURL(/\/checkouts\/[0-9a-f-]{36}$/);
  await expect(page.getByRole('navigation', { name: 'Stages' })).toBeVisible();
  await page.keyboard.press(']');
  await page.waitForURL('**/brief');
  await page.getByLabel('METAR').focus();
  await page.keyboard.type('?g');
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await page.locator('main').click({ position: { x: 4, y: 4 } });
  await page.keyboard.press('?');
  await page.getByLabel('Turn single-key shortcuts off').check();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toHaveCount(0);
  // Off: the page asks for nothing new. On again: the same key leads to a new checkout.
  const asked: string[] = [];
  page.on('request', (r) => asked.push(r.url()));
  await page.keyboard.press('n');
  await settled(page);
  expect(asked).toEqual([]);
  expect(page.url()).toContain('/brief');
  await page.evaluate(() => window.dispatchEvent(new Event('jeito:help')));
  await page.getByLabel('Turn single-key shortcuts off').uncheck();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await page.keyboard.press('n');
  await page.waitForURL('**/checkouts/new');
  await context.close();
});
