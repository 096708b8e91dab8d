import { usePathname } from 'next/navigation';
import { useEffect, useState } from 'react';

/** Whether a menu is open: another page closes it, and Escape. */
export function useOpen(): [boolean, (open: boolean) => void] {
  const path = usePathname();
  const [open, setOpen] = useState(false);
  useEffect(() => setOpen(false), [path]);
  useEffect(() => {
    if (!open) return;
    const leave = (e: KeyboardEvent) => (e.key === 'Escape' ? setOpen(false) : undefined);
    document.addEventListener('keydown', leave);
    return () => document.removeEventListener('keydown', leave);
  }, [open]);
  return [open, setOpen];
}
