import type { Transaction } from 'sequelize';
import { localDate } from '@/core/format';
import { nowIso } from '../floor/clock';
import { homeAerodrome } from './content';

/** Today's date at the aerodrome. */
export const localToday = async (t?: Transaction): Promise<string> =>
  localDate(nowIso(), (await homeAerodrome(t)).timeZone);
