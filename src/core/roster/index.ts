/**
 * The people of a school as a CSV file: columns found by their names, rows read, whatever does not fit said by line.
 * Mass in kilograms. What each person must have is held against the form of a person by whoever takes them.
 */
import { coder } from '@/domain/coded';
import { ROLES, type Role } from '@/domain/words';
import { readTable } from '../logbook';
import { ROSTER_WORDS, type RosterProblem } from './words';

export * from './words';

export interface RosterPerson {
  /** In the file, the header is 1. */
  line: number;
  name: string;
  email: string;
  massKg: number;
  hours: number;
  certificate: string;
  roles: Role[];
}

const wrong = coder(ROSTER_WORDS);
const MOST = 200;
const KG_PER_LB = 0.453_592_37;
const COLUMNS = {
  first: /^(first|given) ?name/i,
  last: /^(last|family) ?name|^surname/i,
  name: /^(full )?name$|^(pilot|person)$/i,
  email: /mail/i,
  mass: /mass|weight/i,
  hours: /hours|^total/i,
  certificate: /licen[cs]e|certificate/i,
  roles: /^roles?$/i,
};

/**
 * The people of a CSV text. A column of mass whose name says lb is converted and rounded up to a kilogram; a person
 * without a role is a pilot, one without hours has none.
 * @param text of the file: commas, semicolons or tabs
 * @returns people, or everything that is wrong with the file
 * @example readRoster('Name,E-mail,Mass (kg)\nNoor Vantage,noor@school.example,71').people[0].massKg // 71
 */
export function readRoster(text: string): { people: RosterPerson[]; problems: RosterProblem[] } {
  const { header, rows, ragged } = readTable(text);
  const at = (pattern: RegExp) => header.findIndex((h) => pattern.test(h));
  const column = Object.fromEntries(Object.entries(COLUMNS).map(([k, p]) => [k, at(p)])) as Record<
    keyof typeof COLUMNS,
    number
  >;
  if (rows.length === 0) return { people: [], problems: [wrong('roster-empty')] };
  if (rows.length > MOST) return { people: [], problems: [wrong('roster-many', { most: MOST })] };
  const problems: RosterProblem[] = [];
  if (column.name < 0 && column.last < 0) problems.push(wrong('roster-column', { column: 'the name' }));
  if (column.mass < 0) problems.push(wrong('roster-column', { column: 'the mass' }));
  for (const line of ragged) problems.push(wrong('roster-ragged', { line }));
  if (problems.length > 0) return { people: [], problems };
  const pounds = /\blbs?\b|pound/i.test(header[column.mass] ?? '');
  const seen = new Set<string>();
  const people = rows.map((row, i): RosterPerson => {
    const line = i + 2;
    const cell = (of: keyof typeof COLUMNS): string => (column[of] < 0 ? '' : (row[column[of]] ?? '')).trim();
    const number = (of: 'mass' | 'hours', name: string, empty: number): number => {
      const said = cell(of).replace(/\s/g, '').replace(',', '.');
      if (said === '' && Number.isFinite(empty)) return empty;
      // 1,250 may be 1250 or 1.25.
      if (/^\d+(\.\d+)?$/.test(said) && !/^\d{1,3},\d{3}$/.test(cell(of))) return Number(said);
      problems.push(wrong('roster-number', { line, column: name, text: cell(of).slice(0, 20) }));
      return NaN;
    };
    const roles = cell('roles')
      .split(/[;,/+]| and /)
      .map((r) => r.trim().toLowerCase())
      .filter((r) => r !== '');
    for (const role of roles)
      if (!(ROLES as readonly string[]).includes(role))
        problems.push(wrong('roster-role', { line, text: role.slice(0, 20) }));
    const email = cell('email').toLowerCase();
    if (email !== '' && seen.has(email))
      problems.push(wrong('roster-email-twice', { line, email: email.slice(0, 60) }));
    seen.add(email);
    const mass = number('mass', 'the mass', NaN);
    return {
      line,
      name: column.name >= 0 ? cell('name') : `${cell('first')} ${cell('last')}`.trim(),
      email,
      massKg: pounds ? Math.ceil(mass * KG_PER_LB) : mass,
      hours: number('hours', 'the hours', 0),
      certificate: cell('certificate'),
      roles: roles.length > 0 ? ROLES.filter((r) => roles.includes(r)) : ['pilot'],
    };
  });
  return problems.length > 0 ? { people: [], problems } : { people, problems };
}
