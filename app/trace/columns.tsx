import type { CircuitEdit, CircuitList } from "@core/circuit/circuitEdit";
import type { ColumnDef } from "@tanstack/react-table";
import { Cell, useEditing } from "./Cell";
import { cellValue } from "./partValues";

// Columns are made once, because a new column's cells would replace one that is being typed in.

function Remove({ list, id }: { list: CircuitList; id: string }) {
  const { send } = useEditing();
  return (
    <button
      type="button"
      className="min-h-11 px-1 whitespace-nowrap underline"
      aria-label={`delete ${id}`}
      onClick={() => send({ do: "remove", list, id })}
    >
      delete{" "}
    </button>
  );
}

/** A tick for guessed values. */
function Assumed({ list, id, assumed }: { list: "parts" | "wires"; id: string; assumed: boolean }) {
  const { send } = useEditing();
  return (
    <label className="flex min-h-11 items-center gap-1.5">
      <input
        type="checkbox"
        className="size-5 accent-ink"
        checked={assumed}
        aria-label={`${id} is assumed`}
        onChange={({ target }) =>
          send({ do: "set", list, id, key: "assumed", value: target.checked ? true : null })
        }
      />
    </label>
  );
}

/** The cell of an item's name. */
export const renameCell = (list: CircuitList, id: string, width = "w-16") => (
  <Cell
    label={`name of ${id}`}
    value={id}
    width={width}
    edit={(to) => ({ do: "rename", list, id, to: to.trim() })}
  />
);

/** A column with the plain value of one key. */
export function valueColumn<Row extends { readonly id: string }>(
  list: CircuitList,
  key: keyof Row & string,
  title: string,
  width: string,
  terminal = false,
): ColumnDef<Row, string> {
  return {
    id: key,
    header: title,
    accessorFn: (row) => (row[key] ?? "") as string,
    sortingFn: "alphanumeric",
    cell: ({ row: { original } }) => {
      const value = original[key] as string | number | undefined;
      return (
        <Cell
          label={`${title} of ${original.id}`}
          value={value === undefined ? "" : String(value)}
          width={width}
          terminal={terminal}
          edit={(text): CircuitEdit => ({
            do: "set",
            list,
            id: original.id,
            key,
            value: text.trim() === "" && typeof value !== "number" ? null : cellValue(text, value ?? ""),
          })}
        />
      );
    },
  };
}

/** The column of the items' names; a part's title stands below its id. */
export function nameColumn<Row extends { readonly id: string; readonly title?: string | undefined }>(
  list: CircuitList,
  title: string,
  width?: string,
): ColumnDef<Row, string> {
  return {
    id: "id",
    header: title,
    accessorFn: ({ id }) => id,
    sortingFn: "alphanumeric",
    cell: ({ row: { original } }) => (
      <>
        {renameCell(list, original.id, width)}
        {original.title && <span className="text-[0.9rem] text-soft">{original.title}</span>}
      </>
    ),
  };
}

/** The column that removes an item. */
export const removeColumn = <Row extends { readonly id: string }>(
  list: CircuitList,
): ColumnDef<Row, string> => ({
  id: "remove",
  header: "",
  enableSorting: false,
  cell: ({ row: { original } }) => <Remove list={list} id={original.id} />,
});

/** The column that marks an item's values as a guess. */
export const assumedColumn = <Row extends { readonly id: string; readonly assumed?: true | undefined }>(
  list: "parts" | "wires",
): ColumnDef<Row, string> => ({
  id: "assumed",
  header: "Assumed",
  accessorFn: ({ assumed }) => (assumed ? "yes" : ""),
  cell: ({ row: { original } }) => (
    <Assumed list={list} id={original.id} assumed={original.assumed ?? false} />
  ),
});
