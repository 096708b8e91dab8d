import { type SigningProblem, signingWords } from '@/core/assess';
import { Link } from '../shared/link';
import { Panel } from '../shared/parts';

const OF_ITEMS: ReadonlySet<SigningProblem['code']> = new Set(['item', 'legal', 'not-seen', 'refused']);
/** Beyond so many open items the list is folded: the matrix beside it says the same. */
const MANY = 7;

/** The page on which a problem is solved; null = this one. */
function leadsTo(p: SigningProblem, base: string): string | null {
  if (p.target === 'brief' || p.target === 'fly' || p.target === 'debrief') return `${base}/${p.target}`;
  if (p.target === 'trace') return p.traceId ? `/traces/${p.traceId}` : '/board#limits';
  if (p.code === 'not-recent' || p.code === 'model-hours') return '/account';
  return p.target === 'people' ? '/people' : null;
}

/** What stands in the way, each leading to where it is done. */
function Missing({ problems, base }: { problems: readonly SigningProblem[]; base: string }) {
  if (problems.length === 0) return null;
  return (
    <ul className="ps-3 mb-0">
      {problems.map((p) => {
        const href = leadsTo(p, base);
        const words = signingWords(p);
        return (
          <li key={words} className="mb-1">
            {href ? <Link href={href}>{words}</Link> : words}
          </li>
        );
      })}
    </ul>
  );
}

/** What stands in the way of signing, the signer first; many open items are folded. */
export function MissingPanel({ base, problems }: { base: string; problems: readonly SigningProblem[] }) {
  const itemProblems = problems.filter((p) => OF_ITEMS.has(p.code));
  const signer = problems.filter((p) => !OF_ITEMS.has(p.code));
  return (
    <Panel title="Missing before you can sign">
      <Missing problems={signer} base={base} />
      {itemProblems.length > MANY ? (
        <details className="mt-1">
          <summary>{itemProblems.length} items of the programme are open</summary>
          <Missing problems={itemProblems} base={base} />
        </details>
      ) : (
        <Missing problems={itemProblems} base={base} />
      )}
    </Panel>
  );
}
