import type { LaterBody, SignOffBody } from '@/domain/ledger';

/**
 * What an entry says. It is kept to the letter it was signed in, and of the shape of the release that signed it: it is
 * read, never held to the schema of today.
 */
export const bodyOf = (entry: { canonical: string }): SignOffBody & LaterBody =>
  (JSON.parse(entry.canonical) as { body: SignOffBody & LaterBody }).body;
