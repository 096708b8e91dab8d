import { execFileSync } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import AxeBuilder from '@axe-core/playwright';
import type { Page } from '@playwright/test';
import { PASSWORD, as, expect, flownLesson, go, hydrated, openOn, programmeOf, submitOpen, test } from './help';

test.use({ spec: 'ledger' });

const clean = async (page: Page): Promise<void> => {
  expect(
    (await new AxeBuilder({ page }).analyze()).violations.map((v) => `${v.id} ${v.nodes[0]?.html.slice(0, 140) ?? ''}`),
  ).toEqual([]);
};
test('a whole tailwheel programme to sign-off with a waiver and an override, verified by a stranger, voided by the chief', async ({
  browser,
  baseURL,
}) => {
  test.setTimeout(240_000);
  const contexts = await Promise.all([0, 1, 2, 3].map(() => browser.newContext({ baseURL })));
  const [desk, pilot, chief] = await Promise.all([
    as(contexts[0] as never, 'helena'),
    as(contexts[1] as never, 'gaspar'),
    as(contexts[2] as never, 'bento'),
  ]);
  await openOn(desk, 'Gaspar Ribeira Alta', 'ZP-URZ · Serrana Urze');
  await expect(desk.getByLabel(/Tailwheel endorsement/)).toBeChecked();
  const checkout = await submitOpen(desk);
  const programme = programmeOf('tailwheel');
  await flownLesson(desk, pilot, checkout, 'user-helena', '2026-11-22', '22', programme, ['F5'], false);
  const flown = await flownLesson(
    desk,
    pilot,
    checkout,
    'user-helena',
    '2026-11-24',
    '22',
    programme,
    ['F5', 'F1'],
    true,
  );

  await go(desk, `${checkout}/sign`);
  await expect(desk.getByRole('heading', { level: 1 })).toHaveText('17 of 19 items met');
  await expect(
    desk.getByRole('link', { name: /F5 Wheel landings is a safety item and nothing of it has been seen/ }),
  ).toBeVisible();
  await expect(desk.getByRole('button', { name: 'Not ready: see what is missing' })).toBeDisabled();
  // A cell opens to what stands behind it.
  await desk.getByRole('button', { name: 'F8, lesson 1: 2 of 2 support it' }).click();
  await expect(
    desk.getByText(
      'Asks: 1 go-around decided by the pilot in time, 3 flown well, from the approach, flare and bounce.',
    ),
  ).toBeVisible();
  await expect(desk.getByText('go-around: sound decision, flown good').first()).toBeVisible();
  await desk.getByText('Enter further training').first().click();
  await desk.getByText('Sign some items now').click();
  await clean(desk);
  await desk.getByText('Waive an item').click();
  await desk.getByLabel('Reason', { exact: true }).fill('Handbook 4.5 advises against wheel landings');
  await desk.getByRole('button', { name: 'Waive with this reason' }).click();
  await expect(desk.getByText('waived: Handbook 4.5 advises against wheel landings')).toBeVisible();
  await expect(desk.getByLabel('Sign-off text')).toHaveValue(/wheel landings excepted \(Handbook 4\.5/);
  await desk.getByText('Override an item').click();
  await desk.getByLabel('Reason of the override').fill('short');
  await desk.getByRole('button', { name: 'Override with this reason' }).click();
  await expect(desk.getByText('Say why, in a sentence: it is printed on the sign-off.')).toBeVisible();
  await desk.getByLabel('Reason of the override').fill('Taxied with me in more wind than this last week');
  await desk.getByRole('button', { name: 'Override with this reason' }).click();
  await expect(
    desk.getByText(
      'F1 Taxi, turns and tail swing, wind on controls: the override is waiting for the chief instructor.',
    ),
  ).toBeVisible();

  await go(chief, `${checkout}/sign`);
  await clean(chief);
  await chief.getByRole('button', { name: 'Approve' }).click();
  await expect(chief.getByText(/Approved by Bento Quadra Luz/)).toBeVisible();

  await go(desk, `${checkout}/sign`);
  await expect(desk.getByRole('heading', { level: 1 })).toHaveText('Everything is there to sign');
  await desk.locator('canvas.sigpad').scrollIntoViewIfNeeded();
  await hydrated(desk);
  const box = await desk.locator('canvas.sigpad').boundingBox();
  if (!box) throw new Error('nowhere to draw the signature');
  await desk.mouse.move(box.x + 30, box.y + 50);
  await desk.mouse.down();
  for (let i = 0; i < 12; i++) await desk.mouse.move(box.x + 30 + i * 18, box.y + 50 + (i % 2) * 24);
  await desk.mouse.up();
  await desk.getByLabel('Crosswind up to').fill('8');
  await desk.getByLabel('Your password', { exact: true }).fill(PASSWORD);
  // Something comes in from a device meanwhile: what the page shows is stale, nothing is signed, and what was typed
  // stays.
  const late = {
    eventId: randomUUID(),
    deviceId: randomUUID(),
    deviceSeq: 1,
    sortieId: flown,
    subjectId: randomUUID(),
    author: 'user-helena',
    type: 'item-observed',
    v: 1,
    deviceTime: '2026-11-24T11:50:00.000Z',
    payload: { itemId: 'F10', verdict: 'within', intervention: 0, note: 'once more', detail: null, pilotId: null },
  };
  expect(
    (
      (await (
        await desk.request.post('/api/sync', { data: { events: [late], sentAt: new Date().toISOString() } })
      ).json()) as { accepted: string[] }
    ).accepted,
  ).toEqual([late.eventId]);
  await desk.getByRole('button', { name: 'Sign this checkout' }).click();
  await expect(desk.getByText('This checkout has changed since this page was shown.')).toBeVisible();
  await expect(desk.getByLabel('Crosswind up to')).toHaveValue('8');
  // The page fetches itself anew; what came in is in its matrix before it is signed.
  await expect(desk.getByRole('button', { name: 'F10, lesson 2: 2 of 2 support it' })).toBeVisible();
  await desk.getByRole('button', { name: 'Sign this checkout' }).click();
  await desk.waitForURL(/\/ledger\/[0-9a-f-]{36}$/);
  await expect(
    desk.getByText(
      'overridden: Taxied with me in more wind than this last week Asked by Helena Serpa Dorna, approved by Bento Quadra Luz.',
    ),
  ).toBeVisible();
  await expect(desk.getByAltText('Drawn signature of Helena Serpa Dorna')).toBeVisible();
  const entry = new URL(desk.url()).pathname;
  const pdf = await (await desk.request.get(`/api${entry}/pdf`)).body();

  // A stranger with the paper: no account, a file or the code.
  const stranger = await (contexts[3] as (typeof contexts)[number]).newPage();
  await go(stranger, '/verify');
  await stranger
    .getByLabel('The PDF of an entry, its JSON, or an export of the ledger')
    .setInputFiles({ name: 'sign-off.pdf', mimeType: 'application/pdf', buffer: pdf });
  await expect(stranger.getByRole('heading', { name: /stands in this ledger as it was signed/ })).toBeVisible();
  await expect(stranger.getByText('Signed with an override of F1')).toBeVisible();
  await clean(stranger);
  const json = await (await desk.request.get(`/api${entry}/json`)).text();
  await stranger.getByLabel('The PDF of an entry, its JSON, or an export of the ledger').setInputFiles({
    name: 'entry.json',
    mimeType: 'application/json',
    buffer: Buffer.from(json.replaceAll('Gaspar', 'Caspar')),
  });
  await expect(stranger.getByRole('heading', { name: 'This entry does not hold: it was changed' })).toBeVisible();

  // Away from the server, with the published key.
  const away = mkdtempSync(path.join(tmpdir(), 'jeito-away-'));
  writeFileSync(path.join(away, 'sheet.pdf'), pdf);
  writeFileSync(path.join(away, 'key.pem'), await (await stranger.request.get('/api/ledger/key')).body());
  const check = (...args: string[]) =>
    execFileSync(process.execPath, ['node_modules/tsx/dist/cli.mjs', 'scripts/verify-ledger.ts', ...args], {
      encoding: 'utf8',
      env: { ...process.env, JEITO_DATA: away },
    });
  expect(check(path.join(away, 'sheet.pdf'), '--key', path.join(away, 'key.pem'))).toContain('The entry holds');

  // Voided by the chief: the entry stays, the checkout is open again, the code says so.
  await go(chief, entry);
  await chief.getByText('Void this entry', { exact: true }).first().click();
  await clean(chief);
  await chief.getByLabel('Why it is void').fill('Signed for the wrong airframe of the two');
  await chief.locator('details[open]').getByLabel('Your password').fill(PASSWORD);
  await chief.getByRole('button', { name: 'Void this entry' }).click();
  await expect(chief.getByRole('status').filter({ hasText: 'Signed for the wrong airframe of the two' })).toBeVisible();
  await go(desk, `${checkout}/sign`);
  await expect(desk.getByRole('button', { name: /Not ready/ })).toBeVisible();
  const hash = (JSON.parse(json) as { entry: { hash: string } }).entry.hash;
  await go(stranger, `/verify?e=${entry.split('/').pop() ?? ''}&h=${hash}`);
  await expect(stranger.getByRole('heading', { name: /is void$/ })).toBeVisible();
  await go(desk, '/ledger');
  await expect(desk.getByText('Checked just now')).toBeVisible();
  await desk.getByLabel('Kind').selectOption('void');
  await expect(desk.getByRole('row')).toHaveCount(2);
  await Promise.all(contexts.map((c) => c.close()));
});

test('a sea rating to a recommendation, and the examiner\u2019s result', async ({ browser, baseURL }) => {
  test.setTimeout(240_000);
  const [one, two] = await Promise.all([browser.newContext({ baseURL }), browser.newContext({ baseURL })]);
  const [desk, pilot] = await Promise.all([as(one, 'bento'), as(two, 'sara')]);
  await openOn(desk, 'Sara Lapa Funda', 'ZP-MAR · Orla Mar\u00e9');
  for (const box of await desk.getByRole('checkbox').all()) if (await box.isChecked()) await box.uncheck();
  await desk.getByLabel(/Multi-engine sea class/).check();
  await expect(desk.getByText('a recommendation, then a test with an examiner').first()).toBeVisible();
  const checkout = await submitOpen(desk);
  const programme = programmeOf('multi-engine-sea');
  await flownLesson(desk, pilot, checkout, 'user-bento', '2026-11-22', '18W', programme, [], false);
  await flownLesson(desk, pilot, checkout, 'user-bento', '2026-11-24', '18W', programme, [], true);
  await go(desk, `${checkout}/sign`);
  await expect(desk.getByRole('heading', { level: 1 })).toHaveText('Everything is there to sign');
  await expect(desk.getByText('valid until 31 Jan 2027, counted from the last training on 24 Nov 2026')).toBeVisible();
  await desk.getByLabel('Your password', { exact: true }).fill(PASSWORD);
  await desk.getByRole('button', { name: 'Sign the recommendation' }).click();
  await desk.waitForURL(/\/ledger\/[0-9a-f-]{36}$/);
  await expect(desk.getByRole('heading', { level: 1 })).toHaveText(
    /^Recommendation to the examiner \d+: Sara Lapa Funda, multi-engine sea$/,
  );
  await go(desk, '/people');
  await expect(desk.getByRole('row', { name: /Sara Lapa Funda/ })).not.toContainText('multi-engine sea');
  await go(desk, `${checkout}/sign`);
  await expect(desk.getByRole('heading', { level: 1 })).toHaveText('Recommended: the examiner decides');
  await desk.getByRole('button', { name: 'Enter the result' }).click();
  await expect(desk.getByText('Say whether the test was passed.')).toBeVisible();
  await desk.getByLabel('Result', { exact: true }).selectOption('passed');
  await desk.getByLabel('Examiner').fill('Otelo Penha Mar');
  await desk.getByLabel('Your password').fill(PASSWORD);
  await desk.getByRole('button', { name: 'Enter the result' }).click();
  await desk.waitForURL(/\/ledger\/[0-9a-f-]{36}$/);
  await expect(desk.getByRole('heading', { level: 1 })).toHaveText(
    /^Examiner\u2019s result \d+: Sara Lapa Funda, multi-engine sea$/,
  );
  await go(desk, '/people');
  await expect(desk.getByRole('row', { name: /Sara Lapa Funda/ })).toContainText('multi-engine sea');
  await Promise.all([one.close(), two.close()]);
});

test('the chief changes a programme, with the difference and a reason; an exported pack comes back changed', async ({
  browser,
  baseURL,
}) => {
  const context = await browser.newContext({ baseURL });
  const page = await as(context, 'bento');
  await go(page, '/rules/programme/short-field-house');
  await page.getByRole('link', { name: 'Edit' }).click();
  await page.waitForURL('**/edit');
  await hydrated(page);
  await page.getByRole('button', { name: 'items', exact: true }).click();
  await clean(page);
  await page.getByLabel('title').first().fill('Runway needed, and what is left over');
  await expect(page.getByText('Runway needed, and what is left over').last()).toBeVisible();
  await page.getByRole('button', { name: 'Save as version 2' }).click();
  await expect(page.getByText('Say why, in a few words: the next reader needs it.')).toBeVisible();
  await page.getByLabel('Reason').fill('asked by the examiners');
  await page.getByRole('button', { name: 'Save as version 2' }).click();
  await page.waitForURL('**/rules/programme/short-field-house');
  await expect(page.getByText('Version 2, Bento Quadra Luz')).toBeVisible();
  const file = JSON.parse(await (await page.request.get('/api/rules/pack/us')).text()) as {
    body: { notCovered: string[] };
  };
  file.body.notCovered.push('Ski landing gear.');
  await go(page, '/rules/pack/us/edit');
  await page
    .getByLabel('A changed export')
    .setInputFiles({ name: 'odd.json', mimeType: 'application/json', buffer: Buffer.from('{"name": 3}') });
  await expect(page.getByText(/does not match what is edited here/)).toBeVisible();
  await page
    .getByLabel('A changed export')
    .setInputFiles({ name: 'us.json', mimeType: 'application/json', buffer: Buffer.from(JSON.stringify(file)) });
  await expect(page.getByText(/Ski landing gear\./).last()).toBeVisible();
  await page.getByLabel('Reason').fill('asked by the examiners');
  await page.getByRole('button', { name: 'Save as version 2' }).click();
  await page.waitForURL('**/rules/pack/us');
  await expect(page.getByRole('listitem').filter({ hasText: 'Ski landing gear.' })).toBeVisible();
  await context.close();
});

test('out of recency in the twin the instructor cannot sign; three landings logged, he can', async ({
  browser,
  baseURL,
}) => {
  const context = await browser.newContext({ baseURL });
  const page = await as(context, 'bento');
  await go(page, '/checkouts');
  const twin = await page
    .locator('main')
    .getByRole('row', { name: /ZP-PDO/ })
    .getByRole('link')
    .first()
    .getAttribute('href');
  await go(page, `${twin ?? ''}/sign`);
  await page.getByRole('link', { name: /You are out of recency to teach this type/ }).click();
  await page.waitForURL('**/account');
  await expect(page.getByRole('row', { name: /Planalto P2/ }).first()).toContainText('out of recency: three landings');
  await page.getByLabel('Type', { exact: true }).selectOption({ label: 'Planalto P2' });
  await page.getByLabel('Landings', { exact: true }).fill('3');
  await page.getByLabel('of them full stops').fill('4');
  await page.getByRole('button', { name: 'Log this flight' }).click();
  await expect(page.getByText('There cannot be more full stops than landings.')).toBeVisible();
  await page.getByLabel('of them full stops').fill('3');
  await page.getByLabel('Take-offs').fill('3');
  await page.getByRole('button', { name: 'Log this flight' }).click();
  await expect(page.getByText('Logged.')).toBeVisible();
  await expect(page.getByRole('row', { name: /Planalto P2/ }).first()).toContainText('recent to');
  await go(page, `${twin ?? ''}/sign`);
  await expect(page.getByText('You have no flight with this pilot in this type.')).toBeVisible();
  await expect(page.getByText('You are out of recency')).toHaveCount(0);
  await context.close();
});
