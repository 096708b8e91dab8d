import { SIGHT_ATTITUDES } from '@/domain/words';

/** Start values of the lab pages; what is null follows the sheet. Plain, so that the server reads them too. */
export const SIGHT_START = {
  show: 'fly' as string,
  seat: 'pilot' as 'pilot' | 'instructor',
  t: 0,
  offset: 0,
  side: 'left' as 'left' | 'right',
  down: 150,
  width: 18,
  rslope: 0,
  xw: 0,
  off: 0,
  slope: null as number | null,
  aim: null as number | null,
  pitch: null as number | null,
  eye: null as number | null,
};
export type SightState = typeof SIGHT_START;
export const SIGHT_WORDS = {
  show: ['fly', ...SIGHT_ATTITUDES],
  side: ['left', 'right'],
  seat: ['pilot', 'instructor'],
};

export const CIRCUIT_START = {
  runway: '' as string,
  side: 'left' as 'left' | 'right',
  wdir: 260,
  wkt: 10,
  turn: 500,
  bank: 25,
  base: 45,
  height: 1000,
  spacing: null as number | null,
  glide: 35,
  react: 4,
  at: 0,
  oat: 15,
};
export type CircuitState = typeof CIRCUIT_START;
export const CIRCUIT_WORDS = { side: ['left', 'right'] };

export const GROUND_START = { radius: null as number | null, width: 10, lights: 0.5, lip: 0, at: 0.55 };
export type GroundState = typeof GROUND_START;
