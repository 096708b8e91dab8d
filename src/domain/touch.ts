/** What of a landing says that wheels touched. Plain, without a schema library. */
interface Touch {
  touched: unknown;
  along: unknown;
  lateral: unknown;
  swing: unknown;
  firmness: unknown;
  cleanTap: unknown;
  rollout: unknown;
  bounce: { count: number } | null;
  serious: readonly string[];
}

/** Something was recorded that says wheels touched. */
export const touchSeen = (l: Touch): boolean =>
  [l.touched, l.along, l.lateral, l.swing, l.firmness, l.cleanTap, l.rollout].some((x) => x !== null) ||
  (l.bounce !== null && l.bounce.count > 0) ||
  l.serious.length > 0;

/** Less than this across, kt, and no aileron needs to be held: a breath that a sock does not show. */
export const NO_CROSSWIND_KT = 2;
