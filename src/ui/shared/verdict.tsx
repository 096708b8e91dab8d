import type { CriterionVerdict } from '@/domain/assess-words';
import { say } from '@/domain/words';

/** The four shapes of a verdict; they differ without colour. SVG path data shared with the charts. */
export function VerdictShape({ verdict, size = 16 }: { verdict: CriterionVerdict; size?: number }) {
  const box = { width: size, height: size, viewBox: '0 0 16 16', 'aria-hidden': true } as const;
  switch (verdict) {
    case 'within':
      return (
        <svg {...box} className="v-within">
          <circle cx="8" cy="8" r="7" fill="currentColor" />
        </svg>
      );
    case 'edge':
      return (
        <svg {...box} className="v-edge">
          <circle cx="8" cy="8" r="6" fill="none" stroke="currentColor" strokeWidth="2" />
          <path d="M8 2a6 6 0 0 0 0 12z" fill="currentColor" />
        </svg>
      );
    case 'outside':
      return (
        <svg {...box} className="v-outside">
          <circle cx="8" cy="8" r="6" fill="none" stroke="currentColor" strokeWidth="2" />
          <path d="M2 8h12" stroke="currentColor" strokeWidth="2.6" />
        </svg>
      );
    case 'not-seen':
      return (
        <svg {...box} className="v-not-seen">
          <path d="M3 8h10" stroke="currentColor" strokeWidth="2" />
        </svg>
      );
  }
}

/** Shape and word together. */
export function Verdict({ verdict, children }: { verdict: CriterionVerdict; children?: React.ReactNode }) {
  return (
    <span className="verdict">
      <VerdictShape verdict={verdict} />
      <span>{children ?? say(verdict)}</span>
    </span>
  );
}

/** The shape alone, with its word for a screen reader. */
export function VerdictMark({
  verdict,
  label,
  plain = false,
}: {
  verdict: CriterionVerdict;
  label?: string;
  /** The label says it all: the shape is only how it looks. */
  plain?: boolean;
}) {
  const text = label ? (plain ? label : `${label}: ${say(verdict)}`) : say(verdict);
  return (
    <span role="img" aria-label={text} title={text}>
      <VerdictShape verdict={verdict} />
    </span>
  );
}
