import { as, checkoutOf, expect, go, mail, prepareDevice, signIn, test, PASSWORD } from './help';

test.use({ spec: 'access' });

test('without a session every page leads to sign-in, every API answers alike', async ({ page, request }) => {
  for (const path of [
    '/board',
    '/board/week',
    '/checkouts',
    '/checkouts/new',
    '/checkouts/00000000-0000-4000-8000-000000000000/sign',
    '/ledger',
    '/people',
    '/hangar',
    '/rules',
    '/rules/house/house',
    '/account',
    '/schedule',
    '/schedule/times',
    '/settings',
    '/notices',
    '/people/pilot-ines',
    '/people/new',
    '/people/pilot-ines/import',
  ]) {
    await page.goto(path);
    await expect(page).toHaveURL(
      path === '/board' ? /\/sign-in$/ : new RegExp(`/sign-in\\?back=${encodeURIComponent(path)}$`),
    );
  }
  const bodies = await Promise.all(
    [
      '/api/sorties/x',
      '/api/ledger/x/pdf',
      '/api/ledger/x/json',
      '/api/ledger/export',
      '/api/checkouts/x/booklet',
      '/api/people/x/logbook',
      '/api/people/x/record',
      '/api/rules/house/house',
      '/api/palette',
      '/api/bookings/x/ics',
      '/api/calendar/x.ics',
    ].map(async (p) => {
      const r = await request.get(p);
      return `${r.status()} ${await r.text()}`;
    }),
  );
  expect(new Set(bodies)).toEqual(new Set(['404 {"message":"Not found, or you do not have access."}']));
  expect((await request.post('/api/sync', { data: { events: [] } })).status()).toBe(401);
});

test('a pilot sees what is theirs, and the same answer for what exists and what does not', async ({
  browser,
  baseURL,
}) => {
  const context = await browser.newContext({ baseURL });
  const desk = await as(context, 'helena');
  const foreign = await checkoutOf(desk, 'Inês Vale Carmo');
  const ledger = (await desk.request.get('/api/palette')).status();
  expect(ledger).toBe(200);
  const other = await browser.newContext({ baseURL });
  const pilot = await as(other, 'duarte');
  await expect(pilot.getByRole('link', { name: 'People' })).toHaveCount(0);
  await expect(pilot.getByRole('link', { name: 'New checkout' })).toHaveCount(0);
  const answers: string[] = [];
  for (const path of [
    foreign,
    `${foreign}/brief`,
    `${foreign}/debrief`,
    `${foreign}/sign`,
    `${foreign}/differences`,
    `/lab/sight-picture?checkout=${foreign.split('/').pop() ?? ''}`,
    `/lab/circuit?checkout=${foreign.split('/').pop() ?? ''}`,
    '/lab/ground?type=none',
    '/checkouts/00000000-0000-4000-8000-000000000000',
    '/people',
    '/people/pilot-clara',
    '/people/nobody',
    '/people/new',
    '/people/pilot-clara/import',
    '/checkouts/new',
    '/ledger/00000000-0000-4000-8000-000000000000',
    '/hangar/none',
  ]) {
    const response = await pilot.goto(path);
    answers.push(`${response?.status()} ${await pilot.locator('main').first().innerText()}`);
  }
  expect(new Set(answers).size).toBe(1);
  expect(answers[0]).toContain('Not found, or you do not have access');
  await go(pilot, await checkoutOf(pilot, 'Duarte Sá Nogal'));
  await expect(pilot.getByRole('button', { name: 'Sign this checkout' })).toHaveCount(0);
  await context.close();
  await other.close();
});

test('an instructor sees their own checkout as a pilot', async ({ browser, baseURL }) => {
  const context = await browser.newContext({ baseURL });
  const vasco = await as(context, 'vasco');
  const own = await checkoutOf(vasco, 'Vasco Teles Brito');
  await go(vasco, `${own}/sign`);
  await expect(vasco.getByText('The instructor signs when every item has its evidence.')).toBeVisible();
  await expect(vasco.getByLabel('Your password')).toHaveCount(0);
  await go(vasco, `${own}/brief`);
  await expect(vasco.getByRole('button', { name: /Save/ })).toHaveCount(0);
  await go(vasco, '/checkouts/new');
  await expect(
    vasco.getByLabel('Pilot', { exact: true }).getByRole('option', { name: 'Vasco Teles Brito' }),
  ).toHaveCount(0);
  await context.close();
});

test('bad sign-ins say what to do, keep what was typed, and slow down', async ({ page }) => {
  await go(page, '/sign-in');
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page.getByText('Type your e-mail address')).toBeVisible();
  for (let i = 0; i < 7; i++) {
    await signIn(page, 'nuno', `wrong ${i}`);
    await expect(page.getByRole('alert').filter({ hasText: /do not match|Too many tries/ })).toBeVisible();
    await expect(page.getByLabel('E-mail')).toHaveValue(mail('nuno'));
  }
  await expect(page.getByText(/Too many tries\. Wait \d+ s/)).toBeVisible();
});

test('the session cookie cannot be read by a page, and another site cannot write', async ({ browser, baseURL }) => {
  const context = await browser.newContext({ baseURL });
  const page = await as(context, 'helena');
  const cookie = (await context.cookies()).find((c) => c.name === 'jeito_session');
  expect(cookie).toMatchObject({ httpOnly: true, sameSite: 'Lax' });
  const foreign = await page.request.post('/api/sync', {
    headers: { origin: 'https://elsewhere.example', 'sec-fetch-site': 'cross-site' },
    data: { events: [] },
  });
  expect(foreign.status()).toBe(404);
  const home = await page.request.post('/api/sync', { data: { events: [] } });
  expect(await home.json()).toEqual({ accepted: [], refused: [], held: [], skewMs: null });
  for (const data of ['not json', '[]', '{"events":3}'])
    expect(
      (await page.request.post('/api/sync', { headers: { 'content-type': 'application/json' }, data })).status(),
    ).toBe(400);
  const kept = await context.cookies();
  await page.getByRole('button', { name: 'Sign out' }).click();
  await page.waitForURL('**/sign-in');
  // A copy of the cookie, kept elsewhere, is dead with it.
  const copy = await browser.newContext({ baseURL });
  await copy.addCookies(kept);
  expect((await copy.request.get('/api/palette')).status()).toBe(404);
  // Its page says why it ended, and leads back to where one was.
  const other = await copy.newPage();
  await go(other, '/people?show=soon');
  await expect(other.getByText(/^Your session has ended/)).toBeVisible();
  await other.getByLabel('E-mail').fill('helena@pedra-alva.example');
  await other.getByLabel('Password').fill(PASSWORD);
  await other.getByRole('button', { name: 'Sign in' }).click();
  await expect(other).toHaveURL(/\/people\?show=soon$/);
  await copy.close();
  await page.goto('/board');
  await expect(page).toHaveURL(/\/sign-in$/);
  await context.close();
});

test('on a shared device a flight asks who is recording, once, when somebody else has signed in since', async ({
  browser,
  baseURL,
}) => {
  const context = await browser.newContext({ baseURL });
  const helena = await as(context, 'helena');
  await prepareDevice(helena, await checkoutOf(helena, 'Duarte Sá Nogal'));
  const flight = helena.url();
  await go(helena, '/board');
  await helena.getByRole('button', { name: 'Sign out' }).click();
  await helena.waitForURL('**/sign-in');
  await signIn(helena, 'vasco');
  await helena.waitForURL('**/board');
  await expect.poll(() => helena.evaluate(() => localStorage.getItem('jeito-account'))).toContain('vasco');
  await helena.goto(flight);
  await expect(helena.getByRole('heading', { name: 'Who is recording?' })).toBeVisible();
  await expect(helena.getByText(/in the name of Helena/)).toBeVisible();
  await helena.getByRole('button', { name: /Helena .* is recording/ }).click();
  await expect(helena.getByRole('button', { name: /Log the wind/ })).toBeVisible();
  await helena.reload();
  await expect(helena.getByRole('button', { name: /Log the wind/ })).toBeVisible();
  // What others took along is not listed for the one who signed in last.
  await helena.goto('/fly');
  await expect(helena.getByText('No flight on this device yet.')).toBeVisible();
  await context.close();
});
