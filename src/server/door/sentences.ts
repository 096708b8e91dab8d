/** What routes say when they refuse, by code. */
import { SHARED_WORDS, teller } from '../floor/sentences';

export const DOOR_WORDS = {
  ...SHARED_WORDS,
  'session-ended-file': () =>
    'Your session has ended. Sign in in another tab and send again: the file stays chosen here.',
  'sign-in-to-send': () => 'Sign in to send what is on this device.',
  'busy-work': () => 'The server is busy with this kind of work. Try again in a minute.',
  'not-a-sheet': () => 'Send JSON: {"baseVersion", "reason", "sheet"}.',
  'no-scope': ({ name }: { name: string }) =>
    `This token was not given “${name}”. Make one that is, on the account page.`,
  'read-again': () =>
    'This version is of another book: the data was brought back from a backup, or the version is none of ours. ' +
    'Read everything again, without since.',
  'choose-file': () => 'Choose a file.',
  'columns-unreadable': () => 'What was said of the columns cannot be read. Choose the file again.',
  'not-events': () => 'Send {"events": [...]}.',
  'too-many-events': ({ most }: { most: number }) => `Send at most ${most} events at once.`,
  'too-many-checks': ({ seconds }: { seconds: number }) =>
    `Too many checks from here. Wait ${seconds} s, then try again.`,
  'file-or-code': () => 'Choose a file, or type the code.',
  grounded: ({ registration, why }: { registration: string; why: string }) =>
    `${registration} is grounded: ${why}. It can be taken when its release is entered.`,
  'too-many-requests': () => 'Too many requests from here. Try again in ten minutes.',
  'import-unreadable': () => 'What came in cannot be read. Choose the file again.',
  'no-flights': () => 'Choose a file with flights in it.',
};
export const told = teller(DOOR_WORDS);
