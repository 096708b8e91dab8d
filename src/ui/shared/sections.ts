/** The headings of a page's sections that are in sight, in order; what is folded away is not among them. */
export const sectionHeads = (): HTMLElement[] =>
  [...document.querySelectorAll<HTMLElement>('main h2')].filter((h) => h.checkVisibility() && h.textContent !== '');

/** A heading is where reading goes on: the focus stands on it, below the strip. */
export function goToHead(head: HTMLElement | undefined): void {
  if (!head) return;
  head.tabIndex = -1;
  head.focus({ preventScroll: true });
  (head.closest('section') ?? head).scrollIntoView({ block: 'start' });
}

/** The next section, or the one before, from the one in hand or at the top of the window. */
export function jumpSection(step: 1 | -1): void {
  const heads = sectionHeads();
  const held = heads.findIndex((h) => h === document.activeElement);
  const top = heads.findLastIndex((h) => h.getBoundingClientRect().top < 150);
  goToHead(heads[held >= 0 ? held + step : step === 1 ? top + 1 : top]);
}
