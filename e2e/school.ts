import { spawnSync } from 'node:child_process';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { expect, type Page } from '@playwright/test';
import { FIXED_NOW } from '../scripts/lib/server';

/** What the demo is made of: none of it may stand on a page of a real school. */
const DEMO = /Pedra Alva|ZPAV|ZP-|Serrana|Lume|Bronze B|Planalto|Orla|Alvor|Helena|Bento|Vasco|Duarte/i;
/** Weather nobody reported: in the lab alone, where it says what it is. */
const SIMULATED = /simulated (station|wind|weather|report)|station is simulated/i;
/** Pages that are there whatever a school holds. */
const ROUTES = [
  ...[
    '/set-up',
    '/board',
    '/board/week',
    '/checkouts',
    '/checkouts/new',
    '/hangar',
    '/hangar/new',
    '/people',
    '/people/new',
  ],
  ...[
    '/people/import',
    '/schedule',
    '/lab',
    '/lab/circuit',
    '/lab/ground',
    '/lab/touch',
    '/lab/sight-picture',
    '/lab/recorder',
  ],
  ...['/ledger', '/notices', '/settings', '/rules', '/rules/house/house', '/traces', '/traces/new', '/account'],
  ...['/schedule/times', '/verify', '/fly'],
];

export const emptyFolder = (): string => mkdtempSync(path.join(tmpdir(), 'jeito-school-'));
/** The link a new school is begun with; null when it is printed no more. */
export function setUpLink(folder: string): string | null {
  const made = spawnSync(process.execPath, ['node_modules/tsx/dist/cli.mjs', 'scripts/set-up-link.ts'], {
    env: { ...process.env, JEITO_DATA: folder, JEITO_NOW: FIXED_NOW },
    encoding: 'utf8',
  });
  expect(made.stderr.replace(/^npm warn.*$/gm, '').trim()).toBe('');
  return /^set-up (\S+)$/m.exec(made.stdout)?.[1] ?? null;
}

/** Pages that fail, or show something of the demo or a simulated weather. */
export async function strangePages(page: Page, more: readonly string[] = []): Promise<string[]> {
  const wrong: string[] = [];
  for (const route of [...ROUTES, ...more]) {
    const answer = await page.goto(route);
    const text = await page.locator('body').innerText();
    const found = DEMO.exec(text)?.[0] ?? (route.startsWith('/lab') ? undefined : SIMULATED.exec(text)?.[0]);
    if ((answer?.status() ?? 0) !== 200 || found || /went wrong|failed here/i.test(text))
      wrong.push(`${route} ${answer?.status() ?? 0} ${found ?? text.slice(0, 80)}`);
  }
  return wrong;
}
