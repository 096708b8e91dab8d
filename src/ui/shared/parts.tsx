import { Link } from './link';
import type { ReactNode } from 'react';

export function Panel({ title, children, id }: { title?: ReactNode; children: ReactNode; id?: string }) {
  return (
    <section className="panel" id={id}>
      {title ? <h2>{title}</h2> : null}
      {children}
    </section>
  );
}

/** Nothing here yet: says what would be here and how to begin. */
export function Empty({ title, text, href, action }: { title: string; text: string; href?: string; action?: string }) {
  return (
    <div className="panel empty">
      <h2>{title}</h2>
      <p>{text}</p>
      {href && action ? (
        <Link className="btn btn-primary" href={href}>
          {action}
        </Link>
      ) : null}
    </div>
  );
}

/**
 * Something of this page is still on its way. Pages themselves are never streamed: a denied one must answer like an
 * absent one.
 */
export function Loading({ what }: { what: string }) {
  return (
    <p className="soft mb-0" role="status">
      Reading {what} …
    </p>
  );
}

/** What went wrong and what to do; for problems that belong to no single field. */
export function Problems({
  problems,
  title = 'Not done yet',
}: {
  problems: readonly { message: string }[];
  title?: string;
}) {
  if (problems.length === 0) return null;
  return (
    <div className="trouble" role="alert">
      <strong>{title}</strong>
      <ul>
        {problems.map((p) => (
          <li key={p.message}>{p.message}</li>
        ))}
      </ul>
    </div>
  );
}

/** The manual, the law and the instructor outrank the screen; said where it matters. */
export function Outranked({ extra }: { extra?: string }) {
  return (
    <p className="caution mb-0">
      The flight manual, placards, local law and the instructor in the seat outrank every number here.
      {extra ? ` ${extra}` : ''}
    </p>
  );
}
