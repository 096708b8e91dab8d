import type { Page } from '@playwright/test';
import { allSent, as, checkoutOf, expect, go, hydrated, prepareDevice, tap, test, view } from './help';

test.use({ spec: 'stops' });

const brief = async (page: Page, checkout: string, runway: string): Promise<void> => {
  await go(page, `${checkout}/brief`);
  await page.getByRole('button', { name: /Take the simulated station/ }).click();
  await page.getByLabel('Runway', { exact: true }).selectOption(runway);
  await page.getByRole('button', { name: /^Save (brief|new version)/ }).click();
  await page.waitForURL('**/fly');
  await hydrated(page);
};

test('on water past a check that stands at stop: kept, said at the tap, in the debrief and at the signature, and no evidence', async ({
  browser,
  baseURL,
}) => {
  const context = await browser.newContext({ baseURL, viewport: { width: 820, height: 1180 } });
  const page = await as(context, 'bento');
  const checkout = await checkoutOf(page, 'Lídia Fonte Maior');
  await brief(page, checkout, '18W');
  await expect(page.getByTestId('instructor-standing')).toContainText('Bento Quadra Luz');
  await prepareDevice(page, checkout);
  await view(page, 'Wheels');
  const wheels = async (lamp: string, seen: string) => {
    await tap(page, 'Where am I landing', 'water');
    for (const w of ['left', 'right', 'nose']) {
      await tap(page, `${w} lamp`, lamp);
      await tap(page, `${w} wheel seen`, seen);
    }
    await tap(page, 'Word from the other seat', 'water, wheels up');
    await page.getByRole('button', { name: 'Said and seen' }).click();
  };
  const touch = async (n: number) => {
    await view(page, 'Landings');
    const next = page.getByRole('button', { name: /^Next/ });
    if (await next.isVisible()) await next.click();
    await page.getByRole('button', { name: /^Stopped/ }).click();
    await page.getByRole('radio', { name: 'in the box, on the line', exact: true }).click();
    await page.getByRole('button', { name: /^Clean, step/ }).click();
    await tap(page, 'Wheels said again on final', 'said aloud');
    await tap(page, 'Who flew the landing', /^unassisted/);
    await expect(page.getByRole('status').filter({ hasText: `Landing ${n} saved on this device` })).toBeVisible();
  };
  // A wheel that is down for water: the check says stop, and it is landed all the same.
  await wheels('lit', 'down');
  await expect(page.locator('.decision')).toContainText('STOP');
  await touch(1);
  const strip = page.locator('.stopped');
  await expect(strip).toContainText(
    'Landing 1, recorded as flown past a stop: landed on water while the check of the wheels stood at stop.',
  );
  // The next one is checked, and nothing is said of it.
  await view(page, 'Wheels');
  await wheels('unlit', 'up');
  await expect(page.locator('.decision')).toContainText('checks agree');
  await touch(2);
  await expect(strip).toHaveCount(0);
  await allSent(page, 2);

  await go(page, `${checkout}/debrief`);
  const panel = page.getByRole('heading', { name: 'Flown past a stop' });
  await expect(panel).toBeVisible();
  await expect(page.getByText('Wheels not checked for this surface')).toHaveCount(1);
  await go(page, `${checkout}/sign`);
  await expect(panel).toBeVisible();
  await expect(page.getByText(/landing 1 was flown past a stop and no reason is given/)).toBeVisible();
  const w = page.getByRole('row', { name: /Wheels against surface, each time/ }).first();
  await expect(w).toBeVisible();
  await expect(page.getByText(/after the 1 landing without/).first()).toBeAttached();
  // The reason is asked for once; a few words are not one, and what was typed stays.
  await go(page, `${checkout}/debrief`);
  const why = page.getByLabel(/^Why it was flown: Lesson \d+, landing 1/);
  await why.fill('short');
  await page.getByRole('button', { name: 'Save reason' }).click();
  await expect(page.getByText('Say why, in a few words.')).toBeVisible();
  await page.reload();
  await hydrated(page);
  await expect(why).toHaveValue('short');
  await why.fill('I took it over late and let it touch');
  await page.getByRole('button', { name: 'Save reason' }).click();
  await expect(page.getByText('Why: I took it over late and let it touch')).toBeVisible();
  await go(page, `${checkout}/sign`);
  await expect(page.getByText('no reason is given')).toHaveCount(0);
  await expect(page.getByText('Why: I took it over late and let it touch')).toBeVisible();
  await expect(page.getByText(/after the 1 landing without/).first()).toBeAttached();
  await context.close();
});

test('a grounded aeroplane is not taken until its release is entered with who certified it', async ({
  browser,
  baseURL,
}) => {
  const [desk, office] = await Promise.all([browser.newContext({ baseURL }), browser.newContext({ baseURL })]);
  const helena = await as(desk, 'helena');
  const checkout = await checkoutOf(helena, 'Duarte Sá Nogal');
  await go(helena, '/hangar/serrana-urze');
  await helena.getByText('Ground an aeroplane …').click();
  await helena.getByRole('button', { name: 'Ground it' }).click();
  await expect(helena.getByText('Say what is wrong, in a few words.')).toBeVisible();
  await expect(helena.getByLabel('Because of').getByRole('option')).toHaveCount(1);
  await helena.getByLabel('Aeroplane', { exact: true }).selectOption({ label: 'ZP-URZ' });
  await helena.getByLabel('What is wrong').fill('Tailwheel spring cracked');
  await helena.getByRole('button', { name: 'Ground it' }).click();
  await expect(helena.getByRole('note').filter({ hasText: 'ZP-URZ' })).toContainText('Tailwheel spring cracked');
  await expect(helena.getByText('It ends when somebody entitled has certified it')).toBeVisible();
  // Brief and fly say it; nothing is taken, by the button or by its address.
  for (const stage of ['brief', 'fly', 'plan']) {
    await go(helena, `${checkout}/${stage}`);
    await expect(helena.getByRole('note').filter({ hasText: 'not returned to service' })).toBeVisible();
  }
  await go(helena, `${checkout}/fly`);
  await expect(helena.getByText('The aeroplane is grounded: no flight is taken.')).toBeVisible();
  await expect(helena.getByRole('button', { name: 'Prepare this device' })).toHaveCount(0);
  const bento = await as(office, 'bento');
  await go(bento, '/board');
  await expect(bento.getByRole('heading', { name: 'An aeroplane is out of service' })).toBeVisible();
  await bento.getByText('Enter the release …').first().click();
  await bento.getByLabel('What was done, and where it is entered').first().fill('Spring replaced, work order 121');
  await bento.getByRole('button', { name: 'Enter the release' }).first().click();
  await expect(bento.getByText('Give the name of who certified it.')).toBeVisible();
  await expect(bento.getByText('Give the number or kind of that person’s certificate.')).toBeVisible();
  await bento.getByLabel('Certified by').first().fill('Telmo Vaz Outeiro');
  await bento.getByLabel('Certificate', { exact: true }).first().fill('licence B1 0417');
  await bento.getByRole('button', { name: 'Enter the release' }).first().click();
  await expect(bento.getByRole('heading', { name: 'An aeroplane is out of service' })).toHaveCount(0);
  await prepareDevice(helena, checkout);
  await desk.close();
  await office.close();
});
