/** The address people reach this installation by: as set, else as this request came in. */
export const originOf = (request: Request): string => originFrom(request.headers, new URL(request.url).host);

export function originFrom(headers: Headers, host = ''): string {
  const set = process.env.JEITO_ORIGIN;
  if (set) return set.replace(/\/$/, '');
  const proto = headers.get('x-forwarded-proto') ?? (process.env.JEITO_HTTPS === '1' ? 'https' : 'http');
  return `${proto}://${headers.get('host') ?? host}`;
}
