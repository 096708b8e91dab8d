import { PNG } from 'pngjs';
import type { Page } from '@playwright/test';
import { as, checkoutOf, expect, go, hydrated, prepareDevice, settled, test } from './help';
import { reachOf } from './reach';

test.use({ spec: 'reach' });

/** Every page an instructor reaches, the long ones with data in them. */
async function routes(page: Page): Promise<string[]> {
  const [ines, duarte] = [await checkoutOf(page, 'Inês Vale Carmo'), await checkoutOf(page, 'Duarte Sá Nogal')];
  await go(page, '/ledger');
  const entry = (await page.getByRole('link', { name: 'Sara Lapa Funda' }).getAttribute('href')) ?? '';
  await go(page, '/traces');
  const trace = (await page.locator('main table a').first().getAttribute('href')) ?? '';
  return [
    ...['/board', '/checkouts', '/checkouts/new', '/hangar', '/lab', '/ledger', '/notices', '/people', '/rules'],
    ...['/schedule', '/schedule?day=2026-11-25', '/schedule/times', '/settings', '/account', '/traces', '/verify'],
    ...['', '/brief', '/fly', '/differences'].map((p) => `${duarte}${p}`),
    ...['', '/debrief', '/plan', '/progress', '/sign'].map((p) => `${ines}${p}`),
    ...['/hangar/serrana-urze', '/hangar/lume-faisca', '/hangar/planalto-p2', '/people/pilot-ines', '/people/new'],
    ...['/people/pilot-duarte/import', '/people/standard', '/rules/programme/tailwheel-us', '/rules/pack/eu'],
    ...[
      '/rules/house/house',
      '/lab/circuit',
      '/lab/ground',
      '/lab/crosswind',
      '/lab/slow-approach',
      '/lab/sight-picture?type=lume-faisca',
      '/lab/recorder',
    ],
    ...[entry, trace, `${trace}/join`, '/traces/new', '/account/interface', '/help/brief', '/help/glossary'],
  ];
}
/** 320 is 400 % of zoom on a window of 1280, 640 is 200 %. */
const WIDTHS = [
  [320, 640],
  [640, 800],
  [820, 1180],
  [1280, 800],
] as const;

test('every page at four widths: nothing overflows, is cut, too small to read or to press; tables and titles speak', async ({
  browser,
  baseURL,
}) => {
  test.setTimeout(480_000);
  const context = await browser.newContext({ baseURL, reducedMotion: 'reduce' });
  const page = await as(context, 'bento');
  const found: string[] = [];
  const titles = new Map<string, string>();
  for (const route of await routes(page)) {
    await page.setViewportSize({ width: 1280, height: 800 });
    await go(page, route);
    for (const [width, height] of WIDTHS) {
      await page.setViewportSize({ width, height });
      await settled(page);
      const r = await reachOf(page, 24);
      const say = (what: string) => found.push(`${route} at ${width}: ${what}`);
      if (r.over > 0) say(`${r.over} px too wide, ${r.widest}`);
      for (const s of r.small) say(`small target ${s}`);
      for (const s of r.tiny) say(`tiny text ${s}`);
      for (const s of r.cut) say(`cut ${s}`);
      for (const s of r.tables) say(s);
    }
    const title = await page.title();
    const other = titles.get(title);
    if (other && other.split('?')[0] !== route.split('?')[0]) found.push(`${route}: titled as ${other} is, ${title}`);
    titles.set(title, route);
    if ((await page.locator('h1').count()) !== 1) found.push(`${route}: not one h1`);
  }
  expect(found).toEqual([]);
  expect(titles.size).toBeGreaterThan(38);
  await context.close();
});

/** Relative luminance of a pixel, by WCAG 2. */
const luminance = (d: Buffer, at: number): number =>
  [0.2126, 0.7152, 0.0722].reduce((sum, weight, i) => {
    const c = (d[at + i] ?? 0) / 255;
    return sum + weight * (c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4);
  }, 0);

/** Pixels of two pictures that differ by at least 3 : 1. */
function clearlyChanged(before: Buffer, after: Buffer): number {
  const [a, b] = [PNG.sync.read(before), PNG.sync.read(after)];
  let n = 0;
  for (let at = 0; at < Math.min(a.data.length, b.data.length); at += 4) {
    const [x, y] = [luminance(a.data, at), luminance(b.data, at)];
    if ((Math.max(x, y) + 0.05) / (Math.min(x, y) + 0.05) >= 3) n += 1;
  }
  return n;
}

/** One control of each look on the page. */
const LOOKS = 'a[href], button:not(:disabled), input:not([type=hidden]), select, textarea, summary, [tabindex="0"]';
const onePerLook = (page: Page): Promise<number[]> =>
  page.evaluate((which) => {
    const seen = new Set<string>();
    return [...document.querySelectorAll<HTMLElement>(which)].flatMap((e, i) => {
      const r = e.getBoundingClientRect();
      if (!e.checkVisibility({ opacityProperty: true }) || r.width < 8 || e.tabIndex < 0) return [];
      const s = getComputedStyle(e);
      const look = [e.tagName, s.backgroundColor, s.borderColor, s.outlineOffset, s.position, e.className].join();
      const where = e.closest('header') ? 'strip' : e.closest('nav') ? 'nav' : 'page';
      if (seen.has(where + look)) return [];
      seen.add(where + look);
      return [i];
    });
  }, LOOKS);

test('the focus is seen: pixels change by 3 : 1 around every kind of control, in three themes and in forced colours', async ({
  browser,
  baseURL,
}) => {
  test.setTimeout(480_000);
  const found: string[] = [];
  let looked = 0;
  for (const theme of ['day', 'dusk', 'sun', 'forced']) {
    const context = await browser.newContext({
      baseURL,
      reducedMotion: 'reduce',
      forcedColors: theme === 'forced' ? 'active' : 'none',
    });
    await context.addInitScript((t) => {
      localStorage.setItem('jeito-theme', t);
      localStorage.setItem('jeito-theme-fly', t);
    }, theme);
    const page = await as(context, 'helena');
    const ines = await checkoutOf(page, 'Inês Vale Carmo');
    const duarte = await checkoutOf(page, 'Duarte Sá Nogal');
    const rest = theme === 'day' ? [`${ines}/debrief`, `${ines}/sign`, '/schedule'] : [];
    for (const path of ['/board', `${duarte}/brief`, ...rest, '/fly']) {
      if (path === '/fly') await prepareDevice(page, duarte);
      else await go(page, path);
      await page.keyboard.press('Tab');
      for (const i of await onePerLook(page)) {
        const at = page.locator(LOOKS).nth(i);
        await at.evaluate((e) => e.scrollIntoView({ block: 'center' }));
        await settled(page);
        const box = await at.boundingBox();
        if (!box) continue;
        const clip = { x: box.x - 6, y: box.y - 6, width: box.width + 12, height: box.height + 12 };
        const shot = () => page.screenshot({ clip, animations: 'disabled' });
        await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
        const before = await shot();
        await at.evaluate((e: HTMLElement) => e.focus({ preventScroll: true }));
        const changed = clearlyChanged(before, await shot());
        looked += 1;
        // A line of one pixel about it is the least that counts (WCAG 2.4.13); corners are round.
        const least = 1.6 * (Math.min(box.width, 1280) + Math.min(box.height, 800));
        if (changed < least)
          found.push(
            `${theme} ${path}: ${await at.evaluate((e) => e.outerHTML.slice(0, 120))}: ${changed} of ${least.toFixed(0)} px`,
          );
      }
    }
    await context.close();
  }
  expect(found).toEqual([]);
  expect(looked).toBeGreaterThan(100);
});

test('text spaced as WCAG asks is neither cut nor does it widen a page', async ({ browser, baseURL }) => {
  test.setTimeout(240_000);
  const context = await browser.newContext({ baseURL, viewport: { width: 390, height: 844 }, bypassCSP: true });
  const page = await as(context, 'helena');
  const found: string[] = [];
  const ines = await checkoutOf(page, 'Inês Vale Carmo');
  for (const path of ['/board', '/schedule', '/people', ines, `${ines}/brief`, `${ines}/debrief`, `${ines}/sign`]) {
    await page.goto(path);
    await hydrated(page);
    await page.addStyleTag({
      content:
        '* { letter-spacing: 0.12em !important; word-spacing: 0.16em !important; line-height: 1.5 !important } p { margin-bottom: 2em !important }',
    });
    const r = await reachOf(page, 24);
    if (r.over > 0) found.push(`${path}: ${r.over} px too wide, ${r.widest}`);
    for (const s of r.cut) found.push(`${path}: cut ${s}`);
  }
  expect(found).toEqual([]);
  await context.close();
});
