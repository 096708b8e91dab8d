'use client';
import { useEffect, useMemo, useRef } from 'react';
import { type Series, type StripOnPlane, lowerBound } from '@/core/trace';
import { type Observable, oncePerFrame } from './observable';

export interface PlanMark {
  s: number;
  label: string;
  chosen: boolean;
}
interface Props {
  series: Series;
  strips: StripOnPlane[];
  marks: PlanMark[];
  window: Observable<[number, number]>;
  cursor: Observable<number | null>;
  /** End of the runway to look at closely, or the whole window's track. */
  near: string | null;
  heightPx: number;
  onPick: (s: number) => void;
}
interface View {
  px: (x: number, y: number) => number;
  py: (x: number, y: number) => number;
  straight: boolean;
  back: (sx: number, sy: number) => { x: number; y: number };
  scale: number;
  turn: number;
}

/** Near, what lies across the runway is drawn so many times as wide: a metre beside the line is what it is about. */
const ACROSS = 6;

/**
 * The track from above on the drawn field; the window's stretch strong, the rest faint. The field and the aeroplane lie
 * on two sheets: only the upper one follows the cursor.
 */
export function TracePlan({ series, strips, marks, window: shown, cursor, near, heightPx, onPick }: Props) {
  const lower = useRef<HTMLCanvasElement>(null);
  const upper = useRef<HTMLCanvasElement>(null);
  const view = useRef<View | null>(null);
  const east = series.columns.east;
  const north = series.columns.north;
  // The whole flight in steps of 25 m: more is not seen from that far away.
  const coarse = useMemo(() => (east && north ? everyMetres(east, north, 25) : []), [east, north]);
  useEffect(() => {
    const el = lower.current;
    const top = upper.current;
    const g = el?.getContext('2d');
    const o = top?.getContext('2d');
    if (!el || !top || !g || !o || !east || !north) return;
    const size = (c: HTMLCanvasElement, pen: CanvasRenderingContext2D) => {
      const ratio = window.devicePixelRatio || 1;
      if (c.width !== Math.round(c.clientWidth * ratio) || c.height !== Math.round(c.clientHeight * ratio)) {
        c.width = Math.round(c.clientWidth * ratio);
        c.height = Math.round(c.clientHeight * ratio);
      }
      pen.setTransform(ratio, 0, 0, ratio, 0, 0);
    };
    const css = (n: string) => getComputedStyle(el).getPropertyValue(n).trim();
    const aeroplane = () => {
      const v = view.current;
      size(top, o);
      o.clearRect(0, 0, top.clientWidth, top.clientHeight);
      const s = cursor.get();
      if (s === null || !v) return;
      const i = Math.min(series.tS.length - 1, lowerBound(series.tS, s));
      const j = Math.min(series.tS.length - 1, i + 5);
      o.translate(v.px(east[i] ?? 0, north[i] ?? 0), v.py(east[i] ?? 0, north[i] ?? 0));
      o.rotate(
        v.straight ? Math.PI / 2 : Math.atan2((east[j] ?? 0) - (east[i] ?? 0), (north[j] ?? 0) - (north[i] ?? 0)),
      );
      o.fillStyle = css('--ink');
      o.strokeStyle = css('--card');
      o.lineWidth = 1.5;
      o.beginPath();
      o.moveTo(0, -11);
      o.lineTo(8, 9);
      o.lineTo(0, 4);
      o.lineTo(-8, 9);
      o.closePath();
      o.fill();
      o.stroke();
    };
    const field = () => {
      size(el, g);
      const [fromS, toS] = shown.get();
      view.current = drawField(g, {
        w: el.clientWidth,
        h: el.clientHeight,
        css,
        east,
        north,
        tS: series.tS,
        coarse,
        strips,
        marks,
        fromS,
        toS,
        near,
      });
      aeroplane();
    };
    field();
    const below = oncePerFrame(field);
    const above = oncePerFrame(aeroplane);
    const ends = [shown.subscribe(below.ask), cursor.subscribe(above.ask)];
    const sizes = new ResizeObserver(below.ask);
    sizes.observe(el);
    const themes = new MutationObserver(below.ask);
    themes.observe(document.documentElement, { attributes: true, attributeFilter: ['data-bs-theme'] });
    return () => {
      for (const end of ends) end();
      below.stop();
      above.stop();
      sizes.disconnect();
      themes.disconnect();
    };
  }, [series, strips, marks, shown, cursor, near, east, north, coarse]);
  const pick = (event: React.MouseEvent<HTMLCanvasElement>) => {
    const v = view.current;
    if (!v || !east || !north) return;
    const r = event.currentTarget.getBoundingClientRect();
    const at = v.back(event.clientX - r.left, event.clientY - r.top);
    const [fromS, toS] = shown.get();
    let best = -1;
    let least = Infinity;
    for (let i = lowerBound(series.tS, fromS); i < series.tS.length && (series.tS[i] ?? 0) <= toS; i++) {
      const d = Math.hypot((east[i] ?? 1e9) - at.x, (north[i] ?? 1e9) - at.y);
      if (d < least) {
        least = d;
        best = i;
      }
    }
    if (best >= 0 && least * v.scale < 30) onPick(series.tS[best] ?? 0);
  };
  const sheet = { position: 'absolute', inset: 0, width: '100%', height: '100%', borderRadius: 6 } as const;
  return (
    <div
      style={{ position: 'relative', height: heightPx }}
      role="img"
      aria-label="The track from above. The list of events holds the same places as numbers."
    >
      <canvas ref={lower} style={sheet} />
      <canvas ref={upper} style={sheet} onClick={pick} />
    </div>
  );
}

/** Rows of a window beyond which the coarse steps are drawn. */
const FINE_ROWS = 9000;

interface Scene {
  w: number;
  h: number;
  css: (n: string) => string;
  east: Float32Array;
  north: Float32Array;
  tS: Float32Array;
  coarse: readonly number[];
  strips: readonly StripOnPlane[];
  marks: readonly PlanMark[];
  fromS: number;
  toS: number;
  near: string | null;
}

function drawField(g: CanvasRenderingContext2D, s: Scene): View {
  const { w, h, css, east, north } = s;
  const v = viewOf(s);
  g.fillStyle = css('--field');
  g.fillRect(0, 0, w, h);
  g.font = '12px B612';
  const straight = v.straight ? s.strips.flatMap((x) => x.ends).find((e) => e.ident === s.near) : undefined;
  for (const strip of s.strips) {
    const [a, b] = strip.ends;
    // Drawn wider than it is, only the one that lies straight looks like itself.
    if (!a || !b || (straight && !strip.ends.includes(straight))) continue;
    g.strokeStyle =
      strip.surface === 'water' ? css('--sky') : strip.surface === 'grass' ? css('--furrow') : css('--tarmac');
    g.lineWidth = Math.max(3, strip.widthM * v.scale * (v.straight ? ACROSS : 1));
    g.lineCap = 'butt';
    g.beginPath();
    g.moveTo(v.px(a.east, a.north), v.py(a.east, a.north));
    g.lineTo(v.px(b.east, b.north), v.py(b.east, b.north));
    g.stroke();
    g.fillStyle = css('--ink');
    g.textAlign = 'center';
    for (const e of strip.ends) {
      const back = (e.bearingDeg * Math.PI) / 180 + v.turn;
      g.fillText(e.ident, v.px(e.east, e.north) - Math.sin(back) * 22, v.py(e.east, e.north) + Math.cos(back) * 16 + 4);
    }
  }
  if (v.straight) {
    g.setLineDash([12, 10]);
    g.strokeStyle = css('--runway-edge');
    g.lineWidth = 1;
    g.beginPath();
    g.moveTo(55, h / 2);
    g.lineTo(w - 55, h / 2);
    g.stroke();
    g.setLineDash([]);
    g.fillStyle = css('--ink');
    g.textAlign = 'left';
    g.fillText(`across drawn ${ACROSS} times as wide`, 90, h - 10);
  }
  const pen = { x: Number.NaN, y: Number.NaN, down: false };
  const to = (i: number) => {
    const x = v.px(east[i] ?? Number.NaN, north[i] ?? Number.NaN);
    const y = v.py(east[i] ?? Number.NaN, north[i] ?? Number.NaN);
    if (x !== x) {
      pen.down = false;
      return;
    }
    // Less than a pixel on shows nothing.
    if (pen.down && Math.abs(x - pen.x) + Math.abs(y - pen.y) < 0.9) return;
    if (pen.down) g.lineTo(x, y);
    else g.moveTo(x, y);
    pen.x = x;
    pen.y = y;
    pen.down = true;
  };
  const stroke = (colour: string, width: number, alpha: number) => {
    g.globalAlpha = alpha;
    g.strokeStyle = colour;
    g.lineWidth = width;
    g.lineJoin = 'bevel';
    g.stroke();
    g.globalAlpha = 1;
  };
  const a = lowerBound(s.tS, s.fromS);
  const b = Math.min(s.tS.length - 1, lowerBound(s.tS, s.toS));
  const whole = b - a > s.tS.length * 0.9;
  g.beginPath();
  for (let k = 0; k < s.coarse.length; k++) {
    const i = s.coarse[k] ?? 0;
    if (k > 0 && (s.tS[i] ?? 0) - (s.tS[s.coarse[k - 1] ?? 0] ?? 0) > 60) pen.down = false;
    to(i);
  }
  stroke(whole ? css('--lagoon') : css('--slate'), whole ? 1.6 : 1, whole ? 1 : 0.4);
  if (!whole) {
    pen.down = false;
    g.beginPath();
    // A long stretch is seen from as far away as the whole.
    if (b - a > FINE_ROWS) {
      for (const i of s.coarse) if (i >= a && i <= b) to(i);
    } else
      for (let i = a; i <= b; i++) {
        if (i > a && (s.tS[i] ?? 0) - (s.tS[i - 1] ?? 0) > 3) pen.down = false;
        to(i);
      }
    stroke(css(v.straight ? '--strip-mark' : '--lagoon'), 2, 1);
  }
  g.textAlign = 'left';
  for (const m of [...s.marks].sort((p, q) => Number(p.chosen) - Number(q.chosen))) {
    const i = Math.min(s.tS.length - 1, lowerBound(s.tS, m.s));
    const x = v.px(east[i] ?? Number.NaN, north[i] ?? Number.NaN);
    const y = v.py(east[i] ?? Number.NaN, north[i] ?? Number.NaN);
    g.beginPath();
    g.arc(x, y, m.chosen ? 7 : 4.5, 0, 2 * Math.PI);
    g.fillStyle = m.chosen ? css('--brick') : css('--card');
    g.fill();
    g.lineWidth = 2;
    g.strokeStyle = m.chosen ? css('--card') : css('--ink');
    g.stroke();
    if (!m.chosen) continue;
    g.font = 'bold 12px B612';
    const wide = g.measureText(m.label).width;
    const tx = Math.min(x + 11, w - wide - 8);
    g.fillStyle = css('--card');
    g.fillRect(tx - 4, y - 34, wide + 8, 18);
    g.fillStyle = css('--ink');
    g.fillText(m.label, tx, y - 21);
    g.font = '12px B612';
  }
  // A scale and north.
  const step = [100, 200, 500, 1000, 2000, 5000, 10000].find((m) => m * v.scale > 60) ?? 20000;
  g.strokeStyle = css('--ink');
  g.fillStyle = css('--ink');
  g.lineWidth = 2;
  g.beginPath();
  g.moveTo(14, h - 14);
  g.lineTo(14 + step * v.scale, h - 14);
  g.stroke();
  g.fillText(step >= 1000 ? `${step / 1000} km` : `${step} m`, 14, h - 20);
  g.save();
  g.translate(w - 24, 28);
  g.rotate(v.turn);
  g.textAlign = 'center';
  g.fillText('N', 0, -12);
  g.beginPath();
  g.moveTo(0, -8);
  g.lineTo(0, 12);
  g.moveTo(-4, -3);
  g.lineTo(0, -8);
  g.lineTo(4, -3);
  g.stroke();
  g.restore();
  return v;
}

/**
 * Near, the runway lies from left to right, its threshold left; else north is up and everything of the window is in it.
 */
function viewOf({ w, h, east, north, tS, coarse, strips, fromS, toS, near }: Scene): View {
  const box = near !== null ? boxOf(strips, near) : trackBox(east, north, tS, fromS, toS, strips, coarse);
  const lies = near === null ? undefined : strips.flatMap((s) => s.ends).find((e) => e.ident === near);
  const turn = lies ? ((90 - lies.bearingDeg) * Math.PI) / 180 : 0;
  const scale = lies
    ? (w - 110) / Math.max(200, Math.hypot(box.x1 - box.x0, box.y1 - box.y0))
    : Math.min((w - 40) / Math.max(200, box.x1 - box.x0), (h - 40) / Math.max(200, box.y1 - box.y0));
  const cx = (box.x0 + box.x1) / 2;
  const cy = (box.y0 + box.y1) / 2;
  const [tc, ts] = [Math.cos(turn) * scale, Math.sin(turn) * scale];
  const wide = lies ? ACROSS : 1;
  return {
    scale,
    turn,
    straight: lies !== undefined,
    px: (x, y) => w / 2 + (x - cx) * tc + (y - cy) * ts,
    py: (x, y) => h / 2 + ((x - cx) * ts - (y - cy) * tc) * wide,
    back: (sx, sy) => {
      const dx = (sx - w / 2) / scale;
      const dy = -(sy - h / 2) / scale / wide;
      return { x: cx + dx * Math.cos(turn) - dy * Math.sin(turn), y: cy + dx * Math.sin(turn) + dy * Math.cos(turn) };
    },
  };
}

interface Box {
  x0: number;
  x1: number;
  y0: number;
  y1: number;
}
function grow(b: Box, x: number, y: number): void {
  if (x < b.x0) b.x0 = x;
  if (x > b.x1) b.x1 = x;
  if (y < b.y0) b.y0 = y;
  if (y > b.y1) b.y1 = y;
}
/** One runway alone, for a look at the touches. */
function boxOf(strips: readonly StripOnPlane[], ident: string | null = null): Box {
  const b: Box = { x0: Infinity, x1: -Infinity, y0: Infinity, y1: -Infinity };
  for (const e of (strips.find((s) => s.ends.some((x) => x.ident === ident)) ?? strips[0])?.ends ?? [])
    grow(b, e.east, e.north);
  return b;
}
function trackBox(
  east: Float32Array,
  north: Float32Array,
  tS: Float32Array,
  fromS: number,
  toS: number,
  strips: readonly StripOnPlane[],
  coarse: readonly number[],
): Box {
  const b = boxOf(strips);
  for (const i of coarse) {
    const t = tS[i] ?? 0;
    if (t >= fromS && t <= toS) grow(b, east[i] ?? 0, north[i] ?? 0);
  }
  return b;
}
/** Indexes of points a step apart along the track. */
function everyMetres(east: Float32Array, north: Float32Array, stepM: number): number[] {
  const out: number[] = [];
  let last = -1;
  for (let i = 0; i < east.length; i++) {
    const x = east[i] ?? Number.NaN;
    if (x !== x) continue;
    if (last >= 0 && Math.hypot(x - (east[last] ?? 0), (north[i] ?? 0) - (north[last] ?? 0)) < stepM) continue;
    out.push(i);
    last = i;
  }
  return out;
}
