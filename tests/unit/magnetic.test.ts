import { describe, expect, it } from 'vitest';
import { magneticVariation } from '@/core/magnetic';

describe('magnetic variation', () => {
  // The test values published with the World Magnetic Model 2025: declination at sea level, 1 January 2025.
  it.each([
    [80, 0, 1.28],
    [0, 120, -0.16],
    [-80, -120, 68.78],
  ])('at %d, %d is as published', (lat, lon, published) => {
    expect(Math.abs((magneticVariation(lat, lon, 0, '2025-01-01') ?? 999) - published)).toBeLessThanOrEqual(0.05);
  });
  it('is not said where a compass shows nothing, nor outside the years of the model', () => {
    expect(magneticVariation(86.5, 164, 0, '2026-11-24')).toBeNull();
    expect(magneticVariation(-64, 136, 0, '2026-11-24')).toBeNull();
    expect(magneticVariation(52, 12, 0, '2031-01-01')).toBeNull();
    expect(magneticVariation(95, 12, 0, '2026-11-24')).toBeNull();
    expect(magneticVariation(52, 12, 0, 'no date')).toBeNull();
  });
});
