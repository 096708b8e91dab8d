import type { Transaction } from 'sequelize';
import { dateText, localDate } from '@/core/format';
import { nowIso } from '../floor/clock';
import { homeAerodrome } from './content';

/** Today's date at the aerodrome. */
export const localToday = async (t?: Transaction): Promise<string> =>
  localDate(nowIso(), (await homeAerodrome(t)).timeZone);
/** Writes instants as the day it was at the aerodrome. */
export async function dayHere(): Promise<(iso: string) => string> {
  const { timeZone } = await homeAerodrome();
  return (iso) => dateText(localDate(iso, timeZone));
}
