import Button from 'react-bootstrap/Button';
import type { LabNote } from '@/domain/lab';
import { FigureDrawing } from '../lab/figure-drawing';
import { Link } from '../shared/link';
import { Source } from '../shared/source';

/** Pages of the lab in a brief: the sentence, the picture as it stood, the numbers with their sources. */
export function LabNotes({ notes, remove }: { notes: readonly LabNote[]; remove: ((id: string) => void) | null }) {
  return (
    <div className="lab-notes">
      {notes.map((n) => (
        <article key={n.id}>
          <FigureDrawing figure={n.figure} label={n.answer} />
          <p className="mb-1 mt-1">
            <strong>{n.answer}</strong>
          </p>
          <details className="small">
            <summary>Numbers of {n.of}</summary>
            <dl className="mb-1">
              {n.facts.map((f) => (
                <div key={f.name}>
                  <dt>{f.name}</dt>
                  <dd className="mono">
                    {f.value}
                    {f.source ? <Source source={f.source} reference={f.ref} /> : null}
                  </dd>
                </div>
              ))}
            </dl>
          </details>
          <p className="soft small mb-0">
            Model, not the flight manual. <Link href={`/lab/${n.page}?${n.query}`}>Open in the lab</Link>
            {remove ? (
              <>
                {' '}
                <Button variant="link" size="sm" className="p-0" onClick={() => remove(n.id)}>
                  Remove
                </Button>
              </>
            ) : null}
          </p>
        </article>
      ))}
    </div>
  );
}
