/** Forms of the settings: what holds for the school, and a calendar of one's own. */
import { z } from 'zod';
import { PACKS } from './words';

const TimeOfDay = z
  .string()
  .regex(/^([01]?\d|2[0-3]):[0-5]\d$|^24:00$/, 'Give the time as hours and minutes, such as 09:30.');
const WHOLE_MINUTES = 'Give whole minutes.';
const WHOLE_DAYS = 'Give whole days.';
export const SchoolForm = z.object({
  name: z.string().trim().max(80, 'At most 80 characters.'),
  homePack: z.enum(PACKS, 'Choose the rules.'),
  openFrom: TimeOfDay,
  openTo: TimeOfDay,
  stepMin: z.number(WHOLE_MINUTES).int(WHOLE_MINUTES).min(5, 'At least 5 min.').max(60, 'At most 60 min.'),
  nightFlying: z.boolean(),
  stalledDays: z.number(WHOLE_DAYS).int(WHOLE_DAYS).min(1, 'At least 1 day.'),
  reportUrl: z.string().max(500, 'At most 500 characters.'),
  forecastUrl: z.string().max(500, 'At most 500 characters.'),
  reason: z.string(),
});
/** The alarm before each flight of a calendar. */
export const FeedForm = z.object({
  alarmMin: z
    .number(WHOLE_MINUTES)
    .int(WHOLE_MINUTES)
    .min(0, 'Give 0 to 2880 minutes.')
    .max(2880, 'Give 0 to 2880 minutes.'),
});
