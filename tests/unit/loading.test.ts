import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { types } from '@demo/fleet';
import { type EnvelopePoint, insideEnvelope, massBalance, trimFor } from '@/core/loading';

const box: EnvelopePoint[] = [
  { armM: 1, massKg: 500 },
  { armM: 1, massKg: 900 },
  { armM: 1.4, massKg: 900 },
  { armM: 1.4, massKg: 500 },
];
const notched: EnvelopePoint[] = [
  { armM: 0, massKg: 0 },
  { armM: 0, massKg: 10 },
  { armM: 4, massKg: 10 },
  { armM: 4, massKg: 0 },
  { armM: 3, massKg: 0 },
  { armM: 3, massKg: 6 },
  { armM: 1, massKg: 6 },
  { armM: 1, massKg: 0 },
];

describe('the envelope', () => {
  it('counts edges and corners as inside, whichever way round it is drawn', () => {
    for (const polygon of [box, [...box].reverse()]) {
      for (const [kg, m] of [
        [500, 1],
        [900, 1.4],
        [700, 1],
        [500, 1.2],
      ] as const)
        expect(insideEnvelope(kg, m, polygon)).toMatchObject({ inside: true, edgeDistance: 0 });
      expect(insideEnvelope(499, 1.2, polygon).inside).toBe(false);
      expect(insideEnvelope(700, 1.41, polygon)).toMatchObject({
        inside: false,
        forwardMarginM: null,
        aftMarginM: null,
        massMarginKg: null,
      });
    }
  });
  it('gives margins along each axis that land on the edge', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 501, max: 899, noNaN: true }),
        fc.double({ min: 1.001, max: 1.399, noNaN: true }),
        (kg, m) => {
          const r = insideEnvelope(kg, m, box);
          expect(r.forwardMarginM).toBeCloseTo(m - 1, 9);
          expect(r.aftMarginM).toBeCloseTo(1.4 - m, 9);
          expect(r.massMarginKg).toBeCloseTo(900 - kg, 6);
          expect(r.edgeDistance).toBeCloseTo(
            Math.min((m - 1) / 0.4, (1.4 - m) / 0.4, (kg - 500) / 400, (900 - kg) / 400),
            9,
          );
        },
      ),
    );
  });
  it('need not be convex', () => {
    expect(insideEnvelope(3, 2, notched).inside).toBe(false);
    expect(insideEnvelope(8, 2, notched)).toMatchObject({ inside: true, massMarginKg: 2 });
    expect(insideEnvelope(3, 0.5, notched)).toMatchObject({ inside: true, forwardMarginM: 0.5, aftMarginM: 0.5 });
    expect(insideEnvelope(3, 3.5, notched)).toMatchObject({ inside: true, forwardMarginM: 0.5 });
  });
  it('the sign of the distance is the verdict, for every sheet of the fleet', () => {
    for (const t of types.filter((x) => x.loading)) {
      const envelope = t.loading?.envelope ?? [];
      fc.assert(
        fc.property(
          fc.double({ min: 300, max: 4200, noNaN: true }),
          fc.double({ min: -0.5, max: 5, noNaN: true }),
          (kg, m) => {
            const r = insideEnvelope(kg, m, envelope);
            expect(r.inside).toBe(r.edgeDistance >= 0);
          },
        ),
        { numRuns: 60 },
      );
    }
  });
});

describe('mass and balance', () => {
  const stations = [
    { name: 'Empty', massKg: 500, armM: 1.1, maxKg: null },
    { name: 'Seat', massKg: 90, armM: 1.2, maxKg: 100 },
  ];
  it('is a sum of moments at take-off, landing and no fuel', () => {
    const b = massBalance({ stations, fuelL: 100, fuelArmM: 1.3, burnL: 40, densityKgL: null, envelope: box });
    expect(b.zeroFuel).toMatchObject({ massKg: 590, momentKgM: 500 * 1.1 + 90 * 1.2 });
    expect(b.takeOff.massKg).toBeCloseTo(590 + 72, 9);
    expect(b.landing.massKg).toBeCloseTo(590 + 60 * 0.72, 9);
    expect(b.takeOff.armM).toBeGreaterThan(b.landing.armM);
    expect(b).toMatchObject({ allInside: true, overMax: [] });
  });
  it('never burns more than is aboard, and names an overloaded station', () => {
    const b = massBalance({
      stations: [...stations, { name: 'Bags', massKg: 31, armM: 1.6, maxKg: 30 }],
      fuelL: 10,
      fuelArmM: 1.3,
      burnL: 50,
      densityKgL: 0.72,
      envelope: box,
    });
    expect(b.landing.massKg).toBe(b.zeroFuel.massKg);
    expect(b.overMax).toEqual(['Bags']);
  });
  it('one point outside is enough to say so', () => {
    const b = massBalance({
      stations: [{ name: 'Empty', massKg: 480, armM: 1.2, maxKg: null }],
      fuelL: 100,
      fuelArmM: 1.2,
      burnL: 10,
      densityKgL: null,
      envelope: box,
    });
    expect([b.takeOff.inside, b.zeroFuel.inside, b.allInside]).toEqual([true, false, false]);
  });
});

describe('trim', () => {
  const table = [
    { armM: 0.5, trim: 0 },
    { armM: 0.3, trim: 6 },
  ];
  it('is linear between settings and flat outside, with a flag', () => {
    expect(trimFor(0.4, table)).toEqual({ trim: expect.closeTo(3, 9), outsideTable: false });
    expect(trimFor(0.3, table)).toEqual({ trim: 6, outsideTable: false });
    expect(trimFor(0.2, table)).toEqual({ trim: 6, outsideTable: true });
    expect(trimFor(0.9, table)).toEqual({ trim: 0, outsideTable: true });
    expect(trimFor(0.4, [])).toEqual({ trim: 0, outsideTable: true });
  });
});
