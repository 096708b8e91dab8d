import { type EyeAgainstMeasure, type Standardised, bothVerdicts, standardOn, standardise } from '@/core/assess';
import type { Standard } from '@/domain/programme';
import { contentById } from '../../rules/content';
import { checkoutHead } from './head';
import { Op } from 'sequelize';
import { Landings } from '../../fly/tables';

/** The newest landings that were both seen and measured, of all instructors; more would say nothing more. */
const NEWEST = 2000;

/** How each instructor's eye judges what recordings measured. */
export async function instructorsCompared(): Promise<{
  landings: number;
  instructors: (Standardised & { name: string })[];
}> {
  const found = await Landings.find({
    where: { measured: { [Op.ne]: null }, checkoutId: { [Op.ne]: null } },
    pick: ['author', 'captured', 'measured', 'judged', 'checkoutId'],
    with: { writer: ['name'] },
    order: ['-flownOn'],
    limit: NEWEST,
  });
  const pairs: EyeAgainstMeasure[] = [];
  const standards = new Map<string, Standard>();
  for (const id of new Set(found.flatMap((l) => l.checkoutId ?? []))) {
    const head = await checkoutHead(id);
    if (head) standards.set(id, standardOn(await contentById('standard', head.standardId), head.sheet, head.goals));
  }
  for (const l of found) {
    const standard = standards.get(l.checkoutId ?? '');
    if (!standard || !l.measured) continue;
    pairs.push(
      ...bothVerdicts(
        {
          captured: l.captured,
          measured: l.measured,
          judged: l.judged,
        },
        l.author,
        standard,
      ),
    );
  }
  const names = new Map(found.map((l) => [l.author, l.writer.name]));
  return {
    landings: found.length,
    instructors: standardise(pairs).map((s) => ({ ...s, name: names.get(s.author) ?? '' })),
  };
}
