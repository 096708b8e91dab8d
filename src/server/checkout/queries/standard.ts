import { type EyeAgainstMeasure, type Standardised, bothVerdicts, standardOn, standardise } from '@/core/assess';
import type { JudgedLanding } from '@/core/assess';
import type { CapturedLanding, Measured } from '@/domain/capture';
import type { Standard } from '@/domain/programme';
import { contentById } from '../../rules/content';
import { rows } from '../../floor/connection';
import { checkoutHead } from './head';

/** The newest landings that were both seen and measured, of all instructors; more would say nothing more. */
const NEWEST = 2000;

/** How each instructor's eye judges what recordings measured. */
export async function instructorsCompared(): Promise<{
  landings: number;
  instructors: (Standardised & { name: string })[];
}> {
  const found = await rows<{
    author: string;
    captured: string;
    measured: string;
    judged: string;
    checkout_id: string;
    name: string;
  }>(
    `SELECT l.author, l.captured, l.measured, l.judged, l.checkout_id, u.name FROM landings l JOIN checkouts c ON c.id = l.checkout_id JOIN users u ON u.id = l.author WHERE l.measured IS NOT NULL ORDER BY l.flown_on DESC LIMIT ${NEWEST}`,
  );
  const pairs: EyeAgainstMeasure[] = [];
  const standards = new Map<string, Standard>();
  for (const id of new Set(found.map((l) => l.checkout_id))) {
    const head = await checkoutHead(id);
    if (head) standards.set(id, standardOn(await contentById('standard', head.standardId), head.sheet, head.goals));
  }
  for (const l of found) {
    const standard = standards.get(l.checkout_id);
    if (!standard) continue;
    pairs.push(
      ...bothVerdicts(
        {
          captured: JSON.parse(l.captured) as CapturedLanding,
          measured: JSON.parse(l.measured) as Measured,
          judged: JSON.parse(l.judged) as JudgedLanding,
        },
        l.author,
        standard,
      ),
    );
  }
  const names = new Map(found.map((l) => [l.author, l.name]));
  return {
    landings: found.length,
    instructors: standardise(pairs).map((s) => ({ ...s, name: names.get(s.author) ?? '' })),
  };
}
