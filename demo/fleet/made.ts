import type { TypeSheet } from '@/domain/sheet';
import { alvorC1, alvorC4G } from './alvor';
import { serranaUrze } from './serrana';

/**
 * Types nobody flies here, made of those of the fleet, so that every goal has an aeroplane to be held against: straight
 * floats, skis, and a pressurised single with a turbocharger and one lever.
 */
export const floatplane: TypeSheet = {
  ...alvorC1,
  code: 'alvor-c1-floats',
  name: 'Alvor C1 on floats',
  surface: 'sea',
  landing: { ...alvorC1.landing, usualAttitude: 'flat' },
};
export const skiplane: TypeSheet = {
  ...serranaUrze,
  code: 'serrana-urze-ski',
  name: 'Serrana Urze on skis',
  features: { ...serranaUrze.features, skis: 'yes' },
};
export const pressurised: TypeSheet = {
  ...alvorC4G,
  code: 'alvor-c4p',
  name: 'Alvor C4P',
  features: {
    glass: 'yes',
    turbocharged: 'yes',
    pressurised: 'yes',
    singleLeverPower: 'yes',
    digitalEngineControl: 'yes',
    skis: 'no',
    ceilingFt: { value: 27500, source: 'handbook', ref: 'Handbook 5.5' },
  },
};
export const made: readonly TypeSheet[] = [floatplane, skiplane, pressurised];
