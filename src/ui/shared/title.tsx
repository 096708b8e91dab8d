import { OnThisPage } from './on-this-page';
import type { ReactNode } from 'react';

/** The head of a page: what it is, a line that answers first, what can be done. */
export function Title({
  title,
  line,
  children,
  long = false,
}: {
  title: ReactNode;
  line?: ReactNode;
  children?: ReactNode;
  /** More than three screens: its sections are listed. */
  long?: boolean;
}) {
  return (
    <div className="titlebar">
      <div>
        <h1>{title}</h1>
        {line ? <p className="lead-line">{line}</p> : null}
      </div>
      {children ? <div className="actions">{children}</div> : null}
      {long ? <OnThisPage /> : null}
    </div>
  );
}
