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
  'chief-links': () =>
    'The chief instructor makes a link for others; your own password you change on your account page.',
  'no-account': () => 'This person has no account. Give them one on their page.',
  'link-spent': () => 'This link was used, replaced or is over. Ask the chief instructor for a new one.',
  'code-missing': () => 'Type the six digits of your authenticator, or one of your recovery codes.',
  'code-wrong': () => 'This code does not fit, or was used already. Wait for the next one.',
  'factor-begun': () => 'Begin again: the secret of this page is not the newest.',
  'factor-required': () => 'Your role requires a second factor. The chief instructor can change that in Settings.',
  'chief-factors': () => 'The chief instructor takes the second factor of others away; your own you end here.',
  'notice-factor-gone': ({ name }: { name: string }) =>
    `${name} took your second factor away. Set it up again if you did not ask for that.`,
  'notice-console': () =>
    'On the school’s computer a link to your account was made, and your second factor was taken away. ' +
    'If you did not ask for it, ask who did.',
  'most-tokens': ({ most }: { most: number }) =>
    `You have ${most} tokens, the most there may be. End one you do not use.`,
};
export const told = teller(ACCOUNT_WORDS);
