/** How long a press is a tap, and how fast it runs then: by steps at first, five at a time once it has run a while. */
const TAP_MS = 450;
const STEP_MS = 90;
const FAR_AFTER = 12;
const FAR = 5;
/** Slow enough to let go where it is wanted. */
const FAR_MS = 220;

/**
 * A button that is held runs; what it has come to is shown at each step and kept once, when it is let go.
 * @param pressed aborted when the press is over
 * @param next the number so many steps on
 * @param show what stands there while it runs; null = the press is over
 */
export function hold(
  pressed: AbortSignal,
  button: Element,
  from: number,
  next: (now: number, steps: number) => number,
  show: (v: number | null) => void,
  keep: (v: number) => void,
): void {
  if (pressed.aborted) return;
  let now = from;
  let ran = 0;
  const run = () => {
    ran += 1;
    now = next(now, ran > FAR_AFTER ? FAR : 1);
    show(now);
    timer = setTimeout(run, ran > FAR_AFTER ? FAR_MS : STEP_MS);
  };
  let timer = setTimeout(run, TAP_MS);
  pressed.addEventListener('abort', () => {
    clearTimeout(timer);
    if (ran === 0) return;
    // The click that ends a press is no tap; where none comes, the next one is.
    const click = new AbortController();
    button.addEventListener('click', (e) => e.stopImmediatePropagation(), { capture: true, signal: click.signal });
    setTimeout(() => {
      click.abort();
      show(null);
    });
    keep(now);
  });
}
