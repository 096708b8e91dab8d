'use client';
import Button from 'react-bootstrap/Button';
import {
  type ColumnDef,
  type SortingState,
  flexRender,
  getCoreRowModel,
  getSortedRowModel,
  useReactTable,
} from '@tanstack/react-table';
import { unparse } from 'papaparse';
import { useMemo, useState } from 'react';
import { TABLE_COLUMNS, type TableRow } from '@/core/assess';

const heading = (c: (typeof TABLE_COLUMNS)[number]): string => (c.unit ? `${c.label} (${c.unit})` : c.label);
/** The columns on the page; the file has them all. */
const SHOWN: readonly string[] = [
  'lesson',
  'number',
  'date',
  'meant',
  'class',
  'whose',
  'crosswindKt',
  'alongM',
  'lateralM',
  'along',
  'across',
  'fenceOffKt',
  'sinkFpm',
  'swing',
  'bounces',
  'outside',
];

/**
 * The same rows as the drawings above, sorted by any column, as a page and as a file. Nothing is rounded differently in
 * either.
 */
export function RowTable({ rows, fileName }: { rows: readonly TableRow[]; fileName: string }) {
  const [sorting, setSorting] = useState<SortingState>([]);
  const columns = useMemo<ColumnDef<TableRow>[]>(
    () =>
      TABLE_COLUMNS.filter((c) => SHOWN.includes(c.key)).map((c) => ({
        id: c.key,
        accessorFn: (r) => r[c.key] ?? undefined,
        header: heading(c),
        sortUndefined: 'last',
        sortDescFirst: false,
        sortingFn: c.numeric ? 'basic' : 'alphanumeric',
      })),
    [],
  );
  const data = useMemo(() => [...rows], [rows]);
  const table = useReactTable({
    data,
    columns,
    state: { sorting },
    onSortingChange: setSorting,
    getCoreRowModel: getCoreRowModel(),
    getSortedRowModel: getSortedRowModel(),
  });
  const save = () => {
    const shown = table.getSortedRowModel().rows.map((r) => r.original);
    const text = unparse(
      { fields: TABLE_COLUMNS.map(heading), data: shown.map((r) => TABLE_COLUMNS.map((c) => r[c.key] ?? '')) },
      { escapeFormulae: true },
    );
    const url = URL.createObjectURL(new Blob([text], { type: 'text/csv;charset=utf-8' }));
    const a = document.createElement('a');
    a.href = url;
    a.download = fileName;
    a.click();
    URL.revokeObjectURL(url);
  };
  return (
    <>
      <div className="d-flex justify-content-between align-items-center gap-3 flex-wrap mb-2">
        <p className="mb-0 small soft" role="status">
          {rows.length} {rows.length === 1 ? 'row' : 'rows'}; an empty cell was not seen. Choose a heading to sort.
        </p>
        <Button variant="outline-primary" size="sm" onClick={save} disabled={rows.length === 0}>
          These rows as CSV
        </Button>
      </div>
      <div className="scroll-x" tabIndex={0} role="region" aria-label="Landings">
        <table aria-label="Every landing" className="plain rows">
          <thead>
            {table.getHeaderGroups().map((g) => (
              <tr key={g.id}>
                {g.headers.map((h) => {
                  const s = h.column.getIsSorted();
                  return (
                    <th
                      scope="col"
                      key={h.id}
                      aria-sort={s === 'asc' ? 'ascending' : s === 'desc' ? 'descending' : 'none'}
                    >
                      <button type="button" onClick={h.column.getToggleSortingHandler()}>
                        {flexRender(h.column.columnDef.header, h.getContext())}
                      </button>
                    </th>
                  );
                })}
              </tr>
            ))}
          </thead>
          <tbody>
            {table.getRowModel().rows.map((r) => (
              <tr key={r.id} data-row={r.original.id}>
                {r.getVisibleCells().map((c) => {
                  const v = c.getValue() as string | number | undefined;
                  return (
                    <td key={c.id} className={typeof v === 'number' ? 'mono r' : ''}>
                      {v ?? ''}
                    </td>
                  );
                })}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </>
  );
}
