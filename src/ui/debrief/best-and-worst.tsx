import { criterionWords, type DebriefLanding, landingWords } from '@/core/assess';
import { INTERVENTIONS, say } from '@/domain/words';
import { Link } from '../shared/link';
import { Panel } from '../shared/parts';

/** One landing in short: why it has its class, what was outside or on the edge, and where to look at it. */
function OneLanding({
  l,
  said,
  what,
  href,
}: {
  l: DebriefLanding;
  said: string;
  what: 'Best' | 'Worst' | 'The only one judged';
  href: string | null;
}) {
  const told = [...l.judged.criteria]
    .filter((c) => c.verdict === 'outside' || c.verdict === 'edge')
    .sort((a, b) => Number(b.verdict === 'outside') - Number(a.verdict === 'outside'))
    .slice(0, 4);
  const whose =
    l.captured.intervention === null
      ? 'who flew it is not recorded'
      : (INTERVENTIONS[l.captured.intervention]?.word ?? '');
  // The lesser of two good landings is no bad one.
  const bad = ['outside', 'assisted'].includes(l.judged.landingClass);
  return (
    <div className={what !== 'Worst' ? '' : bad ? 'worst' : 'weakest'}>
      <h3>
        {what === 'Worst' && !bad ? 'Weakest' : what}: landing {l.number}, {said}, {whose}
      </h3>
      <p className="mb-0">{landingWords(l.judged.reason)}</p>
      {told.length > 0 ? (
        <ul className="small">
          {told.map((c) => (
            <li key={c.id}>
              <strong>
                {say(c.id)}, {say(c.verdict)}:
              </strong>{' '}
              {criterionWords(c.reasons)}
            </li>
          ))}
        </ul>
      ) : what !== 'Worst' ? (
        <p className="soft small mb-0">Nothing seen was near a limit.</p>
      ) : null}
      <p className="small mb-0 mt-1">
        <a href={`#landing-${l.number}`}>Every criterion</a>
        {href ? (
          <>
            {' '}
            {'\u00b7'} <Link href={href}>Replay the two beside each other</Link>
          </>
        ) : null}
      </p>
    </div>
  );
}

/** The two landings one looks at first, each with what was on its edge or outside. */
export function BestAndWorst({
  best,
  replay,
  worst,
  tailwheel,
}: {
  best: DebriefLanding;
  replay: { id: string } | undefined;
  worst: DebriefLanding | null;
  tailwheel: boolean;
}) {
  // Three-point or wheel is a choice of the tailwheel alone.
  const said = (l: DebriefLanding) => say(tailwheel ? (l.intended ?? 'not-seen') : l.kind);
  return (
    <Panel title="Best and worst">
      <div className="two-landings">
        <OneLanding
          l={best}
          said={said(best)}
          what={worst ? 'Best' : 'The only one judged'}
          href={
            replay && worst
              ? `/traces/${replay.id}?landing=${best.number}&beside=${worst.number}`
              : replay
                ? `/traces/${replay.id}?landing=${best.number}`
                : null
          }
        />
        {worst ? (
          <OneLanding
            l={worst}
            said={said(worst)}
            what="Worst"
            href={replay ? `/traces/${replay.id}?landing=${worst.number}&beside=${best.number}` : null}
          />
        ) : (
          <div className="worst">
            <p className="mb-0">Only one landing was judged.</p>
          </div>
        )}
      </div>
    </Panel>
  );
}
