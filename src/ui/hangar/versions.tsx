import { Day } from '../shared/zone';
import { sheetDifferences } from '@/core/sheet';
import type { TypeSheet } from '@/domain/sheet';
import { Panel } from '../shared/parts';
import { DifferenceList } from './findings';

interface SheetVersion {
  id: string;
  version: number;
  author: string;
  reason: string;
  createdAt: string;
  sheet: TypeSheet;
}

/** Every version of the sheet with what it changed. */
export function SheetVersions({ unit, versions }: { unit: 'kt' | 'mph'; versions: readonly SheetVersion[] }) {
  return (
    <Panel title="Versions">
      {versions.map((v, i) => {
        const before = versions[i + 1];
        return (
          <details key={v.id} className="mb-1" open={i === 0 && before !== undefined}>
            <summary>
              <strong>{v.version}</strong> <Day at={v.createdAt} />, {v.author}: {v.reason}
            </summary>
            {before ? (
              <DifferenceList differences={sheetDifferences(before.sheet, v.sheet, unit)} />
            ) : (
              <p className="soft small mb-0">The first.</p>
            )}
          </details>
        );
      })}
    </Panel>
  );
}
