import { type EyeAgainstMeasure, type Standardised, bothVerdicts, standardise } from '@/core/assess';
import type { JudgedLanding } from '@/core/assess';
import type { CapturedLanding, Measured } from '@/domain/capture';
import { contentById } from '../content';
import { rows } from '../db/connection';

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
    standard_id: string;
    name: string;
  }>(
    `SELECT l.author, l.captured, l.measured, l.judged, c.standard_id, u.name FROM landings l JOIN checkouts c ON c.id = l.checkout_id JOIN users u ON u.id = l.author WHERE l.measured IS NOT NULL ORDER BY l.flown_on DESC LIMIT ${NEWEST}`,
  );
  const pairs: EyeAgainstMeasure[] = [];
  for (const l of found) {
    const standard = await contentById('standard', l.standard_id);
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
