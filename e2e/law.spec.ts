import { as, checkoutOf, expect, go, openOn, test } from './help';

test.use({ spec: 'law' });

test('what the law asks is overridden by nobody, the chief instructor included', async ({ browser, baseURL }) => {
  const context = await browser.newContext({ baseURL });
  const chief = await as(context, 'bento');
  const checkout = await checkoutOf(chief, 'Joana Pires Atalaia');
  await go(chief, `${checkout}/sign`);
  // Under the European rules the school's items are the school's: they may be overridden.
  await expect(chief.getByText('Override an item')).toBeVisible();
  const clara = await checkoutOf(chief, 'Clara Moita Reis');
  await go(chief, `${clara}/sign`);
  await expect(
    chief.getByText(/The law requires it \(14 CFR 61\.31\(i\)\), so nobody can override it\./).first(),
  ).toBeVisible();
  // What is open is the law's, so there is nothing to override, and the page does not offer it.
  await expect(chief.getByText('Override an item')).toHaveCount(0);
  await expect(chief.getByRole('row', { name: /F8 Go-arounds/ }).getByText('law', { exact: true })).toBeVisible();
  await context.close();
});

test('a pilot whose review has ended is refused a booking without an instructor, by the rule', async ({
  browser,
  baseURL,
}) => {
  const context = await browser.newContext({ baseURL });
  const pilot = await as(context, 'gaspar');
  await go(pilot, '/schedule?kind=hire');
  await pilot.getByLabel('Aeroplane', { exact: true }).selectOption({ label: 'ZP-ALV Alvor C1' });
  await pilot.getByLabel('Day', { exact: true }).fill('2026-12-11');
  await pilot.getByLabel('Start, local').fill('10:00');
  await pilot.getByLabel('Length').fill('60');
  await pilot.getByRole('button', { name: 'Book', exact: true }).click();
  await expect(
    pilot.getByText(
      /Flight review is valid until 30 Nov 2026, not on Fri 11 Dec: no pilot in command until it is renewed \(14 CFR 61\.56\(c\)\)\. Book a lesson\./,
    ),
  ).toBeVisible();
  await expect(pilot.getByLabel('Length')).toHaveValue('60');
  await context.close();
});

test('Europe asks for the glass cockpit and offers the programme that gives it, and only goals of this aeroplane', async ({
  browser,
  baseURL,
}) => {
  const context = await browser.newContext({ baseURL });
  const desk = await as(context, 'helena');
  await openOn(desk, 'Duarte Sá Nogal', 'ZP-CGA · Alvor C4G');
  await desk.getByLabel('Rules', { exact: true }).selectOption('eu');
  await expect(desk.getByRole('row', { name: /glass cockpit \(EFIS\).*missing/ })).toBeVisible();
  await expect(desk.getByRole('row', { name: /variable-pitch propeller \(VP\).*missing/ })).toBeVisible();
  await expect(desk.getByLabel(/^Differences training, variant/)).toBeChecked();
  await expect(desk.getByText(/Differences training under FCL\.710 is open/)).toBeVisible();
  await expect(desk.getByLabel(/Tail wheel differences training/)).toHaveCount(0);
  await expect(desk.getByLabel('Standard', { exact: true })).toHaveValue('eu-private');
  // In the United States nothing of it is asked by law, and the propeller alone is no complex aeroplane.
  await desk.getByLabel('Rules', { exact: true }).selectOption('us');
  await expect(desk.getByRole('row', { name: /glass cockpit/ })).toHaveCount(0);
  await expect(desk.getByLabel(/^Complex endorsement/)).toHaveCount(0);
  await context.close();
});
