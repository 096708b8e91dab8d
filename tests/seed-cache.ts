import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';

/** One place a run where the demo is seeded once, by the first test file that asks for it; taken away at the end. */
export default function setup(): () => void {
  if (process.env.JEITO_SEED_CACHE) return () => undefined;
  const folder = mkdtempSync(path.join(tmpdir(), 'jeito-seed-'));
  process.env.JEITO_SEED_CACHE = folder;
  return () => rmSync(folder, { recursive: true, force: true });
}
