/** The address people reach this installation by: as set, else as this request came in. */
export function originOf(request: Request): string {
  const set = process.env.JEITO_ORIGIN;
  if (set) return set.replace(/\/$/, '');
  const host = request.headers.get('host') ?? new URL(request.url).host;
  return `${request.headers.get('x-forwarded-proto') ?? (process.env.JEITO_HTTPS === '1' ? 'https' : 'http')}://${host}`;
}
