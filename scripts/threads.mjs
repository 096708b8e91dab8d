/** After a build: bundles the server's threads, which run beside it, into .next/threads. */
import './lib/help.mjs';
import { build } from 'esbuild';

await build({
  entryPoints: {
    trace: 'src/workers/trace.thread.ts',
    check: 'src/server/ledger/check.thread.ts',
    papers: 'src/server/papers/papers.thread.ts',
    logbook: 'src/server/people/logbook.thread.ts',
  },
  outdir: '.next/threads',
  outExtension: { '.js': '.mjs' },
  bundle: true,
  // Packages are taken from where they are installed: fonts and the unpacker's program lie there too.
  packages: 'external',
  platform: 'node',
  format: 'esm',
  target: 'node20',
  minify: true,
  tsconfig: 'tsconfig.json',
  logLevel: 'warning',
});
