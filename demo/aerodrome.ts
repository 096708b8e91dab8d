import type { Aerodrome } from '@/domain/sheet';

/**
 * Pedra Alva: an invented plateau with a reservoir. Designators are magnetic, bearings true; variation 2\u00b0 west.
 * A runway with a slope rises for a take-off from the first end named.
 */
export const pedraAlva: Aerodrome = {
  ident: 'ZPAV',
  name: 'Pedra Alva',
  elevationFt: 1345,
  variationDeg: -2,
  timeZone: 'Europe/Lisbon',
  latitudeDeg: 39.31,
  longitudeDeg: -7.42,
  circuitHeightFt: 1000,
  runways: [
    {
      surface: 'asphalt',
      elevationFt: 1345,
      lengthM: 900,
      widthM: 18,
      slopePct: 0.4,
      centre: { eastM: 0, northM: 0 },
      ends: [
        {
          ident: '04',
          trueBearingDeg: 38,
          elevationFt: null,
          landmark: { name: 'fuel pump', alongM: 360 },
          slopeLightsDeg: null,
          slopeLightsM: null,
          obstacle: null,
        },
        {
          ident: '22',
          trueBearingDeg: 218,
          elevationFt: null,
          landmark: { name: 'windsock', alongM: 310 },
          slopeLightsDeg: 3.5,
          slopeLightsM: 150,
          obstacle: { name: 'pines on the bank', pastEndM: 420, heightFt: 35 },
        },
      ],
    },
    {
      surface: 'grass',
      elevationFt: 1345,
      lengthM: 620,
      widthM: 25,
      slopePct: 0,
      centre: { eastM: -180, northM: 240 },
      ends: [
        {
          ident: '11',
          trueBearingDeg: 108,
          elevationFt: null,
          landmark: { name: 'lone oak', alongM: 250 },
          slopeLightsDeg: null,
          slopeLightsM: null,
          obstacle: null,
        },
        {
          ident: '29',
          trueBearingDeg: 288,
          elevationFt: null,
          landmark: { name: 'white stone', alongM: 260 },
          slopeLightsDeg: null,
          slopeLightsM: null,
          obstacle: null,
        },
      ],
    },
    {
      surface: 'water',
      elevationFt: 1299,
      lengthM: 1400,
      widthM: 60,
      slopePct: 0,
      centre: { eastM: 1900, northM: -700 },
      ends: [
        {
          ident: '18W',
          trueBearingDeg: 178,
          elevationFt: null,
          landmark: { name: 'yellow buoy', alongM: 500 },
          slopeLightsDeg: null,
          slopeLightsM: null,
          obstacle: null,
        },
        {
          ident: '36W',
          trueBearingDeg: 358,
          elevationFt: null,
          landmark: { name: 'boathouse', alongM: 520 },
          slopeLightsDeg: null,
          slopeLightsM: null,
          obstacle: null,
        },
      ],
    },
  ],
  airspace: [
    { name: 'ridge sector', fromKm: 0, toKm: 6, floorFt: 4500 },
    { name: 'reservoir sector', fromKm: 6, toKm: 14, floorFt: 3500 },
    { name: 'valley corridor', fromKm: 14, toKm: 24, floorFt: 2500 },
  ],
  source: 'school aerodrome chart, March 2026',
};

/** Moinho Velho: an invented grass field in the valley, west of Pedra Alva; the circuit of 08 turns right, off the hill. */
export const moinhoVelho: Aerodrome = {
  ident: 'ZPMV',
  name: 'Moinho Velho',
  elevationFt: 420,
  variationDeg: -2,
  timeZone: 'Europe/Lisbon',
  latitudeDeg: 39.12,
  longitudeDeg: -7.96,
  circuitHeightFt: 800,
  runways: [
    {
      surface: 'grass',
      elevationFt: 420,
      lengthM: 760,
      widthM: 24,
      slopePct: 0,
      centre: { eastM: 0, northM: 0 },
      ends: [
        {
          ident: '08',
          trueBearingDeg: 80,
          elevationFt: null,
          landmark: { name: 'mill wall', alongM: 290 },
          slopeLightsDeg: null,
          slopeLightsM: null,
          circuit: 'right',
          obstacle: { name: 'cork oaks', pastEndM: 300, heightFt: 45 },
        },
        {
          ident: '26',
          trueBearingDeg: 260,
          elevationFt: null,
          landmark: { name: 'white gate', alongM: 270 },
          slopeLightsDeg: null,
          slopeLightsM: null,
          circuit: 'left',
          obstacle: null,
        },
      ],
    },
  ],
  airspace: [{ name: 'valley corridor', fromKm: 0, toKm: 18, floorFt: 3000 }],
  source: 'aerodrome sheet, May 2026',
};
