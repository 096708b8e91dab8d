/**
 * Whose hands a shared device is in. The office notes who signed in last (`jeito-account`); a flight taken along by
 * somebody else asks once, and only then.
 */
interface Taken {
  author: string;
  sortieId: string;
}
interface Account {
  id?: string;
  name?: string;
}
const read = (): Account | null => {
  try {
    return JSON.parse(localStorage.getItem('jeito-account') ?? 'null') as Account | null;
  } catch {
    return null;
  }
};
const asked = (sortieId: string): string => `jeito-recording:${sortieId}`;

/** Is this flight another account's than the one that signed in last? */
export const ofAnother = (pack: Taken): boolean => {
  const id = read()?.id;
  return id !== undefined && id !== pack.author;
};

/** The name of another account that has signed in here since; null = nobody has, or it was answered. */
export function otherAccount(pack: Taken): string | null {
  const last = read();
  if (!ofAnother(pack)) return null;
  return sessionStorage.getItem(asked(pack.sortieId)) === last?.id ? null : (last?.name ?? 'somebody else');
}

/** Said once for this flight, this tab and this account. */
export function answered(sortieId: string): null {
  sessionStorage.setItem(asked(sortieId), read()?.id ?? '');
  return null;
}
