/** The only clock of the server. `JEITO_NOW` fixes it for tests and pictures. */
export function nowIso(): string {
  const fixed = process.env.JEITO_NOW;
  return fixed ? new Date(fixed).toISOString() : new Date().toISOString();
}
