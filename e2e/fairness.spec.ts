import {
  PASSWORD,
  as,
  checkoutOf,
  expect,
  flownLesson,
  go,
  hydrated,
  logWind,
  prepareDevice,
  programmeOf,
  tap,
  test,
  view,
} from './help';

test.use({ spec: 'fairness' });
const DUARTE = 'Duarte Sá Nogal';

test('further training holds the signature until each named item was flown again, then it is signed', async ({
  browser,
  baseURL,
}) => {
  test.setTimeout(240_000);
  const contexts = await Promise.all([0, 1].map(() => browser.newContext({ baseURL })));
  const [desk, pilot] = await Promise.all([as(contexts[0] as never, 'helena'), as(contexts[1] as never, 'rui')]);
  const checkout = await checkoutOf(desk, 'Rui');
  await go(desk, `${checkout}/sign`);
  await expect(desk.getByRole('heading', { level: 1 })).toHaveText('Everything is there to sign');
  await desk.getByText('Enter further training').first().click();
  await desk
    .getByLabel('What is to be trained, and why')
    .fill('The wing came up in the gust: crosswind landings again.');
  await desk.getByLabel('Password for this entry').fill(PASSWORD);
  await desk.getByRole('button', { name: 'Enter further training' }).click();
  // Nothing chosen is said beside the list, and nothing typed is lost.
  await expect(desk.getByText('Choose what is to be flown or shown again.')).toBeVisible();
  await desk.getByRole('checkbox', { name: 'F7 Crosswind landings' }).check();
  await desk.getByRole('button', { name: 'Enter further training' }).click();
  await desk.waitForURL(/\/ledger\/[0-9a-f-]{36}$/);
  // It stands on checkout, plan, board and sign page.
  for (const page of ['', '/plan', '/sign']) {
    await go(desk, `${checkout}${page}`);
    await expect(desk.getByRole('note').filter({ hasText: 'Further training was entered by Helena' })).toContainText(
      'F7 Crosswind landings',
    );
  }
  await expect(desk.getByRole('button', { name: /Not ready/ })).toBeDisabled();
  await expect(desk.getByRole('link', { name: /F7 Crosswind landings: further training was entered/ })).toBeVisible();
  await expect(desk.getByText('Override an item')).toHaveCount(0);
  await go(desk, '/board');
  await expect(desk.getByText(/^Further training: F7 again before anybody signs/)).toBeVisible();

  const whole = programmeOf('tailwheel');
  const again = { ...whole, items: whole.items.filter((i) => i.id === 'F7') };
  await flownLesson(desk, pilot, checkout, 'user-helena', '2026-11-24', '22', again, [], false, '15:10:00Z');
  await go(desk, `${checkout}/sign`);
  await expect(desk.getByRole('heading', { level: 1 })).toHaveText('Everything is there to sign');
  await expect(desk.getByRole('note').filter({ hasText: 'Further training' })).toHaveCount(0);
  await desk.getByLabel('Your password', { exact: true }).fill(PASSWORD);
  await desk.getByRole('button', { name: 'Sign this checkout' }).click();
  await desk.waitForURL(/\/ledger\/[0-9a-f-]{36}$/);
  await expect(desk.getByRole('heading', { level: 1 })).toHaveText(/^Sign-off \d+: Rui/);
  // Each kind is counted apart.
  await expect(desk.getByText(/\d+ full stops and 5 go-arounds over 7 lessons/)).toBeVisible();
  await Promise.all(contexts.map((c) => c.close()));
});

test('a go-around with where it began and why; help against own is asked; what is taken back stays in sight', async ({
  browser,
  baseURL,
}) => {
  const context = await browser.newContext({ baseURL, viewport: { width: 820, height: 1180 } });
  const page = await as(context, 'helena');
  const checkout = await checkoutOf(page, DUARTE);
  await prepareDevice(page, checkout);
  await logWind(page, 7, 8);
  const first = Number(/(\d+)/.exec(await page.getByRole('heading', { level: 1 }).innerText())?.[1]);
  const said = (text: string | RegExp) => expect(page.getByRole('status').filter({ hasText: text })).toBeVisible();
  await tap(page, 'Kind', 'go-around');
  await tap(page, 'Trigger announced by you', 'runway blocked');
  // Announced, it is judged by when it was answered, and is no exercise.
  await expect(page.getByRole('button', { name: 'exercise', exact: true })).toHaveCount(0);
  await page.getByRole('button', { name: 'at the trigger', exact: true }).click();
  await tap(page, 'From where', 'flare');
  await tap(page, 'Why', 'runway');
  await page.getByRole('button', { name: 'All six seen, all good' }).click();
  await tap(page, 'Who flew the go-around', /^unassisted/);
  await page.getByRole('button', { name: 'Save go-around' }).click();
  await said(`Go-around ${first} saved`);

  // Assisted on rudder, then own: which was it?
  await page.getByRole('button', { name: /^Stopped/ }).click();
  await page.getByRole('radio', { name: 'in the box, on the line', exact: true }).click();
  await page.getByRole('button', { name: /^Clean, three-point/ }).click();
  await tap(page, 'Who flew the landing', /^assisted/);
  await tap(page, 'Assisted on', 'rudder');
  await tap(page, 'Who flew the landing', /^unassisted/);
  await page.getByRole('button', { name: 'Save landing' }).click();
  await said(/Assisted on rudder is noted, and unassisted is tapped\./);
  await tap(page, 'Who flew the landing', /^assisted/);
  await page.getByRole('button', { name: 'Save landing' }).click();
  await said(`Landing ${first + 1} saved`);

  // A touch is no low pass.
  await tap(page, 'Kind', 'low pass');
  await page.getByRole('radio', { name: 'in the box, on the line', exact: true }).click();
  await tap(page, 'Who flew the landing', /^unassisted/);
  await page.getByRole('button', { name: 'Save landing' }).click();
  await said(/A low pass does not touch/);
  await tap(page, 'Kind', 'full stop');
  await tap(page, 'Beyond the runway: outside in one tap', 'short of the threshold');
  await page.getByRole('button', { name: 'Save landing' }).click();
  await said(`Landing ${first + 2} saved`);

  // Taken back, it stands as a draft, keeps its number, and the debrief says that it was.
  await page.getByRole('button', { name: 'Undo' }).click();
  await said(`Landing ${first + 2} undone; the debrief shows it.`);
  await expect(page.getByRole('heading', { level: 1 })).toHaveText(`Landing ${first + 2}`);
  await tap(page, 'Beyond the runway: outside in one tap', 'short of the threshold');
  await page.getByRole('button', { name: 'Save landing' }).click();
  await said(`Landing ${first + 2} saved`);
  await expect(page.getByText(/3 on this device, 3 sent/)).toBeVisible({ timeout: 20_000 });

  await go(page, `${checkout}/debrief`);
  await page.locator(`#landing-${first}`).getByRole('button').click();
  await expect(
    page.getByText('A sound decision, at the trigger announced: runway blocked, from the flare, runway; flown well.'),
  ).toBeVisible();
  const changes = page.locator('#changes');
  await expect(changes).toContainText(`Landing ${first + 2} undone by Helena Serpa Dorna`);
  await expect(changes).toContainText('outside in one tap short of the threshold');
  await expect(changes).toContainText('Recorded again under the same number.');
  await context.close();
});

test('airwork alone: debriefed, on the page of all lessons, and the next lesson is planned', async ({
  browser,
  baseURL,
}) => {
  const context = await browser.newContext({ baseURL });
  const page = await as(context, 'helena');
  const checkout = await checkoutOf(page, 'Clara');
  await go(page, `${checkout}/brief`);
  await page.getByLabel('METAR').fill('ZPAV 241425Z 29009KT CAVOK 14/06 Q1019');
  await page.getByLabel('Runway', { exact: true }).selectOption('22');
  await page.getByRole('button', { name: 'Save brief' }).click();
  await page.waitForURL(`**${checkout}/fly`);
  await prepareDevice(page, checkout);
  await view(page, 'Airwork');
  await page.getByRole('button', { name: /^F9 / }).click();
  await page.getByRole('group', { name: 'F9 form' }).getByRole('button', { name: 'Stall', exact: true }).click();
  await tap(page, 'Look-out and checks before it', 'done');
  await expect(page.getByText(/Not judged by what is tapped: recovery not seen/)).toBeVisible();
  await tap(page, 'F9 how it went', 'in standard');
  await tap(page, 'F9 who flew it', /^unassisted/);
  await expect(page.getByText('F9 saved: within.')).toBeVisible();
  await expect(page.getByText(/0 on this device/).first()).toBeVisible();
  await expect(page.getByText(/to send/)).toHaveCount(0, { timeout: 20_000 });
  await go(page, `${checkout}/debrief`);
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Lesson 7: no landing');
  const airwork = page.locator('#airwork');
  await expect(airwork).toContainText('not judged; tapped within');
  await expect(airwork).toContainText('recovery not seen');
  await hydrated(page);
  await page.getByRole('textbox', { name: 'First' }).fill('Look out, then unload');
  await page.getByRole('button', { name: /^Save (this debrief|as a new version)/ }).click();
  await expect(page.getByRole('button', { name: 'Save as a new version' })).toBeVisible();
  await go(page, `${checkout}/progress`);
  await expect(page.getByRole('rowheader', { name: 'F9 Slow flight and stalls' })).toBeVisible();
  await go(page, `${checkout}/plan`);
  await expect(page.getByRole('link', { name: 'Brief lesson 8' })).toBeVisible();
  // What the debrief asked to think of stands in the next brief.
  await go(page, `${checkout}/brief`);
  await expect(page.getByLabel('One thing to focus on')).toHaveValue(/^Look out, then unload/);
  await context.close();
});
