import Button from 'react-bootstrap/Button';
import { SHEET_WHY, type SheetDifference, type SheetFinding, fieldName, sheetWords } from '@/core/sheet';
import { Verdict } from '../shared/verdict';

/** What the validator found: what is wrong, why it matters, and where it is corrected. */
export function FindingList({ findings, go }: { findings: readonly SheetFinding[]; go?: (path: string) => void }) {
  if (findings.length === 0)
    return (
      <p className="mb-0">
        <Verdict verdict="within">The sheet is consistent.</Verdict>
      </p>
    );
  return (
    <ul className="findings">
      {findings.map((f) => (
        <li key={`${f.code} ${f.path}`}>
          <Verdict verdict="outside">
            <strong>{sheetWords(f)}</strong>
          </Verdict>
          <div className="small">
            {SHEET_WHY[f.why]}{' '}
            {go ? (
              <Button variant="link" size="sm" className="p-0 align-baseline" onClick={() => go(f.path)}>
                Correct it in {fieldName(f.path.split('.')[0] ?? '')}
              </Button>
            ) : (
              <span className="soft">To correct in: {fieldName(f.path.split('.')[0] ?? '')}.</span>
            )}
          </div>
        </li>
      ))}
    </ul>
  );
}

export function DifferenceList({ differences }: { differences: readonly SheetDifference[] }) {
  return (
    <ul className="ps-3 mb-0 small">
      {differences.map((d) => (
        <li key={d.path + d.label}>
          <strong>{d.label}</strong>: {d.from} <span aria-label="becomes">»</span> {d.to}
        </li>
      ))}
    </ul>
  );
}
