import type { ReactNode } from 'react';

/** Heads the rows of a group in a table. @param columns it stands over; `children` are cells beside it */
export function GroupHead({ name, columns, children }: { name: string; columns: number; children?: ReactNode }) {
  return (
    <tr className="border-b border-edge">
      <th scope="rowgroup" colSpan={columns} className="pt-3 pb-0.5 text-left font-serif text-[1.05rem] font-medium">
        {name}
      </th>
      {children}
    </tr>
  );
}
