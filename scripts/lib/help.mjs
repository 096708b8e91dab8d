/**
 * Imported before anything else: `--help` prints what a script says of itself at its top and ends. Asking never does
 * anything.
 */
import { readFileSync } from 'node:fs';

if (process.argv.slice(2).some((a) => a === '--help' || a === '-h')) {
  const said = /\/\*\*([\s\S]*?)\*\//.exec(readFileSync(process.argv[1] ?? '', 'utf8'))?.[1] ?? '';
  console.log(said.replace(/^\s*\*? ?/gm, '').trim());
  process.exit(0);
}
