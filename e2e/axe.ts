import AxeBuilder from '@axe-core/playwright';
import type { Browser, BrowserContext, Page } from '@playwright/test';
import { as } from './help';

export interface Walk {
  context: BrowserContext;
  page: Page;
  /** Every rule on what is shown; with `everyTheme` its contrast in the two other themes as well. */
  check: (name: string, everyTheme?: 'every theme') => Promise<void>;
  found: string[];
}

/** A signed-in page that axe looks at as it is walked. Reduced motion: contrast is not measured half-way through a fade. */
export async function axeWalk(browser: Browser, baseURL: string | undefined): Promise<Walk> {
  const context = await browser.newContext({ ...(baseURL === undefined ? {} : { baseURL }), reducedMotion: 'reduce' });
  await context.addInitScript(() => {
    localStorage.setItem('jeito-theme', 'day');
    localStorage.setItem('jeito-theme-fly', 'day');
  });
  const page = await as(context, 'helena');
  const found: string[] = [];
  const look = async (name: string, axe: AxeBuilder) => {
    const { violations } = await axe.analyze();
    for (const v of violations)
      found.push(
        `${name}: ${v.id} ${v.nodes
          .slice(0, 2)
          .map((n) => n.html.slice(0, 120))
          .join(' | ')}`,
      );
  };
  /** Only what fails is written down, and there are no frames to look into: a fifth of the time. */
  const axe = () => new AxeBuilder({ page }).setLegacyMode(true).options({ resultTypes: ['violations'] });
  const wear = (theme: string) =>
    page.evaluate((t) => document.documentElement.setAttribute('data-bs-theme', t), theme);
  return {
    context,
    page,
    found,
    check: async (name, everyTheme) => {
      await look(name, axe());
      if (!everyTheme) return;
      // A theme changes colours and nothing else.
      for (const theme of ['dusk', 'sun']) {
        await wear(theme);
        await look(`${name}, ${theme}`, axe().withRules(['color-contrast']));
      }
      await wear('day');
    },
  };
}
