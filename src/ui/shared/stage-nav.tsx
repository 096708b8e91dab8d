'use client';
import { ChevronDown } from 'lucide-react';
import { Link } from './link';
import { useOpen } from './use-open';

/** The five stages: a row, and on a phone a menu that names the one shown. */
export function StageNav({
  stages,
  at,
}: {
  stages: readonly { key: string; name: string; href: string; done: boolean }[];
  at: string;
}) {
  const [open, setOpen] = useOpen();
  return (
    <nav aria-label="Stages" className="stage-nav" data-open={open}>
      <button type="button" aria-expanded={open} onClick={() => setOpen(!open)}>
        <span className="visually-hidden">Stage: </span>
        {stages.find((s) => s.key === at)?.name}
        <ChevronDown size={16} aria-hidden />
      </button>
      <ol className="stages">
        {stages.map((s) => (
          <li key={s.key} className={s.done ? 'done' : undefined}>
            <Link href={s.href} aria-current={s.key === at ? 'step' : undefined}>
              <span className="dot" aria-hidden />
              {s.name}
            </Link>
          </li>
        ))}
      </ol>
    </nav>
  );
}
