'use client';
import { type ReactNode, createContext, useContext, useState } from 'react';

/** Counts the changes of what is typed; a number is marked while its last change belongs to the newest of them. */
export const LiveEpoch = createContext(0);

/** A dependent number: when it changes it says so, and what it was, until something else is changed. */
export function Live({ children, text }: { children?: ReactNode; text: string }) {
  const epoch = useContext(LiveEpoch);
  const [seen, setSeen] = useState({ text, was: '', at: -1 });
  if (seen.text !== text) setSeen({ text, was: seen.text, at: epoch });
  const fresh = seen.text === text && seen.at === epoch && epoch > 0;
  return (
    <span
      className={fresh ? 'live fresh' : 'live'}
      title={fresh ? `was ${seen.was}` : undefined}
      data-was={fresh ? seen.was : undefined}
    >
      {children ?? text}
      {fresh ? <span className="visually-hidden"> (was {seen.was})</span> : null}
    </span>
  );
}
