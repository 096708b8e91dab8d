import { readFileSync, writeFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import { as, checkoutOf, expect, go, prepareDevice, test } from './help';

test.use({ spec: 'said' });

const SAID = 'e2e/said.txt';
/** What is said on the way through a page: where one is, what there is to do, what stands there to be known. */
const SPOKEN = new Set(
  [
    'banner',
    'navigation',
    'main',
    'region',
    'complementary',
    'form',
    'group',
    'table',
    'list',
    'heading',
    'alert',
  ].concat([
    'status',
    'link',
    'button',
    'textbox',
    'combobox',
    'checkbox',
    'radio',
    'spinbutton',
    'slider',
    'image',
    'caption',
  ]),
);
interface Node {
  ignored: boolean;
  role?: { value: string };
  name?: { value: string };
  properties?: { name: string; value: { value: unknown } }[];
  childIds?: string[];
  nodeId: string;
}

/** The page as a screen reader goes through it: the accessibility tree of the browser, in order. */
async function heard(page: Page): Promise<string[]> {
  const cdp = await page.context().newCDPSession(page);
  const { nodes } = (await cdp.send('Accessibility.getFullAXTree')) as unknown as { nodes: Node[] };
  const byId = new Map(nodes.map((n) => [n.nodeId, n]));
  const out: string[] = [];
  const read = (n: Node | undefined): void => {
    if (!n) return;
    const role = n.role?.value ?? '';
    const name = (n.name?.value ?? '').replace(/\s+/g, ' ').trim();
    const has = (k: string) => n.properties?.find((p) => p.name === k)?.value.value;
    if (!n.ignored && SPOKEN.has(role) && (name !== '' || role === 'main')) {
      const level = has('level');
      const state = [
        has('expanded') === undefined ? '' : has('expanded') ? 'expanded' : 'collapsed',
        has('pressed') === 'true' ? 'pressed' : '',
        has('disabled') ? 'unavailable' : '',
        has('invalid') === 'true' ? 'invalid' : '',
      ].filter(Boolean);
      out.push([`${role}${typeof level === 'number' ? ` ${level}` : ''}`, name, ...state].filter(Boolean).join(', '));
    }
    for (const id of n.childIds ?? []) read(byId.get(id));
  };
  read(nodes[0]);
  await cdp.detach();
  return out;
}

/**
 * The script of the five stages, as it is said. A change of what is said changes the file: `JEITO_SAID=write` writes it,
 * and it is read like any other text before it is kept.
 */
test('the five stages read aloud as they are kept', async ({ browser, baseURL }) => {
  const context = await browser.newContext({ baseURL, reducedMotion: 'reduce' });
  const page = await as(context, 'helena');
  const [ines, duarte] = [await checkoutOf(page, 'Inês Vale Carmo'), await checkoutOf(page, 'Duarte Sá Nogal')];
  const lines: string[] = [];
  const stage = async (name: string) => {
    lines.push(`== ${name}: ${await page.title()}`, ...(await heard(page)), '');
  };
  for (const [name, path] of [
    ['Open', duarte],
    ['Brief', `${duarte}/brief`],
    ['Fly', ''],
    ['Debrief', `${ines}/debrief`],
    ['Sign', `${ines}/sign`],
  ] as const) {
    if (name === 'Fly') await prepareDevice(page, duarte);
    else await go(page, path);
    await stage(name);
  }
  const said = `${lines.join('\n')}`;
  if (process.env.JEITO_SAID === 'write') writeFileSync(SAID, said);
  expect(said).toBe(readFileSync(SAID, 'utf8'));
  // Every control says what it is, and each stage its one first heading.
  expect(said.match(/^heading 1,/gm)).toHaveLength(5);
  await context.close();
});
