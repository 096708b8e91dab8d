import { readFileSync } from 'node:fs';
import AxeBuilder from '@axe-core/playwright';
import type { Page } from '@playwright/test';
import {
  as,
  checkoutOf,
  expect,
  go,
  hydrated,
  mail,
  openOn,
  PASSWORD,
  prepareDevice,
  signIn,
  submitOpen,
  test,
} from './help';

test.use({ spec: 'guide' });

const found = async (page: Page) => (await new AxeBuilder({ page }).analyze()).violations.map((v) => v.id);

test('the first visit of a screen has a hint; the question mark explains it in five lines; both can be turned off', async ({
  browser,
  baseURL,
}) => {
  const context = await browser.newContext({ baseURL });
  const page = await context.newPage();
  await signIn(page, 'helena');
  await page.waitForURL('**/board');
  const hint = page.getByRole('complementary', { name: 'Hint' });
  await expect(hint).toContainText('Board. The school at one look');
  expect(await found(page)).toEqual([]);
  await hint.getByRole('button', { name: 'Got it' }).click();
  await expect(hint).toHaveCount(0);
  await page.getByRole('link', { name: 'Schedule' }).first().click();
  await expect(hint).toContainText('Schedule. The week by day');
  // Read once, it is gone for good: after a reload, and not for the screens nobody has been on.
  await go(page, '/board');
  await expect(hint).toHaveCount(0);
  await go(page, '/hangar');
  await expect(hint).toContainText('Hangar.');
  await page.keyboard.press('?');
  const help = page.getByRole('dialog', { name: 'Help: Hangar' });
  await expect(help.getByRole('listitem')).toHaveCount(5);
  expect(await found(page)).toEqual([]);
  await help.getByLabel('Turn first-visit hints off').check();
  await page.keyboard.press('Escape');
  await expect(hint).toHaveCount(0);
  await go(page, '/people');
  await expect(hint).toHaveCount(0);
  await page.keyboard.press('?');
  await page.getByLabel('Turn first-visit hints off').uncheck();
  await page.getByRole('dialog').getByRole('link', { name: 'Glossary' }).click();
  await expect(page.getByRole('heading', { name: 'Glossary', level: 1 })).toBeVisible();
  await go(page, '/people');
  await expect(hint).toContainText('People.');
  await hint.getByRole('button', { name: 'Turn hints off' }).click();
  await go(page, '/rules');
  await expect(hint).toHaveCount(0);
  await context.close();
});

test('the guide is read in the application, its words in bold are found on the screens it speaks of', async ({
  browser,
  baseURL,
}) => {
  test.setTimeout(240_000);
  const context = await browser.newContext({ baseURL });
  const page = await as(context, 'helena');
  await go(page, '/help');
  for (const name of ['Open', 'Brief', 'Fly', 'Debrief', 'Sign']) {
    await go(page, '/help');
    await page.locator('main').getByRole('link', { name, exact: true }).click();
    await expect(page.getByRole('heading', { name, level: 1, exact: true })).toBeVisible();
    // Every picture is there and drawn.
    for (const picture of await page.locator('article img').all()) {
      await picture.scrollIntoViewIfNeeded();
      await expect.poll(() => picture.evaluate((i) => (i as HTMLImageElement).naturalWidth)).toBeGreaterThan(300);
    }
    expect(await found(page)).toEqual([]);
  }
  expect((await page.request.get('/api/guide/nothing.png')).status()).toBe(404);
  expect((await page.request.get('/help/nothing')).status()).toBe(404);

  const [tome, duarte, ines, rui] = [
    await checkoutOf(page, 'Tomé Arruda Lis'),
    await checkoutOf(page, 'Duarte Sá Nogal'),
    await checkoutOf(page, 'Inês Vale Carmo'),
    await checkoutOf(page, 'Rui Casal Ferro'),
  ];
  // What stands on a screen: its text, names, values and what is folded away.
  const wordsOf = async (address: string): Promise<string> => {
    await go(page, address);
    return page.evaluate(() =>
      [
        document.body.textContent,
        ...[...document.querySelectorAll('[aria-label]')].map((e) => e.getAttribute('aria-label')),
      ]
        .join('\n')
        .replace(/\s+/g, ' '),
    );
  };
  const labels = (guide: string): string[] =>
    [...readFileSync(`docs/guide/${guide}.md`, 'utf8').matchAll(/\*\*([^*]+)\*\*/g)].map((m) =>
      (m[1] ?? '').replace(/\s+/g, ' '),
    );
  const office = (await wordsOf('/board')) + (await wordsOf('/schedule'));
  await prepareDevice(page, duarte);
  await expect(page.getByRole('button', { name: 'Save landing' })).toBeVisible();
  let cockpit = await page.evaluate(() => document.body.textContent ?? '');
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog', { name: 'Help: Landings' }).getByRole('listitem')).toHaveCount(5);
  await page.getByRole('button', { name: 'Done', exact: true }).click();
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await page.getByRole('button', { name: /^Flight clock/ }).click();
  await expect(page.getByRole('group', { name: 'Cut short by' })).toBeVisible();
  cockpit += await page.evaluate(() => document.body.textContent ?? '');
  await page.getByRole('dialog').getByRole('button', { name: 'Done' }).click();
  await page.getByRole('button', { name: 'Ground', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'Ground', level: 1 })).toBeVisible();
  cockpit += await page.evaluate(() => document.body.textContent ?? '');
  await page.getByRole('button', { name: 'Help', exact: true }).click();
  await expect(page.getByRole('dialog', { name: 'Help: Ground' }).getByRole('listitem')).toHaveCount(5);
  await page.getByRole('button', { name: 'Done', exact: true }).click();
  // A manoeuvre with an entry of its own: in a checkout with a powerful type.
  await openOn(page, 'Gaspar Ribeira Alta', 'ZP-URZ · Serrana Urze');
  const gaspar = await submitOpen(page);
  await page.getByRole('button', { name: 'Save brief' }).click();
  await page.waitForURL('**/fly');
  await prepareDevice(page, gaspar);
  await page.getByRole('button', { name: 'Airwork', exact: true }).click();
  await page.getByRole('button', { name: /^Performance manoeuvre/ }).click();
  await expect(page.getByRole('button', { name: /^Left as entered/ })).toBeVisible();
  cockpit += await page.evaluate(() => document.body.textContent ?? '');
  const screens: [string, string[]][] = [
    ['open', ['/checkouts/new']],
    ['brief', [`${tome}/brief`, `${duarte}/brief`]],
    ['fly', [`${duarte}/fly`]],
    ['debrief', [`${ines}/debrief`]],
    ['sign', [`${ines}/sign`, `${rui}/sign`, '/verify']],
  ];
  for (const [guide, addresses] of screens) {
    let words = office + (guide === 'fly' ? cockpit : '');
    for (const a of addresses) words += await wordsOf(a);
    expect([guide, labels(guide).filter((l) => !words.includes(l))]).toEqual([guide, []]);
  }
  await context.close();
});

test('a new pilot signs in on a phone as the first page says', async ({ browser, baseURL }) => {
  const context = await browser.newContext({ baseURL, viewport: { width: 390, height: 844 } });
  const page = await context.newPage();
  await go(page, '/');
  await page.getByLabel('E-mail').fill(mail('joana'));
  await page.getByLabel('Password').fill(PASSWORD);
  await page.getByRole('button', { name: 'Sign in', exact: true }).click();
  await page.waitForURL('**/board');
  await hydrated(page);
  await expect(page.getByRole('complementary', { name: 'Hint' })).toContainText('Home. Your next booking');
  await page.getByRole('button', { name: 'Help and theme' }).click();
  await expect(page.getByRole('dialog', { name: 'Help: Home' }).getByRole('listitem')).toHaveCount(5);
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  await context.close();
});
