/** Sentences by their codes, and those that every room may have to say. */
import { type Args, type Catalogue, type Coded, sentence } from '@/domain/coded';

/** A sentence with the code it was made of: behaviour asks the code, a person reads the words. */
export interface Told {
  code: string;
  params?: Readonly<Record<string, unknown>>;
  message: string;
}
/** What every room may have to say. */
export const SHARED_WORDS = {
  /** Denied and absent are said alike, by a form and by a route. */
  'not-found': () => 'Not found, or you do not have access.',
  'end-before-start': () => 'End must be after start.',
  'foreign-site': () => 'This came from another site and was not done.',
  failed: () =>
    'Something failed here and nothing was changed. Try again; if it fails again, tell who runs this server.',
  stopping: () => 'Jeito is being restarted. What you entered is kept here: try again in a minute.',
  'disk-full': () =>
    'The disk of this server is full or cannot be written: nothing was saved. Tell who runs it, and try again when there is room.',
  'too-much-at-once': () => 'This is more than can be taken at once.',
  'odd-character': () => 'This text holds a character that cannot be shown. Type it again.',
  'busy-sign-in': () => 'Too many sign-ins at this moment. Try again in a few seconds.',
  'type-later': ({ seconds }: { seconds: number }) => `Too many tries. Wait ${seconds} s, then type it again.`,
  'wrong-password': ({ undone }: { undone: 'signed' | 'changed' }) =>
    `This is not your password. Type it again; nothing was ${undone}.`,
  'given-password': () =>
    'This password was given to you by somebody else. Choose your own on your account page, then sign.',
};
/**
 * The sentences of a room by their codes: `told('choose-pilot')`. The catalogue decides which codes there are and what
 * each is made of, so that a forgotten code or a wrong parameter does not compile.
 */
export const teller =
  <C extends Catalogue>(words: C) =>
  <K extends keyof C & string>(code: K, ...args: Args<C, K>): Told => {
    const params = args.at(0) as Told['params'];
    return { code, ...(params ? { params } : {}), message: (words[code] as unknown as (p: unknown) => string)(params) };
  };
export const told = teller(SHARED_WORDS);

/** What core answered, with its sentence. */
export const asTold = <C extends Catalogue>(words: C, said: Coded<C>): Told => ({
  code: said.code,
  ...(said.params ? { params: said.params as NonNullable<Told['params']> } : {}),
  message: sentence(words, said),
});

/**
 * Words made elsewhere, by a reader of files or a library, with the code of where they came from.
 * @example worded('file', 'The file is empty.')
 */
export const worded = (code: string, message: string): Told => ({ code, message });
