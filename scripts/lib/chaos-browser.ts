/**
 * The chaos run's cases in a real browser: the built application, Chromium on a profile of its own, taps on the real
 * screen. The browser is closed and opened again, the server killed with -9, the network taken away, answers dropped,
 * the last button tapped twice, the page closed half-way. *Confirmed* is what the screen has said is saved.
 */
import { cpSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { seededId } from '@demo/random';
import { type BrowserContext, type Page, chromium } from '@playwright/test';
import { CHROMIUM, type RunningServer, startServer } from './server';

const TROUBLES = [
  'none',
  'double-tap',
  'offline',
  'server-kill',
  'browser-kill',
  'half-way',
  'answer-dropped',
  'flapping',
] as const;
type Trouble = (typeof TROUBLES)[number];
export interface BrowserVerdict {
  lost: number;
  doubled: number;
  wrong: string[];
  kinds: string[];
}
const STEP_MS = 15_000;

interface Stored {
  eventId: string;
  sent: number;
  type: string;
  subjectId: string;
}
/** Reads or writes the device's store as it lies, past the application. */
const kept = (page: Page, sortieId: string): Promise<Stored[]> =>
  page.evaluate(
    (id) =>
      new Promise<Stored[]>((resolve, reject) => {
        const open = indexedDB.open('jeito');
        open.onerror = () => reject(open.error ?? new Error('no store'));
        open.onsuccess = () => {
          // eslint-disable-next-line no-restricted-syntax -- the browser’s store, not SQL
          const all = open.result.transaction('events').objectStore('events').getAll();
          all.onsuccess = () => {
            open.result.close();
            resolve((all.result as (Stored & { sortieId: string })[]).filter((e) => e.sortieId === id));
          };
        };
      }),
    sortieId,
  );
const keepPack = (page: Page, sortieId: string): Promise<void> =>
  page.evaluate(async (id) => {
    const pack: unknown = await (await fetch(`/api/sorties/${id}`)).json();
    await new Promise<void>((resolve, reject) => {
      const open = indexedDB.open('jeito');
      open.onerror = () => reject(open.error ?? new Error('no store'));
      open.onsuccess = () => {
        // eslint-disable-next-line no-restricted-syntax -- the browser’s store, not SQL
        const t = open.result.transaction('packs', 'readwrite');
        t.objectStore('packs').put(pack);
        t.oncomplete = () => {
          open.result.close();
          resolve();
        };
      };
    });
  }, sortieId);

/** @param seeded a folder with the demo in it, copied before anything of it is opened */
export async function browserCases(n: number, random: () => number, seeded: string): Promise<BrowserVerdict> {
  const folder = mkdtempSync(path.join(tmpdir(), 'jeito-chaos-web-'));
  const profile = mkdtempSync(path.join(tmpdir(), 'jeito-chaos-profile-'));
  cpSync(seeded, folder, { recursive: true });
  const sorties = await briefedSorties(folder, n, random);
  let server: RunningServer = await startServer(folder);
  let alive = true;
  const { url, port } = server;
  const device = () =>
    chromium.launchPersistentContext(profile, {
      ...CHROMIUM,
      headless: true,
      baseURL: url,
      viewport: { width: 820, height: 1180 },
    });
  let context: BrowserContext = await device();
  const verdict: BrowserVerdict = { lost: 0, doubled: 0, wrong: [], kinds: [] };
  const fresh = async (): Promise<Page> => {
    const page = await context.newPage();
    page.setDefaultTimeout(STEP_MS);
    return page;
  };
  const up = async () => {
    if (!alive) {
      server = await startServer(folder, {}, port);
      alive = true;
    }
  };
  try {
    let page = await fresh();
    await page.goto('/sign-in');
    await page.locator('html[data-hydrated]').waitFor({ state: 'attached' });
    await page.getByLabel('E-mail').fill('helena@pedra-alva.example');
    await page.getByLabel('Password').fill('pedra-alva-2026');
    await page.getByRole('button', { name: 'Sign in' }).click();
    await page.waitForURL('**/board');
    // The cockpit once, so that its store and its shell are on the device.
    await page.goto('/fly');
    await page.getByRole('heading', { name: 'Flights on this device' }).waitFor();
    await page.evaluate(async () => {
      await navigator.serviceWorker.register('/sw.js');
      await navigator.serviceWorker.ready;
    });
    for (const [i, sortieId] of sorties.entries()) {
      const trouble: Trouble = TROUBLES[i % TROUBLES.length] ?? 'none';
      verdict.kinds.push(trouble);
      const address = `${url}/fly?sortie=${sortieId}&view=circuits`;
      await keepPack(page, sortieId);
      await page.goto(address);
      let confirmed = 0;
      const land = async (twice = false) => {
        await page.getByRole('button', { name: /^Stopped/ }).click();
        await page
          .getByRole('radio', {
            name:
              ['in the box, on the line', 'long, a wheel off left', 'short, on the line'][Math.floor(random() * 3)] ??
              '',
            exact: true,
          })
          .click();
        await page
          .getByRole('button', { name: random() < 0.7 ? /^Clean, three-point/ : /^Clean, mains first/ })
          .click();
        const whose = page
          .getByRole('group', { name: 'Who flew the landing' })
          .getByRole('button', { name: random() < 0.6 ? /^unassisted/ : /^prompted/ });
        await (twice ? whose.dblclick() : whose.click());
        await page.getByText(new RegExp(`Landing ${confirmed + 1} saved on this device`)).waitFor();
        confirmed++;
      };
      await land(trouble === 'double-tap');
      if (trouble === 'offline' || trouble === 'flapping') await context.setOffline(true);
      if (trouble === 'server-kill') {
        await server.kill();
        alive = false;
      }
      if (trouble === 'answer-dropped')
        await page.route('**/api/sync', async (route) => {
          await route.fetch().catch(() => undefined);
          await route.abort().catch(() => undefined);
        });
      await land(random() < 0.3);
      if (trouble === 'flapping') {
        await context.setOffline(false);
        await page.waitForTimeout(60);
        await context.setOffline(true);
      }
      if (trouble === 'half-way') {
        await page.getByRole('button', { name: /^Stopped/ }).click();
        await page.getByRole('radio', { name: 'in the box, on the line', exact: true }).click();
        // A tap is on the device within a blink of an eye, not before.
        await page.waitForTimeout(150);
        await page.close();
        page = await fresh();
        await page.goto(address);
        await page.getByRole('heading', { name: 'Landing 3' }).waitFor();
        // What was tapped is there again, and is no landing yet.
        if (!(await page.getByRole('radio', { name: 'in the box, on the line', exact: true }).isChecked()))
          verdict.wrong.push(`${trouble}: the draft did not come back`);
      }
      if (trouble === 'browser-kill') {
        await context.close();
        context = await device();
        page = await fresh();
        await page.goto(address);
      }
      await land();
      await context.setOffline(false);
      await page.unroute('**/api/sync');
      await up();
      await page.goto(address);
      await page.getByText(`${confirmed} on this device, ${confirmed} sent`).waitFor();
      await page.waitForFunction(() => !/taps? to send/.test(document.body.innerText), null, { timeout: STEP_MS });
      const here = await kept(page, sortieId);
      const there = ((await (await page.request.get(`/api/sorties/${sortieId}`)).json()) as { events: Stored[] })
        .events;
      const ids = new Set(there.map((e) => e.eventId));
      const landings = await countLandings(folder, sortieId);
      verdict.lost += here.filter((e) => !ids.has(e.eventId)).length + Math.max(0, confirmed - landings);
      verdict.doubled += there.length - ids.size + Math.max(0, landings - confirmed);
      if (here.some((e) => e.sent !== 1)) verdict.wrong.push(`${trouble}: something still waits on the device`);
      if (here.length !== there.length)
        verdict.wrong.push(`${trouble}: ${here.length} events on the device, ${there.length} at the field`);
    }
  } finally {
    await context.close().catch(() => undefined);
    if (alive) await server.stop();
    for (const f of [folder, profile]) rmSync(f, { recursive: true, force: true });
  }
  return verdict;
}

async function sqlite(folder: string) {
  const { default: sqlite3 } = await import('sqlite3');
  const db = new sqlite3.Database(path.join(folder, 'jeito.sqlite'));
  return {
    all: <T>(sql: string, ...params: unknown[]) =>
      new Promise<T[]>((resolve, reject) => db.all<T>(sql, params, (e, r) => (e ? reject(e) : resolve(r)))),
    close: () => new Promise((resolve) => db.close(resolve)),
  };
}

/** Flights of their own beside a briefed one of the demo, each with that brief. */
async function briefedSorties(folder: string, n: number, random: () => number): Promise<string[]> {
  const db = await sqlite(folder);
  const [from] = await db.all<{ id: string; checkout_id: string }>(
    "SELECT s.id, s.checkout_id FROM sorties s JOIN checkouts c ON c.id = s.checkout_id JOIN briefs b ON b.sortie_id = s.id WHERE c.pilot_id = 'pilot-duarte' ORDER BY s.lesson DESC LIMIT 1",
  );
  const ids = Array.from({ length: n }, () => seededId(random));
  for (const [i, id] of ids.entries()) {
    await db.all(
      "INSERT INTO sorties (id, checkout_id, lesson, flown_on, instructor_id, created_at) VALUES (?, ?, ?, '2026-11-24', 'user-helena', '2026-11-24T09:00:00.000Z')",
      id,
      from?.checkout_id,
      2000 + i,
    );
    await db.all(
      'INSERT INTO briefs (id, checkout_id, sortie_id, version, choices, snapshot, created_by, created_at, request_id, sheets) SELECT ?, checkout_id, ?, 1, choices, snapshot, created_by, created_at, ?, sheets FROM briefs WHERE sortie_id = ? ORDER BY version DESC LIMIT 1',
      seededId(random),
      id,
      seededId(random),
      from?.id,
    );
  }
  await db.close();
  return ids;
}

async function countLandings(folder: string, sortieId: string): Promise<number> {
  const db = await sqlite(folder);
  const [found] = await db.all<{ n: number }>('SELECT COUNT(*) AS n FROM landings WHERE sortie_id = ?', sortieId);
  await db.close();
  return found?.n ?? 0;
}
