/** Content as it is shipped, read from the files and validated; no database, so that it can be checked anywhere. */
import { readFileSync, readdirSync } from 'node:fs';
import path from 'node:path';
import { z } from 'zod';
import { composeProgramme } from '@/core/plan';
import { DifferenceRules } from '@/domain/differences';
import { Findings } from '@/domain/findings';
import { House, Programme, ProgrammeSource, RulePack, Schools, Standard } from '@/domain/programme';
import { Aerodrome } from '@/domain/sheet';
import { PACKS } from '@/domain/words';

/** Kinds of versioned content and the schema each is validated with, when it is imported and when it is read. */
export const CONTENT = {
  standard: Standard,
  programme: Programme,
  pack: RulePack,
  house: House,
  schools: Schools,
  differences: DifferenceRules,
  findings: Findings,
  aerodrome: Aerodrome,
} as const;
export type ContentKind = keyof typeof CONTENT;
export type ContentOf<K extends ContentKind> = z.infer<(typeof CONTENT)[K]>;

export interface Seed {
  kind: ContentKind;
  key: string;
  body: unknown;
}
const folder = path.join(process.cwd(), 'content');
const readJson = (...names: string[]): unknown => JSON.parse(readFileSync(path.join(folder, ...names), 'utf8'));
const filesOf = (name: string): string[] =>
  readdirSync(path.join(folder, name))
    .filter((f) => f.endsWith('.json'))
    .sort();

/** The content shipped with the product, validated. A file that does not fit its schema stops the start, by name. */
export function shippedContent(): Seed[] {
  const check = <K extends ContentKind>(kind: K, key: string, body: unknown): Seed => {
    const parsed = CONTENT[kind].safeParse(body);
    if (!parsed.success) throw new Error(`content ${kind} ${key}: ${z.prettifyError(parsed.error)}`);
    return { kind, key, body: parsed.data };
  };
  const seeds: Seed[] = [];
  for (const f of filesOf('standards')) seeds.push(check('standard', f.replace('.json', ''), readJson('standards', f)));
  for (const f of filesOf('packs')) seeds.push(check('pack', f.replace('.json', ''), readJson('packs', f)));
  for (const f of filesOf('programmes')) {
    const source = ProgrammeSource.parse(readJson('programmes', f));
    for (const pack of [...PACKS, 'house'] as const) {
      const programme = composeProgramme(source, pack);
      if (programme) seeds.push(check('programme', programme.key, programme));
    }
  }
  seeds.push(
    check('house', 'house', readJson('house.json')),
    check('schools', 'schools', readJson('schools.json')),
    check('differences', 'differences', readJson('differences.json')),
    check('findings', 'findings', readJson('findings.json')),
  );
  return seeds;
}
