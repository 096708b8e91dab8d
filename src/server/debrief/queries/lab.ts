/** The page of the lab that explains a finding, set with what was measured of the landings behind it. */
import { LAB_MODELS, fromFindingWords, labOfFinding } from '@/core/lab';
import type { LabOffer } from '@/core/plan';
import type { CheckoutRecord } from '../../checkout/queries/record';
import type { DebriefFacts, DecidedFinding } from './debrief';

/** @returns null where no page explains it, or the sheet lacks what the page works with */
export function labOffer(
  { head }: CheckoutRecord,
  landings: DebriefFacts['landings'],
  f: Pick<DecidedFinding, 'id' | 'evidence'>,
): LabOffer | null {
  const behind = landings.filter((l) => f.evidence.includes(l.id)).map((l) => l.measured?.values ?? {});
  const lab = labOfFinding(
    f.id,
    behind.map((v) => ({ crabDeg: v.crab ?? null, sinkFpm: v.firmness ?? null, swingDeg: v.swing ?? null })),
  );
  if (!lab) return null;
  const model = LAB_MODELS[lab.page];
  if (!model.applies(head.sheet) || model.missing(head.sheet).length > 0) return null;
  const of = lab.from && 'params' in lab.from && lab.from.params ? lab.from.params : null;
  const query = new URLSearchParams({
    finding: f.id,
    ...Object.fromEntries(Object.entries(lab.settings).map(([k, v]) => [k, String(v)])),
    ...(of && 'landings' in of ? { of: String(of.landings) } : {}),
  });
  return {
    findingId: f.id,
    page: lab.page,
    query: query.toString(),
    set: lab.from ? fromFindingWords(lab.from) : null,
  };
}
