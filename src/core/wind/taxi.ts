import { norm180 } from '../constants';
import { needNumbers } from '../guard';

export interface TaxiControls {
  /** Direction and speed of the air over the aeroplane that rolls: + from the right, 0 ahead, 180 behind. */
  airFromDeg: number;
  airKt: number;
  /** Which aileron is up; towards it the stick is held. */
  aileronUp: 'left' | 'right' | 'neutral';
  elevator: 'aft' | 'neutral' | 'forward';
}
/** Below this nothing needs holding, kt. */
const CALM_KT = 3;
/** Within so many degrees of ahead or behind the wind is on neither side. */
const ON_SIDE_DEG = 10;

/**
 * Where the controls are held while taxiing: climb into the wind, dive away from it. By the air over the aeroplane as it
 * rolls, so that a wind behind that is slower than the taxi is a wind ahead.
 * Source: relative wind, and the usual table of control positions.
 * @param windFromDeg relative to the nose, + right
 * @param layout a tailwheel type holds the stick back with the wind ahead, a nosewheel type neutral
 * @throws BadNumber when a number handed in is none
 * @example
 * taxiControls({ windFromDeg: 135, windKt: 15, taxiKt: 5, layout: 'tailwheel' }).elevator // 'forward'
 */
export function taxiControls(i: {
  windFromDeg: number;
  windKt: number;
  taxiKt: number;
  layout: 'tailwheel' | 'nosewheel' | 'hull';
}): TaxiControls {
  needNumbers('taxiControls', i);
  const rad = (i.windFromDeg * Math.PI) / 180;
  const ahead = i.windKt * Math.cos(rad) + i.taxiKt;
  const right = i.windKt * Math.sin(rad);
  const airKt = Math.hypot(ahead, right);
  const airFromDeg = airKt < 1e-9 ? 0 : norm180((Math.atan2(right, ahead) * 180) / Math.PI);
  const back: TaxiControls['elevator'] = i.layout === 'tailwheel' ? 'aft' : 'neutral';
  // Only the taxi's own wind, or none: as with the wind ahead.
  if (airKt < CALM_KT || i.windKt < CALM_KT) return { airFromDeg, airKt, aileronUp: 'neutral', elevator: back };
  const behind = Math.abs(airFromDeg) > 90;
  const side = Math.abs(airFromDeg) < ON_SIDE_DEG || Math.abs(airFromDeg) > 180 - ON_SIDE_DEG;
  const from = airFromDeg > 0 ? 'right' : 'left';
  const away = from === 'right' ? 'left' : 'right';
  return {
    airFromDeg,
    airKt,
    aileronUp: side ? 'neutral' : behind ? away : from,
    elevator: behind ? 'forward' : back,
  };
}
