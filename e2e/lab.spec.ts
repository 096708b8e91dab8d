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

  await go(page, `${checkout}/debrief`);
  const link = page.getByRole('link', { name: 'See it in the lab' }).first();
  await link.click();
  await expect(page.getByTestId('lab-answer').first()).toBeVisible();
  await expect(page).toHaveURL(/finding=/);
  await context.close();
});
