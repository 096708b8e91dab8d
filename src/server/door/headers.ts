import { readFileSync } from 'node:fs';
import path from 'node:path';
import { z } from 'zod';

/** Said by every answer where the installation is reached by TLS (`JEITO_HTTPS=1`). */
export const HSTS = 'max-age=31536000; includeSubDomains';

const Hashes = z.object({ theme: z.string(), shell: z.array(z.string()), fallback: z.array(z.string()) });
type Hashes = z.infer<typeof Hashes>;
let read: Hashes | undefined;
/** Hashes of the scripts inside the pages made at the build (scripts/inline-scripts.mjs). */
function hashes(): Hashes {
  if (read) return read;
  const file = path.join(/* turbopackIgnore: true */ process.cwd(), '.next', 'inline-scripts.json');
  return (read = Hashes.parse(JSON.parse(readFileSync(/* turbopackIgnore: true */ file, 'utf8'))));
}

/**
 * The policy of a page.
 * @param nonce of a rendered page; null = the cockpit's static shell, whose scripts are named by their hashes
 */
export function pagePolicy(nonce: string | null): string {
  const dev = process.env.NODE_ENV !== 'production';
  const scripts = dev
    ? ["'unsafe-inline'", "'unsafe-eval'"]
    : nonce === null
      ? [hashes().theme, ...hashes().shell]
      : [`'nonce-${nonce}'`, hashes().theme, ...hashes().fallback];
  return [
    "default-src 'none'",
    `script-src 'self' ${scripts.join(' ')}`,
    "style-src 'self'",
    // Bars and marks are placed by style attributes; no style sheet comes from anywhere but here.
    "style-src-attr 'unsafe-inline'",
    "img-src 'self' data: blob:",
    "font-src 'self'",
    `connect-src 'self'${dev ? ' ws:' : ''}`,
    "worker-src 'self'",
    "manifest-src 'self'",
    "object-src 'none'",
    "base-uri 'none'",
    "form-action 'self'",
    "frame-ancestors 'none'",
  ].join('; ');
}
