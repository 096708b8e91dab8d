import { allSent, as, checkoutOf, expect, fieldsKept, go, landing, logWind, prepareDevice, tap, test } from './help';

test.use({ spec: 'fly' });

test('a flight not on the device says so', async ({ page }) => {
  await go(page, '/fly?sortie=none&view=circuits');
  await expect(page.getByRole('heading', { name: 'Not prepared on this device' })).toBeVisible();
});

test('without network nothing is lost: saved here, draft back after a closed page, sent later', async ({
  browser,
  baseURL,
}) => {
  const context = await browser.newContext({ baseURL, viewport: { width: 820, height: 1180 } });
  const page = await as(context, 'helena');
  const checkout = await checkoutOf(page, 'Duarte Sá Nogal');
  await prepareDevice(page, checkout);
  const address = page.url();
  await logWind(page, 7, 8);
  await landing(page, 'three-point');
  await allSent(page, 1);

  await context.setOffline(true);
  await landing(page, 'three-point', /^prompted/);
  await expect(page.getByText(/2 on this device, 1 sent/)).toBeVisible();
  await expect(page.getByText('No network. Everything is kept on this device.')).toBeVisible();
  const before = await fieldsKept(page);
  await tap(page, 'What was seen', 'Touchdown');
  await tap(page, 'Touched down', 'flat');
  await tap(page, 'Swing in the roll-out', 'left');
  await tap(page, 'Swing in the roll-out', /^left/);
  await expect.poll(() => fieldsKept(page)).toBeGreaterThanOrEqual(before + 3);
  await page.close();

  await context.setOffline(false);
  const again = await context.newPage();
  await go(again, address);
  await expect(again.getByRole('heading', { level: 1 })).toHaveText('Landing 3');
  await expect(
    again.getByRole('group', { name: 'Touched down', exact: true }).getByRole('button', { name: 'flat' }),
  ).toHaveAttribute('aria-pressed', 'true');
  await expect(
    again.getByRole('group', { name: 'Swing in the roll-out', exact: true }).getByRole('button', { name: /^left/ }),
  ).toContainText('late correction');
  await allSent(again, 2);

  // Saving twice at once is one landing; undo brings it back as a draft.
  await tap(again, 'Who flew the landing', /^assisted/);
  await again.getByRole('button', { name: 'Save landing' }).dblclick();
  await allSent(again, 3);
  await again.getByRole('button', { name: 'Undo' }).click();
  await expect(again.getByText('Landing 3 undone; the debrief shows it. It is a draft here again.')).toBeVisible();
  await expect(
    again.getByRole('group', { name: 'Who flew the landing' }).getByRole('button', { name: /^assisted/ }),
  ).toHaveAttribute('aria-pressed', 'true');
  await allSent(again, 2);
  await go(again, `${checkout}/debrief`);
  await expect(again.getByRole('heading', { level: 1 })).toHaveText('Lesson 4: 2 landings, 1 unassisted');
  await context.close();
});

test('a sync request the server never answered is sent again and counted once', async ({ browser, baseURL }) => {
  const context = await browser.newContext({ baseURL });
  const page = await as(context, 'bento');
  const checkout = await checkoutOf(page, 'Joana Pires Atalaia');
  await go(page, `${checkout}/brief`);
  await page.getByRole('button', { name: 'Save brief' }).click();
  await page.waitForURL('**/fly');
  await prepareDevice(page, checkout);
  let dropped = 0;
  await page.route('**/api/sync', async (route) => {
    if (dropped++ > 0) return route.continue();
    await route.fetch();
    await route.abort();
  });
  await landing(page, 'three-point');
  await allSent(page, 1);
  expect(dropped).toBeGreaterThan(1);
  await go(page, `${checkout}/debrief`);
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Lesson 3: 1 landing');
  await context.close();
});

test('nothing is chosen beforehand, clean waits for stopped, eyes out asks for nothing', async ({
  browser,
  baseURL,
}) => {
  const context = await browser.newContext({ baseURL, viewport: { width: 820, height: 1180 } });
  const page = await as(context, 'bento');
  const checkout = await checkoutOf(page, 'Vasco Teles Brito');
  await go(page, `${checkout}/brief`);
  await page.getByRole('button', { name: 'Save brief' }).click();
  await page.waitForURL('**/fly');
  await prepareDevice(page, checkout);
  const pressed = await page.getByRole('group').getByRole('button', { pressed: true }).allInnerTexts();
  expect(pressed).toEqual(['full stop', 'wheel']);
  await expect(page.getByRole('button', { name: /^Clean, three-point/ })).toBeDisabled();
  // Nothing of a landing is asked while it is flown; stopped, its touch is, and the rest after it.
  await expect(page.getByRole('group', { name: 'Touched down', exact: true })).toBeHidden();
  await tap(page, 'What was seen', 'Speed and roll-out');
  await expect(page.getByRole('group', { name: 'Configuration' })).toBeVisible();
  await page.getByRole('button', { name: 'Save landing' }).click();
  await expect(page.getByText('Nothing is tapped yet.')).toBeVisible();
  await page.getByRole('button', { name: /^Eyes out/ }).click();
  const dark = page.getByRole('dialog', { name: 'Eyes out' });
  await expect(dark).toBeVisible();
  expect(await dark.getByRole('button').allInnerTexts()).toEqual(['Stopped', 'Climbing away']);
  await dark.getByRole('button', { name: 'Climbing away' }).click();
  await expect(page.getByRole('group', { name: 'Kind' }).getByRole('button', { name: 'touch and go' })).toHaveAttribute(
    'aria-pressed',
    'true',
  );
  await expect(page.getByRole('button', { name: /^Clean, three-point/ })).toBeEnabled();
  await context.close();
});

test('a wind is confirmed in two taps with the time it was observed; an old one is entered anew', async ({
  browser,
  baseURL,
}) => {
  const context = await browser.newContext({ baseURL, viewport: { width: 820, height: 1180 } });
  const page = await as(context, 'helena');
  await prepareDevice(page, await checkoutOf(page, 'Duarte Sá Nogal'));
  await page.clock.setFixedTime(new Date('2026-11-24T14:31:00Z'));
  const chip = page.getByRole('button', { name: /Log the wind/ });
  await chip.click();
  const ready = page.getByRole('group', { name: 'Winds observed' });
  await ready.getByRole('button', { name: /^Use .*simulated station, 6 min old/ }).click();
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await expect(chip).toHaveAccessibleName(/6 min/);
  // Half an hour on it is too old: it begins what is entered, and is not taken as it is.
  await page.clock.setFixedTime(new Date('2026-11-24T14:56:00Z'));
  await chip.click();
  await expect(ready.getByRole('button', { name: /^Use / })).toHaveCount(0);
  await ready.getByRole('button', { name: /^Begin from .*31 min old: too old/ }).click();
  const dial = page.getByRole('slider', { name: 'From, magnetic' });
  const before = Number(await dial.getAttribute('aria-valuenow'));
  await dial.press('ArrowRight');
  const rounded = (Math.round((before + 10) / 10) * 10) % 360 || 360;
  await expect(dial).toHaveAttribute('aria-valuenow', String(rounded));
  // A tap on the right of the rose is east.
  const box = await dial.boundingBox();
  if (!box) throw new Error('no rose');
  await page.mouse.click(box.x + box.width * 0.85, box.y + box.height / 2);
  await expect(dial).toHaveAttribute('aria-valuenow', '90');
  await page.getByRole('group', { name: 'Mean, in one tap' }).getByRole('button', { name: '12' }).click();
  await page.getByRole('group', { name: 'Gust, in one tap' }).getByRole('button', { name: 'G20' }).click();
  await page.getByRole('group', { name: 'Where it is from' }).getByRole('button', { name: 'tower' }).click();
  await page.getByRole('button', { name: /^Log this wind/ }).click();
  await expect(chip).toHaveAccessibleName(/090\/12 G20 · now/);
  await context.close();
});

test('a number is typed on keys, taken from the usual ones, or runs while it is held; a tap is a step', async ({
  browser,
  baseURL,
}) => {
  const context = await browser.newContext({ baseURL, viewport: { width: 820, height: 1180 } });
  const page = await as(context, 'helena');
  await prepareDevice(page, await checkoutOf(page, 'Duarte Sá Nogal'));
  const of = (what: string) => page.getByRole('button', { name: `Speed at the threshold ${what}` });
  await tap(page, 'What was seen', 'Speed and roll-out');
  await of('not seen').click();
  const keys = page.getByRole('dialog', { name: 'Speed at the threshold' });
  await keys.getByRole('button', { name: '6', exact: true }).click();
  await keys.getByRole('button', { name: '1', exact: true }).click();
  await keys.getByRole('button', { name: 'Set' }).click();
  await expect(of('61 mph, change')).toBeVisible();
  await of('more').click();
  await of('62 mph, change').click();
  // More than a dial shows is refused beside it, and nothing typed is lost.
  for (let i = 0; i < 3; i++) await keys.getByRole('button', { name: '9', exact: true }).click();
  await expect(keys.getByRole('alert')).toContainText('or less');
  await expect(keys.getByRole('button', { name: 'Set' })).toBeDisabled();
  await keys.getByRole('group', { name: 'Usual values' }).getByRole('button', { name: '57' }).click();
  await expect(of('57 mph, change')).toBeVisible();
  // Held, it runs; let go, it stands, and the end of the press is no tap.
  await of('more').hover();
  await page.mouse.down();
  const number = page.locator('.stepper .num').first();
  const shown = async () => Number.parseInt(await number.innerText(), 10);
  await expect.poll(shown).toBeGreaterThan(62);
  await page.mouse.up();
  await expect(page.getByRole('button', { name: /^Speed at the threshold \d+ mph, change/ })).toBeVisible();
  const stood = await shown();
  expect(stood).toBeGreaterThan(62);
  await of('less').click();
  await expect(of(`${stood - 1} mph, change`)).toBeVisible();
  await of(`${stood - 1} mph, change`).click();
  await keys.getByRole('button', { name: 'not seen' }).click();
  await expect(of('not seen')).toBeVisible();
  await context.close();
});

test('every target is at least 56 px, and the keyboard flies it too', async ({ browser, baseURL }) => {
  const context = await browser.newContext({ baseURL, viewport: { width: 820, height: 1180 } });
  const page = await as(context, 'helena');
  await prepareDevice(page, await checkoutOf(page, 'Duarte Sá Nogal'));
  const small = await page.locator('.cap button').evaluateAll((all) =>
    all
      .map((b) => ({
        text: b.textContent || b.getAttribute('aria-label'),
        w: b.getBoundingClientRect().width,
        h: b.getBoundingClientRect().height,
      }))
      .filter((b) => b.w < 55.5 || b.h < 55.5),
  );
  expect(small).toEqual([]);
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(820);
  const heading = page.getByRole('heading', { level: 1 });
  const number = Number((await heading.innerText()).replace(/\D/g, ''));
  await page.locator('body').click({ position: { x: 410, y: 90 } });
  await page.keyboard.press('n');
  await expect(page.getByRole('dialog', { name: 'Eyes out' })).toBeVisible();
  await page.getByRole('button', { name: 'Stopped' }).press('Enter');
  await page.locator('body').click({ position: { x: 410, y: 90 } });
  for (const key of ['ArrowUp', 'ArrowLeft', '2', 'c']) await page.keyboard.press(key);
  await expect(page.getByRole('radio', { name: 'in the box, a wheel off left', exact: true })).toBeChecked();
  await expect(
    page.getByRole('group', { name: 'Who flew the landing' }).getByRole('button', { name: /^prompted/ }),
  ).toHaveAttribute('aria-pressed', 'true');
  await expect(page.getByRole('button', { name: /^Clean, three-point/ })).toHaveAttribute('aria-pressed', 'true');
  await page.keyboard.press('Enter');
  await expect(heading).toHaveText(`Landing ${number + 1}`);
  await page.keyboard.press('g');
  await expect(heading).toHaveText(`Go-around ${number + 1}`);
  await page.keyboard.press('u');
  await expect(heading).toHaveText(`Landing ${number}`);
  await context.close();
});

test('a flight that cannot be drawn says that everything saved is still here', async ({ browser, baseURL }) => {
  const context = await browser.newContext({ baseURL, viewport: { width: 820, height: 1180 } });
  const page = await as(context, 'helena');
  await prepareDevice(page, await checkoutOf(page, 'Clara Moita Reis'));
  const before = await fieldsKept(page);
  await page.evaluate(
    () =>
      new Promise<void>((resolve, reject) => {
        const opening = indexedDB.open('jeito');
        opening.onerror = () => reject(new Error('no store on this device'));
        opening.onsuccess = () => {
          const change = opening.result.transaction('packs', 'readwrite');
          const packs = change.objectStore('packs');
          const asked = packs.getAll();
          asked.onsuccess = () => {
            for (const pack of asked.result as Record<string, unknown>[]) packs.put({ ...pack, runways: null });
          };
          change.oncomplete = () => {
            opening.result.close();
            resolve();
          };
        };
      }),
  );
  await page.reload();
  await expect(page.getByRole('heading', { name: 'The cockpit stopped' })).toBeVisible();
  await expect(page.getByText(/Everything saved is still on this device/)).toBeVisible();
  expect(await fieldsKept(page)).toBe(before);
  await context.close();
});
