'use client';
import { useState } from 'react';
import type { JudgedLanding } from '@/core/assess';
import { ageText, crosswindWords } from '@/core/format';
import { INTERVENTIONS, say } from '@/domain/words';
import { Verdict, VerdictMark } from '../shared/verdict';

export interface LandingLine { id: string; number: number; kind: string; intended: string | null; crosswindKt: number | null; windAgeMin: number | null; intervention: number | null; memoryS: number | null; judged: JudgedLanding; /** Beside the criteria. */ noted: string[] }

/** Every landing with a mark per criterion; one opened shows the reason for each verdict. */
export function LandingTable({ rows, criteria }: { rows: LandingLine[]; criteria: { id: string; group: string }[] }) {
  const worst = rows.find((r) => r.judged.landingClass === 'outside') ?? rows[0];
  const [open, setOpen] = useState<string | null>(worst?.id ?? null);
  const chosen = rows.find((r) => r.id === open);
  return (
    <>
      <div className="scroll-x"><table className="plain">
        <thead><tr><th>Landing</th><th>Class</th>{criteria.map((c) => <th key={c.id} style={{ fontSize: 12, textAlign: 'center', minWidth: 50 }}>{SHORT[c.id] ?? say(c.id)}</th>)}<th>Whose</th></tr></thead>
        <tbody>{rows.map((r) => (
          <tr key={r.id} style={r.id === open ? { background: 'var(--lagoon-wash)' } : undefined}>
            <td><button type="button" className="btn btn-sm btn-outline-primary" aria-expanded={r.id === open} aria-controls="landing-reasons" onClick={() => setOpen(r.id)}>{r.number}</button> {r.kind === 'go-around' ? 'go-around' : r.kind === 'low-pass' ? 'low pass' : say(r.intended ?? '')}</td>
            <td style={{ whiteSpace: 'nowrap' }}>{r.judged.goAround ? `${say(r.judged.goAround.decision)}, ${r.judged.goAround.execution === 'good' ? 'flown well' : say(r.judged.goAround.execution)}` : say(r.judged.landingClass)}</td>
            {criteria.map((c) => {
              const j = r.judged.criteria.find((x) => x.id === c.id);
              return <td key={c.id} style={{ textAlign: 'center' }}>{j ? <VerdictMark verdict={j.verdict} label={say(c.id)} /> : null}</td>;
            })}
            <td>{r.intervention === null ? 'not recorded' : INTERVENTIONS[r.intervention]?.word}</td>
          </tr>
        ))}</tbody>
      </table></div>
      <div id="landing-reasons" className="mt-3" aria-live="polite">
        {chosen ? (
          <>
            <p className="mb-1"><strong>Landing {chosen.number}: {chosen.judged.reason}</strong></p>
            <p className="soft mb-2" style={{ fontSize: 14 }}>{chosen.crosswindKt === null ? 'No wind logged' : `${crosswindWords(chosen.crosswindKt)}, wind logged ${ageText(chosen.windAgeMin ?? 0)} from touchdown${(chosen.windAgeMin ?? 0) > 10 ? ' (too old to count)' : ''}`}; {chosen.memoryS === null ? 'recorded later' : `recorded ${Math.round(chosen.memoryS)} s after`}.</p>
            {chosen.noted.length > 0 ? <p className="mb-2">{chosen.noted.join('; ')}.</p> : null}
            <div className="grid g-1-1" style={{ gap: '0 32px' }}>
              {(['control', 'precision'] as const).map((group) => (
                <div key={group}>{chosen.judged.criteria.filter((c) => c.group === group).map((c) => (
                  <div key={c.id} className="linkrow" style={{ gridTemplateColumns: '150px minmax(0, 1fr)', padding: '5px 0', alignItems: 'start' }}><Verdict verdict={c.verdict}>{say(c.id)}</Verdict><span style={{ fontSize: 14 }}>{c.reason}{c.form === 'asserted' ? '' : c.required && c.verdict === 'not-seen' ? ' The standard asks for it.' : ''}</span></div>
                ))}</div>
              ))}
            </div>
          </>
        ) : null}
      </div>
    </>
  );
}

const SHORT: Record<string, string> = { swing: 'swing', bounce: 'bounce', aileron: 'aileron', stick: 'stick', rollout: 'roll-out', configuration: 'config.', lateral: 'across', along: 'along', speed: 'speed', firmness: 'firm', attitude: 'attitude', drift: 'drift', crab: 'crab' };
