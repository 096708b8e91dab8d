import ICAL from 'ical.js';
import type { Locator, Page, Route } from '@playwright/test';
import { as, expect, go, test } from './help';

test.use({ spec: 'schedule' });

const block = (page: Page, name: RegExp): Locator => page.getByRole('button', { name });
/** Drags a block so many columns and quarters of an hour. */
async function drag(page: Page, what: Locator, columns: number, quarters: number): Promise<void> {
  await what.scrollIntoViewIfNeeded();
  const box = await what.boundingBox();
  const column = await page.locator('.sch-col').first().boundingBox();
  if (!box || !column) throw new Error('nothing to drag');
  const [x, y] = [box.x + Math.min(20, box.width / 2), box.y + 10];
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.move(x + 8, y + 8);
  await page.mouse.move(x + columns * column.width, y + quarters * 15 * 0.78, { steps: 8 });
  await page.mouse.up();
}
const times = (text: string) =>
  new ICAL.Component(ICAL.parse(text) as never).getAllSubcomponents('vevent').map((v) => {
    const e = new ICAL.Event(v);
    return {
      from: e.startDate.toJSDate().toISOString(),
      to: e.endDate.toJSDate().toISOString(),
      summary: e.summary,
      alarms: v.getAllSubcomponents('valarm').length,
    };
  });

test('a booking dragged onto a conflict says why; the free time offered is taken; the calendar file has the right times', async ({
  browser,
  baseURL,
}) => {
  const context = await browser.newContext({ baseURL });
  const page = await as(context, 'helena');
  await go(page, '/schedule?whose=mine');
  // A slow network: what was moved stands where it was put before the page is read again.
  const slow = async (route: Route) => {
    if (route.request().headers()['rsc'] === '1') await new Promise((r) => setTimeout(r, 1500));
    await route.continue();
  };
  await page.route('**/schedule**', slow);
  // In\u00eas on Thursday at ten, onto Clara on Wednesday at nine.
  const thursday = block(page, /^Thu 26 Nov 10:00 to 11:45: lesson, In\u00eas Vale Carmo/);
  const ontoClara = async () => {
    await drag(page, thursday, -1, -3);
    await expect(
      page.getByText(
        'Helena Serpa Dorna is booked Wed 25 Nov, 09:00 to 10:45: ZP-URZ Clara Moita Reis with Helena Serpa Dorna.',
      ),
    ).toBeVisible();
    await expect(thursday).toBeVisible();
    await page.getByRole('button', { name: 'Move to Wed 25 Nov 10:45' }).click();
    await expect(page.getByText('Moved to Wed 25 Nov 10:45.')).toBeVisible();
  };
  await ontoClara();
  await page.getByRole('button', { name: 'Undo the move' }).click();
  await expect(page.getByText('Undone: back at Thu 26 Nov 10:00.')).toBeVisible();
  await expect(thursday).toBeVisible();
  await expect(page.getByRole('button', { name: 'Undo the move' })).toHaveCount(0);
  await ontoClara();
  await page.unrouteAll({ behavior: 'wait' });
  const moved = block(page, /^Wed 25 Nov 10:45 to 12:30: lesson, In\u00eas/);
  await expect(moved).toBeVisible();
  await moved.click();
  const href = await page.getByRole('link', { name: 'Calendar file' }).getAttribute('href');
  expect(times(await (await page.request.get(href ?? '')).text())).toEqual([
    {
      from: '2026-11-25T10:45:00.000Z',
      to: '2026-11-25T12:30:00.000Z',
      summary: 'ZP-URA, In\u00eas Vale Carmo, lesson',
      alarms: 1,
    },
  ]);

  // The same by the keyboard: Space takes it up, the arrows move it, Space puts it down.
  await moved.focus();
  await page.keyboard.press('Space');
  await expect(page.getByText(/^Picked up/)).toBeAttached();
  await page.keyboard.press('ArrowRight');
  await expect(page.getByText('Thu 26 Nov, 10:45')).toBeAttached();
  await page.keyboard.press('ArrowDown');
  await expect(page.getByText('Thu 26 Nov, 11:00')).toBeAttached();
  await page.keyboard.press('Space');
  await expect(block(page, /^Thu 26 Nov 11:00 to 12:45: lesson, In\u00eas/)).toHaveCount(0);
  await expect(
    page.getByText(/Helena Serpa Dorna can be booked 08:30 to 12:30 and 13:30 to 18:00 on Thu 26 Nov\./),
  ).toBeVisible();
  await page.getByRole('button', { name: 'Leave it where it was' }).click();

  // Best three slots, and one of them booked.
  await page
    .getByRole('button', { name: 'New booking' })
    .or(page.getByRole('button', { name: 'Find a slot for Rui Casal Ferro' }))
    .last()
    .click();
  await page.getByLabel('Aeroplane', { exact: true }).selectOption({ label: 'ZP-URA Serrana Urze' });
  await page.getByRole('button', { name: 'Best three slots' }).click();
  const offers = page.getByRole('button', { name: /^Book \w{3} \d/ });
  await expect(offers).toHaveCount(3);
  const wanted = ((await offers.first().getAttribute('aria-label')) ?? '').replace('Book ', '');
  await offers.first().click();
  await expect(page.getByText('Booked.', { exact: true })).toBeVisible();
  await expect(page.getByRole('heading', { name: 'Lesson: Rui Casal Ferro' })).toBeVisible();
  await expect(page.getByText(wanted.slice(0, 10)).first()).toBeVisible();
  await expect(page.getByRole('button', { name: 'Find a slot for Rui Casal Ferro' })).toHaveCount(0);

  // A calendar address of one's own holds it too.
  await go(page, '/settings');
  await page.getByLabel(/Remind me before/).fill('45');
  await page.getByRole('button', { name: 'Create calendar link' }).click();
  const address = await page.locator('#calendar code').innerText();
  const feed = times(await (await context.request.get(address)).text());
  expect(feed.some((e) => e.from === '2026-11-25T10:45:00.000Z' && e.alarms === 1)).toBe(true);
  expect(feed.some((e) => e.summary.includes('Rui Casal Ferro'))).toBe(true);
  expect((await context.request.get(`${address.slice(0, -6)}xx.ics`)).status()).toBe(404);
  await context.close();
});

test('out of recency in the twin the instructor cannot be booked to teach it; three landings, and he is; a pilot hears of it and sees only their own', async ({
  browser,
  baseURL,
}) => {
  const [one, two] = await Promise.all([browser.newContext({ baseURL }), browser.newContext({ baseURL })]);
  const [desk, pilot] = await Promise.all([as(one, 'bento'), as(two, 'nuno')]);
  await expect(desk.getByRole('row', { name: /Bento Quadra Luz/ }).filter({ hasText: 'Planalto P2' })).toBeVisible();
  await go(desk, '/people');
  await expect(desk.getByRole('row', { name: /^Bento Quadra Luz/ }).first()).toContainText('ended 25 Oct');
  const tryIt = async () => {
    await go(desk, '/schedule?kind=lesson');
    await desk
      .getByLabel('Checkout', { exact: true })
      .selectOption({ label: 'Nuno Castro Bravo, ZP-PDO, multi-engine' });
    await desk.getByLabel('Day', { exact: true }).fill('2026-12-03');
    await desk.getByLabel('Start, local').fill('10:00');
    await desk.getByLabel('Length').fill('105');
    await desk.getByRole('button', { name: 'Book', exact: true }).click();
  };
  await tryIt();
  await expect(
    desk.getByText(
      'Bento Quadra Luz is out of recency to teach Planalto P2 on Thu 3 Dec: three landings restore it (School rules, flying order 7).',
    ),
  ).toBeVisible();
  await expect(desk.getByLabel('Start, local')).toHaveValue('10:00');
  await go(desk, '/people/pilot-bento');
  const whatIf = desk.getByRole('form', { name: 'What if' });
  await whatIf.getByLabel('Type').selectOption({ label: 'Planalto P2' });
  await whatIf.getByLabel('Landings', { exact: true }).fill('3');
  await whatIf.getByRole('button', { name: 'Compute' }).click();
  await expect(whatIf.getByRole('row', { name: /to teach Planalto P2/ })).toContainText('ended 25 Oct 2026');
  await expect(whatIf.getByRole('row', { name: /to teach Planalto P2/ })).toContainText('to 22 Feb 2027, 90 days');
  await desk.getByText('Log a flight').click();
  await desk.locator('details').getByLabel('Type', { exact: true }).selectOption({ label: 'Planalto P2' });
  await desk.locator('details').getByLabel('Take-offs').fill('3');
  await desk.locator('details').getByLabel('Landings', { exact: true }).fill('3');
  await desk.locator('details').getByLabel('of them full stops').fill('3');
  await desk.getByRole('button', { name: 'Log this flight' }).click();
  await expect(desk.getByText('Logged.')).toBeVisible();
  await expect(desk.getByRole('listitem').filter({ hasText: 'to teach Planalto P2' })).toContainText(
    'to 22 Feb 2027, 90 days',
  );
  await tryIt();
  await expect(desk.getByText('Booked.', { exact: true })).toBeVisible();
  // The pilot hears of it, and sees the others only as taken.
  await go(pilot, '/notices');
  await expect(pilot.getByRole('link', { name: /Bento Quadra Luz booked Nuno Castro Bravo in ZP-PDO/ })).toBeVisible();
  await pilot.getByRole('button', { name: 'All seen' }).click();
  await expect(pilot.getByText('Notices 0 new')).toHaveCount(0);
  await go(pilot, '/schedule?week=2026-11-30');
  await expect(block(pilot, /Thu 3 Dec 10:00 to 11:45: lesson, Nuno Castro Bravo in ZP-PDO/)).toBeVisible();
  await expect(block(pilot, /: taken$/).first()).toBeDisabled();
  await expect(pilot.getByText('Clara Moita Reis')).toHaveCount(0);
  expect((await pilot.request.get('/people')).status()).toBe(404);
  expect((await pilot.request.get('/people/pilot-clara')).status()).toBe(404);
  await go(pilot, '/people/pilot-nuno');
  await expect(pilot.getByRole('heading', { level: 1 })).toHaveText('Nuno Castro Bravo');
  await Promise.all([one.close(), two.close()]);
});

test('on a phone the week is a list of days, today first: a booking opens, a day is booked', async ({
  browser,
  baseURL,
}) => {
  const context = await browser.newContext({ baseURL, viewport: { width: 390, height: 844 } });
  const page = await as(context, 'bento');
  await go(page, '/schedule?whose=all');
  const days = page.locator('.day-list section');
  await expect(days).toHaveCount(7);
  await expect(days.first().getByRole('heading')).toContainText('Tue 24 Nov');
  await expect(days.first()).toContainText('today');
  await days
    .nth(1)
    .getByRole('button', { name: /Clara Moita Reis/ })
    .click();
  await expect(page.getByRole('complementary', { name: 'Booking' })).toBeInViewport();
  await expect(page.getByRole('link', { name: 'Calendar file' })).toBeVisible();
  await page.getByLabel('Move to').fill('11/12/2026');
  await page.getByRole('button', { name: 'Move', exact: true }).click();
  await expect(page.getByText('Enter the date as 24 Nov 2026.')).toBeVisible();
  await days.nth(2).getByRole('button', { name: /^Book/ }).click();
  await expect(page.getByRole('heading', { name: 'New booking' })).toBeInViewport();
  await expect(page.getByLabel('Day', { exact: true })).toHaveValue('26 Nov 2026');
  await context.close();
});
