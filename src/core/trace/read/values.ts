/**
 * What stands in a column, whatever its header: times of every shape, latitudes and longitudes, the unit of a speed by
 * what the positions show, of a climb by what the height shows.
 */
import { MS_PER_KT, M_PER_DEG, cosDeg, median, medianOf, norm180 } from '../../constants';
import { dateMs, instant } from './time';
import { scalesOf } from './tokens';
import type { Channel, Trace } from './trace';
import type { TimeRole } from './columns';

/** Cells of a column, from its first row on, spread over the file. */
export type Sample = readonly string[];

const numbers = (s: Sample, decimalComma: boolean): number[] =>
  s.filter((c) => c.trim() !== '').map((c) => Number(decimalComma ? c.trim().replace(',', '.') : c.trim()));

/** Shape of a time in a column: null when it is none. `elapsed` for any number that only rises. */
export function timeShape(s: Sample, decimalComma: boolean): TimeRole | null {
  const cells = s.map((c) => c.trim()).filter((c) => c !== '');
  if (cells.length === 0) return null;
  const share = (of: (c: string) => boolean) => cells.filter(of).length / cells.length;
  const NUMBER = /^[+-]?\d+([.,]\d+)?$/;
  if (share((c) => instant(c)?.dated === true) > 0.8) return 'instant';
  if (share((c) => Number.isFinite(dateMs(c))) > 0.8 && share((c) => NUMBER.test(c) && c.length !== 8) < 0.2)
    return 'date';
  if (share((c) => c.includes(':') && instant(c) !== null) > 0.8) return 'clock';
  if (share((c) => /^[+-]\d{1,2}:?\d{2}$/.test(c)) > 0.8) return 'offset';
  if (share((c) => NUMBER.test(c)) < 0.8) return null;
  const x = numbers(cells, decimalComma).filter(Number.isFinite);
  const typical = median(x.map(Math.abs));
  if (typical > 1e8) return 'epoch';
  const rises = x.filter((v, i) => i === 0 || v >= (x[i - 1] ?? 0)).length / Math.max(1, x.length);
  return rises > 0.9 ? 'elapsed' : null;
}
/** HHMMSS as a number: hours, minutes and seconds that are some. */
export const packedClock = (s: Sample): boolean => {
  const cells = s.map((c) => c.trim()).filter((c) => c !== '');
  return (
    cells.length > 0 &&
    cells.every(
      (c) =>
        /^\d{6}(\.\d+)?$/.test(c) &&
        Number(c.slice(2, 4)) < 60 &&
        Number(c.slice(4, 6)) < 60 &&
        Number(c.slice(0, 2)) < 24,
    )
  );
};

export type AngleShape = 'degrees' | 'e7' | 'minutes' | 'words';
/** How a latitude or longitude is written; null when it is none. */
export function angleShape(s: Sample, decimalComma: boolean, most: 90 | 180): AngleShape | null {
  const cells = s.map((c) => c.trim()).filter((c) => c !== '');
  if (cells.length === 0) return null;
  const x = numbers(cells, decimalComma);
  if (x.filter(Number.isFinite).length > 0.8 * cells.length) {
    const big = median(x.filter(Number.isFinite).map(Math.abs));
    if (big <= most) return 'degrees';
    if (big > 1e5 && big <= most * 1e7) return 'e7';
    // Degrees and minutes in one number.
    return big < most * 100 && big % 100 < 60 ? 'minutes' : null;
  }
  return cells.filter((c) => Number.isFinite(angleOfWords(c))).length > 0.8 * cells.length ? 'words' : null;
}
/** `N41 30.5`, `41°30'12.3"N`, `41.5S` to degrees; NaN when it is none. */
export function angleOfWords(text: string): number {
  const t = text.trim().toUpperCase();
  const side = /[NSEW]/.exec(t)?.[0];
  const parts = t.match(/\d+(?:[.,]\d+)?/g);
  if (!parts || parts.length > 3 || (side === undefined && parts.length === 1)) return Number.NaN;
  const [d, m = 0, s = 0] = parts.map((p) => Number(p.replace(',', '.')));
  if (d === undefined || d > 180 || m >= 60 || s >= 60) return Number.NaN;
  const v = d + m / 60 + s / 3600;
  return side === 'S' || side === 'W' || t.startsWith('-') ? -v : v;
}
export function angleAs(shape: AngleShape, x: number): number {
  if (shape === 'e7') return x / 1e7;
  if (shape !== 'minutes') return x;
  const a = Math.abs(x);
  return Math.sign(x) * (Math.floor(a / 100) + (a % 100) / 60);
}

/** Columns that may be a latitude and a longitude by their values: small numbers, finely cut, that move a little. */
export function placeColumns(
  samples: readonly Sample[],
  taken: readonly boolean[],
  decimalComma: boolean,
): { lat: number; lon: number } | null {
  const fit = samples.flatMap((s, index) => {
    if (taken[index]) return [];
    const cells = s.filter((c) => c.trim() !== '');
    const x = numbers(cells, decimalComma);
    if (x.length < 5 || x.some((v) => !Number.isFinite(v) || Math.abs(v) > 180)) return [];
    const fine = cells.filter((c) => /[.,]\d{4,}/.test(c)).length > 0.7 * cells.length;
    const [low, high] = [Math.min(...x), Math.max(...x)];
    const step = median(x.slice(1).map((v, i) => Math.abs(v - (x[i] ?? 0))));
    return fine && high - low > 1e-4 && high - low < 8 && step < 0.5 * (high - low)
      ? [{ index, most: Math.max(Math.abs(low), Math.abs(high)) }]
      : [];
  });
  const [a, b] = fit;
  if (!a || !b || fit.length > 2) return null;
  return a.most > 90 ? { lat: b.index, lon: a.index } : { lat: a.index, lon: b.index };
}

/** Of a ratio between a column and what it should be in its usual unit, the unit it is in; null when none fits. */
function unitOfRatio(ratio: number, channel: Channel, near: number): string | null {
  let best: { unit: string; off: number } | null = null;
  for (const [unit, [factor]] of Object.entries(scalesOf(channel) ?? {})) {
    const off = Math.abs(Math.log(ratio * factor));
    if (best === null || off < best.off) best = { unit, off };
  }
  return best && best.off < near ? best.unit : null;
}

/** True by indicated airspeed at a height in the standard atmosphere. @param ft above the sea */
const trueByIndicated = (ft: number): number =>
  1 / Math.sqrt(Math.pow(1 - 6.8756e-6 * Math.max(0, Math.min(30_000, ft)), 4.2559));

/**
 * The scale of an airspeed against the way over the ground, with the wind found along with it: |g - w| = k v is linear in
 * w, k² and |w|² when squared, and least squares over every direction flown tells them apart.
 */
class AirspeedFit {
  private readonly rows: [east: number, north: number, air: number][] = [];
  add(east: number, north: number, air: number): void {
    if (air > 10 && east === east && north === north) this.rows.push([east, north, air]);
  }
  /** @returns the unit whose knots it fits; null where it fits none, or more than one as well */
  unit(): string | null {
    if (this.rows.length < 40) return null;
    const all = this.fit(this.rows);
    if (!all) return null;
    // Gusts, slips and a lagging dial leave rows that fit ill: once more without the worst.
    const off = this.rows.map(([e, n, v]) => Math.abs(Math.hypot(e - all.east, n - all.north) - all.k * v));
    const most = 3 * 1.4826 * median(off);
    const fit = this.fit(this.rows.filter((_, i) => (off[i] ?? 0) <= most));
    if (!fit) return null;
    const near = Object.entries(scalesOf('ias') ?? {})
      .map(([unit, [factor]]) => ({ unit, off: Math.abs(Math.log(fit.k / factor)) }))
      .sort((a, b) => a.off - b.off);
    const [best, next] = near;
    return best && best.off < 0.08 && (next?.off ?? 1) - best.off > 3 * fit.sd ? best.unit : null;
  }
  /** Least squares; `sd` of the scale's logarithm, rows next to each other counted as one. */
  private fit(
    rows: readonly (readonly [number, number, number])[],
  ): { k: number; sd: number; east: number; north: number } | null {
    // In hundreds of knots, so that no power of a speed drowns another.
    const a = Array.from({ length: 4 }, () => new Float64Array(4));
    const b = new Float64Array(4);
    for (const [e, n, v] of rows) {
      const x = [e / 50, n / 50, (v / 100) ** 2, -1];
      const y = (e / 100) ** 2 + (n / 100) ** 2;
      const w = 1 / Math.max(0.1, y);
      for (let i = 0; i < 4; i++) {
        b[i] = (b[i] ?? 0) + w * (x[i] ?? 0) * y;
        for (let j = 0; j < 4; j++) {
          const row = a[i];
          if (row) row[j] = (row[j] ?? 0) + w * (x[i] ?? 0) * (x[j] ?? 0);
        }
      }
    }
    const inverse = inverted(a);
    if (!inverse) return null;
    const x = inverse.map((row) => row.reduce((sum, v, j) => sum + v * (b[j] ?? 0), 0));
    const [we = 0, wn = 0, kk = 0] = x;
    if (!(kk > 0)) return null;
    let square = 0;
    for (const [e, n, v] of rows) {
      const y = (e / 100) ** 2 + (n / 100) ** 2;
      square += (y - (2 * (e * we + n * wn)) / 100 - kk * (v / 100) ** 2 + (x[3] ?? 0)) ** 2 / Math.max(0.1, y);
    }
    const sd = Math.sqrt((square / rows.length) * (inverse[2]?.[2] ?? 0) * TOGETHER) / (2 * kk);
    return { k: Math.sqrt(kk), sd, east: 100 * we, north: 100 * wn };
  }
}
/** Rows that err together: gusts and turns last. */
const TOGETHER = 10;

/** Inverse of a small square matrix by elimination; null when it has none. */
function inverted(matrix: readonly Float64Array[]): number[][] | null {
  const n = matrix.length;
  const rows = matrix.map((r, i) => [...r, ...Array.from({ length: n }, (_, j) => (i === j ? 1 : 0))]);
  for (let c = 0; c < n; c++) {
    let p = c;
    for (let r = c + 1; r < n; r++) if (Math.abs(rows[r]?.[c] ?? 0) > Math.abs(rows[p]?.[c] ?? 0)) p = r;
    const pivot = rows[p];
    const own = pivot?.[c] ?? 0;
    if (!pivot || Math.abs(own) < 1e-9) return null;
    [rows[c], rows[p]] = [pivot, rows[c] ?? pivot];
    for (let j = 0; j < 2 * n; j++) pivot[j] = (pivot[j] ?? 0) / own;
    for (let r = 0; r < n; r++) {
      const row = rows[r];
      if (!row || r === c) continue;
      const f = row[c] ?? 0;
      for (let j = 0; j < 2 * n; j++) row[j] = (row[j] ?? 0) - f * (pivot[j] ?? 0);
    }
  }
  return rows.map((r) => r.slice(n));
}

/**
 * Units nobody said, from what the file itself shows: the ground speed against the way between positions, airspeed
 * against it, the climb against the height. @returns channel to unit, only where it is plain
 */
export function unitsByValues(t: Trace, unsaid: ReadonlySet<Channel>): Map<Channel, string> {
  const out = new Map<Channel, string>();
  const { lat, lon, gs, ias, vs } = t.channels;
  const alt = (['altGps', 'altMsl', 'altPressure', 'altEllipsoid'] as const).find((c) => t.channels[c]);
  if (!lat || !lon) return out;
  const step = Math.max(1, Math.floor(t.rows / 3000));
  const reach = Math.max(1, Math.round(2 * t.rateHz));
  const ratios: Record<'gs' | 'vs', number[]> = { gs: [], vs: [] };
  const air = new AirspeedFit();
  const scale = M_PER_DEG * cosDeg(lat.find((v) => v === v) ?? 0);
  for (let i = 0; i + reach < t.rows; i += step) {
    const dt = (t.tS[i + reach] ?? 0) - (t.tS[i] ?? 0);
    if (!(dt > 0 && dt < 8)) continue;
    const m = i + (reach >> 1);
    const north = (((lat[i + reach] ?? NaN) - (lat[i] ?? NaN)) * M_PER_DEG) / dt / MS_PER_KT;
    const east = (norm180((lon[i + reach] ?? NaN) - (lon[i] ?? NaN)) * scale) / dt / MS_PER_KT;
    const kt = Math.hypot(north, east);
    const h = alt ? t.channels[alt] : undefined;
    if (kt > 25 && kt < 400) {
      const g = (gs?.[m] ?? NaN) / kt;
      if (g === g) ratios.gs.push(g);
      air.add(east, north, (ias?.[m] ?? NaN) * trueByIndicated(h?.[m] ?? 0));
    }
    const fpm = (((h?.[i + reach] ?? NaN) - (h?.[i] ?? NaN)) / dt) * 60;
    const said = vs?.[m] ?? NaN;
    if (Math.abs(fpm) > 250 && said === said) ratios.vs.push(said / fpm);
  }
  const ratio = (x: number[]) => (x.length < 20 ? Number.NaN : median(x));
  if (gs && unsaid.has('gs')) {
    const u = unitOfRatio(ratio(ratios.gs), 'gs', 0.06);
    if (u) out.set('gs', u);
  }
  if (ias && unsaid.has('ias')) {
    const u = air.unit();
    if (u) out.set('ias', u);
  }
  for (const c of ['map', 'map2'] as const) {
    const x = t.channels[c];
    // No engine draws sixty inches of mercury.
    if (x && unsaid.has(c) && (medianOf(x.filter((v) => v === v)) ?? 0) > 60) out.set(c, 'hpa');
  }
  const load = t.channels.nz && unsaid.has('nz') ? (medianOf(t.channels.nz.filter((v) => v === v)) ?? 0) : 0;
  if (load > 0.7 && load < 1.3) out.set('nz', 'g');
  else if (load > 7.5 && load < 12) out.set('nz', 'm/s2');
  if (vs && alt) {
    const r = ratio(ratios.vs);
    // Feet a minute by the height in feet; a height in metres shows itself by the climb when that one is known.
    if (unsaid.has('vs') && !unsaid.has(alt)) {
      const u = unitOfRatio(r, 'vs', 0.25);
      if (u === 'fpm' || u === 'm/s') out.set('vs', u);
    } else if (unsaid.has(alt) && !unsaid.has('vs')) {
      const u = unitOfRatio(1 / r, alt, 0.25);
      if (u === 'ft' || u === 'm') out.set(alt, u);
    } else if (unsaid.has(alt) && unsaid.has('vs')) {
      // Both unsaid: feet with feet a minute, or metres with metres a second.
      const plain = Math.abs(Math.log(Math.abs(r)));
      const metric = Math.abs(Math.log(Math.abs(r * 60)));
      if (plain < 0.25) {
        out.set(alt, 'ft');
        out.set('vs', 'fpm');
      } else if (metric < 0.25) {
        out.set(alt, 'm');
        out.set('vs', 'm/s');
      }
    }
  }
  return out;
}
