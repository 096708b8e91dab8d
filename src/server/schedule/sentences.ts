/** What this room's commands say, by code. */
import { dateText, downTo, list } from '@/core/format';
import { type LimitationProblem, limitationWords } from '@/core/schedule';
import { SHARED_WORDS, teller } from '../floor/sentences';

/** `: why`, where it may be said. */
const because = (why: string | null): string => (why === null || why === '' ? '' : `: ${why}`);
/** Hours an instructor needs, rounded down where they are had. */
interface HoursNeeded {
  have: number;
  needed: number;
  inCommand: boolean;
  within: 'model' | 'class';
  citation: string;
}

export const SCHEDULE_WORDS = {
  ...SHARED_WORDS,
  'after-sunset': ({ at, sunset }: { at: string; sunset: string }) =>
    `The flight would end at ${at}, after sunset at ${sunset}; the school flies by day only.`,
  'before-sunrise': ({ at, sunrise }: { at: string; sunrise: string }) =>
    `The flight would begin at ${at}, before sunrise at ${sunrise}; the school flies by day only.`,
  'too-far-ahead': () => 'Book at most 400 days ahead.',
  'too-many-ahead': ({ count }: { count: number }) =>
    `You have ${count} bookings ahead, the most a pilot may hold. Cancel one, or ask the office.`,
  'checkout-not-open': () => 'This checkout is not open.',
  'choose-pilot': () => 'Choose the pilot.',
  'aerodrome-unknown': () => 'Choose an aerodrome of the school; others are added in Settings.',
  'choose-aeroplane': () => 'Choose the aeroplane.',
  'choose-instructor': () => 'Choose the instructor.',
  'nothing-to-book': () => 'A booking is of a person or an aeroplane: choose one.',
  'not-an-instructor': ({ name }: { name: string }) => `${name} is not an instructor.`,
  'own-instructor': () => 'Nobody is their own instructor. Choose another.',
  'time-past': () => 'This time is past. Choose a later one.',
  'outside-hours': ({ from, to, source }: { from: string; to: string; source: string }) =>
    `Bookings are possible from ${from} to ${to} on one day (${source}).`,
  'no-daylight': () => 'There is no daylight that day.',
  taken: ({ name, when, what }: { name: string; when: string; what: string | null }) =>
    `${name} is booked ${when}${because(what)}.`,
  away: ({ name, how, when, why }: { name: string; how: 'away' | 'grounded'; when: string; why: string | null }) =>
    `${name} is ${how} ${when}${because(why)}.`,
  /** The times of that day; none = no time at all. */
  'outside-windows': ({ name, windows, date }: { name: string; windows: readonly string[]; date: string }) =>
    `${name} can be booked ${windows.length > 0 ? list(windows) : 'at no time'} on ${date}.`,
  'other-type': ({ checkoutType, type }: { checkoutType: string; type: string }) =>
    `This checkout is on ${checkoutType}: choose an aeroplane of that type, or open a checkout on ${type}.`,
  'training-limit': ({
    name,
    hours,
    mostHours,
    citation,
  }: {
    name: string;
    hours: number;
    mostHours: number;
    citation: string;
  }) =>
    `${name} would give ${hours} h of flight training in 24 hours; the limit is ${mostHours} h ` +
    `(${citation}). Choose another time or another instructor.`,
  'not-recent-to-teach': ({
    name,
    type,
    date,
    restore,
    citation,
  }: {
    name: string;
    type: string;
    date: string;
    restore: string;
    citation: string;
  }) => `${name} is out of recency to teach ${type} on ${date}: ${restore} restore it (${citation}).`,
  'lacks-rating': ({ name, rating, citation }: { name: string; rating: string; citation: string }) =>
    `${name} does not hold ${rating} (${citation}).`,
  'lacks-kinds': ({ name, kinds, type }: { name: string; kinds: string; type: string }) =>
    `${name} does not hold ${kinds}, which ${type} requires.`,
  'model-hours': (h: HoursNeeded & { name: string; type: string }) =>
    `${h.name} has ${downTo(h.have, 1)} h ${h.inCommand ? 'in command ' : ''}in ${h.within === 'class' ? 'the class of ' : ''}${h.type}; ` +
    `${h.needed} h are required to teach it (${h.citation}).`,
  'certificate-ends': ({ name, on }: { name: string; on: string }) => `${name}’s certificate ends on ${on}.`,
  'variant-lapsed': (l: { kind: string; through: string | null; months: number; citation: string }) =>
    `${l.kind} has lapsed${l.through === null ? '' : ` on ${dateText(l.through)}`}: not flown for ` +
    `${l.months} months (${l.citation}). Book a lesson.`,
  'pilot-lacks': ({ type, kinds }: { type: string; kinds: string }) =>
    `${type} requires ${kinds}, which this pilot does not hold: book a lesson.`,
  'sheet-open': ({ type, facts }: { type: string; facts: string }) =>
    `The sheet of ${type} does not give ${facts}: what it requires is not known. Complete the sheet first.`,
  'not-signed-off': ({ type }: { type: string }) =>
    `Nothing in the sign-offs shows that this pilot may fly ${type} without an instructor. Open a checkout.`,
  'interval-over': ({ days, since, source }: { days: number; since: string; source: string }) =>
    `The school’s interval of ${days} days without flying the type ended on ${since} (${source})`,
  'instructor-practice': ({ interval }: { interval: string }) =>
    `${interval}: as an instructor, for own practice only.`,
  'interval-check': ({ interval }: { interval: string }) => `${interval}: a recurrent check first.`,
  limitation: ({ seq, limitation }: { seq: number; limitation: LimitationProblem }) =>
    `Entry ${seq}: ${limitationWords(limitation)}.`,
  'attitude-only': ({ seq, attitude }: { seq: number; attitude: string }) => `Entry ${seq}: ${attitude} landings only.`,
  'crosswind-limit': ({ seq, limitKt }: { seq: number; limitKt: number }) =>
    `Entry ${seq}: crosswind limit ${limitKt} kt. There is no forecast yet: check it on the day.`,
  'passengers-not-recent': ({ date, restore, citation }: { date: string; restore: string; citation: string }) =>
    `Not recent for passengers in this class on ${date}: ${restore} restore it (${citation}).`,
  'date-not-on-record': ({ title, citation }: { title: string; citation: string }) =>
    `${title} is not on record, so this pilot may not be booked as pilot in command (${citation}). Enter it ` +
    'on the person’s page, or book a lesson.',
  'date-ends': ({ title, ended, date, citation }: { title: string; ended: string; date: string; citation: string }) =>
    `${title} is valid until ${ended}, not on ${date}: no pilot in command until it is renewed (${citation}). Book a lesson.`,
  'pilots-kinds': () => 'A pilot books lessons, hire and own practice.',
  'notice-booked': ({ name, booking }: { name: string; booking: string }) => `${name} booked ${booking}.`,
  'changed-meanwhile': () => 'This booking was changed meanwhile. Check it as it is now, then move it.',
  begun: () => 'This booking has begun and can no longer be moved.',
  'notice-moved': ({ name, booking, was }: { name: string; booking: string; was: string }) =>
    `${name} moved ${booking}; it was ${was}.`,
  'changed-before-cancel': () => 'This booking was changed meanwhile. Check it as it is now.',
  'notice-cancelled': ({ name, booking, reason }: { name: string; booking: string; reason: string }) =>
    `${name} cancelled ${booking}: ${reason}.`,
  'same-moment': () => 'Somebody booked this at the same moment. The schedule is shown as it is now: choose again.',
  'notice-free': ({ slot, name, wait }: { slot: string; name: string; wait: string }) =>
    `${slot} became free; ${name} is waiting for ${wait}.`,
  'own-times': () => 'You set your own times, or the chief does.',
  'windows-overlap': () => 'Two windows of this day overlap.',
  'times-changed': ({ now }: { now: string }) =>
    `Somebody changed these times meanwhile. They are now: ${now}. Save again to set what you have entered here.`,
  'staff-take-out': () => 'Staff take an aeroplane out of service.',
  'give-end': () => 'Give the end.',
  'choose-whom': () => 'Choose who or what.',
  'notice-must-move': ({ booking, why }: { booking: string; why: string }) =>
    `${booking}: ${why}. It must be moved or cancelled.`,
};
export const told = teller(SCHEDULE_WORDS);

/** A span without an end. */
export const openSpanText = (from: string): string => `from ${from} until further notice`;
