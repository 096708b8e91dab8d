'use client';
import { Words } from './parts';

/** Yes, no, or not looked at. */
export function YesNo({
  title,
  now,
  choose,
  yes = 'yes',
  no = 'no',
}: {
  title: string;
  now: boolean | null;
  choose: (v: boolean | null) => void;
  yes?: string;
  no?: string;
}) {
  return (
    <Words
      title={title}
      options={['yes', 'no'] as const}
      now={now === null ? null : now ? 'yes' : 'no'}
      choose={(v) => choose(v === null ? null : v === 'yes')}
      columns={2}
      name={(v) => (v === 'yes' ? yes : no)}
    />
  );
}
