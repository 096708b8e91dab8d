const plain = (s: string): string => s.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase();

/** Is each word of what is searched in the text? Accents and capitals need not be typed. */
export const foundIn = (text: string, searched: string): boolean =>
  plain(searched)
    .split(/\s+/)
    .filter(Boolean)
    .every((w) => plain(text).includes(w));
