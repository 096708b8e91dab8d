import { cpSync, existsSync, mkdtempSync, readFileSync, readdirSync, rmSync } from 'node:fs';
import http from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { chromium, expect, test } from '@playwright/test';
import { router } from '../scripts/lib/router';
import { type RunningServer, startServer } from '../scripts/lib/server';
import { go, mail, PASSWORD } from './help';
import { CHROMIUM } from '../scripts/lib/server';
import { SEEDED } from './setup';

const NAMES = ['alva.example', 'marsh.example', 'dune.example'];
let schools: RunningServer[] = [];
let door: http.Server;
let port: number;
test.beforeAll(async () => {
  const folder = () => {
    const made = mkdtempSync(path.join(tmpdir(), 'jeito-school-'));
    cpSync(SEEDED, made, { recursive: true });
    rmSync(path.join(made, 'server.lock'), { force: true });
    return made;
  };
  const env = { JEITO_PROXY: '127.0.0.1' };
  schools = await Promise.all(NAMES.map(() => startServer(folder(), env)));
  door = router(schools.map((s, i) => ({ name: NAMES[i] ?? '', port: s.port })));
  await new Promise<void>((done) => door.listen(0, '127.0.0.1', done));
  port = (door.address() as AddressInfo).port;
});
test.afterAll(async () => {
  door.close();
  door.closeAllConnections();
  await Promise.all(schools.map((s) => s.stop()));
  for (const s of schools) rmSync(s.dataFolder, { recursive: true, force: true });
});

/** What a name answers, through the door. */
const ask = (
  host: string,
  at: string,
  headers: Record<string, string> = {},
): Promise<{ status: number; text: string }> =>
  new Promise((done, failed) => {
    http
      .get({ host: '127.0.0.1', port, path: at, headers: { host, ...headers } }, (answer) => {
        let text = '';
        answer.on('data', (d: Buffer) => (text += d.toString()));
        answer.on('end', () => done({ status: answer.statusCode ?? 0, text }));
      })
      .on('error', failed);
  });
/** Memory of a server and what it started, MB. */
function memoryMb(pid: number): number {
  const own = Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1] ?? 0) / 1024;
  const tasks = `/proc/${pid}/task/${pid}/children`;
  const children = existsSync(tasks) ? readFileSync(tasks, 'utf8').trim().split(' ').filter(Boolean) : [];
  return own + children.reduce((sum, c) => sum + memoryMb(Number(c)), 0);
}

test('three schools behind one door: nothing of one from another; one killed, the others go on', async () => {
  test.setTimeout(180_000);
  for (const name of NAMES) expect((await ask(name, '/api/health')).status, name).toBe(200);
  for (const host of ['other.example', '127.0.0.1', 'alva.example.evil', '', 'alva.example@marsh.example'])
    expect((await ask(host, '/sign-in')).status, host).toBe(404);

  const browser = await chromium.launch({
    ...CHROMIUM,
    args: [...(CHROMIUM.args ?? []), '--host-resolver-rules=MAP *.example 127.0.0.1'],
  });
  const context = await browser.newContext();
  const page = await context.newPage();
  const at = (i: number, where: string) => `http://${NAMES[i] ?? ''}:${port}${where}`;
  await go(page, at(0, '/sign-in'));
  await page.getByLabel('E-mail').fill(mail('bento'));
  await page.getByLabel('Password').fill(PASSWORD);
  await page.getByRole('button', { name: 'Sign in' }).click();
  await page.waitForURL('**/board');
  await expect(page.getByRole('heading', { name: 'Your to-do' })).toBeVisible();
  const cookies = (await context.cookies()).map((c) => `${c.name}=${c.value}`).join('; ');
  expect(cookies).not.toBe('');

  // The session of one is nobody at another, though both have an account of that name.
  expect((await ask(NAMES[0] ?? '', '/api/people/pilot-clara/record', { cookie: cookies })).status).toBe(200);
  for (const other of NAMES.slice(1)) {
    expect((await ask(other, '/api/people/pilot-clara/record', { cookie: cookies })).status).toBe(404);
    expect((await ask(other, '/board', { cookie: cookies })).status).toBe(307);
  }
  // A token neither.
  await go(page, at(0, '/account'));
  await page.getByLabel('Used by').fill('a screen in the hall');
  await page.getByLabel('Type sheets and airframes').check();
  await page.getByRole('button', { name: 'Create token' }).click();
  const token = await page.locator('[data-token]').innerText();
  const bearer = { authorization: `Bearer ${token.trim()}` };
  expect((await ask(NAMES[0] ?? '', '/api/v1/types', bearer)).status).toBe(200);
  expect((await ask(NAMES[1] ?? '', '/api/v1/types', bearer)).status).toBe(404);
  console.log(
    `three schools, after their first pages: ${schools.map((s) => `${Math.round(memoryMb(s.child.pid ?? 0))} MB`).join(', ')}`,
  );

  // One is killed in the middle of its work.
  const gone = schools[1];
  if (!gone) throw new Error('no second school');
  await gone.kill();
  const dead = await ask(NAMES[1] ?? '', '/board');
  expect(dead.status).toBe(502);
  expect(dead.text).toContain('marsh.example does not answer');
  for (const i of [0, 2]) expect((await ask(NAMES[i] ?? '', '/api/health')).status).toBe(200);
  await page.goto(at(0, '/schedule'));
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible();

  // Started again on its port it is there; nobody else had to be.
  schools[1] = await startServer(gone.dataFolder, { JEITO_PROXY: '127.0.0.1' }, gone.port);
  expect((await ask(NAMES[1] ?? '', '/api/health')).status).toBe(200);
  await browser.close();
});

test('a stop finishes what was accepted, though a page stays open and asks', async () => {
  const folder = mkdtempSync(path.join(tmpdir(), 'jeito-stop-'));
  cpSync(SEEDED, folder, { recursive: true });
  rmSync(path.join(folder, 'server.lock'), { force: true });
  const server = await startServer(folder);
  // Connections that are kept, as open pages keep them.
  const agent = new http.Agent({ keepAlive: true });
  const kept = () =>
    new Promise<number>((done, failed) => {
      http
        .get({ port: server.port, path: '/api/health', agent }, (r) =>
          r.resume().on('end', () => done(r.statusCode ?? 0)),
        )
        .on('error', failed);
    });
  expect(await kept()).toBe(200);
  const begun = Date.now();
  const ended = new Promise<number | null>((done) => server.child.once('close', (code) => done(code)));
  server.child.kill('SIGTERM');
  expect(await ended).toBe(0);
  expect(Date.now() - begun).toBeLessThan(15_000);
  agent.destroy();
  // The folder is given back, and its log is in the database.
  expect(existsSync(path.join(folder, 'server.lock'))).toBe(false);
  expect(readdirSync(folder).filter((f) => f.startsWith('.'))).toEqual([]);
  rmSync(folder, { recursive: true, force: true });
});
