import type { Aerodrome } from '@/domain/sheet';

/** Pedra Alva. Bearings are true; the designators are magnetic and the variation is 2° west. */
export const pedraAlva: Aerodrome = {
  ident: 'ZPAV',
  name: 'Pedra Alva',
  elevationFt: 1345,
  variationDeg: -2,
  timeZone: 'Europe/Lisbon',
  runways: [
    { surface: 'asphalt', lengthM: 900, widthM: 18, ends: [{ ident: '04', trueBearingDeg: 38 }, { ident: '22', trueBearingDeg: 218 }] },
    { surface: 'grass', lengthM: 620, widthM: 25, ends: [{ ident: '11', trueBearingDeg: 108 }, { ident: '29', trueBearingDeg: 288 }] },
  ],
};
