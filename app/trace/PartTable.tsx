import type { Part } from "@core/circuit/parts/index";
import type { ColumnDef } from "@tanstack/react-table";
import { Cell, useEditing } from "./Cell";
import { CircuitTable } from "./CircuitTable";
import { assumedColumn, nameColumn, removeColumn, valueColumn } from "./columns";
import { cellText, cellValue, partValues } from "./partValues";

/** Removes a coil or a link from its pack. */
function RemoveElement({ part, element, at }: { part: string; element: string; at: string }) {
  const { send } = useEditing();
  return (
    <button
      type="button"
      className="min-h-11 px-1 text-left whitespace-nowrap underline"
      aria-label={`delete ${element} from ${part}`}
      onClick={() => send({ do: "set", list: "parts", id: part, key: at, value: null })}
    >
      delete{" "}
    </button>
  );
}

const partColumns: ColumnDef<Part, string>[] = [
  nameColumn("parts", "Part"),
  { id: "kind", header: "Kind", accessorFn: ({ kind }) => kind, cell: ({ getValue }) => getValue() },
  {
    id: "values",
    header: "Values",
    enableSorting: false,
    cell: ({ row: { original } }) => (
      <div className="flex flex-wrap gap-x-3 gap-y-1">
        {partValues(original).map(({ key, words, value }) => (
          <div key={key} className="grid gap-0.5 text-[0.9rem] text-soft">
            <span aria-hidden="true">{words}</span>
            <Cell
              label={`${words} of ${original.id}`}
              value={cellText(value)}
              width={typeof value === "number" ? "w-20" : "w-24"}
              guess={original.assumed === true}
              edit={(text) => ({
                do: "set",
                list: "parts",
                id: original.id,
                key,
                value: cellValue(text, value),
              })}
            />
            {/^elements\.\d+\.id$/.test(key) && (
              <RemoveElement part={original.id} element={cellText(value)} at={key.slice(0, -3)} />
            )}
          </div>
        ))}
      </div>
    ),
  },
  valueColumn("parts", "place", "Where it is", "w-32"),
  assumedColumn("parts"),
  removeColumn("parts"),
];

/** A circuit's parts, each with all its values. */
export function PartTable({ parts }: { parts: readonly Part[] }) {
  return (
    <CircuitTable caption="Parts" rows={parts} columns={partColumns} rowId={(_, index) => String(index)} />
  );
}
