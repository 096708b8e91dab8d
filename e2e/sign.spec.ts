import { execFileSync } from 'node:child_process';
import { PASSWORD, as, checkoutOf, expect, go, test } from './help';

test.use({ spec: 'sign' });

test('two tabs signing the same checkout make one entry, and the ledger still checks', async ({
  browser,
  baseURL,
  server,
}) => {
  const context = await browser.newContext({ baseURL });
  const one = await as(context, 'helena');
  const sign = `${await checkoutOf(one, 'Rui Casal Ferro')}/sign`;
  await go(one, '/ledger');
  // Other walks sign on the same server: one more than before, whatever that was.
  const entries = Number(/all (\d+) entries/.exec(await one.getByText('Checked just now').innerText())?.[1]) + 1;
  const two = await context.newPage();
  for (const page of [one, two]) {
    await go(page, sign);
    await page.getByLabel('Your password').fill(PASSWORD);
  }
  await Promise.all([one, two].map((page) => page.getByRole('button', { name: 'Sign this checkout' }).click()));
  await Promise.all([one, two].map((page) => page.waitForURL(/\/ledger\/[0-9a-f-]{36}$/)));
  expect(one.url()).toBe(two.url());
  await go(one, '/ledger');
  await expect(one.getByText(`Checked just now: all ${entries} entries`)).toBeVisible();
  const said = execFileSync(process.execPath, ['node_modules/tsx/dist/cli.mjs', 'scripts/verify-ledger.ts'], {
    encoding: 'utf8',
    env: { ...process.env, JEITO_DATA: server.dataFolder },
  });
  expect(said).toContain(`The ledger is whole: ${entries} entries.`);
  await go(one, sign);
  await expect(one.getByText('This checkout is in the ledger.')).toBeVisible();
  await context.close();
});

test('what is missing is named and leads to where it is done', async ({ browser, baseURL }) => {
  const context = await browser.newContext({ baseURL });
  const page = await as(context, 'bento');
  await go(page, `${await checkoutOf(page, 'Joana Pires Atalaia')}/sign`);
  await expect(
    page.getByRole('link', { name: /the go-around trigger was met and the approach continued/ }),
  ).toBeVisible();
  await expect(page.getByRole('button', { name: /Not ready/ })).toBeDisabled();
  await page.getByText('Waive an item').click();
  await page.getByLabel('Reason', { exact: true }).fill('short');
  await page.getByRole('button', { name: 'Waive with this reason' }).click();
  await expect(page.getByText('Give the handbook page or paragraph that advises against it.')).toBeVisible();
  // What was typed outlives a reload.
  await page.reload();
  await page.getByText('Waive an item').click();
  await expect(page.getByLabel('Reason', { exact: true })).toHaveValue('short');
  await page.getByLabel('Reason', { exact: true }).fill('Handbook 4.5 advises against wheel landings');
  await page.getByRole('button', { name: 'Waive with this reason' }).click();
  await expect(page.getByText('waived: Handbook 4.5 advises against wheel landings')).toBeVisible();
  await context.close();
});
