/**
 * Does something once an element is in sight or nearly so, or about to be printed: a drawing far down a page does not
 * hold up its top.
 * @returns takes the waiting back
 */
export function whenSeen(element: Element, act: () => void): () => void {
  const stop = () => {
    watch.disconnect();
    window.removeEventListener('beforeprint', now);
  };
  const now = () => {
    stop();
    act();
  };
  const watch = new IntersectionObserver((seen) => (seen.some((s) => s.isIntersecting) ? now() : undefined), {
    rootMargin: '60px',
  });
  watch.observe(element);
  window.addEventListener('beforeprint', now);
  return stop;
}
