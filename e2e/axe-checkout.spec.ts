import { axeWalk } from './axe';
import { checkoutOf, expect, go, prepareDevice, test, view } from './help';

test.use({ spec: 'axe-checkout' });

test('axe finds nothing in a checkout and in the cockpit: every rule by day, contrast in dusk and sun', async ({
  browser,
  baseURL,
}) => {
  test.setTimeout(480_000);
  const { context, page, check, found } = await axeWalk(browser, baseURL);
  const ines = await checkoutOf(page, 'Inês Vale Carmo');
  const duarte = await checkoutOf(page, 'Duarte Sá Nogal');
  for (const path of ['/checkouts', '/checkouts/new', `${duarte}/differences`, `${ines}/progress`]) {
    await go(page, path);
    await check(path);
  }
  for (const path of [
    ines,
    `${duarte}/brief`,
    `/lab/circuit?checkout=${duarte.split('/').pop() ?? ''}`,
    `${duarte}/fly`,
    `${ines}/debrief`,
    `${ines}/plan`,
    `${ines}/sign`,
  ]) {
    await go(page, path);
    await check(path, 'every theme');
  }
  await prepareDevice(page, duarte);
  await check('fly, circuits', 'every theme');
  await page.getByRole('button', { name: /Log the wind/ }).click();
  await check('fly, wind', 'every theme');
  await page.getByRole('button', { name: 'Done' }).click();
  await page.getByRole('button', { name: /^More/ }).click();
  await check('fly, more', 'every theme');
  await page.getByRole('button', { name: 'Done' }).click();
  await page.getByRole('button', { name: /^Flight clock/ }).click();
  await check('fly, clock', 'every theme');
  await page.getByRole('button', { name: 'Done' }).click();
  await page.getByRole('button', { name: 'go-around', exact: true }).click();
  await check('fly, go-around', 'every theme');
  await view(page, 'Airwork');
  for (const item of [/^F9/, /^F13/, /^Performance manoeuvre/, /^Power setting noted/, /^Slow approach trials/])
    await page.getByRole('button', { name: item }).click();
  await check('fly, airwork', 'every theme');
  await view(page, 'Ground');
  await page.getByRole('button', { name: /^Exchange of control/ }).click();
  await check('fly, ground', 'every theme');
  await page.goto(page.url().replace(/view=\w+/, 'view=paper'));
  await page.getByLabel('Landings', { exact: true }).fill('T 3 3 B 0 0 0 0 0 0\nX');
  await check('fly, paper', 'every theme');
  expect(found).toEqual([]);
  await context.close();
});
