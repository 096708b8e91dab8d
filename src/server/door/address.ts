import { subscribe } from 'node:diagnostics_channel';
import type { IncomingMessage } from 'node:http';

/** Set on every request by this process itself; whatever a client sends under this name is overwritten. */
export const ADDRESS_HEADER = 'x-jeito-address';

declare global {
  var __jeitoAddress: boolean | undefined;
}

/**
 * Addresses of proxies in front of this installation (`JEITO_PROXY`, separated by commas; behind TLS, where nothing is
 * named, this machine itself). Only from one of these is `X-Forwarded-For` believed, and of it only what the proxy itself
 * added: the last address that is no proxy of ours.
 */
const proxies = (): readonly string[] =>
  (process.env.JEITO_PROXY || (process.env.JEITO_HTTPS === '1' ? '127.0.0.1,::1' : ''))
    .split(',')
    .filter((p) => p.trim() !== '')
    .map((p) => plainAddress(p.trim()));

/** `::ffff:127.0.0.1` and `127.0.0.1` are one address; of IPv6 the network of one household (/64) counts. */
export function plainAddress(address: string): string {
  const v4 = /^(?:::ffff:)?(\d{1,3}(?:\.\d{1,3}){3})$/i.exec(address)?.[1];
  if (v4) return v4;
  if (!address.includes(':')) return address.slice(0, 60);
  const [head = '', tail = ''] = address.split('%')[0]?.split('::') ?? [];
  const left = head.split(':').filter(Boolean);
  const right = tail.split(':').filter(Boolean);
  const zeros = Array<string>(Math.max(0, 8 - left.length - right.length)).fill('0');
  return `${[...left, ...zeros, ...right]
    .slice(0, 4)
    .map((h) => h.toLowerCase().replace(/^0+(?=.)/, ''))
    .join(':')}::`;
}

/** Who asks: the socket, or what a trusted proxy says of it. */
export function clientAddress(socket: string | undefined, forwarded: string | undefined, trusted = proxies()): string {
  const near = plainAddress(socket ?? 'unknown');
  if (!trusted.includes(near)) return near;
  const path = (forwarded ?? '')
    .split(',')
    .map((p) => plainAddress(p.trim()))
    .filter((p) => p !== '');
  return path.reverse().find((p) => !trusted.includes(p)) ?? near;
}

/** Stamps every request of this process with the address it came from, before anybody reads it. */
export function stampAddresses(): void {
  if (globalThis.__jeitoAddress) return;
  globalThis.__jeitoAddress = true;
  subscribe('http.server.request.start', (message) => {
    const { request } = message as { request: IncomingMessage };
    const forwarded = request.headers['x-forwarded-for'];
    request.headers[ADDRESS_HEADER] = clientAddress(
      request.socket.remoteAddress,
      Array.isArray(forwarded) ? forwarded.join(',') : forwarded,
    );
  });
}

export const addressOf = (headers: Headers): string => headers.get(ADDRESS_HEADER) ?? 'unknown';
