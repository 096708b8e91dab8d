import { z } from 'zod';

export const BOOKING_KINDS = ['lesson', 'hire', 'currency', 'other'] as const;
export type BookingKind = (typeof BOOKING_KINDS)[number];
export const BOOKING_NAME: Record<BookingKind, string> = {
  lesson: 'lesson',
  hire: 'hire',
  currency: 'own practice',
  other: 'other',
};
const Clock = z.iso.datetime({ message: 'Give the day and the time.' });
export const BookForm = z.object({
  requestId: z.uuid(),
  kind: z.enum(BOOKING_KINDS),
  /** Of a lesson: it names pilot, goal and programme. */
  checkoutId: z.string().nullable(),
  pilotId: z.string().nullable(),
  instructorId: z.string().nullable(),
  airframeId: z.string().nullable(),
  startsAt: z.iso.datetime({ message: 'Give the start as hours and minutes, such as 09:30, or look for slots.' }),
  minutes: z
    .number('Give whole minutes.')
    .int('Give whole minutes.')
    .min(30, 'At least 30 min.')
    .max(600, 'At most 600 min: split it.'),
  passengers: z.number('Give a number.').int().min(0).max(9, 'At most nine.'),
  surface: z.enum(['any', 'asphalt', 'grass', 'water']),
  /** Where it is flown, by its code; null = home. */
  aerodrome: z.string().max(20).nullable().default(null),
  note: z.string().trim().max(300, 'At most 300 characters.'),
  /** What a lesson is for: it stands in the calendar and opens the brief. */
  aim: z.string().trim().max(120, 'At most 120 characters.').default(''),
  /** The wish it fulfils. */
  waitingId: z.string().nullable().default(null),
});
export type BookForm = z.infer<typeof BookForm>;
export const MoveForm = z.object({
  bookingId: z.string().min(1),
  version: z.number().int(),
  startsAt: Clock,
  minutes: BookForm.shape.minutes,
  airframeId: z.string().nullable().optional(),
  instructorId: z.string().nullable().optional(),
});
export const CancelForm = z.object({
  bookingId: z.string().min(1),
  version: z.number().int(),
  reason: z.string().trim().min(3, 'Say why, in a few words.').max(300, 'At most 300 characters.'),
});
export const ProposeForm = BookForm.pick({
  kind: true,
  checkoutId: true,
  pilotId: true,
  instructorId: true,
  airframeId: true,
  passengers: true,
  surface: true,
  aerodrome: true,
}).extend({
  minutes: BookForm.shape.minutes.nullable(),
  fromDate: z.iso.date('Enter the date as 24 Nov 2026.'),
  days: z.number().int().min(1).max(28),
});
const TIME_OF_DAY = 'Give the time as hours and minutes, such as 09:30.';
const MinuteOfDay = z.number(TIME_OF_DAY).int(TIME_OF_DAY).min(0, TIME_OF_DAY).max(1440, TIME_OF_DAY);
export const WindowsForm = z.object({
  person: z.string().min(3),
  validFrom: z.iso.date('Enter the date as 24 Nov 2026.'),
  windows: z
    .array(z.object({ weekday: z.number().int().min(1).max(7), fromMin: MinuteOfDay, toMin: MinuteOfDay }))
    .max(28),
  /** What stood when the form was opened: {@link windowsStamp}. */
  base: z.string().max(4000),
});
/** What two people editing the same weekly times are held against. */
export const windowsStamp = (
  of: readonly { weekday: number; fromMin: number; toMin: number; validFrom: string; validUntil: string | null }[],
): string =>
  of
    .map((w) => `${w.weekday} ${w.fromMin}-${w.toMin} ${w.validFrom} ${w.validUntil ?? ''}`)
    .sort()
    .join(', ');
export const AwayForm = z.object({
  requestId: z.uuid(),
  who: z.string().min(3, 'Choose who or what.'),
  fromAt: Clock,
  toAt: Clock.nullable(),
  why: z.string().trim().min(3, 'Say why, in a few words.').max(200, 'At most 200 characters.'),
});
export const EndAwayForm = z.object({
  id: z.string().min(1),
  why: z.string().trim().max(200, 'At most 200 characters.'),
});
export const WaitForm = z.object({
  requestId: z.uuid(),
  pilotId: z.string('Choose who waits.').min(1, 'Choose who waits.'),
  checkoutId: z.string().nullable(),
  minutes: BookForm.shape.minutes,
  fromDate: z.iso.date('Enter the date as 24 Nov 2026.'),
  toDate: z.iso.date('Enter the date as 24 Nov 2026.'),
  note: z.string().trim().max(200, 'At most 200 characters.'),
});
