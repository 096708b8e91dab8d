import type { BrowserContext } from '@playwright/test';
import { generateSync } from 'otplib';
import { FIXED_NOW } from '../scripts/lib/server';
import { as, expect, go, hydrated, signIn, test } from './help';

test.use({ spec: 'people' });

const CSV =
  'Date;Aircraft Type;Registration;Total time;PIC;Landings day;Landings night;Remarks\n10/11/2026;Alvor C1;ZP-ALV;1:12;1:12;3;0;circuits\n12/11/2026;Alvor C1;ZP-ALV;0:48;0:48;2;1;dusk\n17/11/2026;Serrana Urze;ZP-URZ;0:55;0;7;0;lesson here\n20/09/2026;Tern 2;ZP-TRN;1:20;1:20;2;0;away\n';

test('a pilot reads a logbook in, once; recency and habits follow; it is taken back', async ({ browser, baseURL }) => {
  const context = await browser.newContext({ baseURL });
  const page = await as(context, 'tome');
  await go(page, '/board');
  await page.keyboard.press('Control+k');
  await page.getByRole('combobox').fill('import my logbook');
  await page.getByRole('option', { name: /Import my logbook/ }).click();
  await page.waitForURL('**/import');
  await hydrated(page);
  const file = page.getByLabel(/Logbook as CSV/);
  await file.setInputFiles({ name: 'not.csv', mimeType: 'text/csv', buffer: Buffer.from('hello') });
  await expect(page.getByText(/does not look like a table/)).toBeVisible();
  await file.setInputFiles({ name: 'log.csv', mimeType: 'text/csv', buffer: Buffer.from(CSV) });
  await expect(page.getByText('3 new flights, 2.9 h; 0 already on record; 1 refused.')).toBeVisible();
  await expect(page.getByText('line 5: no type of the list is chosen for \u201cTern 2\u201d')).toBeVisible();
  await page.getByLabel(/^Tern 2/).selectOption({ label: 'another single-engine, tailwheel' });
  await expect(page.getByText('4 new flights, 4.3 h; 0 already on record; 0 refused.')).toBeVisible();
  await page.getByRole('button', { name: /^Import 4 flights/ }).click();
  await page.getByRole('link', { name: 'See current status' }).click();
  await page.waitForURL('**/people/pilot-tome');
  await expect(
    page
      .getByRole('listitem')
      .filter({ hasText: /^passengers, single-engine land(?!,)/ })
      .first(),
  ).toContainText('to 15 Feb 2027');
  await expect(page.getByRole('row', { name: /Tern 2/ })).toBeVisible();
  await expect(page.getByRole('row', { name: /Serrana Urze/ }).first()).toContainText('0.9 h');
  await go(page, '/people/pilot-tome/import');
  await page
    .getByLabel(/Logbook as CSV/)
    .setInputFiles({ name: 'log.csv', mimeType: 'text/csv', buffer: Buffer.from(CSV) });
  await expect(page.getByText('Columns, as in the last file of this form')).toBeVisible();
  await expect(page.getByText('0 new flights, 0 h; 4 already on record; 0 refused.')).toBeVisible();
  await expect(page.getByRole('button', { name: /^Import 0 flights/ })).toBeDisabled();
  await go(page, '/people/pilot-tome');
  await page.getByRole('button', { name: 'undo import log.csv' }).click();
  await expect(page.getByText(/Undone 24 Nov 2026/)).toBeVisible();
  await expect(page.getByRole('row', { name: /Tern 2/ })).toHaveCount(0);
  await context.close();
});

test('the chief adds an instructor who signs in; dates, notes and roles; a person is erased and the ledger stays', async ({
  browser,
  baseURL,
}) => {
  const [one, two] = await Promise.all([browser.newContext({ baseURL }), browser.newContext({ baseURL })]);
  const page = await as(one, 'bento');
  await go(page, '/people/new');
  await page.getByLabel('Name').fill('Otelo Penha Mar');
  await page.getByLabel('E-mail').fill('otelo');
  await page.getByLabel('Mass').fill('81');
  await page.getByLabel('Total hours').fill('900');
  await page.getByLabel('instructor').check();
  await page.getByLabel('tailwheel', { exact: true }).check();
  await page.getByRole('button', { name: 'Add this person' }).click();
  await expect(page.getByText(/This is no e-mail address/)).toBeVisible();
  await page.getByLabel('E-mail').fill('otelo@pedra-alva.example');
  await page.getByRole('button', { name: 'Add this person' }).click();
  const link = await page.locator('.link-text').innerText();
  const password = 'four slow barges';
  await page.getByRole('link', { name: /Open the page of Otelo/ }).click();
  await page.waitForURL('**/people/pilot-*');
  await hydrated(page);
  const dates = page.getByRole('form', { name: 'Dates' });
  await dates.getByRole('button', { name: 'Save date' }).click();
  await expect(dates.getByText('Give the day it was done, or the last day it is valid.')).toBeVisible();
  await dates.getByLabel('Valid to').fill('2026-12-10');
  await dates.getByRole('button', { name: 'Save date' }).click();
  await expect(page.getByRole('listitem').filter({ hasText: 'medical' }).first()).toContainText(
    'to 10 Dec 2026, 16 days',
  );
  // A date that can be two days is said beside its field and applies nothing.
  await page.getByLabel('On the day').fill('11/12/2026');
  await page.getByLabel('On the day').press('Tab');
  await expect(page.getByText('Enter the date as 24 Nov 2026.')).toBeVisible();
  expect(page.url()).not.toContain('on=');
  await page.getByLabel('On the day').fill('2026-12-11');
  await page.waitForURL('**on=2026-12-11');
  await expect(page.getByRole('listitem').filter({ hasText: 'medical' }).first()).toContainText('ended 10 Dec 2026');
  const note = page.getByRole('form', { name: 'Note' });
  await note.getByLabel('Note', { exact: true }).fill('Came from another school.');
  await note.getByRole('button', { name: 'Save note' }).click();
  await expect(page.getByText('Came from another school.')).toBeVisible();
  const his = await two.newPage();
  await go(his, link);
  await his.getByLabel('Password', { exact: true }).fill(password);
  await his.getByLabel('Password again').fill(password);
  await his.getByRole('button', { name: 'Choose it and sign in' }).click();
  await his.waitForURL('**/board');
  await go(
    his,
    page
      .url()
      .replace(/\?.*/, '')
      .replace(/^https?:\/\/[^/]+/, ''),
  );
  await expect(his.getByRole('heading', { level: 1 })).toHaveText('Otelo Penha Mar');
  await expect(his.getByText('Came from another school.')).toHaveCount(0);
  // A password of his own, and the session goes on.
  await go(his, '/account');
  const own = his.getByRole('form', { name: 'Password' });
  await own.getByLabel('Password now').fill(password);
  await own.getByLabel('New password').fill('clear of cloud');
  await own.getByRole('button', { name: 'Change it' }).click();
  await expect(own.getByText('Changed. Other devices have to sign in again.')).toBeVisible();
  await go(his, '/board');
  await expect(his.getByRole('heading', { level: 1 })).toBeVisible();
  // Erased: the name typed wrongly first.
  await go(page, '/people/pilot-amelia');
  await page.getByText('Erase personal data').click();
  await page.getByLabel('Requested by, and why').fill('asked by letter on 20 November');
  await page.getByLabel(/^Type the name/).fill('Amelia');
  await page.getByRole('button', { name: 'Erase permanently' }).click();
  await expect(page.getByText('Type the name exactly as shown above: this cannot be undone.')).toBeVisible();
  await page.getByLabel(/^Type the name/).fill('Am\u00e9lia Torre Seca');
  await page.getByRole('button', { name: 'Erase permanently' }).click();
  await expect(page.getByText(/Erased on 24 Nov 2026: asked by letter/)).toBeVisible();
  await go(page, '/ledger?q=Am%C3%A9lia');
  await expect(page.getByRole('link', { name: /Am\u00e9lia/ }).first()).toBeVisible();
  await Promise.all([one.close(), two.close()]);
});

test('the board: one tap books the flight that keeps recent; the chief edits the aerodrome and sees it drawn; the finder knows people and things to do', async ({
  browser,
  baseURL,
}) => {
  const context = await browser.newContext({ baseURL });
  const page = await as(context, 'bento');
  await expect(page.getByRole('region', { name: 'Next booking' })).toContainText('Teresa Olmo Vidal');
  await expect(page.getByRole('region', { name: 'Next booking' })).toContainText('ZP-URA in service');
  await page
    .getByRole('button', { name: /^Book ZP-\w+ for Bento Quadra Luz/ })
    .first()
    .click();
  await expect(page.getByText(/^Booked \w{3} \d+ \w{3} \d\d:\d\d in ZP-/)).toBeVisible();
  await page.keyboard.press('/');
  await page.getByRole('combobox').fill('zp-cav');
  await expect(page.getByRole('option').first()).toContainText('Gaspar Ribeira Alta');
  await page.getByRole('combobox').fill('lidia pilot');
  await page.getByRole('option', { name: /L\u00eddia Fonte Maior/ }).click();
  await page.waitForURL('**/people/pilot-lidia');
  await go(page, '/rules/aerodrome/ZPAV/edit');
  await page.getByRole('button', { name: 'runways', exact: true }).click();
  await expect(
    page.getByRole('img', { name: /Pedra Alva, drawn to scale.*11 and 29, grass, 620 by 25 m/ }),
  ).toBeVisible();
  const length = page.getByLabel(/^length/).nth(1);
  await length.fill('6');
  await page.getByLabel('Reason').fill('surveyed anew this autumn');
  await page.getByRole('button', { name: 'Save as version 2' }).click();
  await expect(page.getByText('Give a length from 50 to 6000 m.').first()).toBeVisible();
  await length.fill('640');
  await expect(page.getByRole('img', { name: /11 and 29, grass, 640 by 25 m/ })).toBeVisible();
  await page.getByRole('button', { name: 'Save as version 2' }).click();
  await page.waitForURL('**/rules/aerodrome/ZPAV');
  await go(page, '/settings');
  await expect(page.getByText(/11\/29 grass 640 x 25 m/)).toBeVisible();
  await page.getByLabel('A checkout is stalled after').fill('7');
  await page.getByRole('form', { name: 'School' }).getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('Say why, in a few words: the next reader needs it.')).toBeVisible();
  await page.getByRole('form', { name: 'School' }).getByLabel('Reason').fill('lessons should not lie so long');
  await page.getByRole('form', { name: 'School' }).getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText(/Saved as version 3 of the school's rules/)).toBeVisible();
  await go(page, '/schedule/times');
  const down = page.getByRole('form', { name: 'Time away' });
  await down.getByLabel('Who or what').selectOption({ label: 'ZP-URA' });
  await down.getByLabel('Why').fill('tailwheel spring cracked');
  await down.getByRole('button', { name: 'Save time away' }).click();
  await expect(page.getByText('Saved. These bookings must be moved or cancelled')).toBeVisible();
  await go(page, '/board');
  await expect(page.getByRole('region', { name: 'Next booking' })).toContainText(
    'ZP-URA is out of service: tailwheel spring cracked',
  );
  await context.close();
});

test('a second factor by an authenticator, asked for once the password is right; signed out everywhere else', async ({
  browser,
  baseURL,
}) => {
  const [one, two] = await Promise.all([1, 2].map(() => browser.newContext({ baseURL })));
  const page = await as(one as BrowserContext, 'nuno');
  /** What the authenticator shows so many seconds from now, by the server's clock. */
  const shows = (secret: string, seconds = 0) =>
    generateSync({ secret, epoch: Math.floor(Date.parse(FIXED_NOW) / 1000) + seconds });
  await go(page, '/account');
  await page.getByRole('button', { name: 'Set it up' }).click();
  await expect(page.getByRole('img', { name: 'QR code for the authenticator' })).toBeVisible();
  const secret = (await page.locator('.link-text').innerText()).replace(/\s/g, '');
  await page.getByLabel('Code it shows now').fill('12');
  await page.getByRole('button', { name: 'Confirm', exact: true }).click();
  await expect(page.getByText('Six digits, or a recovery code')).toBeVisible();
  await page.getByLabel('Code it shows now').fill(shows(secret));
  await page.getByRole('button', { name: 'Confirm', exact: true }).click();
  await expect(page.locator('.codes li')).toHaveCount(8);
  await page.getByRole('button', { name: 'I have them' }).click();
  await page.reload();
  await expect(page.getByText('A code of your authenticator is asked for at each sign-in.')).toBeVisible();

  const other = await (two as BrowserContext).newPage();
  await signIn(other, 'nuno');
  await expect(other.getByText('Type the six digits of your authenticator')).toBeVisible();
  await other.getByLabel('Code of your authenticator').fill(shows(secret));
  await other.getByRole('button', { name: 'Sign in' }).click();
  await expect(other.getByText('This code does not fit, or was used already.')).toBeVisible();
  await other.getByLabel('Code of your authenticator').fill(shows(secret, 30));
  await other.getByRole('button', { name: 'Sign in' }).click();
  await other.waitForURL('**/board');

  await go(page, '/account');
  await expect(page.getByRole('listitem').filter({ hasText: 'this one' })).toHaveCount(1);
  await page.getByRole('button', { name: 'Sign out everywhere else' }).click();
  await expect(page.getByRole('button', { name: 'Sign out everywhere else' })).toHaveCount(0);
  await other.goto('/board');
  await expect(other).toHaveURL(/sign-in/);
  await Promise.all([one?.close(), two?.close()]);
});
