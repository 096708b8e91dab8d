'use client';
import Button from 'react-bootstrap/Button';
import { useRouter } from 'next/navigation';
import { useEffect, useRef, useState } from 'react';

const TYPED_MS = 400;

/**
 * A filter that applies at once: a choice when it is made, words and dates when the typing rests. Until the page runs it is
 * a form with a button. What cannot be read applies nothing: the field says so.
 */
export function FilterForm({
  action,
  className,
  name,
  button,
  children,
}: {
  action: string;
  className?: string;
  /** What is searched, where the form is a search. */
  name?: string;
  button: string;
  children: React.ReactNode;
}) {
  const router = useRouter();
  const [live, setLive] = useState(false);
  const later = useRef<ReturnType<typeof setTimeout>>(undefined);
  useEffect(() => {
    setLive(true);
    return () => clearTimeout(later.current);
  }, []);
  const apply = (form: HTMLFormElement) => {
    clearTimeout(later.current);
    if (!form.checkValidity()) return;
    const asked = new URLSearchParams();
    for (const [k, v] of new FormData(form)) if (typeof v === 'string' && v.trim() !== '') asked.set(k, v.trim());
    router.replace(`${action}?${asked.toString()}`, { scroll: false });
  };
  return (
    <form
      action={action}
      method="get"
      className={className}
      {...(name ? { role: 'search', 'aria-label': name } : {})}
      onSubmit={(e) => {
        e.preventDefault();
        apply(e.currentTarget);
      }}
      onChange={(e) => {
        const form = e.currentTarget;
        clearTimeout(later.current);
        later.current = setTimeout(() => apply(form), e.target instanceof HTMLSelectElement ? 0 : TYPED_MS);
      }}
    >
      {children}
      {live ? null : (
        <Button type="submit" variant="outline-primary">
          {button}
        </Button>
      )}
    </form>
  );
}
