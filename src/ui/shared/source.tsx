import type { SourceKind } from '@/domain/words';
import { say } from '@/domain/words';

const LETTER: Record<SourceKind, string> = {
  handbook: 'H',
  placard: 'P',
  house: 'S',
  instructor: 'I',
  measured: 'M',
  sample: '?',
};

/** A superscript letter; the full source on hover, focus or tap. */
export function Source({ source, reference }: { source: SourceKind; reference: string }) {
  const text = `${say(source)}: ${reference}`;
  return (
    <button type="button" className="src" aria-label={`Source, ${text}`}>
      {LETTER[source]}
      <span className="tip" aria-hidden>
        {text}
      </span>
    </button>
  );
}

/** What the letters mean, once per page. */
export function SourceKey({ sample = false }: { sample?: boolean }) {
  return (
    <p className="soft mb-0" style={{ fontSize: 13 }}>
      Sources: H handbook, P placard, S school, I instructor, M measured
      {sample ? ', ? a sample nobody has confirmed' : ''}. Touch a letter for the reference.
    </p>
  );
}
