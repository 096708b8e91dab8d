'use client';
import { TableHead } from '../shared/table-head';
import { say } from '@/domain/words';
import { Verdict } from '../shared/verdict';
import { OverruleForm, type Overrule } from './overrule-form';

export interface AirworkLine {
  id: string;
  sortieId: string;
  code: string | null;
  name: string;
  verdict: 'within' | 'edge' | 'outside';
  was: { verdict: string; reason: string } | null;
  whose: string;
  noted: string;
  note: string;
  reasons: string[];
  /** Looked at only in part: kept, and no evidence. */
  notJudged: boolean;
}

/** Ground and airwork of a lesson, each verdict opened to what the standard asks and what was seen. */
export function AirworkTable({ rows, overrule }: { rows: readonly AirworkLine[]; overrule: Overrule | null }) {
  return (
    <div className="scroll-x">
      <table aria-label="Airwork" className="plain">
        <TableHead columns={['Item', 'How it went', 'Flown by', 'Seen, and why']} />
        <tbody>
          {rows.map((o) => (
            <tr key={o.id}>
              <td>
                {o.code ? (
                  <>
                    <span className="code-face">{o.code}</span> {o.name}
                  </>
                ) : (
                  <>
                    {o.name} <span className="soft small">not in the programme</span>
                  </>
                )}
              </td>
              <td style={{ whiteSpace: 'nowrap' }}>
                {o.notJudged ? (
                  <>
                    <Verdict verdict="not-seen" />
                    <div className="soft small">not judged; tapped {say(o.verdict)}</div>
                  </>
                ) : (
                  <Verdict verdict={o.verdict} />
                )}
                {o.was ? (
                  <div className="soft small" style={{ whiteSpace: 'normal' }}>
                    computed {say(o.was.verdict)}; {o.was.reason}
                  </div>
                ) : null}
              </td>
              <td>{o.whose}</td>
              <td>
                {o.noted}
                {o.note ? <div className="small">{o.note}</div> : null}
                {o.reasons.length > 0 ? (
                  <ul className="small mb-0 ps-3">
                    {o.reasons.map((r) => (
                      <li key={r}>{r}</li>
                    ))}
                  </ul>
                ) : null}
                {overrule ? (
                  <OverruleForm
                    what="item"
                    name={o.name}
                    words={['within', 'edge', 'outside']}
                    now={o.verdict}
                    taken={o.was !== null}
                    sortieId={o.sortieId}
                    subjectId={o.id}
                    overrule={overrule}
                  />
                ) : null}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
