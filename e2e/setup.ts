import { seedFolder } from '../scripts/lib/server';

/** The demo is seeded once; every spec file works on its own copy. */
export const SEEDED = '.tmp/e2e-seed';
export default function setup(): void {
  seedFolder(SEEDED);
}
