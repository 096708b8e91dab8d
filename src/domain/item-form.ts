import './plain-errors';
import { z } from 'zod';
import { LAB_PAGES } from './lab-pages';
import { HELP, ITEM_ATTITUDES } from './assess-words';

const whole = (least: number, most: number, what: string) =>
  z.number(what).int('Give a whole number.').min(least, `At least ${least}.`).max(most, `At most ${most}.`);

/** An item the school asks on top of the law, in the words of somebody who flies. */
export const SchoolItemForm = z
  .object({
    key: z.string().min(1).max(60),
    baseVersion: z.number().int().min(1),
    title: z.string().trim().min(3, 'Name the item.').max(60, 'At most 60 characters.'),
    text: z.string().trim().min(10, 'Say in a sentence what is shown.').max(300, 'At most 300 characters.'),
    where: z.enum(['ground', 'flight'], 'Choose where.'),
    how: z.enum(['seen', 'landings', 'pages'], 'Choose how it counts.'),
    /** Pages of the lab in a brief the pilot acknowledged. */
    pages: z.array(z.enum(LAB_PAGES)).max(LAB_PAGES.length).default([]),
    times: whole(1, 50, 'Say how many times.'),
    help: z.enum(HELP, 'Choose with how much help it still counts.'),
    days: whole(1, 30, 'Say on how many days at least.'),
    attitude: z.enum(ITEM_ATTITUDES, 'Choose the attitude.'),
    fullStop: z.boolean(),
    crosswindKt: whole(1, 40, 'Give knots, or leave it empty.').nullable(),
    withinDays: whole(1, 1000, 'Give days, or leave it empty.').nullable(),
    first: z.array(z.string().max(20)).max(40),
    safety: z.boolean(),
    perAirframe: z.boolean(),
    lesson: whole(1, 9, 'Give the lesson, or leave it empty.').nullable(),
    waivable: z.string().trim().max(200, 'At most 200 characters.'),
    citation: z.string().trim().min(3, 'Say where the school asks it.').max(120, 'At most 120 characters.'),
    reason: z.string().trim().min(5, 'Say why, in a few words.').max(300, 'At most 300 characters.'),
    /** Open checkouts that are asked it too. */
    checkouts: z.array(z.string().max(64)).max(500),
  })
  .superRefine((f, at) => {
    if (f.how === 'landings' && f.where === 'ground')
      at.addIssue({ code: 'custom', path: ['where'], message: 'Landings are flown: choose in flight.' });
    if (f.how === 'landings' && f.help === 'assisted')
      at.addIssue({ code: 'custom', path: ['help'], message: 'A landing counts unassisted, or prompted at most.' });
    if (f.how === 'pages' && f.where === 'flight')
      at.addIssue({ code: 'custom', path: ['where'], message: 'The lab is read on the ground: choose on the ground.' });
    if (f.how === 'pages' && f.pages.length === 0)
      at.addIssue({ code: 'custom', path: ['pages'], message: 'Choose at least one page.' });
    if (f.how === 'seen' && f.days > f.times)
      at.addIssue({ code: 'custom', path: ['days'], message: 'Not on more days than times.' });
  });
export type SchoolItem = z.infer<typeof SchoolItemForm>;

/** A newer version of a programme taken into an open checkout. */
export const TakeProgrammeForm = z.object({
  checkoutId: z.string().min(1).max(64),
  from: z.string().min(1).max(120),
  to: z.string().min(1).max(120),
  reason: z.string().trim().min(5, 'Say why, in a few words.').max(300, 'At most 300 characters.'),
});
