import { LAB_MODELS, type LabDay, type LabSheetData } from '@/core/lab';
import type { LabPage } from '@/domain/lab-pages';
import type { QueryState } from './query-state-read';

/**
 * Start values of a page of the lab for a type on a day, the second setting of a comparison with them. A page that cannot be
 * shown has none.
 */
export function stageStart(page: LabPage, sheet: LabSheetData, day: LabDay): QueryState {
  const model = LAB_MODELS[page];
  if (!model.applies(sheet) || model.missing(sheet).length > 0) return {};
  const first = model.start(sheet, day);
  return {
    compare: 'no',
    ...first,
    'b-type': 'this',
    ...Object.fromEntries(Object.entries(first).map(([k, v]) => [`b-${k}`, v])),
  };
}
