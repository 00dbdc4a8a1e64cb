"use client";
/** A table whose columns can be sorted by a click on their heads; in the order that it is given until then. */

import { useState } from "react";
import { flexRender, getCoreRowModel, getSortedRowModel, useReactTable, type ColumnDef, type SortingState } from "@tanstack/react-table";
import { ArrowDown, ArrowUp } from "lucide-react";
import { WideTable } from "./wide-table";

export interface ColumnLook {
  /** Classes of the column's cells and head: alignment, and from which width on it is shown. */
  className?: string;
}

export interface SortTableProps<Row> {
  label: string;
  rows: Row[];
  // The values of columns are of any type; a table only sorts and shows them.
  // eslint-disable-next-line @typescript-eslint/no-explicit-any
  columns: ColumnDef<Row, any>[];
  idOf(row: Row): string;
}

export function SortTable<Row>({ label, rows, columns, idOf }: SortTableProps<Row>) {
  const [sorting, setSorting] = useState<SortingState>([]);
  const table = useReactTable({
    data: rows,
    columns,
    state: { sorting },
    onSortingChange: setSorting,
    getRowId: idOf,
    getCoreRowModel: getCoreRowModel(),
    getSortedRowModel: getSortedRowModel(),
  });
  const lookOf = (meta: unknown) => (meta as ColumnLook | undefined)?.className ?? "";
  return (
    <WideTable label={label} className="table">
      <thead>
        {table.getHeaderGroups().map((group) => (
          <tr key={group.id}>
            {group.headers.map((head) => {
              const sorted = head.column.getIsSorted();
              const title = flexRender(head.column.columnDef.header, head.getContext());
              return (
                <th
                  key={head.id}
                  className={lookOf(head.column.columnDef.meta)}
                  aria-sort={sorted ? (sorted === "asc" ? "ascending" : "descending") : undefined}
                >
                  {head.column.getCanSort() ? (
                    <button className="inline-flex min-h-9 items-center gap-1" onClick={head.column.getToggleSortingHandler()}>
                      {title}
                      {sorted === "asc" && <ArrowUp className="size-3.5" aria-hidden />}
                      {sorted === "desc" && <ArrowDown className="size-3.5" aria-hidden />}
                    </button>
                  ) : (
                    title
                  )}
                </th>
              );
            })}
          </tr>
        ))}
      </thead>
      <tbody>
        {table.getRowModel().rows.map((row) => (
          <tr key={row.id} className="align-top hover:bg-base-200">
            {row.getVisibleCells().map((cell) => (
              <td key={cell.id} className={lookOf(cell.column.columnDef.meta)}>
                {flexRender(cell.column.columnDef.cell, cell.getContext())}
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </WideTable>
  );
}
