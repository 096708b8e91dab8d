/** What every chart is built on; apart, so that it can start in a task of its own. */
export { format, init, use } from 'echarts/core';

/**
 * Tells when the place of a chart has another size. Not when the watching begins, which would draw all of it twice.
 * @returns ends the watching
 */
export function onNewSize(element: HTMLElement, act: () => void): () => void {
  let known = `${element.clientWidth} ${element.clientHeight}`;
  const sizes = new ResizeObserver(() => {
    const now = `${element.clientWidth} ${element.clientHeight}`;
    if (now === known) return;
    known = now;
    act();
  });
  sizes.observe(element);
  return () => sizes.disconnect();
}
