'use client';
import { Day } from '../shared/zone';
import Button from 'react-bootstrap/Button';
import { useEffect, useState } from 'react';
import { type CriterionJudged, type JudgedLanding, landingWords, criterionWords } from '@/core/assess';
import { ageText, crosswindWords } from '@/core/format';
import { CRITERION_VERDICTS } from '@/domain/assess-words';
import { WORD_CRITERIA } from '@/domain/criteria';
import { INTERVENTIONS, say } from '@/domain/words';
import { Verdict, VerdictMark } from '../shared/verdict';
import { OverruleForm, type Overrule } from './overrule-form';

export interface LandingLine {
  id: string;
  sortieId: string;
  number: number;
  kind: string;
  intended: string | null;
  crosswindKt: number | null;
  windAgeMin: number | null;
  intervention: number | null;
  memoryS: number | null;
  judged: JudgedLanding;
  /** Beside the criteria. */
  noted: string[];
  /** Flown past a stop: kept, and no evidence of a safety item. */
  stopped: boolean;
  /** Where it is in a recording. */
  replay: string | null;
}
const CLASSES = ['own', 'own-off-target', 'prompted', 'assisted', 'outside', 'not-judged'] as const;

/**
 * Every landing with a mark per criterion; one opened shows the reason for each verdict, and where an instructor may
 * overrule it.
 */
export function LandingTable({
  rows,
  criteria,
  first,
  overrule,
  tailwheel,
}: {
  rows: LandingLine[];
  /** Three-point or wheel is a choice of the tailwheel alone. */
  tailwheel: boolean;
  criteria: { id: string; group: string }[];
  /** Opened at the start. */
  first: number | null;
  overrule: Overrule | null;
}) {
  const worst =
    rows.find((r) => r.number === first) ?? rows.find((r) => r.judged.landingClass === 'outside') ?? rows[0];
  const [open, setOpen] = useState<string | null>(worst?.id ?? null);
  const chosen = rows.find((r) => r.id === open);
  // A link from a finding or from the best and worst opens its landing.
  useEffect(() => {
    const follow = () => {
      const number = Number(/^#landing-(\d+)$/.exec(window.location.hash)?.[1]);
      const row = rows.find((r) => r.number === number);
      if (row) setOpen(row.id);
    };
    follow();
    window.addEventListener('hashchange', follow);
    return () => window.removeEventListener('hashchange', follow);
  }, [rows]);
  return (
    <>
      <div className="scroll-x">
        <table aria-label="Landings" className="plain">
          <thead>
            <tr>
              <th scope="col">Landing</th>
              <th scope="col">Class</th>
              {criteria.map((c) => (
                <th scope="col" key={c.id} style={{ fontSize: 12, textAlign: 'center', minWidth: 50 }}>
                  {SHORT[c.id] ?? say(c.id)}
                </th>
              ))}
              <th scope="col">Flown by</th>
            </tr>
          </thead>
          <tbody>
            {rows.map((r) => (
              <tr
                key={r.id}
                id={`landing-${r.number}`}
                style={r.id === open ? { background: 'var(--lagoon-wash)' } : undefined}
              >
                <td>
                  <Button
                    variant="outline-primary"
                    size="sm"
                    aria-expanded={r.id === open}
                    aria-controls="landing-reasons"
                    onClick={() => setOpen(r.id)}
                  >
                    {r.number}
                  </Button>{' '}
                  {tailwheel && (r.kind === 'full-stop' || r.kind === 'touch-and-go')
                    ? say(r.intended ?? '')
                    : say(r.kind)}
                </td>
                <td style={{ whiteSpace: 'nowrap' }}>
                  {r.judged.goAround
                    ? `${say(r.judged.goAround.decision)}, ${r.judged.goAround.execution === 'good' ? 'flown well' : say(r.judged.goAround.execution)}`
                    : say(r.judged.landingClass)}
                  {r.stopped ? <div className="v-outside small">past a stop</div> : null}
                  {r.judged.overruled ? (
                    <div className="soft small">computed {say(r.judged.overruled.computed)}</div>
                  ) : null}
                </td>
                {criteria.map((c) => {
                  const j = r.judged.criteria.find((x) => x.id === c.id);
                  return (
                    <td key={c.id} style={{ textAlign: 'center' }}>
                      {j ? (
                        <>
                          <VerdictMark verdict={j.verdict} label={say(c.id)} />
                          {j.overruled ? (
                            <sup className="src" title={`computed ${say(j.overruled.computed)}`}>
                              I
                            </sup>
                          ) : null}
                        </>
                      ) : null}
                    </td>
                  );
                })}
                <td>{r.intervention === null ? 'not recorded' : INTERVENTIONS[r.intervention]?.word}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <div id="landing-reasons" className="mt-3" aria-live="polite">
        {chosen ? (
          <>
            <p className="mb-1">
              <strong>
                Landing {chosen.number}: {landingWords(chosen.judged.reason)}
              </strong>
              {chosen.replay ? (
                <>
                  {' '}
                  <a href={chosen.replay}>Replay</a>
                </>
              ) : null}
            </p>
            <p className="soft mb-2" style={{ fontSize: 14 }}>
              {chosen.crosswindKt === null
                ? 'No wind logged'
                : `${crosswindWords(chosen.crosswindKt)}, wind logged ${ageText(chosen.windAgeMin ?? 0)} from touchdown${(chosen.windAgeMin ?? 0) > 10 ? ' (too old to count)' : ''}`}
              ; {chosen.memoryS === null ? 'recorded later' : `recorded ${Math.round(chosen.memoryS)} s after`}.
            </p>
            {chosen.noted.length > 0 ? <p className="mb-2">{chosen.noted.join('; ')}.</p> : null}
            <div className="grid g-1-1" style={{ gap: '0 32px' }}>
              {(['control', 'precision'] as const).map((group) => (
                <div key={group}>
                  {chosen.judged.criteria
                    .filter((c) => c.group === group)
                    .map((c) => (
                      <Reason key={`${chosen.id}-${c.id}`} c={c} landing={chosen} overrule={overrule} />
                    ))}
                </div>
              ))}
            </div>
            {overrule && chosen.judged.criteria.length > 0 ? (
              <div className="mt-2">
                <OverruleForm
                  key={chosen.id}
                  what="class"
                  name="the whole landing"
                  words={CLASSES}
                  now={chosen.judged.landingClass}
                  taken={chosen.judged.overruled !== undefined}
                  sortieId={chosen.sortieId}
                  subjectId={chosen.id}
                  overrule={overrule}
                />
              </div>
            ) : null}
          </>
        ) : null}
      </div>
    </>
  );
}

function Reason({ c, landing, overrule }: { c: CriterionJudged; landing: LandingLine; overrule: Overrule | null }) {
  return (
    <div
      className="linkrow"
      style={{ gridTemplateColumns: '150px minmax(0, 1fr)', padding: '5px 0', alignItems: 'start' }}
    >
      <Verdict verdict={c.verdict}>{say(c.id)}</Verdict>
      <div style={{ fontSize: 14 }}>
        {c.overruled ? (
          <>
            <strong>
              {c.overruled.by} says {say(c.overruled.to)}:
            </strong>{' '}
            {c.overruled.reason}{' '}
            <span className="soft">
              (<Day at={c.overruled.at} />; computed {say(c.overruled.computed)})
            </span>{' '}
          </>
        ) : null}
        {criterionWords(c.reasons)}
        {c.form === 'asserted' ? '' : c.required && c.verdict === 'not-seen' ? ' The standard asks for it.' : ''}
        {overrule ? (
          <OverruleForm
            what={c.id}
            name={say(c.id)}
            words={CRITERION_VERDICTS}
            now={c.verdict}
            taken={c.overruled !== undefined}
            sortieId={landing.sortieId}
            subjectId={landing.id}
            overrule={overrule}
          />
        ) : null}
      </div>
    </div>
  );
}

const SHORT: Record<string, string> = {
  ...Object.fromEntries(Object.entries(WORD_CRITERIA).map(([id, c]) => [id, c.short])),
  swing: 'swing',
  bounce: 'bounce',
  lateral: 'across',
  along: 'along',
  speed: 'speed',
  attitude: 'attitude',
  drift: 'drift',
  crab: 'crab',
};
