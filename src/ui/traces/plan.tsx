'use client';
import { useEffect, useRef } from 'react';
import { type Series, lowerBound } from '@/core/trace';

export interface Strip { id: string; surface: string; lengthM: number; widthM: number; ends: { ident: string; east: number; north: number; bearingDeg: number }[] }
export interface PlanMark { s: number; label: string; chosen: boolean }
interface Props { series: Series; strips: Strip[]; marks: PlanMark[]; fromS: number; toS: number; cursorS: number | null; /** End of the runway to look at closely, or the whole window's track. */ near: string | null; heightPx: number; onPick: (s: number) => void }

/** The track from above on the drawn field, north up; the window's stretch strong, the rest faint. */
export function TracePlan({ series, strips, marks, fromS, toS, cursorS, near, heightPx, onPick }: Props) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const view = useRef({ scale: 1, x: 0, y: 0, turn: 0, wide: 1 });
  const east = series.columns.east;
  const north = series.columns.north;
  useEffect(() => {
    const el = canvas.current;
    const g = el?.getContext('2d');
    if (!el || !g || !east || !north) return;
    const draw = () => {
      const style = getComputedStyle(el);
      const css = (n: string) => style.getPropertyValue(n).trim();
      const ratio = window.devicePixelRatio || 1;
      const w = el.clientWidth;
      const h = el.clientHeight;
      if (el.width !== Math.round(w * ratio) || el.height !== Math.round(h * ratio)) { el.width = Math.round(w * ratio); el.height = Math.round(h * ratio); }
      g.setTransform(ratio, 0, 0, ratio, 0, 0);
      g.fillStyle = css('--field');
      g.fillRect(0, 0, w, h);
      const box = near !== null ? boxOf(strips, near) : trackBox(east, north, series.tS, fromS, toS, strips);
      // Near, the runway lies from left to right, its threshold left; else north is up.
      const lies = near === null ? undefined : strips.flatMap((s) => s.ends).find((e) => e.ident === near);
      const turn = lies ? ((90 - lies.bearingDeg) * Math.PI) / 180 : 0;
      const scale = lies ? (w - 110) / Math.max(200, Math.hypot(box.x1 - box.x0, box.y1 - box.y0)) : Math.min((w - 40) / Math.max(200, box.x1 - box.x0), (h - 40) / Math.max(200, box.y1 - box.y0));
      const cx = (box.x0 + box.x1) / 2;
      const cy = (box.y0 + box.y1) / 2;
      const [tc, ts] = [Math.cos(turn) * scale, Math.sin(turn) * scale];
      const px = (x: number, y: number) => w / 2 + (x - cx) * tc + (y - cy) * ts;
      const wide = lies ? ACROSS : 1;
      const py = (x: number, y: number) => h / 2 + ((x - cx) * ts - (y - cy) * tc) * wide;
      view.current = { scale, x: cx, y: cy, turn, wide };
      for (const s of strips) {
        const [a, b] = s.ends;
        // Drawn wider than it is, only the one that lies straight looks like itself.
        if (!a || !b || (lies && !s.ends.includes(lies))) continue;
        g.strokeStyle = s.surface === 'water' ? css('--sky') : s.surface === 'grass' ? css('--furrow') : css('--tarmac');
        g.lineWidth = Math.max(3, s.widthM * scale * wide);
        g.lineCap = 'butt';
        g.beginPath(); g.moveTo(px(a.east, a.north), py(a.east, a.north)); g.lineTo(px(b.east, b.north), py(b.east, b.north)); g.stroke();
        g.fillStyle = css('--ink');
        g.font = '12px B612';
        g.textAlign = 'center';
        for (const e of s.ends) { const back = (e.bearingDeg * Math.PI) / 180 + turn; g.fillText(e.ident, px(e.east, e.north) - Math.sin(back) * 22, py(e.east, e.north) + Math.cos(back) * 16 + 4); }
      }
      if (lies) {
        g.setLineDash([12, 10]);
        g.strokeStyle = css('--runway-edge'); g.lineWidth = 1;
        g.beginPath(); g.moveTo(55, h / 2); g.lineTo(w - 55, h / 2); g.stroke();
        g.setLineDash([]);
        g.fillStyle = css('--ink'); g.textAlign = 'left';
        g.fillText(`across drawn ${ACROSS} times as wide`, 90, h - 10);
      }
      const path = (a: number, b: number, colour: string, width: number) => {
        g.strokeStyle = colour;
        g.lineWidth = width;
        g.lineJoin = 'round';
        g.beginPath();
        let lx = Number.NaN;
        let ly = Number.NaN;
        let pen = false;
        for (let i = a; i <= b; i++) {
          const x = px(east[i] ?? Number.NaN, north[i] ?? Number.NaN);
          const y = py(east[i] ?? Number.NaN, north[i] ?? Number.NaN);
          if (x !== x || ((series.tS[i] ?? 0) - (series.tS[i - 1] ?? 0) > 3 && i > a)) pen = false;
          if (x !== x) continue;
          // Less than a pixel on shows nothing.
          if (pen && Math.abs(x - lx) + Math.abs(y - ly) < 0.8) continue;
          if (pen) g.lineTo(x, y); else g.moveTo(x, y);
          pen = true; lx = x; ly = y;
        }
        g.stroke();
      };
      const a = lowerBound(series.tS, fromS);
      const b = Math.min(series.tS.length - 1, lowerBound(series.tS, toS));
      g.globalAlpha = 0.35;
      path(0, series.tS.length - 1, css('--slate'), 1);
      g.globalAlpha = 1;
      path(a, b, near === null ? css('--lagoon') : css('--strip-mark'), 2);
      g.textAlign = 'left';
      for (const m of [...marks].sort((p, q) => Number(p.chosen) - Number(q.chosen))) {
        const i = Math.min(series.tS.length - 1, lowerBound(series.tS, m.s));
        const x = px(east[i] ?? Number.NaN, north[i] ?? Number.NaN);
        const y = py(east[i] ?? Number.NaN, north[i] ?? Number.NaN);
        g.beginPath(); g.arc(x, y, m.chosen ? 7 : 4.5, 0, 2 * Math.PI);
        g.fillStyle = m.chosen ? css('--brick') : css('--card');
        g.fill();
        g.lineWidth = 2; g.strokeStyle = m.chosen ? css('--card') : css('--ink'); g.stroke();
        if (m.chosen) {
          g.font = 'bold 12px B612';
          const wide = g.measureText(m.label).width;
          const tx = Math.min(x + 11, w - wide - 8);
          g.fillStyle = css('--card'); g.fillRect(tx - 4, y - 24, wide + 8, 18);
          g.fillStyle = css('--ink'); g.fillText(m.label, tx, y - 11);
        }
      }
      if (cursorS !== null) {
        const i = Math.min(series.tS.length - 1, lowerBound(series.tS, cursorS));
        const j = Math.min(series.tS.length - 1, i + 5);
        const nose = Math.atan2((east[j] ?? 0) - (east[i] ?? 0), (north[j] ?? 0) - (north[i] ?? 0));
        g.save();
        g.translate(px(east[i] ?? 0, north[i] ?? 0), py(east[i] ?? 0, north[i] ?? 0));
        g.rotate(lies ? Math.PI / 2 : nose);
        g.fillStyle = css('--ink'); g.strokeStyle = css('--card'); g.lineWidth = 1.5;
        g.beginPath(); g.moveTo(0, -11); g.lineTo(8, 9); g.lineTo(0, 4); g.lineTo(-8, 9); g.closePath(); g.fill(); g.stroke();
        g.restore();
      }
      // A scale and north.
      const step = [100, 200, 500, 1000, 2000, 5000, 10000].find((m) => m * scale > 60) ?? 20000;
      g.strokeStyle = css('--ink'); g.fillStyle = css('--ink'); g.lineWidth = 2; g.font = '12px B612';
      g.beginPath(); g.moveTo(14, h - 14); g.lineTo(14 + step * scale, h - 14); g.stroke();
      g.fillText(step >= 1000 ? `${step / 1000} km` : `${step} m`, 14, h - 20);
      g.save();
      g.translate(w - 24, 28);
      g.rotate(turn);
      g.textAlign = 'center';
      g.fillText('N', 0, -12);
      g.beginPath(); g.moveTo(0, -8); g.lineTo(0, 12); g.moveTo(-4, -3); g.lineTo(0, -8); g.lineTo(4, -3); g.stroke();
      g.restore();
    };
    draw();
    const sizes = new ResizeObserver(draw);
    sizes.observe(el);
    const themes = new MutationObserver(draw);
    themes.observe(document.documentElement, { attributes: true, attributeFilter: ['data-bs-theme'] });
    return () => { sizes.disconnect(); themes.disconnect(); };
  }, [series, strips, marks, fromS, toS, cursorS, near, east, north]);
  const pick = (event: React.MouseEvent<HTMLCanvasElement>) => {
    const el = canvas.current;
    if (!el || !east || !north) return;
    const r = el.getBoundingClientRect();
    const { scale, turn } = view.current;
    const dx = (event.clientX - r.left - r.width / 2) / scale;
    const dy = -(event.clientY - r.top - r.height / 2) / scale / view.current.wide;
    const x = view.current.x + dx * Math.cos(turn) - dy * Math.sin(turn);
    const y = view.current.y + dx * Math.sin(turn) + dy * Math.cos(turn);
    let best = -1;
    let least = Infinity;
    for (let i = lowerBound(series.tS, fromS); i < series.tS.length && (series.tS[i] ?? 0) <= toS; i++) { const d = Math.hypot((east[i] ?? 1e9) - x, (north[i] ?? 1e9) - y); if (d < least) { least = d; best = i; } }
    if (best >= 0 && least * scale < 30) onPick(series.tS[best] ?? 0);
  };
  return <canvas ref={canvas} style={{ width: '100%', height: heightPx, display: 'block', borderRadius: 6 }} role="img" aria-label="The track from above. The list of events holds the same places as numbers." onClick={pick} />;
}

/** Near, what lies across the runway is drawn so many times as wide: a metre beside the line is what it is about. */
const ACROSS = 6;

interface Box { x0: number; x1: number; y0: number; y1: number }
function grow(b: Box, x: number, y: number): void { if (x < b.x0) b.x0 = x; if (x > b.x1) b.x1 = x; if (y < b.y0) b.y0 = y; if (y > b.y1) b.y1 = y; }
/** One runway alone, for a look at the touches. */
function boxOf(strips: Strip[], ident: string | null = null): Box {
  const b: Box = { x0: Infinity, x1: -Infinity, y0: Infinity, y1: -Infinity };
  for (const e of (strips.find((s) => s.ends.some((x) => x.ident === ident)) ?? strips[0])?.ends ?? []) grow(b, e.east, e.north);
  return b;
}
function trackBox(east: Float32Array, north: Float32Array, tS: Float32Array, fromS: number, toS: number, strips: Strip[]): Box {
  const b = boxOf(strips);
  for (let i = lowerBound(tS, fromS); i < tS.length && (tS[i] ?? 0) <= toS; i++) { const x = east[i] ?? Number.NaN; if (x === x) grow(b, x, north[i] ?? 0); }
  return b;
}
