/**
 * Whose hands a shared device is in. The office notes who signed in last (`jeito-account`); a flight taken along by
 * somebody else asks once, and only then.
 */
export const ACCOUNT_KEY = 'jeito-account';
const askedKey = (sortieId: string): string => `jeito-recording:${sortieId}`;

/** The name of another account that has signed in here since this flight was taken along; null = nobody has. */
export function otherAccount(pack: { author: string; sortieId: string }): string | null {
  try {
    const last = JSON.parse(localStorage.getItem(ACCOUNT_KEY) ?? 'null') as { id?: string; name?: string } | null;
    if (!last?.id || last.id === pack.author) return null;
    return sessionStorage.getItem(askedKey(pack.sortieId)) === last.id ? null : (last.name ?? 'somebody else');
  } catch {
    return null;
  }
}

/** Said once for this flight, this tab and this account. */
export function answered(sortieId: string): null {
  try {
    const last = JSON.parse(localStorage.getItem(ACCOUNT_KEY) ?? 'null') as { id?: string } | null;
    sessionStorage.setItem(askedKey(sortieId), last?.id ?? '');
  } catch {
    // Without storage it is asked again.
  }
  return null;
}
