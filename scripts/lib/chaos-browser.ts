/** End-to-end cases of the chaos run: the built application, Chromium on a profile of its own, both killed with -9. */
import { type ChildProcess, spawn } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { type Browser, type Page, chromium } from '@playwright/test';
import { seeded } from '@demo/random';
import { fold } from '@/offline/protocol';
import type { CaptureEvent } from '@/domain/capture';
import { CHROMIUM, type RunningServer, startServer } from './server';

interface Device { process: ChildProcess; browser: Browser; page: Page }
const wait = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

async function openDevice(profile: string): Promise<Device> {
  const child = spawn(CHROMIUM.executablePath, [...CHROMIUM.args, '--headless=new', '--remote-debugging-port=0', `--user-data-dir=${profile}`, '--window-size=820,1180', 'about:blank'], { stdio: ['ignore', 'ignore', 'pipe'], detached: true });
  const address = await new Promise<string>((resolve, reject) => {
    let said = '';
    child.stderr?.on('data', (d) => { said += String(d); const found = /DevTools listening on (ws:\S+)/.exec(said); if (found?.[1]) resolve(found[1]); });
    child.once('exit', () => reject(new Error(`the browser did not start\n${said}`)));
  });
  const browser = await chromium.connectOverCDP(address);
  const context = browser.contexts()[0] ?? (await browser.newContext());
  return { process: child, browser, page: context.pages()[0] ?? (await context.newPage()) };
}
async function killDevice(d: Device): Promise<void> {
  const gone = new Promise((resolve) => d.process.once('close', resolve));
  if (d.process.pid) process.kill(-d.process.pid, 'SIGKILL');
  await gone;
  await d.browser.close().catch(() => undefined);
}

/** Random landings against random trouble, on one flight; after each case everything is brought together and compared. */
export async function browserCases(cases: number, seed: number, folder: string): Promise<{ lost: number; doubled: number; wrong: string[] }> {
  const random = seeded(seed + 77);
  const chance = (p: number) => random() < p;
  const profile = mkdtempSync(path.join(tmpdir(), 'jeito-chaos-profile-'));
  let server: RunningServer | null = await startServer(folder);
  const { url, port } = server;
  const up = async () => { server ??= await startServer(folder, {}, port); };
  let device = await openDevice(profile);
  const sum = { lost: 0, doubled: 0, wrong: [] as string[] };
  let confirmed = 0;

  await device.page.goto(`${url}/sign-in`);
  await device.page.waitForLoadState('networkidle');
  await device.page.getByLabel('E-mail').fill('helena@pedra-alva.example');
  await device.page.getByLabel('Password').fill('pedra-alva-2026');
  await device.page.getByRole('button', { name: 'Sign in' }).click();
  await device.page.waitForURL('**/board');
  await device.page.goto(`${url}/checkouts`);
  const checkout = await device.page.locator('main').getByRole('link', { name: 'Duarte' }).first().getAttribute('href');
  await device.page.goto(`${url}${checkout ?? ''}/fly`);
  await device.page.waitForLoadState('networkidle');
  await device.page.getByRole('button', { name: 'Take this flight' }).click();
  await device.page.waitForURL('**/fly?sortie=*');
  const address = device.page.url();
  const sortie = new URL(address).searchParams.get('sortie') ?? '';
  const heading = () => device.page.getByRole('heading', { level: 1 });
  const number = async () => Number((await heading().innerText()).replace(/\D/g, ''));

  for (let c = 0; c < cases; c++) {
    await heading().waitFor();
    const steps = 1 + Math.floor(random() * 3);
    for (let i = 0; i < steps; i++) {
      const before = await number();
      await device.page.getByRole('button', { name: /^Stopped/ }).click();
      await device.page.getByRole('group', { name: 'Touched', exact: true }).getByRole('button', { name: 'flat' }).click();
      const trouble = random();
      const cdp = trouble < 0.15 ? await device.page.context().newCDPSession(device.page) : null;
      // A full device refuses the save and says so: it is not confirmed, and may not be at the field.
      if (cdp) await cdp.send('Storage.overrideQuotaForOrigin', { origin: url, quotaSize: 1 });
      const save = device.page.getByRole('button', { name: /^Save/ });
      if (trouble > 0.7) await save.dblclick();
      else await save.click();
      const said = await Promise.race([
        device.page.waitForFunction((n) => new RegExp(` ${n}$`).test(document.querySelector('h1')?.textContent ?? ''), before + 1, { timeout: 8000 }).then(() => true, () => false),
        device.page.getByText('NOT SAVED').waitFor({ timeout: 8000 }).then(() => false, () => false),
      ]);
      if (said) confirmed++;
      if (cdp) await cdp.send('Storage.overrideQuotaForOrigin', { origin: url });
      if (chance(0.3)) await device.page.context().setOffline(chance(0.5));
      if (server && chance(0.3)) {
        await server.kill();
        server = null;
      } else if (chance(0.3)) await up();
    }
    // The lid is closed, sometimes in the middle of sending.
    if (chance(0.7)) {
      await killDevice(device);
      if (chance(0.5)) await up();
      device = await openDevice(profile);
      await device.page.goto(address);
    } else await device.page.context().setOffline(false);
    await up();
    await device.page.evaluate(() => window.dispatchEvent(new Event('online')));
    const result = await settle(device.page, url, sortie, confirmed);
    sum.lost += Math.max(0, confirmed - result.landings);
    sum.doubled += Math.max(0, result.landings - confirmed) + result.repeats;
    if (result.waiting) sum.wrong.push(`browser case ${c + 1}: something still waits`);
    confirmed = result.landings;
  }
  await killDevice(device);
  await server?.stop();
  rmSync(profile, { recursive: true, force: true });
  return sum;
}

/** Waits until the device says all is at the field, then asks the field. */
async function settle(page: Page, url: string, sortie: string, confirmed: number): Promise<{ landings: number; repeats: number; waiting: boolean }> {
  let last = { landings: -1, repeats: 0, waiting: true };
  for (let i = 0; i < 60; i++) {
    const status = await page.locator('.status').innerText({ timeout: 3000 }).catch(() => '');
    const [, here, there] = /(\d+) on this device, (\d+) at the field/.exec(status) ?? [];
    const answer = await page.evaluate(async (a) => { const r = await fetch(a); return r.ok ? ((await r.json()) as { events: CaptureEvent[] }) : null; }, `${url}/api/sorties/${sortie}`).catch(() => null);
    if (answer) {
      const ids = answer.events.map((e) => e.eventId);
      last = { landings: fold(answer.events).landings.length, repeats: ids.length - new Set(ids).size, waiting: here !== there || /to send/.test(status) };
      if (!last.waiting && last.landings >= confirmed) return last;
    }
    await wait(250);
  }
  return last;
}
