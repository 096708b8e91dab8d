/**
 * What every room of core asks of its numbers: a verdict, a distance or a speed is never made of a number that is none.
 * Who calls with one has a fault, and hears of it; where a screen can come by one in good faith (a wind, a limit, an age)
 * the function returns its own *not known* instead and says so.
 */
export class BadNumber extends RangeError {
  constructor(where: string, path: string, value: number) {
    super(`${where}: ${path === '' ? 'the value' : path} is ${String(value)}, not a number to compute with`);
    this.name = 'BadNumber';
  }
}

/** In any unit used here no speed, height, distance, mass or force of an aeroplane comes near it. */
const ABSURD = 9e8;

/**
 * Refuses NaN, the infinities and absurd sizes anywhere in an input: numbers, lists and plain objects, to any depth.
 * @param where the function that asks, for the message
 * @throws BadNumber naming the first such number
 * @example needNumbers('levelTurn', { tasKt: NaN }) // throws: levelTurn: tasKt is NaN, not a number to compute with
 */
export function needNumbers(where: string, input: unknown, path = ''): void {
  if (typeof input === 'number') {
    if (!(Math.abs(input) <= ABSURD)) throw new BadNumber(where, path, input);
  } else if (Array.isArray(input)) for (let i = 0; i < input.length; i++) needNumbers(where, input[i], `${path}[${i}]`);
  else if (typeof input === 'object' && input !== null)
    for (const [key, value] of Object.entries(input)) needNumbers(where, value, path === '' ? key : `${path}.${key}`);
}

/** A number that can be computed with; null, undefined, NaN and the infinities are none. */
export const isNumber = (x: number | null | undefined): x is number => typeof x === 'number' && Number.isFinite(x);

/**
 * Refuses what is not above 0: masses, areas, densities and speeds that stand below a fraction.
 * @throws BadNumber naming the first such number
 * @example needPositive('dragAt', { rhoKgM3: 0 }) // throws: dragAt: rhoKgM3 is 0, not a number to compute with
 */
export function needPositive(where: string, values: Readonly<Record<string, number>>): void {
  for (const [key, value] of Object.entries(values)) if (!(value > 0)) throw new BadNumber(where, key, value);
}
