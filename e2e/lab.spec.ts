import { as, checkoutOf, expect, go, test } from './help';

test.use({ spec: 'lab' });

test('every page of the lab answers in a sentence, and the sentence follows what is set', async ({
  browser,
  baseURL,
}) => {
  const context = await browser.newContext({ baseURL });
  const page = await as(context, 'helena');
  const answer = page.getByTestId('lab-answer').first();

  await go(page, '/lab/ground?type=serrana-carvalho');
  await expect(answer).toContainText('it comes back');
  await page.getByText('continuous', { exact: true }).click();
  await page.getByRole('slider', { name: 'Foot behind the eye' }).fill('0.6');
  await expect(answer).toContainText(/ground loop|weave grow|off the edge/);
  await expect(page).toHaveURL(/feet=continuous/);
  await page.reload();
  await expect(answer).toContainText(/ground loop|weave grow|off the edge/);
  await page.getByRole('button', { name: 'Compare' }).click();
  await page.getByText('short, firm', { exact: true }).click();
  await page.getByRole('slider', { name: 'Foot behind the eye' }).fill('0.2');
  await expect(page.getByTestId('lab-answer').nth(1)).toContainText('it comes back');
  await page.getByRole('slider', { name: 'Time' }).fill('1');
  await expect(page.getByRole('slider', { name: 'Time' })).toHaveAttribute('aria-valuetext', /^1\.0 s/);
  await page.getByText('As a table: the roll, every half second').first().click();
  await expect(page.getByRole('table', { name: 'The roll, every half second', exact: true })).toContainText('right');

  await go(page, '/lab/ground?type=serrana-urze&steering=free');
  await page.getByRole('button', { name: 'Make the map' }).click();
  await page.getByRole('button', { name: 'Stop', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Make the map', exact: true })).toBeVisible();
  await page.getByRole('button', { name: 'Make the map' }).click();
  await expect(page.getByRole('img', { name: /not even the earliest foot|foot up to/ })).toBeVisible({
    timeout: 60_000,
  });

  await go(page, '/lab/take-off?type=serrana-urze&foot=follows&xw=-8');
  await expect(answer).toContainText(/Lost after|Off the edge/);
  await page.getByText('with the power', { exact: true }).click();
  await expect(answer).toContainText('It flies at');
  await page.getByText('As a table: foot that full power and wind ask for').click();
  await expect(page.getByRole('columnheader', { name: '8 kt from the left' })).toBeVisible();
  await go(page, '/lab/touch?type=bronze-b15&power=bounce');
  await expect(page.getByText(/Full power at once rolls it \d+° to the left/)).toBeVisible();

  await go(page, '/lab/touch?type=serrana-carvalho&attitude=wheel&ratio=1.2&sink=300&hands=push');
  await expect(answer).toContainText('It gets worse');
  await expect(page.getByRole('img', { name: /It gets worse/ })).toBeVisible();

  await go(page, '/lab/crosswind?type=serrana-urze&xw=9&gust=14');
  await expect(answer).toContainText('14\u00a0kt is above the school limit of 12\u00a0kt: not today.');
  await page.getByRole('slider', { name: 'Wind from, off the nose' }).fill('135');
  await expect(page.getByText('stick to the left, elevator forward')).toBeVisible();

  await go(page, '/lab/side-picture?type=serrana-urze&height=900&spacing=900');
  // atan(274.3/900): 17 degrees.
  await expect(answer).toContainText('17° below the horizon');
  await go(page, '/lab/side-picture?type=planalto-p1r');
  await expect(page.getByRole('heading', { name: 'Not on the sheet of Planalto P1R' })).toBeVisible();

  await go(page, '/lab/slip?type=serrana-urze');
  await expect(answer).toContainText('A full slip at 58\u00a0mph loses');

  await go(page, '/lab/slow-approach?type=serrana-esteva');
  await expect(answer).toContainText('Not yet');
  await page.getByLabel('Speed, kt').fill('x');
  await page.getByRole('button', { name: 'Add trial' }).click();
  await expect(page.getByText('Enter the speed of the trial, kt, off the dial.')).toBeVisible();
  await page.getByLabel('Speed, kt').fill('46');
  await page.getByRole('button', { name: 'Add trial' }).click();
  await expect(page.getByRole('table', { name: 'Trials at height' })).toContainText('fully arrested');
  await expect(page).toHaveURL(/trials=46-0-f/);
  await context.close();
});

test('a page of the lab goes into the brief, is saved with it and stands on the card; a finding opens its page', async ({
  browser,
  baseURL,
}) => {
  const context = await browser.newContext({ baseURL });
  const page = await as(context, 'helena');
  const checkout = await checkoutOf(page, 'Duarte Sá Nogal');
  const id = checkout.split('/').pop() ?? '';
  await go(page, `/lab/ground?checkout=${id}&steering=free&speed=38&foot=1`);
  const said = (await page.getByTestId('lab-answer').first().textContent()) ?? '';
  await page.getByRole('button', { name: 'Put into the brief' }).click();
  await expect(page).toHaveURL(/\/brief$/);
  await expect(page.getByRole('heading', { name: 'From the lab' })).toBeVisible();
  await page.getByRole('button', { name: 'Save new version' }).click();
  await page.waitForURL('**/fly');
  await go(page, `${checkout}/brief`);
  await expect(page.getByRole('article').getByText(said.trim())).toBeVisible();
  await page.getByRole('link', { name: 'Card' }).click();
  await expect(page.getByText('From the lab: a model, not the flight manual').first()).toBeVisible();

  await go(page, `${checkout}/plan`);
  await page.getByRole('link', { name: 'See it in the lab' }).click();
  await expect(page.getByTestId('lab-answer').first()).toBeVisible();

  await go(page, `${checkout}/debrief`);
  const link = page.getByRole('link', { name: 'See it in the lab' }).first();
  await link.click();
  await expect(page.getByTestId('lab-answer').first()).toBeVisible();
  await expect(page).toHaveURL(/finding=/);
  await context.close();
});

test('the chief asks for pages of the lab, and puts what trials support on the sheet', async ({ browser, baseURL }) => {
  const context = await browser.newContext({ baseURL });
  const page = await as(context, 'bento');
  const trials = [0, 20]
    .flatMap((power) => Array.from({ length: 20 }, (_, i) => `${36 + i}-${power}-${36 + i >= 44 ? 'f' : 'n'}`))
    .join('_');
  await go(page, `/lab/slow-approach?type=serrana-esteva&trials=${trials}`);
  await expect(page.getByTestId('lab-answer').first()).toContainText('Trial result');
  await page.getByRole('button', { name: 'Put on the sheet as measured' }).click();
  await expect(page.getByText('Say why, in a few words')).toBeVisible();
  await page.getByLabel('Reason for the new version').fill('Trials of November');
  await page.getByRole('button', { name: 'Put on the sheet as measured' }).click();
  await expect(page.getByText(/On the sheet as measured, version \d+/)).toBeVisible();

  await go(page, '/rules/programme/tailwheel-us');
  await page.getByText('Add a school item').first().click();
  await page.getByLabel('Where', { exact: true }).selectOption({ label: 'on the ground' });
  await page.getByLabel('How it counts').selectOption('pages');
  await page.getByLabel('Item', { exact: true }).fill('Why it swerves');
  await page.getByLabel('What is shown').fill('Reads the page before the first landings.');
  await page.getByLabel('Reason for the new version').fill('Before the first landings');
  await page.getByRole('button', { name: 'Add item' }).click();
  await expect(page.getByText('Choose at least one page.')).toBeVisible();
  await page.getByLabel('Straight or swerving').check();
  await page.getByRole('button', { name: 'Add item' }).click();
  await expect(page.getByText(/added: version \d+/)).toBeVisible();
  await context.close();
});
