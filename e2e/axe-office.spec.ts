import { axeWalk } from './axe';
import { expect, go, test } from './help';

test.use({ spec: 'axe-office' });

test('axe finds nothing in the office: every rule by day, contrast in dusk and sun', async ({ browser, baseURL }) => {
  test.setTimeout(480_000);
  const { context, page, check, found } = await axeWalk(browser, baseURL);
  await go(page, '/ledger');
  const entry = (await page.getByRole('link', { name: 'Sara Lapa Funda' }).getAttribute('href')) ?? '';
  // The same kind of page again, or one that shares every part with another: by day only.
  for (const path of [
    '/lab',
    '/lab/sight-picture?type=planalto-p1r',
    '/hangar',
    '/hangar/planalto-p2',
    '/account',
    '/schedule?day=2026-11-25',
    '/rules',
    '/rules/programme/sea-us',
    '/board/week',
    '/rules/house/house',
    '/schedule/times',
    '/notices',
    '/people/new',
    '/people/pilot-duarte/import',
    '/help/sign',
    '/help/glossary',
  ]) {
    await go(page, path);
    await check(path);
  }
  for (const path of [
    '/board',
    '/rules/pack/eu',
    '/verify',
    '/lab/sight-picture?type=lume-faisca&offset=15&t=0.4',
    '/lab/ground?part=corner&radius=3',
    '/lab/ground',
    '/lab/take-off',
    '/lab/touch',
    '/lab/crosswind',
    '/lab/side-picture',
    '/lab/slip',
    '/lab/slow-approach',
    '/hangar/serrana-carvalho',
    '/people',
    '/people/pilot-ines',
    '/schedule',
    '/settings',
    '/ledger',
    entry,
  ]) {
    await go(page, path);
    await check(path, 'every theme');
  }
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog')).toBeVisible();
  await check('help', 'every theme');
  await page.keyboard.press('Escape');
  await context.clearCookies();
  await go(page, '/sign-in');
  await check('sign-in', 'every theme');
  expect(found).toEqual([]);
  await context.close();
});
