/** What this room's commands say, by code. */
import { SHARED_WORDS, teller } from '../floor/sentences';

export const LEDGER_WORDS = {
  ...SHARED_WORDS,
  'key-missing': () =>
    'The signing key of this ledger is not on this server, so nothing can be signed. Bring it back: npm run ' +
    'keys -- import FILE, as the README says.',
  'key-other': ({ ofLedger }: { ofLedger: string }) =>
    `The signing key on this server is not the one this ledger is signed with (${ofLedger}), so nothing can ` +
    'be signed. Take keys/ledger-private.pem out of the data folder and bring the right key back: npm run ' +
    'keys -- import FILE.',
  'key-unreadable': () =>
    'The signing key on this server cannot be read, so nothing can be signed. Take keys/ledger-private.pem ' +
    'out of the data folder and bring the key back: npm run keys -- import FILE.',
  'request-used': () => 'Open the page again: this request was used before.',
  'not-voided': () => 'A void, a correction or a new key is not voided: make a further entry.',
  'void-already': () => 'This entry is void already.',
  'result-rests': () => 'An examiner’s result is based on this recommendation. Void the result first.',
  'correct-the-entry': () => 'Correct the entry this one speaks of.',
  'void-nothing-to-correct': () => 'This entry is void: there is nothing to correct.',
  'no-examiner': () => 'This checkout does not wait for an examiner.',
  'test-ahead': () => 'The test is in the future. Enter it when it is over.',
  'test-before': () => 'The test is before the recommendation. Check the day.',
  'recommendation-ended': ({ on }: { on: string }) =>
    `The recommendation ended on ${on}. A new one is needed: void this one and sign again.`,
  'course-ended': ({ on }: { on: string }) =>
    `The course ended on ${on}: the test is flown within it. A new course is needed.`,
  'nothing-to-override': () => 'This item is met or not of this programme: nothing to override.',
  'refused-not-overridden': () =>
    'Further training was entered for this item. It cannot be overridden: it is flown again first.',
  'legal-not-overridden': ({ citation }: { citation: string }) =>
    `The law requires this (${citation}). Nobody can override it, the chief instructor included: it is flown or shown.`,
  'unseen-not-overridden': () =>
    'This is a safety item and nothing of it has been seen. It cannot be overridden: fly it.',
  'overridden-already': () => 'There is an override of this item already. Withdraw it first.',
  'why-not': () => 'Say why not, in a few words.',
  'answered-already': () => 'It is answered already. Open the page again.',
  'changed-since': () =>
    'This checkout has changed since this page was shown. Check it again, then sign: what you typed is still here.',
  'fill-in': ({ words }: { words: string }) => `Fill in ${words}, or remove it.`,
  'item-unknown': () => 'One of these items is not of this programme. Open the page again.',
  'only-met-in-part': ({ ids }: { ids: string }) =>
    `Only what is met by its own evidence is signed in part: not ${ids}.`,
  'not-authorised': () => 'You are not authorised to sign this goal. The chief instructor grants it.',
  'signed-already': () => 'This checkout is signed: what it is based on stays as it was signed.',
};
export const told = teller(LEDGER_WORDS);
