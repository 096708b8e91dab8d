'use client';
import { useEffect } from 'react';

/** Marks the document once React has taken the page over: from then on what is typed and clicked is heard. */
export function Hydrated() {
  useEffect(() => {
    document.documentElement.dataset.hydrated = 'yes';
  }, []);
  return null;
}
