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
  const ratios: Record<'gs' | 'ias' | 'vs', number[]> = { gs: [], ias: [], vs: [] };
  const scale = M_PER_DEG * cosDeg(lat.find((v) => v === v) ?? 0);
  for (let i = 0; i + reach < t.rows; i += step) {
    const dt = (t.tS[i + reach] ?? 0) - (t.tS[i] ?? 0);
    if (!(dt > 0 && dt < 8)) continue;
    const m = i + (reach >> 1);
    const way = Math.hypot(
      ((lat[i + reach] ?? NaN) - (lat[i] ?? NaN)) * M_PER_DEG,
      norm180((lon[i + reach] ?? NaN) - (lon[i] ?? NaN)) * scale,
    );
    const kt = way / dt / MS_PER_KT;
    if (kt > 25 && kt < 400) {
      const g = (gs?.[m] ?? NaN) / kt;
      const v = (ias?.[m] ?? NaN) / kt;
      if (g === g) ratios.gs.push(g);
      if (v === v) ratios.ias.push(v);
    }
    const h = alt ? t.channels[alt] : undefined;
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
    // Wind and height take and give: miles an hour are told from knots only where they stand well off.
    const r = ratio(ratios.ias);
    if (r > 1.5 && r < 2.2) out.set('ias', 'km/h');
    else if (r > 0.38 && r < 0.62) out.set('ias', 'm/s');
    else if (r > 1.1 && r < 1.26) out.set('ias', 'mph');
    else if (r > 0.78 && r < 1.04) out.set('ias', 'kt');
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
