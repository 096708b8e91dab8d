import { allSent, as, checkoutOf, enterRelease, expect, go, landing, prepareDevice, tap, test, view } from './help';

test.use({ spec: 'week' });
const DUARTE = 'Duarte Sá Nogal';
const tablet = { width: 820, height: 1180 };

// First, while nobody shares the flight: what is recorded belongs to who flies.
test('an item of the school’s own is asked in an open checkout at once, and offered to the others', async ({
  browser,
  baseURL,
}) => {
  const chief = await as(await browser.newContext({ baseURL }), 'bento');
  await go(chief, '/rules/programme/tailwheel-us');
  const form = chief.getByRole('form', { name: 'Add a school item' });
  await form.getByRole('button', { name: 'Add item' }).click();
  for (const asked of ['Name the item.', 'Say in a sentence what is shown.', 'Say why, in a few words.'])
    await expect(form.getByText(asked)).toBeVisible();
  await form.getByLabel('Item', { exact: true }).fill('Gliders on the field');
  await form.getByLabel('What is shown').fill('Lands long behind a glider that has just landed, and says so.');
  await form.getByLabel('Times').fill('two');
  await form.getByRole('button', { name: 'Add item' }).click();
  await expect(form.getByText('Say how many times.')).toBeVisible();
  await form.getByLabel('Times').fill('1');
  await form.getByLabel('Reason for the new version').fill('The gliding club flies from our strip');
  await form.getByLabel(new RegExp(`^${DUARTE}`)).check();
  await form.getByRole('button', { name: 'Add item' }).click();
  await expect(form.getByText('TA-H1 added: version 2. Asked in 1 open checkout.')).toBeVisible();
  await expect(chief.getByRole('row', { name: /TA-H1 Gliders on the field/ })).toBeVisible();
  await chief.context().close();

  const page = await as(await browser.newContext({ baseURL, viewport: tablet }), 'helena');
  const duarte = await checkoutOf(page, DUARTE);
  await prepareDevice(page, duarte);
  await view(page, 'Airwork');
  await page.getByRole('button', { name: /^TA-H1 Gliders on the field/ }).click();
  await tap(page, 'TA-H1 how it went', 'in standard');
  await tap(page, 'TA-H1 who flew it', /^unassisted/);
  await expect(page.getByText(/TA-H1 saved: within/)).toBeVisible();
  await view(page, 'Landings');
  await expect(page.getByText(/\d+ on this device, \d+ sent$/)).toBeVisible({ timeout: 20_000 });
  await expect(async () => {
    await go(page, `${duarte}/sign`);
    await expect(page.getByRole('row', { name: /TA-H1 Gliders on the field/ })).toContainText('seen once', {
      timeout: 1000,
    });
  }).toPass();
  // Another checkout keeps its version until its instructor takes the new one.
  const clara = await checkoutOf(page, 'Clara Moita Reis');
  await go(page, `${clara}/sign`);
  await expect(page.getByText('Gliders on the field')).toHaveCount(0);
  await go(page, clara);
  await expect(page.getByText('The school has changed this programme')).toBeVisible();
  await page.getByLabel('Reason').fill('She flies here on club days');
  await page.getByRole('button', { name: 'Take version 2' }).click();
  await expect(page.getByText('The school has changed this programme')).toHaveCount(0);
  await go(page, `${clara}/sign`);
  await expect(page.getByRole('row', { name: /TA-H1 Gliders on the field/ })).toContainText('not seen yet');
  await page.context().close();
});

test('a second pilot is chosen in the cockpit and flies at once; a flight cut short says why', async ({
  browser,
  baseURL,
}) => {
  const context = await browser.newContext({ baseURL, viewport: tablet });
  const page = await as(context, 'helena');
  const checkout = await checkoutOf(page, DUARTE);
  await prepareDevice(page, checkout);
  await page.getByRole('button', { name: /Second pilot/ }).click();
  const sheet = page.getByRole('dialog', { name: 'Second pilot on this flight' });
  await sheet.getByRole('button', { name: /^Clara Moita Reis/ }).click();
  await expect(sheet.getByText('Clara Moita Reis shares this flight.', { exact: false })).toBeVisible();
  await sheet.getByRole('button', { name: 'Done' }).click();
  await landing(page, 'three-point');
  await tap(page, 'Who flies now', 'Clara');
  await landing(page, 'three-point');
  const row = (name: string) => page.locator('.sofar').getByRole('row', { name: new RegExp(`^${name}`) });
  await expect(row('Duarte')).toHaveText(/Duarte\s*1\s*1\s*1\s*0\s*0/);
  await expect(row('Clara')).toHaveText(/Clara\s*1\s*1\s*1\s*0\s*0/);
  // One cue for the next landing stands beside its number, and what is said of a saved one says what it counts for.
  await page.getByText('One cue for the next landing').click();
  await tap(page, 'One cue for the next landing', 'hold it off');
  await expect(page.getByText('Cue: hold it off').first()).toBeVisible();
  await page.getByRole('button', { name: /^Flight clock/ }).click();
  await tap(page, 'Cut short by', 'weather');
  await page.getByRole('dialog').getByRole('button', { name: 'Done' }).click();
  await allSent(page, 2);
  // Without a network nothing is changed, and it says so.
  await context.setOffline(true);
  await page.getByRole('button', { name: 'Second pilot on this flight' }).click();
  await expect(sheet.getByText(/^No network: a second pilot is chosen with one/)).toBeVisible();
  await context.setOffline(false);
  await page.waitForTimeout(500);

  await go(page, `${checkout}/debrief`);
  await expect(page.getByText(/Cut short: weather\./)).toBeVisible();
  await expect(page.getByText('Best and worst landing: after the pilot has said which they were')).toBeVisible();
  await go(page, await checkoutOf(page, 'Clara Moita Reis'));
  await expect(page.getByRole('table', { name: 'Lessons' })).toContainText('taught by');
  await context.close();
});

test('a limit seen exceeded is two taps: grounded on the board, held at the signature, released by the chief', async ({
  browser,
  baseURL,
}) => {
  const context = await browser.newContext({ baseURL, viewport: tablet });
  const page = await as(context, 'helena');
  const checkout = await checkoutOf(page, DUARTE);
  await prepareDevice(page, checkout);
  await page.getByRole('button', { name: 'Limit exceeded' }).click();
  await tap(page, 'Limit exceeded', 'load factor');
  await expect(page.getByRole('status').filter({ hasText: 'load factor exceeded: saved.' })).toBeVisible();
  await view(page, 'Airwork');
  await expect(page.getByRole('button', { name: 'Limit exceeded' })).toBeVisible();
  await expect(async () => {
    await go(page, '/board');
    await expect(page.locator('#limits')).toContainText('How far was not measured.', { timeout: 1000 });
  }).toPass();
  await expect(page.locator('#limits')).toContainText('Not released.');
  await go(page, `${checkout}/sign`);
  await expect(page.getByText(/load factor, seen by eye/)).toBeVisible();
  await go(page, `${checkout}/fly`);
  await expect(page.getByText('The aeroplane is grounded: no flight is taken.')).toBeVisible();
  await context.close();
  const chief = await as(await browser.newContext({ baseURL }), 'bento');
  await enterRelease(chief, 'load factor');
  await go(chief, `${checkout}/fly`);
  await expect(chief.getByText('The aeroplane is grounded')).toHaveCount(0);
  await chief.context().close();
});

test('a lesson flown by another instructor is handed over in three lines, and its aim was said when it was booked', async ({
  browser,
  baseURL,
}) => {
  const context = await browser.newContext({ baseURL, viewport: tablet });
  const bento = await as(context, 'bento');
  const checkout = await checkoutOf(bento, 'Clara Moita Reis');
  await go(bento, `${checkout}/brief`);
  await bento.getByRole('button', { name: /^Save (brief|new version)/ }).click();
  await bento.waitForURL('**/fly');
  await prepareDevice(bento, checkout);
  await landing(bento, 'three-point');
  await allSent(bento, (await bento.getByText(/\d+ on this device/).innerText()).startsWith('1 ') ? 1 : 2);
  await go(bento, `${checkout}/debrief`);
  await expect(bento.getByText(/Taught by Bento Quadra Luz\./)).toBeVisible();
  await bento.getByLabel('Done', { exact: true }).fill('Five three-point landings');
  await bento.getByLabel('Next', { exact: true }).fill('Wheel landings, left crosswind');
  await bento.getByRole('button', { name: /^Hand over to/ }).click();
  await expect(bento.getByText('A few words, or “nothing”.')).toBeVisible();
  await bento.getByLabel('Watch', { exact: true }).fill('Feet late on power');
  await bento.getByRole('button', { name: /^Hand over to/ }).click();
  await expect(bento.getByRole('heading', { name: /^Handover after lesson/ })).toBeVisible();
  await context.close();

  const helena = await as(await browser.newContext({ baseURL }), 'helena');
  await go(helena, `${checkout}/brief`);
  await expect(helena.getByRole('heading', { name: /^Handover after lesson \d, from Bento/ })).toBeVisible();
  await expect(helena.getByText('Feet late on power')).toBeVisible();
  await go(helena, checkout);
  await expect(helena.getByRole('table', { name: 'Lessons' })).toContainText('Bento Quadra Luz');
  await helena.context().close();
});

test('the aeroplane is swapped: its own sheet is briefed, lessons flown keep theirs, its speeds are asked again', async ({
  browser,
  baseURL,
}) => {
  const context = await browser.newContext({ baseURL });
  const page = await as(context, 'helena');
  const checkout = await checkoutOf(page, 'Rui Casal Ferro');
  await go(page, checkout);
  const taught = page.getByRole('table', { name: 'Lessons' });
  await expect(taught).not.toContainText(' in ZP-');
  await go(page, `${checkout}/brief`);
  await page.getByText(/Another aeroplane of the type$/).click();
  await page.getByRole('button', { name: 'Go on in this aeroplane' }).click();
  await expect(page.getByText('Choose the aeroplane.')).toBeVisible();
  const other = await page.locator('#swap-airframe option').nth(1).innerText();
  await page.getByLabel('Aeroplane', { exact: true }).selectOption({ label: other });
  await page.getByLabel('Reason', { exact: true }).fill('Ours is in maintenance');
  await page.getByRole('button', { name: 'Go on in this aeroplane' }).click();
  const registration = other.slice(0, 6);
  await expect(page.getByText(new RegExp(`^Flown in ${registration}`))).toBeVisible();
  await page.getByRole('button', { name: /^Save (brief|new version)/ }).click();
  await page.waitForURL('**/fly');
  await expect(page.getByRole('button', { name: 'Prepare this device' })).toBeVisible();
  await go(page, checkout);
  await expect(taught).toContainText(/ in ZP-/);
  await context.close();
});
