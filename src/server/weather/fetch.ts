import http from 'node:http';
import https from 'node:https';
import type { WeatherProblem } from '@/domain/weather';
import { useAgent as filteringAgent } from 'request-filtering-agent';

const LONGEST_MS = 5_000;
const MOST_BYTES = 64 * 1024;
const AGAIN_AFTER_MS = 5 * 60_000;
/** A page waits no longer than this for an address that was never asked; what comes later is there for the next page. */
const PAGE_WAITS_MS = 800;
/** Addresses are the school's own few; more than these are not remembered. */
const MOST_KEPT = 8;

type FetchProblem = Exclude<WeatherProblem, 'unreadable' | 'stale'>;
export type Fetched = { text: string; problem: null } | { text: null; problem: FetchProblem };

/**
 * Asks an address for its text, once. Where it leads is checked when the connection is made, so that a name that turns
 * to a local address is refused too.
 */
export function fetchText(address: string): Promise<Fetched> {
  const failed = (problem: FetchProblem): Fetched => ({ text: null, problem });
  let url: URL;
  try {
    url = new URL(address);
  } catch {
    return Promise.resolve(failed('no-address'));
  }
  if (url.protocol !== 'http:' && url.protocol !== 'https:') return Promise.resolve(failed('not-allowed'));
  const local = process.env.JEITO_WEATHER_LOCAL === '1';
  return new Promise((answer) => {
    let asked: http.ClientRequest | null = null;
    const end = (result: Fetched) => {
      clearTimeout(timer);
      answer(result);
      asked?.destroy();
    };
    // The whole of it, however slowly it trickles.
    const timer = setTimeout(() => end(failed('slow')), LONGEST_MS);
    // What the network refuses has a code; what the filter refuses has none.
    const failing = (error: NodeJS.ErrnoException) => end(failed(error.code === undefined ? 'not-allowed' : 'down'));
    try {
      asked = (url.protocol === 'https:' ? https : http).get(
        url,
        {
          agent: filteringAgent(url.href, { allowPrivateIPAddress: local, allowMetaIPAddress: local }),
          headers: { accept: 'text/plain', 'user-agent': 'Jeito' },
        },
        (from) => {
          // A redirect too: it leads where nobody at the school has agreed to.
          if (from.statusCode !== 200) return end(failed('refused'));
          const parts: Buffer[] = [];
          let size = 0;
          from.on('data', (part: Buffer) => {
            size += part.length;
            if (size > MOST_BYTES) end(failed('too-large'));
            else parts.push(part);
          });
          from.on('end', () => end({ text: Buffer.concat(parts).toString('utf8'), problem: null }));
          from.on('error', failing);
        },
      );
      asked.on('error', failing);
    } catch (error) {
      failing(error as Error);
    }
  });
}

interface Kept {
  askedAt: number;
  /** What came last; a later failure does not take it away. */
  good: string | null;
  problem: FetchProblem | null;
  running: Promise<void> | null;
}
const kept = new Map<string, Kept>();
export const forgetFetched = (): void => kept.clear();

/** The text of an address as it was last had, asked again in the background when it is five minutes old. */
export async function keptText(address: string): Promise<{ text: string | null; problem: FetchProblem | null }> {
  let k = kept.get(address);
  if (!k) {
    if (kept.size >= MOST_KEPT) kept.clear();
    k = { askedAt: 0, good: null, problem: 'waiting', running: null };
    kept.set(address, k);
  }
  const mine = k;
  if (!mine.running && Date.now() - mine.askedAt > AGAIN_AFTER_MS) {
    mine.askedAt = Date.now();
    mine.running = fetchText(address).then((got) => {
      if (got.text !== null) mine.good = got.text;
      mine.problem = got.problem;
      mine.running = null;
    });
  }
  if (mine.running && mine.good === null)
    await Promise.race([mine.running, new Promise((go) => setTimeout(go, PAGE_WAITS_MS).unref())]);
  return { text: mine.good, problem: mine.problem };
}
