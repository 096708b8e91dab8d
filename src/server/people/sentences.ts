/** What this room's commands say, by code. */
import { list } from '@/core/format';
import { say } from '@/domain/words';
import { SHARED_WORDS, teller } from '../floor/sentences';

export const PEOPLE_WORDS = {
  ...SHARED_WORDS,
  'own-flying': () => 'You log your own flying, or the office does.',
  'day-ahead': () => 'This date is in the future. Log the flight when it is flown.',
  'more-full-stops': () => 'There cannot be more full stops than landings.',
  'nothing-logged': () => 'Give take-offs, landings or hours.',
  'pilot-unknown': () => 'This pilot is not on record.',
  'type-unknown': () => 'This type is not in the hangar. Choose another.',
  'no-water-takeoff': () => 'This type does not take off from water.',
  'no-water-landing': () => 'This type does not land on water.',
  'chief-certificates': () => 'The chief instructor enters certificates.',
  'person-unknown': () => 'This person is not on record.',
  'staff-licences': () => 'Staff enter the licences of others.',
  'give-day': () => 'Give the day it was done, or the last day it is valid.',
  'done-ahead': () => 'This date is in the future: enter it when it is done.',
  'ends-before-done': () => 'The end must be after the day it was done. Check both.',
  'notice-note': ({ name }: { name: string }) => `${name} wrote you a note.`,
  'chief-adds-people': () => 'The chief instructor adds people.',
  'instructor-email': () => 'An instructor needs an account: give the e-mail address.',
  'only-instructors-sign': () => 'Only an instructor is authorised to sign goals.',
  'account-already': () => 'This person has an account already. Reload the page.',
  'email-taken': () => 'This address has an account already. Give another, or open that person.',
  'chief-grants': () => 'The chief instructor grants roles and authorisations.',
  'role-or-goals': () => 'Only an instructor is authorised to sign goals: give the role, or remove the goals.',
  'roles-changed': (now: { roles: readonly string[]; authorised: readonly string[]; ownCrosswindKt: number | null }) =>
    `Somebody changed this meanwhile. It is now: ${list(now.roles)}; may sign ` +
    `${now.authorised.length === 0 ? 'nothing' : list(now.authorised.map(say))}; own crosswind limit ` +
    `${now.ownCrosswindKt === null ? 'not set' : `${now.ownCrosswindKt} kt`}. Save again to set what you ` +
    'have chosen here.',
  'last-chief': () => 'A school has at least one chief instructor. Make another one first.',
  'notice-roles': ({ name }: { name: string }) => `${name} changed your roles or what you may sign.`,
  'chief-enters-held': () => 'The chief instructor enters what others hold.',
  'held-ahead': () => 'This date is in the future.',
  'held-already': () => 'This is held already.',
  'held-by-entry': () => 'An entry of the sign-off ledger gave this: void that entry.',
  'chief-erases': () => 'The chief instructor erases, and never themselves.',
  'name-as-shown': () => 'Type the name exactly as shown above: this cannot be undone.',
  'erased-already': () => 'What may be erased has been erased already.',
  'erase-chief': () => 'This is a chief instructor. Take the role away first.',
  'file-too-slow': () => 'The file takes too long to read. Split it by years.',
  'whose-logbook': () => 'A logbook is imported by its pilot or the chief instructor.',
  'file-too-large': () => 'The file is larger than 4 MB. Split it by years.',
  'not-a-table': () =>
    'This does not look like a table with a row of names and flights below it. Save the logbook as CSV and choose that file.',
  'too-many-rows': ({ rows, most }: { rows: number; most: number }) =>
    `The file has ${rows} rows, more than ${most}. Split it by years.`,
  'mapping-broken': () => 'The mapping cannot be read. Choose the columns again.',
  'all-there': () => 'Every flight of this file is on record already.',
  'none-readable': () => 'No flight of this file can be read as it is. See why below, and set the columns and types.',
  'day-to-come': () => 'This date is in the future: give the last day flown.',
  'type-twice': () => 'This type is above already: add the hours there.',
  'more-command': () => 'More in command than in total: check both.',
};
export const told = teller(PEOPLE_WORDS);
