/** What this room's commands say, by code. */
import { SHARED_WORDS, teller } from '../floor/sentences';

export const FLY_WORDS = {
  ...SHARED_WORDS,
  'other-account': () => 'These belong to another account. They wait on this device until their author signs in.',
  'number-used': () =>
    'This device has used the same number or counter for another event. Reload the page so that it takes a new device number.',
  'counter-leapt': () => 'The counter of this device leapt. Reload the page so that it takes a new device number.',
  'not-taken-in': () => 'The server could not take this in. It stays on this device; tell who runs the server.',
  'not-an-event': ({ issues }: { issues: string }) => `Not a capture event: ${issues}`,
  'same-pilot': () => 'This pilot flies the lesson already. Choose who swaps with them.',
  'own-recording': () => 'You cannot record yourself: choose another pilot.',
  'second-recorded': () => 'Something of the second pilot is recorded already: it stays theirs.',
  'pilot-unknown': () => 'This pilot is not on record. Choose another.',
  'office-only': () => 'This is recorded at a desk, not by a device.',
  'accept-on-recording': () => 'Measures are accepted on the page of the recording.',
  'overrule-on-debrief': () => 'A verdict is overruled on the page of the debrief.',
  'signature-rests': () =>
    'A signature is based on this record, so it stays as it was signed. What is wrong is corrected by a further ' +
    'entry: a correction, or a void and a new signature.',
  'signed-already': () => 'This checkout is signed: what it is based on stays as it was signed.',
  'most-landings': ({ count }: { count: number }) =>
    `This flight has ${count} landings, the most one flight holds. Brief the next lesson and record there.`,
  'most-records': ({ count }: { count: number }) =>
    `This flight has ${count} records, the most one flight holds. Brief the next lesson and record there.`,
  'chief-sets-aside': () => 'A limit of the school is set aside by the chief instructor.',
  'other-instructor': () =>
    'Another instructor briefed this flight. Save the brief again in your name to take it over, or ask them or the chief instructor.',
  'newer-release': () =>
    'This was recorded by a newer release than this server runs. It stays on the device; update the server, then send it again.',
  'office-number': () => 'This device number belongs to the office. Reload the page so that it takes one of its own.',
  'too-long': () => 'This is longer than one record may be.',
  'other-flight': () => 'This belongs to another flight. Record it there.',
  'pilot-not-in-flight': () => 'This pilot is not in this flight. Say who swaps seats first, then correct the landing.',
  'own-flying': () => 'Nobody records, changes or judges their own flying: the instructor of this flight does.',
  'after-now': () => 'This is dated after now. Set the clock of the device, then record it again.',
  'before-flight': ({ flownOn }: { flownOn: string }) =>
    `This is dated before the flight of ${flownOn}. Set the clock of the device, then record it again.`,
  'signed-before': () =>
    'This checkout was signed before this was recorded: nothing is added to it. Open a new checkout to go on.',
  'other-recording': () => 'This recording is not of this flight. Accept measures on the page of its own.',
  'demonstration-by-correction': () => 'A landing becomes a demonstration by who flew it: correct that in the cockpit.',
};
export const told = teller(FLY_WORDS);
