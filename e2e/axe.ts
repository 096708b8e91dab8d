import AxeBuilder from '@axe-core/playwright';
import type { Browser } from '@playwright/test';
import { as, checkoutOf, expect, go, prepareDevice, test, view } from './help';

/** Every page once through axe, in one theme. A file for each theme, so that they run beside each other. */
export async function axeWalk(
  theme: 'day' | 'dusk' | 'sun',
  browser: Browser,
  baseURL: string | undefined,
): Promise<void> {
  test.setTimeout(360_000);
  // Reduced motion: contrast is measured on what is shown, not half-way through a fade.
  const context = await browser.newContext({ ...(baseURL === undefined ? {} : { baseURL }), reducedMotion: 'reduce' });
  await context.addInitScript((t) => {
    localStorage.setItem('jeito-theme', t);
    localStorage.setItem('jeito-theme-fly', t);
  }, theme);
  const page = await as(context, 'helena');
  const ines = await checkoutOf(page, 'Inês Vale Carmo');
  const duarte = await checkoutOf(page, 'Duarte Sá Nogal');
  const entry = await page
    .goto('/ledger')
    .then(() => page.getByRole('link', { name: 'Sara Lapa Funda' }).getAttribute('href'));
  const found: string[] = [];
  const check = async (name: string) => {
    const { violations } = await new AxeBuilder({ page }).analyze();
    found.push(
      ...violations.map(
        (v) =>
          `${name}: ${v.id} ${v.nodes
            .slice(0, 2)
            .map((n) => n.html.slice(0, 120))
            .join(' | ')}`,
      ),
    );
  };
  // Every page by day; in the other themes one of each kind, for they share every colour by name.
  const full = theme === 'day';
  for (const path of [
    '/board',
    ...(full
      ? [
          '/checkouts',
          '/checkouts/new',
          '/lab',
          '/lab/sight-picture?type=planalto-p1r',
          '/hangar',
          '/hangar/planalto-p2',
          `${duarte}/differences`,
          `${ines}/progress`,
          '/account',
          '/schedule?day=2026-11-25',
        ]
      : []),
    ...(theme === 'day' ? ['/rules', '/rules/programme/sea-us', '/rules/house/house'] : []),
    '/rules/pack/eu',
    '/verify',
    ines,
    `${duarte}/brief`,
    '/lab/sight-picture?type=lume-faisca&offset=15&t=0.4',
    `/lab/circuit?checkout=${duarte.split('/').pop() ?? ''}`,
    '/lab/ground?radius=3',
    `${duarte}/fly`,
    `${ines}/debrief`,
    `${ines}/plan`,
    `${ines}/sign`,
    '/hangar/serrana-carvalho',
    '/people',
    '/people/pilot-ines',
    '/schedule',
    '/settings',
    ...(theme === 'day' ? ['/schedule/times', '/notices', '/people/new', '/people/pilot-duarte/import'] : []),
    '/ledger',
    entry ?? '',
  ]) {
    await go(page, path);
    await check(path);
  }
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog')).toBeVisible();
  await check('help');
  await page.keyboard.press('Escape');
  await prepareDevice(page, duarte);
  await check('fly, circuits');
  await page.getByRole('button', { name: /Log the wind/ }).click();
  await check('fly, wind');
  await page.getByRole('button', { name: 'Done' }).click();
  await page.getByRole('button', { name: /^More/ }).click();
  await check('fly, more');
  await page.getByRole('button', { name: 'Done' }).click();
  await page.getByRole('button', { name: /^Flight clock/ }).click();
  await check('fly, clock');
  await page.getByRole('button', { name: 'Done' }).click();
  await page.getByRole('button', { name: 'go-around', exact: true }).click();
  await check('fly, go-around');
  await view(page, 'Airwork');
  for (const item of [/^F9/, /^F13/, /^Energy item/, /^Power found/, /^Make-believe/])
    await page.getByRole('button', { name: item }).click();
  await check('fly, airwork');
  await view(page, 'Ground');
  await page.getByRole('button', { name: /^Exchange of control/ }).click();
  await check('fly, ground');
  await page.goto(page.url().replace(/view=\w+/, 'view=paper'));
  await page.getByLabel('Landings', { exact: true }).fill('T 3 3 B 0 0 0 0 0 0\nX');
  await check('fly, paper');
  await context.clearCookies();
  await go(page, '/sign-in');
  await check('sign-in');
  expect(found).toEqual([]);
  await context.close();
}
