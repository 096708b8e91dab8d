import { rmSync } from 'node:fs';
import { expect, test } from '@playwright/test';
import { type RunningServer, startServer } from '../scripts/lib/server';
import { types } from '../demo/fleet';
import { go } from './help';
import { emptyFolder, setUpLink, strangePages } from './school';

test.use({ actionTimeout: 15_000 });
let folder: string;
let server: RunningServer;
const link = () => setUpLink(folder);
test.beforeAll(() => {
  folder = emptyFolder();
});
test.afterAll(async () => {
  await server.stop();
  rmSync(folder, { recursive: true, force: true });
});

test('an empty folder becomes a school: one link, a chief, an aerodrome; every page works with nothing in it', async ({
  browser,
}) => {
  test.setTimeout(240_000);
  const old = link();
  const token = link();
  expect(token).not.toBeNull();
  expect(token).not.toBe(old);
  server = await startServer(folder);
  const context = await browser.newContext({ baseURL: server.url, reducedMotion: 'reduce' });
  const page = await context.newPage();
  for (const wrong of [old, 'x', `${token}x`])
    expect((await page.goto(`/set-up/${encodeURIComponent(wrong ?? '')}`))?.status(), String(wrong)).toBe(404);
  await go(page, '/set-up');
  await expect(page).toHaveURL(/sign-in/);
  await expect(page.getByText('Demo accounts')).toHaveCount(0);

  await go(page, `/set-up/${token}`);
  await page.getByRole('button', { name: 'Begin' }).click();
  for (const said of ['Give your name.', 'This is no e-mail address', 'Give the mass in kilograms.', 'At least twelve'])
    await expect(page.getByText(said).first()).toBeVisible();
  await page.getByLabel('Name').fill('Noor Vantage');
  await page.getByLabel('E-mail').fill('noor@school.example');
  await page.getByLabel('Your mass').fill('71,5');
  await page.getByLabel('Password', { exact: true }).fill('five quiet herons');
  await page.getByLabel('Password again').fill('five quiet heron');
  await page.getByRole('button', { name: 'Begin' }).click();
  await expect(page.getByText('This is not the same password.')).toBeVisible();
  await page.getByLabel('Password again').fill('five quiet herons');
  await page.getByRole('button', { name: 'Begin' }).click();
  await page.waitForURL('**/set-up');
  expect((await page.goto(`/set-up/${token}`))?.status()).toBe(404);

  // Every other page leads back here until there is an aerodrome.
  await go(page, '/board');
  await expect(page).toHaveURL(/\/set-up$/);
  await page.getByRole('button', { name: 'Save' }).click();
  for (const said of [
    'Give the name of the school.',
    'Give the name.',
    'as the chart names it',
    'Choose the time zone.',
    'Write the lower end',
  ])
    await expect(page.getByText(said).first()).toBeVisible();
  await page.getByLabel('Name of the school').fill('Marsh Flyers');
  await page.getByLabel('Name of the aerodrome').fill('Quiet Marsh');
  await page.getByLabel('Identifier').fill('QM01');
  await page.getByLabel('Rules').selectOption('eu');
  await page.getByLabel('Time zone').selectOption('Europe/Berlin');
  await page.getByLabel('Latitude').fill('52.1');
  await page.getByLabel('Longitude').fill('12,4');
  await page.locator('#p-elevation').fill('180');
  await page.getByLabel('Lower end', { exact: true }).fill('08');
  await page.getByLabel('Its bearing').fill('130');
  await page.getByLabel('Length').fill('800');
  await page.getByLabel('Width').fill('20');
  await page.getByLabel('Surface').selectOption('grass');
  await page.getByLabel('Elevation, lower end').fill('178');
  await expect(page.getByRole('img', { name: /Quiet Marsh, drawn to scale/ })).toBeVisible();
  await page.reload();
  await expect(page.getByLabel('Its bearing')).toHaveValue('130');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('This is 125° magnetic, too far from a runway painted 08.')).toBeVisible();
  await expect(page.getByText('Give the elevation of both ends, or of neither.')).toBeVisible();
  await page.getByLabel('Its bearing').fill('85');
  await page.getByLabel('Elevation, other end').fill('182');
  await page.getByText('Circuit, lights, landmarks').click();
  const end = page.getByRole('group', { name: 'Runway 1, other end' });
  await end.getByLabel('Circuit').selectOption('right');
  await end.getByLabel('Go around if not down by').fill('the mill');
  await end.getByLabel('Slope lights').fill('3');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('Say how far past the threshold it stands.')).toBeVisible();
  await page.locator('#r-0-1-landmark-m').fill('240');
  await expect(page.getByRole('img', { name: /Quiet Marsh, drawn to scale/ })).toContainText('the mill');
  // Half way: another computer goes on.
  const state = await context.storageState();
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByRole('link', { name: 'Go to the board' })).toBeVisible();
  await expect(page.getByRole('listitem').filter({ hasText: 'School and aerodrome' })).toContainText('done');

  const other = await browser.newContext({ baseURL: server.url, storageState: state, reducedMotion: 'reduce' });
  const elsewhere = await other.newPage();
  await go(elsewhere, '/set-up');
  // A pack of one's own is not yet rules of one's own.
  await expect(elsewhere.getByRole('listitem').filter({ hasText: 'School rules' })).not.toContainText('done');
  await expect(elsewhere.getByRole('listitem').filter({ hasText: 'First type' })).not.toContainText('done');
  expect(await strangePages(elsewhere)).toEqual([]);
  // A type comes in by a file; one that is none says so.
  await go(elsewhere, '/hangar');
  await expect(elsewhere.getByText('No types yet')).toBeVisible();
  await elsewhere.getByRole('link', { name: 'New type' }).click();
  await elsewhere.waitForURL('**/hangar/new');
  const file = elsewhere.getByLabel('Type sheet');
  const json = (body: string) => ({ name: 'sheet.json', mimeType: 'application/json', buffer: Buffer.from(body) });
  await file.setInputFiles(json('code: x'));
  await expect(elsewhere.getByText('This file is no JSON.')).toBeVisible();
  await file.setInputFiles(json('{"code":"marsh-one"}'));
  await expect(elsewhere.getByText(/^schema:|^name:/).first()).toBeVisible();
  await file.setInputFiles(json(JSON.stringify({ ...types[2], code: 'marsh-one', name: 'Marsh One', maker: 'Marsh' })));
  await elsewhere.waitForURL('**/hangar/marsh-one');
  await expect(elsewhere.getByRole('heading', { level: 1 })).toContainText('Marsh One');
  // What is given out comes in again.
  const given = await elsewhere.request.get('/api/v1/types/marsh-one');
  await go(elsewhere, '/hangar/new');
  await file.setInputFiles(json((await given.text()).replaceAll('marsh-one', 'marsh-two')));
  await elsewhere.waitForURL('**/hangar/marsh-two');
  await go(elsewhere, '/set-up');
  await expect(elsewhere.getByRole('listitem').filter({ hasText: 'First type' })).toContainText('done');
  await go(elsewhere, '/lab/circuit');
  await elsewhere.getByLabel('Runway', { exact: true }).selectOption('26');
  await expect(elsewhere.getByLabel('Turns', { exact: true })).toHaveValue('right');
  await go(elsewhere, '/settings');
  await expect(elsewhere.getByText(/Quiet Marsh, QM01/)).toBeVisible();
  await expect(elsewhere.getByText(/variation 4\.9° east/)).toBeVisible();
  await context.close();
  await other.close();
});
