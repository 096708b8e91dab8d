/**
 * A drawing as data: lines, areas and labels in units of the drawing, toned by meaning. One renderer draws it on a page of
 * the lab, in a brief and on the card; it holds no markup.
 */
import type { Figure, FigureShape, FigureText, Tone } from '@/domain/lab';

export type { Figure, FigureShape, FigureText, Tone };
export type Point = [number, number];

const round = (x: number): number => Math.round(x * 10) / 10;
/** A line, or an area when it is closed; coordinates to a tenth. */
export const line = (
  points: readonly Point[],
  tone: Tone,
  rest: Partial<Omit<FigureShape, 'points' | 'tone'>> = {},
): FigureShape => ({ points: points.map(([x, y]) => [round(x), round(y)]), tone, ...rest });
export const area = (points: readonly Point[], tone: Tone, rest: Partial<FigureShape> = {}): FigureShape =>
  line(points, tone, { closed: true, ...rest });
export const box = (x: number, y: number, w: number, h: number, tone: Tone): FigureShape =>
  area(
    [
      [x, y],
      [x + w, y],
      [x + w, y + h],
      [x, y + h],
    ],
    tone,
  );
export const circle = (x: number, y: number, r: number, tone: Tone): FigureShape =>
  area(
    Array.from({ length: 16 }, (_, i): Point => [
      x + r * Math.cos((i * Math.PI) / 8),
      y + r * Math.sin((i * Math.PI) / 8),
    ]),
    tone,
  );
export const label = (
  x: number,
  y: number,
  text: string,
  tone: Tone = 'ink',
  anchor: FigureText['anchor'] = 'start',
): FigureText => ({ x: round(x), y: round(y), text, tone, anchor });
/** An arrow from one point to another. */
export function arrow(from: Point, to: Point, tone: Tone, width = 3): FigureShape[] {
  const a = Math.atan2(to[1] - from[1], to[0] - from[0]);
  const wing = (by: number): Point => [to[0] - 10 * Math.cos(a + by), to[1] - 10 * Math.sin(a + by)];
  return [line([from, to], tone, { width }), line([wing(0.5), to, wing(-0.5)], tone, { width })];
}
