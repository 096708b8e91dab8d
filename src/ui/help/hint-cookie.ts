/** Which hints were read on this device: a cookie, so that a page is drawn with or without from the start. */
export const HINTS = 'jeito_hints';
const YEAR_S = 365 * 86_400;

export interface HintsSeen {
  off: boolean;
  seen: ReadonlySet<string>;
}
/** @param text of the cookie; undefined = nothing was read yet */
export const hintsFrom = (text: string | undefined): HintsSeen =>
  text === 'off'
    ? { off: true, seen: new Set() }
    : { off: false, seen: new Set((text ?? '').split('.').filter((k) => /^[a-z-]{1,20}$/.test(k))) };

/** Said when hints were turned on or off elsewhere on the page. */
export const HINTS_TURNED = 'jeito:hints';
const put = (text: string, age = YEAR_S): void => {
  document.cookie = `${HINTS}=${text}; path=/; max-age=${age}; samesite=lax`;
  window.dispatchEvent(new Event(HINTS_TURNED));
};
export const keptHints = (): string | undefined =>
  document.cookie
    .split('; ')
    .find((c) => c.startsWith(`${HINTS}=`))
    ?.slice(HINTS.length + 1);
export const keepSeen = (seen: ReadonlySet<string>): void => put([...seen].join('.'));
export const hintsOff = (): void => put('off');
/** As on the first day. */
export const hintsOn = (): void => put('', 0);
