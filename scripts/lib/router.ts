import http from 'node:http';
import { createProxyMiddleware } from 'http-proxy-middleware';
import { z } from 'zod';

const School = z.object({
  name: z
    .string()
    .toLowerCase()
    .regex(/^[a-z0-9]([a-z0-9.-]*[a-z0-9])?$/, 'A name as in the address, such as marsh.example.'),
  port: z.number().int().min(1).max(65535),
});
export type School = z.infer<typeof School>;

/** The schools of a file. @throws Error in one sentence when two share a name or a port, or it is no such file */
export function schoolsOf(text: string): School[] {
  let json: unknown;
  try {
    json = JSON.parse(text);
  } catch {
    throw new Error('The file of schools is no JSON: [{ "name": "marsh.example", "port": 3101 }]');
  }
  const read = z.array(School).min(1).safeParse(json);
  if (!read.success) {
    const [first] = read.error.issues;
    throw new Error(`The file of schools: ${first?.path.join('.') ?? ''} ${first?.message ?? ''}`);
  }
  for (const key of ['name', 'port'] as const) {
    const twice = read.data.find((s, i) => read.data.findIndex((o) => o[key] === s[key]) !== i);
    if (twice) throw new Error(`Two schools have the ${key} ${twice[key]}.`);
  }
  return read.data;
}

/** The name a request was sent to, without its port; null = none that can be one. */
const named = (host: string | undefined): string | null =>
  /^([a-z0-9.-]{1,253})(?::\d{1,5})?$/.exec((host ?? '').toLowerCase())?.[1] ?? null;

const plain = (answer: http.ServerResponse, status: number, text: string): void => {
  answer.writeHead(status, {
    'content-type': 'text/plain; charset=utf-8',
    'cache-control': 'no-store',
    'retry-after': '30',
  });
  answer.end(`${text}\n`);
};

const LOOPBACK = /^(::ffff:)?127\.|^::1$/;
/**
 * Who asks, and over what: what a server for TLS on this machine says is believed and passed on, what anybody else says of
 * themselves is not.
 */
function forwarded(request: http.IncomingMessage): Record<string, string> {
  const near = request.socket.remoteAddress ?? '';
  const said = (name: string): string | null => {
    const value = LOOPBACK.test(near) ? request.headers[name] : undefined;
    return value === undefined ? null : String(value);
  };
  const before = said('x-forwarded-for');
  return {
    'x-forwarded-for': before === null ? near : `${before}, ${near}`,
    'x-forwarded-proto': said('x-forwarded-proto') ?? 'http',
  };
}

/** A server that sends each request to the port of the school it names, and nothing to any other. */
export function router(schools: readonly School[]): http.Server {
  const to = new Map(
    schools.map((s) => [
      s.name,
      createProxyMiddleware<http.IncomingMessage, http.ServerResponse>({
        target: `http://127.0.0.1:${s.port}`,
        // The server behind compares the name with that of the page, and prints it in links.
        changeOrigin: false,
        agent: new http.Agent({ keepAlive: true }),
        proxyTimeout: 120_000,
        on: {
          proxyReq: (sent, request) => {
            for (const [name, value] of Object.entries(forwarded(request))) sent.setHeader(name, value);
          },
          error: (_error, _request, answer) => {
            if ('writeHead' in answer && !answer.headersSent)
              plain(
                answer,
                502,
                `${s.name} does not answer at this moment. What is on your device stays there; try again soon.`,
              );
            else answer.end();
          },
        },
      }),
    ]),
  );
  return http.createServer((request, answer) => {
    const pass = to.get(named(request.headers.host) ?? '');
    if (!pass) return plain(answer, 404, 'There is no such school here.');
    void pass(request, answer);
  });
}
