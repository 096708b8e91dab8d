import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';

/** What the stand-in answers by path: good reports, and everything an address on the network may do instead. */
export const STAND_IN_PATHS = [
  'fresh',
  'page',
  'several',
  'stale',
  'old',
  'garbage',
  'empty',
  'taf',
  'slow',
  'trickle',
  'large',
  'redirect',
  'error',
] as const;

const two = (n: number): string => String(n).padStart(2, '0');
const group = (ms: number): string => {
  const d = new Date(ms);
  return `${two(d.getUTCDate())}${two(d.getUTCHours())}${two(d.getUTCMinutes())}Z`;
};
const MIN = 60_000;

/** A weather service that stands in for one on the network: for tests, and for trying the address of Settings. */
export async function weatherStandIn(port = 0): Promise<{ url: string; close: () => Promise<void> }> {
  const now = () => Date.parse(process.env.JEITO_NOW ?? new Date().toISOString());
  const metar = (agoMin: number, wind = '24008KT') =>
    `METAR ZPAV ${group(now() - agoMin * MIN)} ${wind} 9999 FEW030 14/06 Q1019`;
  const texts: Record<string, () => string> = {
    fresh: () => `${metar(10)}=\n`,
    page: () => `<html><body><pre>2026/11/24 14:20\n${metar(10).replace('METAR ', '')}=</pre></body></html>`,
    several: () => `${metar(70, '10003KT')}=\n${metar(10)}=\n${metar(40, '18005KT')}=\n`,
    stale: () => `${metar(100)}=\n`,
    old: () => `${metar(60 * 24 * 20)}=\n`,
    garbage: () => 'Service temporarily \ufffd METAR of no 99 kind',
    empty: () => '',
    taf: () => `TAF ZPAV ${group(now() - 60 * MIN)} 2415/2424 24010KT 9999 FEW040\n  BECMG 2418/2420 VRB03KT=\n`,
  };
  const server = createServer((asked, answer) => {
    const path = (asked.url ?? '').replace(/^\//, '');
    const text = texts[path];
    answer.setHeader('content-type', 'text/plain; charset=utf-8');
    if (text) return void answer.end(text());
    if (path === 'slow') return void setTimeout(() => answer.end(metar(10)), 20_000).unref();
    if (path === 'trickle') {
      const drip = setInterval(() => answer.write('M'), 200);
      answer.on('close', () => clearInterval(drip));
      return;
    }
    if (path === 'large') return void answer.end('X'.repeat(2_000_000));
    if (path === 'redirect') return void answer.writeHead(302, { location: '/fresh' }).end();
    answer.writeHead(path === 'error' ? 500 : 404).end('no');
  });
  await new Promise<void>((up) => server.listen(port, '127.0.0.1', up));
  return {
    url: `http://127.0.0.1:${(server.address() as AddressInfo).port}`,
    close: () =>
      new Promise((down) => {
        server.close(() => down());
        server.closeAllConnections();
      }),
  };
}
