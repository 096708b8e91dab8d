/**
 * After a build: writes public/sw.js, which keeps the cockpit shell on the device. Cached are the one static page /fly,
 * every chunk it can ask for (its own, and those its lazy parts name, all the way down), fonts and icons, and the page that
 * stands for all others without the network; never other HTML, never an answer of the API.
 */
import './lib/help.mjs';
import { createHash } from 'node:crypto';
import { existsSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { generateSW } from 'workbox-build';

const shell = readFileSync('.next/server/app/fly.html', 'utf8');
const offline = readFileSync('.next/server/app/offline.html', 'utf8');
const wanted = new Set();
const read = (text, from) => {
  for (const [, name] of text.matchAll(/((?:static\/)?(?:chunks|media)\/[\w.~-]+\.(?:js|css|woff2))/g))
    add(name.startsWith('static/') ? name : `static/${name}`);
  for (const [, name] of text.matchAll(/url\(["']?(\.\.?\/[\w./~-]+\.woff2)/g))
    add(path.posix.normalize(path.posix.join(path.posix.dirname(from), name)));
};
function add(file) {
  if (wanted.has(file) || !existsSync(path.join('.next', file))) return;
  wanted.add(file);
  if (!file.endsWith('.woff2')) read(readFileSync(path.join('.next', file), 'utf8'), file);
}
read(shell, 'static/chunks/x');
read(offline, 'static/chunks/x');
if (wanted.size < 5)
  throw new Error('the cockpit shell names fewer chunks than it can run with: look at .next/server/app/fly.html');

const revisionOf = (text) => createHash('sha256').update(text).digest('hex').slice(0, 16);
const { count, size, warnings } = await generateSW({
  globDirectory: '.next',
  globPatterns: [...wanted],
  modifyURLPrefix: { 'static/': '/_next/static/' },
  dontCacheBustURLsMatching: /\/_next\/static\//,
  maximumFileSizeToCacheInBytes: 8_000_000,
  additionalManifestEntries: [
    { url: '/fly', revision: revisionOf(shell) },
    { url: '/offline', revision: revisionOf(offline) },
    ...['/icon-192.png', '/icon-512.png'].map((url) => ({
      url,
      revision: revisionOf(readFileSync(`public${url}`)),
    })),
  ],
  navigateFallback: '/fly',
  navigateFallbackAllowlist: [/^\/fly(\?|$)/],
  // Any other page comes from the server; where that cannot be reached, from here.
  runtimeCaching: [
    {
      urlPattern: ({ request }) => request.mode === 'navigate',
      handler: 'NetworkOnly',
      options: { precacheFallback: { fallbackURL: '/offline' } },
    },
  ],
  ignoreURLParametersMatching: [],
  // A flight in progress keeps the version it began with: a new one takes over when the last page is closed.
  skipWaiting: false,
  clientsClaim: true,
  cleanupOutdatedCaches: true,
  inlineWorkboxRuntime: true,
  sourcemap: false,
  swDest: 'public/sw.js',
  mode: 'production',
});
for (const w of warnings) console.warn(w);
console.log(`service worker: ${count} files, ${Math.round(size / 1000)} kB kept on the device`);
