import { readFileSync } from 'node:fs';
import AxeBuilder from '@axe-core/playwright';
import type { Page } from '@playwright/test';
import Papa from 'papaparse';
import {
  enterRelease,
  allSent,
  as,
  checkoutOf,
  expect,
  go,
  hydrated,
  landing,
  logWind,
  moveByKeys,
  prepareDevice,
  test,
} from './help';

test.use({ spec: 'debrief' });
const clean = async (page: Page) =>
  expect(
    (await new AxeBuilder({ page }).analyze()).violations.map(
      (v) => `${v.id}: ${v.nodes[0]?.html.slice(0, 120) ?? ''}`,
    ),
  ).toEqual([]);
const finding = (page: Page, id: string) => page.locator(`[data-finding="${id}"]`);

test('all lessons: what is drawn, what the table says and what the file holds are the same numbers, filtered and sorted', async ({
  browser,
  baseURL,
}) => {
  const context = await browser.newContext({ baseURL, viewport: { width: 1280, height: 800 }, acceptDownloads: true });
  const page = await as(context, 'helena');
  const checkout = await checkoutOf(page, 'Vale Carmo');
  await go(page, `${checkout}/progress`);
  await expect(page.locator('[data-forecast]')).toContainText(
    /At this rate about \d+ more landings|Not enough to tell yet/,
    {
      timeout: 20_000,
    },
  );
  await clean(page);
  await page.getByLabel('Lesson', { exact: true }).selectOption('2');
  const table = page.getByRole('region', { name: 'Landings' });
  const heads = (await table.locator('thead th').allInnerTexts()).map((h) => h.trim());
  const column = async (name: string) => {
    const i = heads.findIndex((h) => h.startsWith(name));
    return (await table.locator(`tbody tr td:nth-child(${i + 1})`).allInnerTexts()).map((t) => t.trim());
  };
  await table.getByRole('button', { name: 'right of the line (m)' }).click();
  await expect(table.getByRole('columnheader', { name: 'right of the line (m)' })).toHaveAttribute(
    'aria-sort',
    'ascending',
  );
  const lateral = (await column('right of the line')).filter(Boolean).map(Number);
  expect(lateral.length).toBeGreaterThan(5);
  expect(lateral).toEqual([...lateral].sort((a, b) => a - b));
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'These rows as CSV' }).click(),
  ]);
  const file = Papa.parse<Record<string, string>>(readFileSync(await download.path(), 'utf8'), { header: true }).data;
  expect(file.map((r) => r['right of the line (m)'] ?? '')).toEqual(await column('right of the line'));
  expect(file.map((r) => r['past the touchdown point (m)'] ?? '')).toEqual(await column('past the touchdown point'));
  expect(file.map((r) => r.class ?? '')).toEqual(await column('class'));
  // The drawing's own words: mean of those flown without hands on, rounded as it says.
  const rows = file.filter(
    (r) =>
      r['right of the line (m)'] !== '' &&
      !['assisted', 'instructor took over', 'demonstration'].includes(r['flown by'] ?? ''),
  );
  const mean = rows.reduce((a, r) => a + Number(r['right of the line (m)']), 0) / rows.length;
  await expect(page.locator('[data-summary]').first()).toContainText(
    `mean ${Math.abs(mean).toFixed(1)} m ${mean < 0 ? 'left' : 'right'}`,
  );
  await expect(page.getByRole('img', { name: /^Touchdown map/ })).toHaveAttribute(
    'aria-label',
    new RegExp(`mean ${Math.abs(mean).toFixed(1)} m`),
  );
  await page.getByLabel('Measure', { exact: true }).selectOption('lateral');
  await expect(page.getByRole('img', { name: /^Place across: / })).toBeVisible();
  await page.getByLabel('Wind', { exact: true }).selectOption('gusts');
  await expect(page.getByText(/^0 of \d+ chosen$/)).toBeVisible();
  await clean(page);
});

test('left of the line: its mean and interval, its landings, the exercise; planned, briefed, flown right eight times, and closed', async ({
  browser,
  baseURL,
}) => {
  test.setTimeout(120_000);
  const context = await browser.newContext({ baseURL, viewport: { width: 1280, height: 800 } });
  const page = await as(context, 'helena');
  const checkout = await checkoutOf(page, 'Vale Carmo');
  await go(page, `${checkout}/debrief`);
  const left = finding(page, 'bias-left');
  await expect(left).toContainText(/Mean 1\.\d m left over \d+ measured landings, between \d\.\d and \d\.\d m/);
  await expect(left).toContainText('95 in 100 interval');
  await expect(left).toContainText('Low passes, left wheel on the line');
  await left.getByText(/\d+ in evidence/).click();
  expect(await left.getByRole('link', { name: /^lesson 2, landing/ }).count()).toBeGreaterThan(3);
  await left
    .getByRole('link', { name: /^landing/ })
    .last()
    .click();
  await expect(page.locator('#landing-reasons')).toContainText(/^Landing \d+:/);
  await page.getByRole('button', { name: 'Confirm Left of the line' }).click();
  await expect(left).toContainText('confirmed by Helena Serpa Dorna');
  await clean(page);

  // Its exercise is in the lesson that is proposed; what is kept goes into the brief.
  await page.getByRole('link', { name: 'Plan the next lesson' }).click();
  await page.waitForURL('**/plan');
  await hydrated(page);
  await expect(page.getByRole('list').filter({ hasText: 'Low passes, left wheel on the line' })).toContainText(
    'end well',
  );
  await clean(page);
  const steps = page.locator('ol.plan > li');
  const before = await steps.allInnerTexts();
  await page.getByRole('button', { name: /^Move step 1,/ }).focus();
  await moveByKeys(page, 'ArrowDown');
  await expect(steps.nth(1)).toContainText(before[0]?.split('\n')[1] ?? 'nothing');
  await page.getByRole('button', { name: 'Step 2 up' }).click();
  const minutes = page.getByLabel(/^Minutes of step 1,/);
  const short = await minutes.inputValue();
  await minutes.fill('90');
  await expect(page.getByText(/min too long/)).toBeVisible();
  await page.getByRole('button', { name: /^Save plan of lesson/ }).click();
  await expect(page.getByRole('alert').filter({ hasText: /min of flying do not fit in \d+/ })).toBeVisible();
  await minutes.fill(short);
  await page.getByRole('button', { name: 'Add a step of my own' }).click();
  await page.getByLabel(/^Title of step/).fill('Look at the fuel gauge');
  await page.getByLabel(/^Minutes of step \d+, Look at the fuel gauge$/).fill('1');
  await page.getByRole('button', { name: /^Save plan of lesson/ }).click();
  await expect(
    page
      .getByRole('status')
      .filter({ hasText: 'Saved as version 1' })
      .or(page.getByText('Version 1, saved by Helena Serpa Dorna.')),
  ).toBeVisible();
  await go(page, `${checkout}/brief`);
  await expect(page.getByRole('region', { name: 'The plan of this lesson' })).toContainText('Look at the fuel gauge');
  await expect(page.getByLabel('One thing to focus on')).toHaveValue(/Low passes, left wheel on the line/);
  await page.getByRole('button', { name: 'Save brief' }).click();
  await page.waitForURL('**/fly');

  // The aeroplane passed a limit in her last lesson: nothing is flown in it before its release is entered.
  await go(page, `${checkout}/fly`);
  await expect(page.getByRole('button', { name: 'Prepare this device' })).toHaveCount(0);
  const office = await browser.newContext({ baseURL });
  await enterRelease(await as(office, 'bento'));
  await office.close();
  await prepareDevice(page, checkout);
  await logWind(page, 0, 4);
  for (let i = 0; i < 7; i++) await landing(page, 'three-point');
  await allSent(page, 7);
  const other = await context.newPage();
  await go(other, `${checkout}/debrief`);
  await expect(finding(other, 'bias-left')).toContainText('Closes after 8 without it; 7 so far.');
  await landing(page, 'three-point');
  await allSent(page, 8);
  await go(other, `${checkout}/debrief`);
  await expect(other.getByText(/^Closed, \d/)).toBeVisible();
  await other.getByText(/^Closed, \d/).click();
  await expect(finding(other, 'bias-left')).toContainText('8 without it since.');
  await context.close();
});

test('the pilot speaks first, then sees both; the instructor keeps two things to think of; the pilot acknowledges and has it on paper', async ({
  browser,
  baseURL,
}) => {
  const context = await browser.newContext({ baseURL, viewport: { width: 820, height: 1180 } });
  const pilot = await as(context, 'joana');
  await go(pilot, '/checkouts');
  await pilot.locator('main').getByRole('link').first().click();
  await pilot.waitForURL('**/checkouts/*-*');
  const checkout = new URL(pilot.url()).pathname;
  await go(pilot, `${checkout}/debrief`);
  await expect(pilot.getByRole('heading', { level: 1 })).toHaveText('Lesson 2: you first');
  await expect(pilot.getByText('Landing by landing')).toHaveCount(0);
  await clean(pilot);
  await pilot
    .getByRole('group', { name: 'What to work on' })
    .getByRole('button', { name: 'the touch and the bounce' })
    .click();
  await expect(pilot.getByText('Tap the first two, then this.')).toBeVisible();
  await pilot.getByRole('group', { name: 'How many unassisted' }).getByRole('button', { name: '4' }).click();
  await pilot
    .getByRole('group', { name: 'Which was the best' })
    .getByRole('button', { name: '2', exact: true })
    .click();
  await pilot
    .getByRole('group', { name: 'What to work on' })
    .getByRole('button', { name: 'the touch and the bounce' })
    .click();
  await expect(pilot.locator('[data-self]')).toContainText(/4 said, \d recorded/);
  await expect(finding(pilot, 'pushes-in-bounce')).toContainText('After a bounce you pushed');
  await expect(pilot.getByRole('button', { name: /^Dismiss/ })).toHaveCount(0);
  await expect(pilot.getByText('The instructor has not saved this debrief yet.')).toBeVisible();
  await clean(pilot);

  const desk = await browser.newContext({ baseURL, viewport: { width: 1280, height: 800 } });
  const bento = await as(desk, 'bento');
  await go(bento, `${checkout}/debrief`);
  // A finding is dismissed with a reason, and taken back.
  await bento.getByRole('button', { name: 'Dismiss Bounces more than it should' }).click();
  await bento.getByRole('button', { name: 'Dismiss', exact: true }).click();
  await expect(bento.getByText('Say why it is dismissed, in a few words: it is recorded.')).toBeVisible();
  await bento.getByLabel('Why it is dismissed').fill('The runway is rough at that place.');
  await bento.getByRole('button', { name: 'Dismiss', exact: true }).click();
  await expect(bento.getByText('Dismissed, 1')).toBeVisible();
  await bento.getByText('Dismissed, 1').click();
  await bento.getByRole('button', { name: 'Undo' }).click();
  await expect(bento.getByText('Dismissed, 1')).toHaveCount(0);

  // A verdict is overruled; the computed one stays in sight.
  await bento.locator('#landing-1').getByRole('button').click();
  await expect(bento.locator('#landing-reasons')).toContainText('Landing 1:');
  await bento.getByRole('button', { name: 'Overrule drift' }).click();
  await bento.getByRole('group', { name: 'Overrule drift' }).getByLabel('It is').selectOption('outside');
  await bento.getByRole('button', { name: 'Overrule', exact: true }).click();
  await expect(bento.getByText('Say why, in a few words.')).toBeVisible();
  await bento
    .getByRole('group', { name: 'Overrule drift' })
    .getByLabel('Because')
    .fill('A wing length of sideways, I was slow to tap.');
  await bento.getByRole('button', { name: 'Overrule', exact: true }).click();
  await expect(bento.locator('#landing-reasons')).toContainText(
    /Bento Quadra Luz says outside: A wing length of sideways, I was slow to tap\. \(\d+ Nov 2026; computed \w+\)/,
  );
  await clean(bento);

  await bento.getByLabel('First', { exact: true }).fill('Second touch: go around');
  await bento.getByLabel('Second, if there must be one').fill('Stick back until it stops');
  await bento.getByLabel('Remark for the pilot').fill('The approaches were good.');
  await bento.getByRole('button', { name: 'Save this debrief' }).click();
  await expect(bento.getByText(/Debrief version 1, saved by Bento Quadra Luz/)).toBeVisible();

  await go(pilot, `${checkout}/debrief`);
  await expect(pilot.getByText('Second touch: go around')).toBeVisible();
  await pilot.getByRole('button', { name: 'Read and discussed' }).click();
  await expect(pilot.getByText(/acknowledged by Joana Pires Atalaia/)).toBeVisible();
  const href = await pilot.getByRole('link', { name: 'Debrief as PDF' }).getAttribute('href');
  const pdf = await pilot.request.get(href ?? '');
  expect(pdf.headers()['content-type']).toBe('application/pdf');
  const stranger = await as(await browser.newContext({ baseURL }), 'duarte');
  expect((await stranger.request.get(href ?? '')).status()).toBe(404);
  expect((await stranger.request.get(`${checkout}/progress`)).status()).toBe(404);
  expect((await pilot.request.get(`${checkout}/plan`)).status()).toBe(404);
  expect((await pilot.request.get('/people/standard')).status()).toBe(404);
});

test('one standard: the chief sees how eyes differ on the same measured landings', async ({ browser, baseURL }) => {
  const page = await as(await browser.newContext({ baseURL, viewport: { width: 1280, height: 800 } }), 'bento');
  await go(page, '/people');
  await page.getByRole('link', { name: 'Instructor standardisation' }).click();
  await page.waitForURL('**/people/standard');
  await expect(page.getByRole('row', { name: /^Helena Serpa Dorna \d+/ })).toContainText(/recording|too few|no clear/);
  await clean(page);
});
