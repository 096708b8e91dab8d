import { cpSync, existsSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import http from 'node:http';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { z } from 'zod';
import { type RunningServer, seedFolder, startServer } from '../lib/server';

/** What an attack is told of the server it is aimed at: an address, a folder of its own, and nothing from inside. */
export interface Answer {
  status: number;
  headers: http.IncomingHttpHeaders;
  text: string;
  ms: number;
}
export interface Ask {
  method?: string;
  cookie?: string;
  headers?: Record<string, string>;
  body?: string | Buffer;
  /** The network address it comes from, within this machine. */
  from?: string;
  /** A body without an announced length, so many bytes of it. */
  chunkedBytes?: number;
}

/** One request, from an address of choice; a body may come in pieces that announce nothing. */
export function ask(server: { port: number }, to: string, of: Ask = {}): Promise<Answer> {
  const began = Date.now();
  return new Promise((resolve, reject) => {
    const request = http.request(
      {
        host: '127.0.0.1',
        port: server.port,
        path: to,
        method: of.method ?? (of.body !== undefined || of.chunkedBytes ? 'POST' : 'GET'),
        ...(of.from ? { localAddress: of.from } : {}),
        headers: { ...(of.cookie ? { cookie: of.cookie } : {}), ...of.headers },
        agent: false,
      },
      (response) => {
        const parts: Buffer[] = [];
        response.on('data', (d: Buffer) => parts.push(d));
        response.on('end', () =>
          resolve({
            status: response.statusCode ?? 0,
            headers: response.headers,
            text: Buffer.concat(parts).toString('utf8'),
            ms: Date.now() - began,
          }),
        );
        response.on('error', reject);
      },
    );
    request.setTimeout(120_000, () => request.destroy(new Error('no answer in 120 s')));
    // A server that has heard enough hangs up: what it said before is the answer.
    request.on('error', (error: NodeJS.ErrnoException) =>
      ['EPIPE', 'ECONNRESET'].includes(error.code ?? '')
        ? resolve({ status: 0, headers: {}, text: 'hung up', ms: Date.now() - began })
        : reject(error),
    );
    if (of.chunkedBytes) pour(request, of.chunkedBytes);
    else request.end(of.body);
  });
}
function pour(request: http.ClientRequest, bytes: number): void {
  const piece = Buffer.alloc(1 << 20, 'x');
  let sent = 0;
  const more = () => {
    while (sent < bytes && !request.destroyed) {
      sent += piece.length;
      if (!request.write(piece)) return void request.once('drain', more);
    }
    if (!request.destroyed) request.end();
  };
  more();
}

const Manifest = z.object({ node: z.record(z.string(), z.object({ exportedName: z.string() })) });
let actionIds: Map<string, string> | undefined;
/** The ids of the server's actions, as every page carries them. */
function idOfAction(name: string): string {
  actionIds ??= new Map(
    Object.entries(
      Manifest.parse(JSON.parse(readFileSync('.next/server/server-reference-manifest.json', 'utf8'))).node,
    ).map(([id, a]) => [a.exportedName, id]),
  );
  return actionIds.get(name) ?? `no action ${name}`;
}
export interface Acted {
  answer: Answer;
  /** What the action gave back; null = nothing that can be read. */
  value: { ok?: boolean; problems?: { path: string; message: string }[] } & Record<string, unknown>;
}
/** Calls a server action as a page would, or as somebody who has read one. */
export async function act(
  server: { port: number },
  name: string,
  args: unknown[],
  of: Ask & { page?: string } = {},
): Promise<Acted> {
  const answer = await ask(server, of.page ?? '/board', {
    ...of,
    method: 'POST',
    body: JSON.stringify(args),
    headers: {
      'next-action': idOfAction(name),
      'content-type': 'text/plain;charset=UTF-8',
      origin: `http://127.0.0.1:${server.port}`,
      ...of.headers,
    },
  });
  const line = answer.text.split('\n').find((l) => l.startsWith('1:'));
  let value: Acted['value'] = {};
  try {
    value = line ? (JSON.parse(line.slice(2)) as Acted['value']) : {};
  } catch {
    value = {};
  }
  return { answer, value };
}
export const said = (a: Acted): string =>
  a.value.ok === true ? 'done' : (a.value.problems?.map((p) => p.message).join(' ') ?? `status ${a.answer.status}`);

export const PASSWORD = 'pedra-alva-2026';
export const mail = (key: string): string => `${key}@pedra-alva.example`;

/** Signs in and gives the cookie; empty when refused. */
export async function signIn(
  server: { port: number },
  key: string,
  password = PASSWORD,
  from?: string,
): Promise<{ cookie: string; said: string }> {
  const done = await act(server, 'signInAction', [{ email: key.includes('@') ? key : mail(key), password }], {
    page: '/sign-in',
    ...(from ? { from } : {}),
  });
  const cookie = (done.answer.headers['set-cookie'] ?? []).map((c) => c.split(';')[0]).join('; ');
  return { cookie, said: said(done) };
}

/** Peak of the memory a process has had, MB. */
export function peakMb(pid: number): number {
  const line = /VmHWM:\s+(\d+) kB/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'));
  return Math.round(Number(line?.[1] ?? 0) / 1024);
}
export const serverPid = (folder: string): number =>
  Number(readFileSync(path.join(folder, 'server.lock'), 'utf8').split('\n')[0]);

export interface Attack {
  no: string;
  name: string;
  /** What was measured when it held; throws with what fell. */
  run: () => Promise<string>;
}
export class Fell extends Error {}
export function mustHold(held: unknown, what: string): asserts held {
  if (!held) throw new Fell(what);
}

export interface World {
  seeded: string;
  folder: string;
  server: RunningServer;
  log: () => string;
}
/** A copy of the seeded folder for attacks on the start, and a server of its own for the rest. */
export async function openWorld(prepare: (folder: string) => Promise<void>): Promise<World> {
  const root = mkdtempSync(path.join(tmpdir(), 'jeito-attack-'));
  const seeded = path.join(root, 'seeded');
  seedFolder(seeded);
  await prepare(seeded);
  const folder = path.join(root, 'world');
  cpSync(seeded, folder, { recursive: true });
  rmSync(path.join(folder, 'server.lock'), { force: true });
  const server = await startServer(folder, { JEITO_LOG: 'info' });
  let text = '';
  server.child.stdout?.on('data', (d) => (text += String(d)));
  server.child.stderr?.on('data', (d) => (text += String(d)));
  return { seeded, folder, server, log: () => text };
}
export const copyOf = (folder: string, name: string): string => {
  const to = path.join(path.dirname(folder), name);
  cpSync(folder, to, { recursive: true });
  rmSync(path.join(to, 'server.lock'), { force: true });
  if (!existsSync(to)) throw new Error(`no copy ${to}`);
  return to;
};
