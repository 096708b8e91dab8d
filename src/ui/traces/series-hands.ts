/** Hands on the curves: the wheel and two fingers zoom about where they are, a drag moves, a pointer reads. */
export interface Hands {
  /** The window that is wanted, seconds. */
  wanted: () => [number, number];
  /** Before a drag: what is wanted is what is drawn. */
  settle: () => void;
  /** Pixels of the curves' width. */
  wide: () => number;
  left: number;
  /** Pixels from the top of the element below which the curves end. */
  bottom: number;
  zoomAbout: (s: number, factor: number) => void;
  toWindow: (fromS: number, toS: number) => void;
  /** @param share of the window, 0 to 1 */
  onCursor: (share: number) => void;
}
/** Two fingers nearer than this zoom nothing: pixels. */
const LEAST_SPREAD_PX = 20;
const LEAVING = ['pointerup', 'pointercancel', 'pointerleave'] as const;

/** @returns lets go of the element */
export function handsOn(element: HTMLElement, h: Hands): () => void {
  const inCurves = (clientY: number) => clientY - element.getBoundingClientRect().top < h.bottom;
  const share = (clientX: number) => (clientX - element.getBoundingClientRect().left - h.left) / h.wide();
  const secondAt = (clientX: number) => {
    const [from, to] = h.wanted();
    return from + share(clientX) * (to - from);
  };
  const read = (event: PointerEvent) => {
    const at = share(event.clientX);
    if (!inCurves(event.clientY) || at < 0 || at > 1 || event.buttons !== 0) return;
    h.onCursor(at);
  };
  const wheel = (event: WheelEvent) => {
    if (!inCurves(event.clientY)) return;
    event.preventDefault();
    h.zoomAbout(secondAt(event.clientX), Math.exp(event.deltaY * 0.0012));
  };
  const fingers = new Map<number, number>();
  const down = (event: PointerEvent) => {
    if (!inCurves(event.clientY)) return;
    if (fingers.size === 0) h.settle();
    fingers.set(event.pointerId, event.clientX);
  };
  const move = (event: PointerEvent) => {
    const before = fingers.get(event.pointerId);
    if (before === undefined) {
      read(event);
      return;
    }
    const [other] = [...fingers].filter(([id]) => id !== event.pointerId).map(([, x]) => x);
    if (other === undefined) {
      const [from, to] = h.wanted();
      const by = ((event.clientX - before) / h.wide()) * (to - from);
      h.toWindow(from - by, to - by);
    } else if (Math.abs(event.clientX - other) > LEAST_SPREAD_PX)
      h.zoomAbout(secondAt((event.clientX + other) / 2), Math.abs(before - other) / Math.abs(event.clientX - other));
    fingers.set(event.pointerId, event.clientX);
  };
  const up = (event: PointerEvent) => {
    fingers.delete(event.pointerId);
  };
  element.addEventListener('wheel', wheel, { passive: false });
  element.addEventListener('pointerdown', down);
  element.addEventListener('pointermove', move);
  for (const name of LEAVING) element.addEventListener(name, up);
  return () => {
    element.removeEventListener('wheel', wheel);
    element.removeEventListener('pointerdown', down);
    element.removeEventListener('pointermove', move);
    for (const name of LEAVING) element.removeEventListener(name, up);
  };
}
