'use client';
import { ChevronDown, ChevronUp } from 'lucide-react';
import { type ReactNode, useEffect, useRef, useState } from 'react';
import { FOLD_ALL } from './events';

const KEPT = 'jeito-folded';
const keptFolds = (): string[] => {
  try {
    return JSON.parse(localStorage.getItem(KEPT) ?? '[]') as string[];
  } catch {
    return [];
  }
};

interface Props {
  /** Under which it is remembered on this device: page and section, such as `brief/gates`. */
  name: string;
  title: string;
  /** What the section says in one line, shown when it is folded. */
  answer?: string | undefined;
  id?: string;
  className?: string;
  label?: string;
  /** The beginning of anchors that lead into it, beside those of its own content. */
  anchors?: string;
  children: ReactNode;
}

/** A section of a long page: open, or folded to its one-line answer; remembered on this device, printed in full. */
export function FoldingPanel({ name, title, answer, id, className = '', label, anchors, children }: Props) {
  const section = useRef<HTMLElement>(null);
  const [folded, setFolded] = useState(false);
  const fold = (to: boolean) => {
    setFolded(to);
    localStorage.setItem(KEPT, JSON.stringify([...keptFolds().filter((n) => n !== name), ...(to ? [name] : [])]));
  };
  useEffect(() => {
    const led = () => {
      const to = decodeURIComponent(window.location.hash.slice(1));
      const target = to === '' ? null : document.getElementById(to);
      return (
        (target !== null && section.current?.contains(target)) || (anchors !== undefined && to.startsWith(anchors))
      );
    };
    // Who is led here by a link sees it.
    setFolded(keptFolds().includes(name) && !led());
    const follow = () => {
      if (led()) setFolded(false);
    };
    const all = (event: Event) => fold((event as CustomEvent<boolean>).detail);
    window.addEventListener('hashchange', follow);
    window.addEventListener(FOLD_ALL, all);
    return () => {
      window.removeEventListener('hashchange', follow);
      window.removeEventListener(FOLD_ALL, all);
    };
    // The name is stable for the life of the section.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [name, anchors]);
  return (
    <section ref={section} className={`panel folding ${className}`} id={id} aria-label={label}>
      <h2>{title}</h2>
      <button
        type="button"
        className="fold-button"
        aria-expanded={!folded}
        aria-label={`${title}: ${folded ? 'open' : 'fold'}`}
        onClick={() => fold(!folded)}
      >
        {folded ? <ChevronDown size={18} aria-hidden /> : <ChevronUp size={18} aria-hidden />}
      </button>
      {folded && answer ? <p className="mb-0 fold-answer">{answer}</p> : null}
      <div hidden={folded}>{children}</div>
    </section>
  );
}
