/** What this room's commands say, by code. */
import { SHARED_WORDS, teller } from '../floor/sentences';

export const ACCOUNT_WORDS = {
  ...SHARED_WORDS,
  'too-many-tries': ({ seconds }: { seconds: number }) => `Too many tries. Wait ${seconds} s, then try again.`,
  'wrong-sign-in': () => 'E-mail and password do not match. Check both and try again.',
  'same-password': () => 'This is your present password. Choose another.',
  'chief-resets': () => 'The chief instructor gives others a new password; your own you change on your account page.',
  'notice-password': ({ name }: { name: string }) =>
    `${name} gave your account a new password. Choose your own before you sign anything.`,
  'most-tokens': ({ most }: { most: number }) =>
    `You have ${most} tokens, the most there may be. End one you do not use.`,
};
export const told = teller(ACCOUNT_WORDS);
