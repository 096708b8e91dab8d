import type { SVGProps } from 'react';

const LEAST_PX = 11;

/** A drawing whose labels are never under 11 px: in a narrower place it keeps its size and its box scrolls. */
export function Plot({
  w,
  h,
  least,
  style,
  ...rest
}: SVGProps<SVGSVGElement> & {
  /** Width and height in units of the drawing. */
  w: number;
  h: number;
  /** The smallest label, in the same units. */
  least: number;
}) {
  return (
    <div className="scroll-x">
      <svg
        viewBox={`0 0 ${w} ${h}`}
        width="100%"
        {...rest}
        style={{ minWidth: Math.ceil((w * LEAST_PX) / least), ...style }}
      />
    </div>
  );
}
