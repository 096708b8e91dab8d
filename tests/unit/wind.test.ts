import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { parseMetar } from 'metar-taf-parser';
import { REFUSED, REPORTS } from '../fixtures/reports';
import {
  ageMinutes,
  chooseRunway,
  components,
  convertReference,
  crosswindVerdict,
  flapVerdict,
  pilotLadder,
  readReport,
  reportInstant,
  reportedWind,
  worstCase,
} from '@/core/wind';

const direction = fc.integer({ min: 1, max: 360 });
const speed = fc.integer({ min: 0, max: 60 });

describe('components', () => {
  it('gives a wind from the right a positive crosswind', () => {
    expect(components(90, 10, null, 360).crosswindKt).toBeCloseTo(10);
    expect(components(270, 10, null, 360).crosswindKt).toBeCloseTo(-10);
  });
  it('keeps the speed: head² + cross² = wind²', () => {
    fc.assert(
      fc.property(direction, speed, direction, (from, kt, runway) => {
        const c = components(from, kt, null, runway);
        expect(Math.hypot(c.headwindKt, c.crosswindKt)).toBeCloseTo(kt, 6);
      }),
    );
  });
  it('is opposite on the reciprocal runway', () => {
    fc.assert(
      fc.property(direction, speed, direction, (from, kt, runway) => {
        const one = components(from, kt, null, runway);
        const other = components(from, kt, null, runway + 180);
        expect(one.crosswindKt).toBeCloseTo(-other.crosswindKt, 6);
        expect(one.headwindKt).toBeCloseTo(-other.headwindKt, 6);
      }),
    );
  });
  it('true and magnetic go there and back', () => {
    fc.assert(
      fc.property(direction, fc.integer({ min: -30, max: 30 }), (deg, variation) => {
        const there = convertReference(deg, 'true', 'magnetic', variation);
        expect(convertReference(there, 'magnetic', 'true', variation)).toBe(deg);
      }),
    );
  });
});

describe('worstCase', () => {
  it('is never better than any direction of the range', () => {
    fc.assert(
      fc.property(
        direction,
        fc.integer({ min: 0, max: 180 }),
        fc.integer({ min: 0, max: 40 }),
        direction,
        (from, width, kt, runway) => {
          const arcTo = ((from + width - 1) % 360) + 1;
          const worst = worstCase(
            { variable: false, arcFromDeg: from, arcToDeg: arcTo, windFromDeg: null, windKt: kt, gustKt: null },
            runway,
          );
          for (const dir of [from, from + Math.floor(width / 2), from + width]) {
            expect(Math.abs(components(dir, kt, null, runway).crosswindKt)).toBeLessThanOrEqual(
              worst.worstCrosswindKt + 0.02,
            );
          }
        },
      ),
    );
  });
});

describe('chooseRunway', () => {
  it('never proposes an end with too much tailwind', () => {
    const ends = [
      { id: '04', headingDeg: 38, lengthM: 900 },
      { id: '22', headingDeg: 218, lengthM: 900 },
    ];
    let some = 0;
    fc.assert(
      fc.property(direction, speed, (from, kt) => {
        const choice = chooseRunway(
          { windFromDeg: from, windKt: kt, gustKt: null },
          { tailwindLimitKt: 5, requiredLengthM: 0 },
          ends,
        );
        const chosen = choice.runways.find((r) => r.id === choice.chosenId);
        if (!chosen) return;
        some++;
        expect(-chosen.headwindKt).toBeLessThanOrEqual(5);
      }),
    );
    expect(some).toBeGreaterThan(20);
  });
});

describe('crosswindVerdict', () => {
  const base = {
    gustCrosswindKt: null,
    tailwindKt: 0,
    gustTailwindKt: null,
    tailwindLimitKt: null,
    gustSpreadKt: null,
    gustSpreadLimitKt: null,
    windAgeMin: 2,
    dual: true,
  };
  const limits = [
    { source: 'order 4', kind: 'house' as const, valueKt: 12 },
    { source: 'step', kind: 'pilotStep' as const, valueKt: 6 },
    { source: 'floor', kind: 'vs0Floor' as const, valueKt: 2 },
  ];
  it('more wind is never a better verdict', () => {
    const rank = { within: 0, edge: 1, outside: 2 };
    fc.assert(
      fc.property(
        fc.float({ min: 0, max: 30, noNaN: true }),
        fc.float({ min: 0, max: 10, noNaN: true }),
        fc.boolean(),
        (kt, more, dual) => {
          const a = crosswindVerdict({ ...base, dual, crosswindKt: kt, limits }).verdict ?? 'within';
          const b = crosswindVerdict({ ...base, dual, crosswindKt: kt + more, limits }).verdict ?? 'within';
          expect(rank[b]).toBeGreaterThanOrEqual(rank[a]);
        },
      ),
    );
  });
  it('names the step as advice in dual and as the governor solo', () => {
    const dual = crosswindVerdict({ ...base, crosswindKt: 8, limits });
    expect(dual).toMatchObject({ governingKind: 'house', verdict: 'within', abovePilotStep: true });
    expect(crosswindVerdict({ ...base, dual: false, crosswindKt: 8, limits })).toMatchObject({
      governingKind: 'pilotStep',
      verdict: 'outside',
    });
  });
  it('says nothing on an old wind', () => {
    expect(crosswindVerdict({ ...base, windAgeMin: 10.1, crosswindKt: 1, limits })).toMatchObject({
      reason: 'no-recent-wind',
      verdict: null,
    });
  });
  it('gives no flap setting beyond the table', () => {
    expect(flapVerdict(13, null, [{ upToKt: 12, maxFlapDeg: 10, reason: '' }])).toEqual({
      verdict: 'outside',
      maxFlapDeg: null,
      reason: null,
    });
  });
});

describe('pilotLadder', () => {
  const landing = (crosswindKt: number, ok: boolean, more = {}) => ({
    date: '2026-11-01',
    group: 'light-tailwheel',
    crosswindKt,
    windAgeMin: 4,
    intervention: 0,
    demonstration: false,
    criteria: { drift: ok ? ('within' as const) : ('outside' as const) },
    ...more,
  });
  const ask = { group: 'light-tailwheel', onDate: '2026-11-10', stepKt: 2, credit: null };
  it('proves a wind by the last three that count', () => {
    expect(pilotLadder({ ...ask, landings: [landing(7, true), landing(7, true), landing(7, true)] }).ladderKt).toBe(9);
    expect(pilotLadder({ ...ask, landings: [landing(7, true), landing(7, true), landing(7, false)] }).provenKt).toBe(0);
  });
  it('takes no account of another group, an old wind or a demonstration', () => {
    const three = (more: object) => [landing(9, true, more), landing(9, true, more), landing(9, true, more)];
    for (const more of [
      { group: 'heavy-tailwheel' },
      { windAgeMin: 11 },
      { demonstration: true },
      { date: '2026-12-01' },
    ])
      expect(pilotLadder({ ...ask, landings: three(more) }).provenKt).toBe(0);
  });
});

describe('the ladder in one sweep', () => {
  /** The rule as it is written, wind by wind, in n². */
  const written = (records: readonly { kt: number; good: boolean }[], stepKt: number): [number, number] => {
    const proven = (x: number) => {
      const of = records.filter((r) => (r.good ? r.kt >= x - 1e-9 : r.kt <= x + 1e-9));
      return of.length >= 3 && of.slice(-3).every((r) => r.good);
    };
    const asked = records.flatMap((r) => (r.good ? [r.kt] : r.kt > 1 ? [r.kt - 1] : []));
    const best = Math.max(0, ...asked.filter(proven));
    const denied = Math.min(Infinity, ...records.filter((r) => !r.good && !proven(r.kt)).map((r) => r.kt));
    return [best, Math.max(best, Math.min(best + stepKt, denied - 1))];
  };
  it('is the rule read wind by wind, on random records', () => {
    fc.assert(
      fc.property(
        fc.array(fc.record({ kt: fc.integer({ min: 0, max: 24 }).map((x) => x / 2), good: fc.boolean() }), {
          maxLength: 40,
        }),
        fc.constantFrom(2, 3),
        (records, stepKt) => {
          const landings = records.map((r) => ({
            date: '2026-11-01',
            group: 'g',
            crosswindKt: r.kt,
            windAgeMin: 4,
            intervention: 0,
            demonstration: false,
            criteria: { drift: r.good ? ('within' as const) : ('outside' as const) },
          }));
          const l = pilotLadder({ landings, group: 'g', onDate: '2026-11-10', stepKt, credit: null });
          expect([l.provenKt, l.ladderKt]).toEqual(written(records, stepKt));
        },
      ),
      { numRuns: 400 },
    );
  });
});

describe('readReport', () => {
  const good = 'METAR ZPAV 241420Z 26011G17KT 230V290 9999 FEW030 18/07 Q1016 NOSIG';
  it('reads wind, range, temperature and QNH', () => {
    expect(readReport(good)).toMatchObject({
      ok: true,
      report: {
        station: 'ZPAV',
        wind: { fromDeg: 260, kt: 11, gustKt: 17, arcFromDeg: 230, arcToDeg: 290 },
        temperatureC: 18,
        dewPointC: 7,
        qnhHpa: 1016,
      },
    });
  });
  it('accepts lower case, line breaks and a closing sign', () => {
    expect(readReport('zpav 241420z 26011kt\ncavok 18/07 q1016=').ok).toBe(true);
  });
  it('shows a missing QNH as missing', () => {
    expect(readReport('ZPAV 241420Z 26011KT CAVOK 18/07')).toMatchObject({ ok: true, report: { qnhHpa: null } });
  });
  it.each([
    ['26O11G17KT', 'ZPAV 241420Z 26O11G17KT CAVOK 18/07 Q1016'],
    ['37011KT', 'ZPAV 241420Z 37011KT CAVOK 18/07 Q1016'],
    ['26511KT', 'ZPAV 241420Z 26511KT CAVOK 18/07 Q1016'],
    ['26017G11KT', 'ZPAV 241420Z 26017G11KT CAVOK 18/07 Q1016'],
    ['BANANA', 'ZPAV 241420Z 26011KT BANANA 18/07 Q1016'],
    ['Q3016', 'ZPAV 241420Z 26011KT CAVOK 18/07 Q3016'],
    ['/////KT', 'ZPAV 241420Z /////KT CAVOK'],
    ['251420', 'ZPAV 251420 26011KT'],
    ['HELLO', 'hello world'],
  ])('names the group %s', (group, text) => {
    const read = readReport(text);
    expect(read.ok).toBe(false);
    const first = read.ok ? undefined : read.problems[0];
    expect(`${first?.group ?? ''} ${JSON.stringify(first?.why)}`).toContain(group);
  });
  it('reads reports of all regions as an observer would', () => {
    expect(REPORTS.length).toBeGreaterThanOrEqual(120);
    const shown = (x: number | null, digits = 0) => (x === null ? '-' : String(Number(x.toFixed(digits))));
    for (const [text, reads] of REPORTS) {
      const read = readReport(text);
      expect(read, text).toMatchObject({ ok: true });
      if (!read.ok) continue;
      const { wind: w, temperatureC, dewPointC, qnhHpa } = read.report;
      const from = w.variable ? 'VRB' : w.kt === 0 ? '0' : shown(w.fromDeg);
      expect(
        [from, shown(w.kt, 1), shown(w.gustKt, 1), shown(temperatureC), shown(dewPointC), shown(qnhHpa, 1)].join(' '),
        text,
      ).toBe(reads);
    }
  });
  it('agrees with another reader of reports, where that reads the group at all', () => {
    let compared = 0;
    for (const [text] of REPORTS) {
      const read = readReport(text);
      let other;
      try {
        other = parseMetar(
          text
            .toUpperCase()
            .replace(/^(METAR|SPECI) (COR )?/, '')
            .replace(/ (BECMG|TEMPO|INTER|FM\d+|PROB).*/, '')
            .replace(/[=$]+$/, ''),
        );
      } catch {
        continue;
      }
      if (!read.ok || text.includes('KMH ') || other.wind?.unit !== 'KT' || other.wind.direction === 'VRB') continue;
      compared++;
      expect([read.report.wind.kt, read.report.wind.gustKt], text).toEqual([other.wind.speed, other.wind.gust ?? null]);
      if (other.temperature !== undefined) expect(read.report.temperatureC, text).toBe(other.temperature + 0);
    }
    expect(compared).toBeGreaterThan(70);
  });
  it.each(REFUSED)('refuses %s by %s', (text, group) => {
    const read = readReport(text);
    const first = read.ok ? undefined : read.problems[0];
    expect(`"${first?.group ?? ''}" ${JSON.stringify(first?.why)}`).toContain(group);
  });
  it('keeps what is expected apart and names what it cannot read of it', () => {
    const trendOf = (text: string) => {
      const read = readReport(`ZPAV 241420Z 26011KT CAVOK 18/07 Q1016 ${text}`);
      if (!read.ok) throw new Error(text);
      expect(read.report.wind.kt).toBe(11);
      return read.report.trend;
    };
    expect(trendOf('')).toBeNull();
    expect(trendOf('BECMG hello world')).toEqual({ text: 'BECMG HELLO WORLD', unread: ['HELLO', 'WORLD'] });
    expect(trendOf('FM1500 23025G35KT 9999 NSW')).toMatchObject({ unread: [] });
    expect(trendOf('BECMG 37025KT')).toMatchObject({ unread: ['37025KT'] });
  });
  it('converts metres per second', () => {
    expect(readReport('ZPAV 241420Z 26010MPS CAVOK 18/07 Q1016')).toMatchObject({ ok: true });
    const read = readReport('ZPAV 241420Z 26010MPS CAVOK');
    expect(read.ok ? read.report.wind.kt : null).toBeCloseTo(19.44, 1);
  });
  it('never throws on any text', () => {
    fc.assert(
      fc.property(fc.string(), (text) => {
        expect(() => readReport(text)).not.toThrow();
      }),
    );
    fc.assert(
      fc.property(
        fc.array(
          fc.constantFrom(
            'ZPAV',
            '241420Z',
            '26011KT',
            'VRB03KT',
            'CAVOK',
            '18/07',
            'Q1016',
            'RMK',
            '9999',
            '24V28',
            '///',
            'M01/',
          ),
          { maxLength: 8 },
        ),
        (t) => {
          expect(() => readReport(t.join(' '))).not.toThrow();
        },
      ),
    );
  });
  it('places the day in the right month', () => {
    const time = { hourUtc: 23, minuteUtc: 50 };
    expect(reportInstant({ dayOfMonth: 30, ...time }, '2026-12-01T00:10:00Z')).toBe('2026-11-30T23:50:00.000Z');
    expect(reportInstant({ dayOfMonth: 31, ...time }, '2026-12-01T00:10:00Z')).toBe('2026-10-31T23:50:00.000Z');
    expect(reportInstant({ dayOfMonth: 24, hourUtc: 14, minuteUtc: 20 }, '2026-11-24T14:30:00Z')).toBe(
      '2026-11-24T14:20:00.000Z',
    );
  });
  it('says how old it is', () => {
    const read = readReport(good);
    if (!read.ok) throw new Error('unreadable');
    expect(
      ageMinutes(reportedWind(good, read.report, '2026-11-24T14:30:00Z')?.observedAt ?? '', '2026-11-24T14:30:00Z'),
    ).toBe(10);
  });
});
