/** Where the proxy writes which page is asked for: who signs in comes back to it. */
export const PAGE_HEADER = 'x-jeito-page';

/** The longest address that is come back to. */
const MOST = 500;
/**
 * A page of this server to come back to; null for anything else, so that nobody is sent elsewhere by a link.
 * @example pageOfOurs('/people?show=soon') // '/people?show=soon'
 * @example pageOfOurs('//elsewhere.example') // null
 */
export const pageOfOurs = (back: string | undefined): string | null =>
  back !== undefined && back.length <= MOST && /^\/(?![/\\])[^\s\\]*$/.test(back) && !/^\/sign-in\b/.test(back)
    ? back
    : null;
