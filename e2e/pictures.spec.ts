import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import { as, checkoutOf, expect, go, hydrated, prepareDevice, tap, test, view } from './help';

test.use({ spec: 'pictures' });

interface Worked {
  fn: string;
  case: string;
  expected: { lostAtHeightFt: number | null };
}
const worked = (JSON.parse(readFileSync('tests/fixtures/vectors.json', 'utf8')) as { cases: Worked[] }).cases;
const lostAt =
  worked.find((c) => c.fn === 'sight.thresholdLost' && c.case === 'lost on short final')?.expected.lostAtHeightFt ??
  NaN;
const slide = async (page: Page, name: string, value: number) => {
  const slider = page.getByRole('slider', { name, exact: true });
  await slider.focus();
  await slider.fill(String(value));
};

test('the blind nose loses the runway straight in, keeps it with the least offset, and a narrow runway shows a thinner wedge', async ({
  browser,
  baseURL,
}) => {
  const context = await browser.newContext({ baseURL });
  const page = await as(context, 'helena');
  // The geometry of the worked case: 6° from the horizon to the nose, 4° down, aim 60 m in.
  await go(page, '/lab/sight-picture?type=lume-faisca&old=alvor-c1&slope=4&aim=60&pitch=-1');
  await expect(page.getByTestId('straight-in')).toContainText(
    `disappears under the nose at ${Math.ceil(lostAt)} ft; with 3° in hand, never visible`,
  );
  // As the sheet has it: straight in it is lost, and the button flies the offset that keeps it.
  await page.getByRole('button', { name: 'Back to the sheet' }).click();
  await expect(page.getByTestId('straight-in')).toContainText('with 3° in hand, never visible');
  await expect(page.getByTestId('on-path')).toContainText('less than 3° are left');
  await page.getByTestId('least-offset').getByRole('button').click();
  await expect(page.getByTestId('on-path')).toContainText('never disappears under the nose');
  await expect(page).toHaveURL(/offset=1[0-9.]+/);
  // All the way down: the slider speaks, and the table has the same facts.
  for (const t of [0, 0.3, 0.6]) {
    await slide(page, 'Along the approach', t);
    await expect(page.getByRole('img', { name: /Lume Faísca: what will be seen/ })).toHaveAttribute(
      'aria-label',
      /\d+ ft, \d+ m to the aim point/,
    );
  }
  await expect(
    page.getByRole('table', { name: 'The aim point at each gate' }).getByRole('row', { name: /Final/ }),
  ).toContainText('seen');
  await page.getByRole('button', { name: 'Touchdown' }).click();
  await expect(page.getByText('on the ground, three-point attitude').first()).toBeVisible();
  const wedge = async (width: number): Promise<number> =>
    Number.parseFloat(
      (
        await page
          .getByRole('table', { name: 'Wedges by runway width' })
          .getByRole('row', { name: new RegExp(`^${width} m`) })
          .getByRole('cell')
          .nth(1)
          .innerText()
      ).replace(',', '.'),
    );
  await expect(page.getByRole('table', { name: 'Wedges by runway width' })).toHaveAttribute('aria-busy', 'false');
  expect(await wedge(12)).toBeLessThan(await wedge(18));
  expect(await wedge(18)).toBeLessThan(await wedge(40));
  // The link shows the same picture to somebody else.
  await expect(page).toHaveURL(/t=0.9/);
  const other = await context.newPage();
  await go(other, page.url());
  await expect(other.getByText('on the ground, three-point attitude').first()).toBeVisible();
  await context.close();
});

test('300 h on the trainer, checked out on the heavy tailwheel: the first three to drop stand in brief, card and cockpit', async ({
  browser,
  baseURL,
}) => {
  const context = await browser.newContext({ baseURL });
  const page = await as(context, 'bento');
  const checkout = await checkoutOf(page, 'Gaspar Ribeira Alta');
  await go(page, checkout);
  await page.getByRole('link', { name: 'Habits to drop' }).click();
  await page.waitForURL('**/differences');
  await hydrated(page);
  await page.getByLabel('Hours (h)').fill('-1');
  await page.getByRole('button', { name: 'Save hours' }).click();
  await expect(page.getByText('Hours cannot be negative.')).toBeVisible();
  await page.getByLabel('Hours (h)').fill('300');
  await page.getByRole('button', { name: 'Save hours' }).click();
  await expect(page.getByText('Saved. The ranks follow.')).toBeVisible();
  await expect(page.getByText('From Alvor C1 300 h')).toBeVisible();
  // By hand: the swerve that grows and the stick that stays back are opposite reflexes; then feet that rest as power
  // comes.
  await expect(page.getByRole('list', { name: 'First to drop' }).getByRole('heading')).toHaveText([
    'swerve on the ground',
    'tail',
    'rudder with power',
  ]);
  await page.getByRole('link', { name: 'Use in brief' }).click();
  await page.waitForURL('**/brief');
  await hydrated(page);
  const block = page.getByRole('region', { name: 'Habits to drop' });
  await expect(block.getByRole('listitem').first()).toContainText('Do not wait for a swerve to end');
  await page.getByRole('button', { name: /Take the simulated station/ }).click();
  await page.getByRole('button', { name: /^Save (brief|new version)/ }).click();
  await page.waitForURL('**/fly');
  await go(page, `${checkout}/brief`);
  await page.getByRole('link', { name: 'Card', exact: true }).click();
  await page.waitForURL('**/print/kneeboard/*');
  const front = page.getByRole('article', { name: 'Card, front' });
  for (const line of [
    'swerve on the ground: Do not wait',
    'tail: After touchdown the stick goes back',
    'rudder with power: No resting feet',
  ])
    await expect(front).toContainText(line);
  await expect(page.getByRole('article', { name: 'Card, back' }).getByRole('img')).toHaveCount(4);
  await go(page, `${checkout}/fly`);
  await page.getByRole('button', { name: 'Prepare this device' }).click();
  await page.waitForURL('**/fly?sortie=*');
  await view(page, 'Airwork');
  await expect(page.getByRole('region', { name: 'Habits to watch' })).toContainText('Opposite: tail.');
  await context.close();
});

test('pace against the old type, reach shaded, and the surprise checks the answer', async ({ browser, baseURL }) => {
  const context = await browser.newContext({ baseURL });
  const page = await as(context, 'helena');
  const broken: string[] = [];
  page.on('pageerror', (e) => broken.push(e.message));
  await go(page, '/lab/circuit?type=alvor-c4g&old=alvor-c1&wdir=260&wkt=10');
  await expect(page.getByTestId('busiest-leg')).toContainText(/Busiest: (downwind|crosswind), [\d.]+ things a minute/);
  await expect(page.getByTestId('shortest-gap')).toContainText(/Shortest gap [\d.]+\ss/);
  await expect(page.getByText(/A runway is reached with 200 ft in hand for \d+ %/)).toBeVisible();
  await page.getByRole('button', { name: 'Surprise' }).click();
  const question = page.getByRole('group', { name: 'Engine failure now: where?' });
  await expect(question).toContainText('Engine failure now');
  await question.getByRole('button', { name: 'a field, no runway' }).click();
  await expect(question.getByRole('status')).toContainText(/As the model|Model answer/);
  await expect(question.getByRole('listitem')).toHaveCount(4);
  // More wind across: legs change, and a wind nobody can fly in says so instead of a picture.
  await slide(page, 'Wind', 35);
  await expect(page.getByRole('table', { name: 'Leg by leg' })).toContainText('° right');
  await expect(page).toHaveURL(/wkt=35/);
  // An amphibian on the water lane.
  await page.getByLabel('Type', { exact: true }).selectOption('orla-mare');
  await page.waitForURL(/type=orla-mare/);
  await page.getByLabel('Runway', { exact: true }).selectOption('18W');
  await expect(page.getByRole('heading', { name: /^18W/ })).toBeVisible();
  expect(broken).toEqual([]);
  await context.close();
});

test('taxi: two techniques beside each other, and the wheel that lets go', async ({ browser, baseURL }) => {
  const context = await browser.newContext({ baseURL });
  const page = await as(context, 'duarte');
  await go(page, '/lab/ground?part=corner&type=serrana-carvalho&radius=8');
  await expect(page.getByTestId('caster')).toContainText('it breaks out and casters free');
  await slide(page, 'Turn radius of the axle', 20);
  await expect(page.getByTestId('caster')).toContainText('it steers');
  await slide(page, 'Turn radius of the axle', 1.6);
  await slide(page, 'Taxiway width', 7.5);
  await expect(page.getByTestId('corner-centreline')).toContainText(
    /runs [\d.]+ m off the outer edge, over a lip of 8 cm, over the lights/,
  );
  await expect(page.getByTestId('corner-hugInside')).not.toContainText('inner corner');
  await context.close();
});

test('a view not measured says what to measure and how; measured, it is drawn, and the chief keeps it', async ({
  browser,
  baseURL,
}) => {
  const context = await browser.newContext({ baseURL });
  const page = await as(context, 'bento');
  await go(page, '/lab/sight-picture?type=planalto-p1r&old=alvor-c1');
  await expect(page.getByText(/A helper walks out from the nose/)).toBeVisible();
  await page.getByRole('button', { name: 'Plot' }).click();
  await expect(page.getByText(/Walk out straight ahead and to at least two sides/)).toBeVisible();
  for (const [label, value] of [
    ['Pitch at Final (°)', '-1'],
    ['Pitch at Threshold (°)', '1'],
    ['-30°', '9'],
    ['0°', '14'],
    ['30°', '10'],
    ['Measured by, when, how', 'tape, 24 Nov 2026'],
  ] as const)
    await page.getByLabel(label, { exact: true }).fill(value);
  // Nothing typed is lost by a reload.
  await page.reload();
  await hydrated(page);
  await expect(page.getByLabel('30°', { exact: true })).toHaveValue('10');
  await page.getByRole('button', { name: 'Save on the sheet' }).click();
  await expect(page.getByRole('img', { name: /Planalto P1R: what will be seen/ })).toBeVisible();
  await go(page, '/lab/sight-picture?type=planalto-p1r&old=alvor-c1');
  await expect(page.getByText('measured: tape, 24 Nov 2026')).toBeVisible();
  await context.close();
});

test('this pilot’s own eye changes the picture', async ({ browser, baseURL }) => {
  const context = await browser.newContext({ baseURL });
  const page = await as(context, 'bento');
  const id = (await checkoutOf(page, 'Tomé Arruda Lis')).split('/').pop() ?? '';
  await go(page, `/lab/sight-picture?checkout=${id}`);
  await expect(page.getByText('Not measured: the picture uses the eye height of the sheet, 1.75 m')).toBeVisible();
  const before = await page.getByTestId('least-offset').innerText();
  await page.getByRole('spinbutton', { name: 'Eye above ground (m)' }).fill('1.6');
  await page.getByLabel('How', { exact: true }).fill('tape, no cushion');
  await page.getByRole('button', { name: 'Save this eye height' }).click();
  await expect(page.getByText(/Measured: 1.6 m, tape, no cushion, by Bento/)).toBeVisible();
  expect(await page.getByTestId('least-offset').innerText()).not.toBe(before);
  await context.close();
});

test('wheels and surface on the amphibian: agree or stop, and agreement dies', async ({ browser, baseURL }) => {
  const context = await browser.newContext({ baseURL, viewport: { width: 820, height: 1180 } });
  const page = await as(context, 'bento');
  await go(page, '/checkouts/new');
  await page.getByLabel('Pilot', { exact: true }).selectOption({ label: 'Sara Lapa Funda' });
  await page.getByLabel('Aeroplane', { exact: true }).selectOption({ label: 'ZP-MAR · Orla Maré' });
  // What is proposed for this aeroplane is taken off again: each box by its own id, because the list of those checked
  // shrinks.
  const boxes = page.getByRole('checkbox');
  await expect(boxes.first()).toBeVisible();
  const ids = await boxes.evaluateAll((all) =>
    all.filter((b) => (b as HTMLInputElement).checked && !(b as HTMLInputElement).disabled).map((b) => b.id),
  );
  for (const id of ids) await page.locator(`[id="${id}"]`).uncheck({ timeout: 5000 });
  await page.getByRole('checkbox', { name: /high.performance/i }).check({ timeout: 5000 });
  await page.getByRole('button', { name: 'Open and brief' }).click();
  await page.waitForURL(/\/checkouts\/[0-9a-f-]{36}\/brief$/);
  await hydrated(page);
  const checkout = new URL(page.url()).pathname.replace('/brief', '');
  await page.getByRole('button', { name: /Take the simulated station/ }).click();
  // The same aeroplane, the surface of the runway chosen: wheels, distances and width follow it.
  const gates = page.getByRole('region', { name: 'Gate by gate' });
  const needed = page.getByRole('region', { name: 'Runway needed' });
  await page.getByLabel('Runway', { exact: true }).selectOption('22');
  await expect(gates.getByText(/gear down/)).toHaveCount(4);
  await expect(gates.getByText(/gear up/)).toHaveCount(0);
  const onLand = await needed.innerText();
  await page.getByLabel('Runway', { exact: true }).selectOption('18W');
  // What stood there before is said to a reader of the screen, behind what is flown now.
  const flown = async () =>
    (await gates.locator('tbody tr td:nth-child(4)').allTextContents()).map((t) => /gear (up|down)/.exec(t)?.[1]);
  await expect.poll(flown).toEqual(['up', 'up', 'up', 'up']);
  expect(await needed.innerText()).not.toBe(onLand);
  await page.getByRole('button', { name: 'Save brief' }).click();
  await page.waitForURL('**/fly');
  await prepareDevice(page, checkout);
  await page.getByRole('button', { name: 'Wheels', exact: true }).click();
  const status = page.locator('.decision');
  await expect(status).toContainText('STOP');
  const all = async (lamp: string, seen: string) => {
    for (const w of ['left', 'right', 'nose']) {
      await tap(page, `${w} lamp`, lamp);
      await tap(page, `${w} wheel seen`, seen);
    }
  };
  // Silence is stop.
  await tap(page, 'Where am I landing', 'water');
  await all('unlit', 'up');
  await page.getByRole('button', { name: 'Said and seen' }).click();
  await expect(status).toContainText('no word from the other seat');
  // All agree: an unlit lamp means up on this type.
  await tap(page, 'Where am I landing', 'water');
  await all('unlit', 'up');
  await tap(page, 'Word from the other seat', 'water, wheels up');
  await page.getByRole('button', { name: 'Said and seen' }).click();
  await expect(status).toContainText('checks agree: wheels UP for WATER. Look again.');
  await expect(status).toContainText(/stands for 2:\d\d/);
  // It survives a reload and dies when the lever moves; on final nothing is tapped.
  await page.reload();
  await page.getByRole('button', { name: 'Wheels', exact: true }).click();
  await expect(status).toContainText('checks agree');
  await page.getByRole('button', { name: 'Lever moved' }).click();
  await expect(status).toContainText('the lever has moved');
  expect((await page.locator('main').innerText()).toLowerCase()).not.toMatch(/\bgo\b/);
  await context.close();
});
