/** The heads of a table's columns; figures stand at the right, under a head at the right. */
export function TableHead({ columns }: { columns: readonly (string | { right: string })[] }) {
  return (
    <thead>
      <tr>
        {columns.map((c) => {
          const name = typeof c === 'string' ? c : c.right;
          return (
            <th key={name} scope="col" className={typeof c === 'string' ? undefined : 'r'}>
              {name}
            </th>
          );
        })}
      </tr>
    </thead>
  );
}
