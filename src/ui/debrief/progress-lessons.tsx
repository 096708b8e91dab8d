'use client';
import { TableHead } from '../shared/table-head';
import type { LessonPoint } from '@/core/assess';
import { fixed } from '@/core/format';

/** The pilot’s part of each lesson, in figures. */
export function LessonsTable({ lessons }: { lessons: readonly LessonPoint[] }) {
  return (
    <details className="small">
      <summary>As a table</summary>
      <table aria-label="Lesson by lesson" className="plain">
        <TableHead
          columns={[
            'Lesson',
            { right: 'part' },
            { right: 'unassisted' },
            { right: 'unassisted and in standard' },
            { right: 'judged' },
          ]}
        />
        <tbody>
          {lessons.map((l) => (
            <tr key={l.lesson}>
              <td>{l.lesson}</td>
              <td className="r mono">{l.authorship === null ? '' : fixed(l.authorship, 2)}</td>
              <td className="r mono">{l.own}</td>
              <td className="r mono">{l.inStandard}</td>
              <td className="r mono">{l.landings}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </details>
  );
}
