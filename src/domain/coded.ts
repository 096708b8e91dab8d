/**
 * Codes and words. Logic answers with a code and what its sentence is made of; a catalogue, one per room, makes the
 * sentence. The codes of a catalogue are its keys and their parameters those of its functions, so that a code without a
 * sentence, a sentence nobody handles and a wrong parameter each fail the types.
 */

/** A sentence for every code, made of its parameters. */
export type Catalogue = Readonly<Record<string, (params: never) => string>>;

/** What logic answers: one code of a catalogue, with the parameters of its sentence. */
export type Coded<C extends Catalogue> = {
  [K in keyof C & string]: Parameters<C[K]> extends [infer P]
    ? { code: K; params: P }
    : { code: K; params?: undefined };
}[keyof C & string];

/** One code with its parameters, as a function takes them. */
export type Args<C extends Catalogue, K extends keyof C & string> = Parameters<C[K]>;

/**
 * Makes codes of a catalogue.
 * @example const missing = coder(MISSING_WORDS); missing('more-days', { atLeast: 2 }) // { code: 'more-days', params: … }
 */
export const coder =
  <C extends Catalogue>(_: C) =>
  <K extends keyof C & string>(code: K, ...args: Args<C, K>): Coded<C> =>
    (args.length > 0 ? { code, params: args.at(0) as unknown } : { code }) as unknown as Coded<C>;

/**
 * The sentence of a code.
 * @example sentence(MISSING_WORDS, { code: 'more-days', params: { atLeast: 2 } }) // 'on at least 2 days'
 */
export const sentence = <C extends Catalogue>(catalogue: C, said: Coded<C>): string =>
  (catalogue[said.code] as unknown as (params: unknown) => string)(said.params);
