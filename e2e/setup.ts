import { seedFolder } from '../scripts/lib/server';

/** The demo is filled in once; every spec file works on its own copy, with a server of its own. */
export const SEEDED = '.tmp/e2e-seed';
export default function setup(): void {
  seedFolder(SEEDED);
}
