/**
 * Prepares a data folder: migrates, and with `--demo` fills it with Pedra Alva when it is empty. `--fresh` starts over.
 */
import './lib/help.mjs';
import { existsSync, rmSync } from 'node:fs';
import { parseArgs } from 'node:util';
import { DEMO_PASSWORD } from '@demo/people';
import { seedDemo } from '@demo/seed';
import { closeDatabase } from '@/server/floor/connection';
import { row, rows } from './lib/raw';
import { migrate } from '@/server/floor/migrate';
import { nowIso } from '@/server/floor/clock';
import { markDemo } from '@/server/running/demo';
import { dataFolder, folderHolder, holdFolder } from '@/server/floor/data-folder';

/** Accounts a demo's sign-in page names. */
const MOST_NAMED = 6;
const { values } = parseArgs({ options: { demo: { type: 'boolean' }, fresh: { type: 'boolean' } } });
const holder = folderHolder();
if (holder !== null) {
  console.error(`The data folder is held by a running server (process ${holder}). Stop it, then try again.`);
  process.exit(1);
}
if (values.fresh && existsSync(dataFolder())) rmSync(dataFolder(), { recursive: true, force: true });
holdFolder();
await migrate();
const users = await row<{ n: number }>('SELECT COUNT(*) AS n FROM users');
if (values.demo && users?.n === 0) {
  const done = await seedDemo();
  markDemo(nowIso(), {
    password: DEMO_PASSWORD,
    accounts: (
      await rows<{ email: string; name: string; roles: string }>(
        `SELECT email, name, roles FROM users ORDER BY roles = '["pilot"]', rowid`,
      )
    )
      .map((u) => ({ email: u.email, name: u.name, role: (JSON.parse(u.roles) as string[]).join(', ') }))
      .slice(0, MOST_NAMED),
  });
  console.log(`Pedra Alva filled in: ${done.checkouts} checkouts, ${done.landings} landings, ${done.signed} signed.`);
}
await closeDatabase();
