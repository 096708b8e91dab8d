/**
 * Holds the shipped packs and programmes against themselves and against a fleet: prints goal × pack × type, and ends
 * with 1 when something is found. `npm run content [-- --also PROGRAMME.json] [--findings FINDINGS.json]` adds a
 * programme source, or patterns, to what is read.
 */
import './lib/help.mjs';
import { readFileSync } from 'node:fs';
import {
  type ContentFinding,
  composeProgramme,
  contentWords,
  demandFindings,
  goalOnType,
  packFindings,
  patternFindings,
  programmeFindings,
} from '@/core/plan';
import { Findings } from '@/domain/findings';
import { House, Programme, ProgrammeSource, RulePack, Standard } from '@/domain/programme';
import { TypeSheet } from '@/domain/sheet';
import { GOALS, PACKS } from '@/domain/words';
import { shippedContent } from '@/server/rules/shipped';
import { types } from '../demo/fleet';
import { made } from '../demo/fleet/made';

const also = process.argv.flatMap((a, i, all) => (all[i - 1] === '--also' ? [a] : []));
const findingsFile = process.argv.flatMap((a, i, all) => (all[i - 1] === '--findings' ? [a] : []))[0];
const shipped = shippedContent();
const of = <T>(kind: string, read: (x: unknown) => T): T[] =>
  shipped.filter((s) => s.kind === kind).map((s) => read(s.body));
const programmes: Programme[] = [
  ...of('programme', (x) => Programme.parse(x)),
  ...also.flatMap((file) => {
    const source = ProgrammeSource.parse(JSON.parse(readFileSync(file, 'utf8')));
    return ([...PACKS, 'house'] as const).flatMap((p) => composeProgramme(source, p) ?? []);
  }),
];
const packs = of('pack', (x) => RulePack.parse(x));
const house = of('house', (x) => House.parse(x))[0];
const fleet = [...types, ...made].map((t) => TypeSheet.parse(t));
const criteria = of('standard', (x) => Standard.parse(x)).flatMap((x) => x.criteria.map((c) => c.id));
const patterns = [
  ...of('findings', (x) => Findings.parse(x).patterns),
  ...(findingsFile === undefined ? [] : [Findings.parse(JSON.parse(readFileSync(findingsFile, 'utf8'))).patterns]),
].flat();
const found: ContentFinding[] = [
  ...patternFindings(patterns, criteria),
  ...programmes.flatMap(programmeFindings),
  ...packs.flatMap((p) => packFindings(p, programmes)),
  ...packs.flatMap((p) => fleet.flatMap((t) => demandFindings(p, t))),
];
const width = Math.max(...GOALS.map((g) => g.length)) + 4;
process.stdout.write(
  `${'items asked (not asked)'.padEnd(width + 3)}${fleet.map((t) => t.code.slice(0, 15).padStart(17)).join('')}\n`,
);
for (const goal of GOALS)
  for (const pack of PACKS) {
    const all = programmes.filter((p) => p.key === `${goal}-${pack}`);
    const rows = all.length > 0 ? all : programmes.filter((p) => p.key === `${goal}-house`);
    for (const programme of rows) {
      const cells = fleet.map((t) => {
        const on = goalOnType(programme, t, house?.crosswindKt ?? {});
        found.push(...on.findings);
        const words = on.items === null ? '-' : `${on.items}${on.notAsked > 0 ? ` (${on.notAsked})` : ''}`;
        return `${words}${on.findings.length > 0 ? ` !${on.findings.length}` : ''}`.padStart(17);
      });
      process.stdout.write(`${`${goal} ${pack}`.padEnd(width + 3)}${cells.join('')}\n`);
    }
  }
for (const f of found) process.stdout.write(`${f.code.padEnd(16)} ${f.where}: ${contentWords(f)}\n`);
process.stdout.write(
  `content: ${programmes.length} programmes, ${packs.length} packs, ${fleet.length} types, ${found.length} findings\n`,
);
process.exitCode = found.length > 0 ? 1 : 0;
