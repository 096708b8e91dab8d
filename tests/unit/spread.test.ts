import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  authorship,
  bias,
  ellipsePoints,
  ewma,
  forecast,
  incompleteBeta,
  normalQuantile,
  share,
  signTest,
  tCdf,
  tQuantile,
  theilSen,
  touchdownSpread,
} from '@/core/assess';
import { slopesOf } from '@/core/assess/slopes';
import { seeded } from '@/core/random';

const metres = fc.double({ min: -500, max: 500, noNaN: true });
const pairs = fc.array(fc.tuple(metres, metres), { minLength: 3, maxLength: 40 });

describe('distributions', () => {
  it('agree with tables', () => {
    expect(tQuantile(0.975, 4)).toBeCloseTo(2.7764451, 6);
    expect(tQuantile(0.975, 1)).toBeCloseTo(12.7062047, 5);
    expect(normalQuantile(0.975)).toBeCloseTo(1.959964, 6);
    expect(incompleteBeta(2, 3, 0.4)).toBeCloseTo(0.5248, 8);
    expect(signTest(8, 0)).toBeCloseTo(2 / 256, 12);
    expect([signTest(0, 0), signTest(3, 3)]).toEqual([1, 1]);
  });
  it('quantile and distribution undo each other', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.01, max: 0.99, noNaN: true }), fc.integer({ min: 1, max: 60 }), (p, df) => {
        expect(tCdf(tQuantile(p, df), df)).toBeCloseTo(p, 8);
      }),
    );
  });
});

describe('Wilson\u2019s bound', () => {
  it('lies below the share, rises with successes, and closes in as trials grow', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 60 }), fc.integer({ min: 0, max: 60 }), (n, k) => {
        fc.pre(k <= n);
        const s = share(k, n);
        expect(s.wilsonLower90 ?? 1).toBeLessThanOrEqual((s.share ?? 0) + 1e-12);
        expect(s.wilsonLower90 ?? -1).toBeGreaterThanOrEqual(-1e-12);
        if (k < n) expect(share(k + 1, n).wilsonLower90 ?? 0).toBeGreaterThan(s.wilsonLower90 ?? 0);
        const wider = share(k * 4, n * 4);
        expect((wider.share ?? 0) - (wider.wilsonLower90 ?? 0)).toBeLessThanOrEqual(
          (s.share ?? 0) - (s.wilsonLower90 ?? 0) + 1e-12,
        );
        expect(s.posteriorQ10).toBeLessThan(s.posteriorQ50);
        expect(s.posteriorQ50).toBeLessThan(s.posteriorQ90);
      }),
    );
  });
});

describe('bias', () => {
  it('is flagged only when the interval excludes nothing and the mean is worth a word', () => {
    expect(bias([1.4, 1.6, 1.5, null, 1.7, 1.3], 1)).toMatchObject({ n: 5, flag: true });
    expect(bias([1.4, 1.6, 1.5, 1.7, 1.3], 2).flag).toBe(false);
    expect(bias([-3, 3, -2, 2], 0).flag).toBe(false);
    expect(bias([2], 1)).toMatchObject({ n: 1, mean: 2, sd: null, flag: false });
    expect(bias([], 1)).toMatchObject({ n: 0, mean: null });
  });
  it('moves with the values and turns with their sign', () => {
    fc.assert(
      fc.property(fc.array(metres, { minLength: 2, maxLength: 30 }), metres, (xs, by) => {
        const a = bias(xs, 1);
        const b = bias(
          xs.map((x) => x + by),
          1,
        );
        const c = bias(
          xs.map((x) => -x),
          1,
        );
        expect((b.mean ?? 0) - (a.mean ?? 0)).toBeCloseTo(by, 6);
        expect((b.upper ?? 0) - (b.lower ?? 0)).toBeCloseTo((a.upper ?? 0) - (a.lower ?? 0), 5);
        expect(c.flag).toBe(a.flag);
        expect(c.lower ?? 0).toBeCloseTo(-(a.upper ?? 0), 6);
      }),
    );
  });
});

describe('touchdown spread', () => {
  it('has an ellipse whose axes hold the variance, whatever way it lies', () => {
    fc.assert(
      fc.property(pairs, (ps) => {
        const s = touchdownSpread(
          ps.map((p) => p[0]),
          ps.map((p) => p[1]),
        );
        const variance = (k: 0 | 1) => {
          const m = ps.reduce((a, p) => a + p[k], 0) / ps.length;
          return ps.reduce((a, p) => a + (p[k] - m) ** 2, 0) / (ps.length - 1);
        };
        expect((s.majorSd ?? 0) ** 2 + (s.minorSd ?? 0) ** 2).toBeCloseTo(variance(0) + variance(1), 3);
        expect(s.majorSd ?? 0).toBeGreaterThanOrEqual((s.minorSd ?? 0) - 1e-9);
        const [min, max] = [Math.min(...ps.map((p) => p[0])), Math.max(...ps.map((p) => p[0]))];
        expect(s.medianLateralM ?? 0).toBeGreaterThanOrEqual(min);
        expect(s.medianLateralM ?? 0).toBeLessThanOrEqual(max);
        if (s.majorAngleDeg !== null) {
          expect(s.majorAngleDeg).toBeGreaterThan(-90);
          expect(s.majorAngleDeg).toBeLessThanOrEqual(90);
        }
      }),
    );
  });
  it('draws points that lie as many deviations from the mean as asked', () => {
    fc.assert(
      fc.property(pairs, fc.constantFrom(1, 2), (ps, sigma) => {
        const s = touchdownSpread(
          ps.map((p) => p[0]),
          ps.map((p) => p[1]),
        );
        fc.pre((s.minorSd ?? 0) > 0.5);
        const a = ((s.majorAngleDeg ?? 0) * Math.PI) / 180;
        for (const [x, y] of ellipsePoints(s, sigma, 12)) {
          const [dx, dy] = [x - (s.meanLateralM ?? 0), y - (s.meanAlongM ?? 0)];
          const u = (dy * Math.cos(a) + dx * Math.sin(a)) / (s.majorSd ?? 1);
          const v = (dx * Math.cos(a) - dy * Math.sin(a)) / (s.minorSd ?? 1);
          expect(Math.hypot(u, v)).toBeCloseTo(sigma, 4);
        }
      }),
    );
  });
  it('skips a place of which only one side is known, and has no ellipse of two', () => {
    expect(touchdownSpread([1, null, 2], [10, 20, null])).toMatchObject({ n: 1, majorSd: null });
    expect(touchdownSpread([1, 2], [10, 20])).toMatchObject({
      n: 2,
      meanAlongM: 15,
      majorSd: null,
      majorAngleDeg: null,
    });
    expect(ellipsePoints(touchdownSpread([], []), 1)).toEqual([]);
  });
});

describe('trend', () => {
  it('finds the slope of a line, whatever one wild point does', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -20, max: 20, noNaN: true }),
        metres,
        fc.integer({ min: 0, max: 11 }),
        (slope, start, wild) => {
          const y = Array.from({ length: 12 }, (_, i) => start + slope * i + (i === wild ? 9000 : 0));
          const t = theilSen(
            y.map((_, i) => i),
            y,
          );
          expect(t.slope ?? 0).toBeCloseTo(slope, 4);
          expect(t.lower ?? 0).toBeLessThanOrEqual(slope + 1e-6);
          expect(t.upper ?? 0).toBeGreaterThanOrEqual(slope - 1e-6);
        },
      ),
    );
  });
  it('says nothing of one point', () => {
    expect(theilSen([1, 1], [2, 3])).toEqual({ slope: null, intercept: null, lower: null, upper: null });
  });
});

describe('EWMA', () => {
  it('never signals on the centre, keeps still over a gap, and signals a lasting shift', () => {
    expect(ewma([0, 0, 0], 0, 1).firstSignal).toBeNull();
    const gap = ewma([2, null, 2], 0, 1);
    expect(gap.points[1]).toEqual(gap.points[0]);
    expect(
      ewma(
        Array.from({ length: 20 }, () => 2),
        0,
        1,
      ).firstSignal,
    ).not.toBeNull();
  });
  it('stays between the least and the greatest it has seen, and its limits only widen', () => {
    fc.assert(
      fc.property(fc.array(metres, { minLength: 1, maxLength: 30 }), (xs) => {
        const { points } = ewma(xs, 0, 1);
        points.forEach((p, i) => {
          expect(p.z).toBeLessThanOrEqual(Math.max(0, ...xs.slice(0, i + 1)) + 1e-9);
          expect(p.z).toBeGreaterThanOrEqual(Math.min(0, ...xs.slice(0, i + 1)) - 1e-9);
          const before = points[i - 1];
          if (before) expect(p.upper).toBeGreaterThanOrEqual(before.upper);
        });
      }),
    );
  });
});

it('authorship is the mean of the pilot\u2019s parts, and nobody\u2019s when nothing was noted', () => {
  expect(authorship([0, 1, 2, 3, null])).toEqual({ counted: 4, sum: 2, share: 0.5 });
  expect(authorship([null]).share).toBeNull();
});

describe('forecast', () => {
  const flown = (own: boolean[], over: Partial<Parameters<typeof forecast>[0]> = {}) =>
    forecast({ own, needed: 5, currentRun: 0, perLesson: 8, seed: 1, draws: 400, ...over });
  it('cannot tell before six landings', () => {
    expect(flown([true, true, true, true, true])).toMatchObject({
      tells: false,
      why: { code: 'too-few', params: { landings: 5, least: 6 } },
    });
  });
  it('cannot tell where it never gets there', () => {
    expect(flown(Array.from({ length: 24 }, () => false)).tells).toBe(false);
  });
  it('is short for one who lands well, longer for one who is learning, and never less than what is missing of the run', () => {
    const good = flown(Array.from({ length: 20 }, (_, i) => i > 4));
    const learning = flown(Array.from({ length: 21 }, (_, i) => i % 3 > 0));
    if (!good.tells || !learning.tells) throw new Error('both can be told');
    expect(good.landings.median).toBeLessThan(learning.landings.median);
    expect(good.landings.low).toBeGreaterThanOrEqual(5);
    expect(good.landings.low).toBeLessThanOrEqual(good.landings.median);
    expect(learning.landings.median).toBeLessThanOrEqual(learning.landings.high);
    expect(good.lessons?.median).toBe(Math.ceil(good.landings.median / 8));
  });
  it('is the same for the same seed', () => {
    const own = Array.from({ length: 15 }, (_, i) => i % 3 > 0);
    expect(flown(own)).toEqual(flown(own));
  });
});

describe('slopes by rank', () => {
  it('are those of all pairs written down and sorted, where they are too many to write down', () => {
    const random = seeded(20261129);
    for (const kind of ['noise', 'ties', 'flat'] as const) {
      const n = 700;
      const x = Array.from({ length: n }, (_, i) => (kind === 'ties' ? Math.floor(i / 7) : i));
      const y = x.map(() => (kind === 'flat' ? 3 : kind === 'ties' ? Math.round(random() * 8) : random() * 100));
      const all: number[] = [];
      for (let i = 0; i < n; i++)
        for (let j = i + 1; j < n; j++)
          if (x[i] !== x[j]) all.push(((y[j] ?? 0) - (y[i] ?? 0)) / ((x[j] ?? 0) - (x[i] ?? 0)));
      all.sort((a, b) => a - b);
      const slopes = slopesOf(x, y);
      expect(slopes.count).toBe(all.length);
      for (const share of [0, 0.03, 0.5, 0.97, 1]) {
        const rank = Math.round(share * (all.length - 1));
        expect(slopes.at(rank), `${kind} ${share}`).toBeCloseTo(all[rank] ?? NaN, 9);
      }
    }
  });
});
