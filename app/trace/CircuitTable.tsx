import type { HeaderGroup } from "@tanstack/react-table";
import {
  type ColumnDef,
  flexRender,
  getCoreRowModel,
  getSortedRowModel,
  type SortingState,
  useReactTable,
} from "@tanstack/react-table";
import { useState } from "react";

interface CircuitTableProps<Row extends { readonly id: string }> {
  readonly caption: string;
  readonly rows: readonly Row[];
  readonly columns: ColumnDef<Row, string>[];
  /** A row's key, which must not change while its cells are edited. */
  readonly rowId: (row: Row, index: number) => string;
}

/** A table of a circuit's items; its headings sort it. */
export function CircuitTable<Row extends { readonly id: string }>({
  caption,
  rows,
  columns,
  rowId,
}: CircuitTableProps<Row>) {
  const [sorting, setSorting] = useState<SortingState>([]);
  const table = useReactTable({
    data: rows as Row[],
    columns,
    getRowId: rowId,
    state: { sorting },
    onSortingChange: setSorting,
    getCoreRowModel: getCoreRowModel(),
    getSortedRowModel: getSortedRowModel(),
  });
  return (
    // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls must be reached by keys (WCAG 2.1.1)
    <section className="max-h-[32rem] overflow-auto" tabIndex={0} aria-label={caption}>
      <table className="w-full border-collapse text-base">
        <caption className="sr-only">{caption}</caption>
        <thead className="sticky top-0 z-10 bg-card">
          {table.getHeaderGroups().map((group) => (
            <GroupHead key={group.id} group={group} />
          ))}
        </thead>
        <tbody>
          {table.getRowModel().rows.map((row) => (
            <tr key={row.id} data-row={row.original.id} className="border-t border-rule align-top">
              {row.getVisibleCells().map((cell) => (
                <td key={cell.id} className="px-1 py-1">
                  {flexRender(cell.column.columnDef.cell, cell.getContext())}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

interface GroupHeadProps<Row> {
  readonly group: HeaderGroup<Row>;
}

/** The headings of a group of columns. */
function GroupHead<Row>({ group }: GroupHeadProps<Row>) {
  return (
    <tr>
      {group.headers.map(({ id, column, getContext }) => {
        const sorted = column.getIsSorted();
        const words = flexRender(column.columnDef.header, getContext());
        return (
          <th
            key={id}
            scope="col"
            className="px-1 text-left font-normal text-soft"
            aria-sort={sorted === "asc" ? "ascending" : sorted === "desc" ? "descending" : "none"}
          >
            {column.getCanSort() ? (
              <button type="button" className="min-h-11 underline" onClick={column.getToggleSortingHandler()}>
                {words}
                {sorted === "asc" ? " ↑" : sorted === "desc" ? " ↓" : ""}
              </button>
            ) : (
              words
            )}
          </th>
        );
      })}
    </tr>
  );
}
