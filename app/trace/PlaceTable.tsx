import type { Place } from "@core/circuit/circuit";
import type { ColumnDef } from "@tanstack/react-table";
import { Cell } from "./Cell";
import { CircuitTable } from "./CircuitTable";
import { nameColumn, removeColumn, valueColumn } from "./columns";
import { cellValue } from "./partValues";

const placeColumns: ColumnDef<Place, string>[] = [
  nameColumn("places", "Place", "w-40"),
  valueColumn("places", "minutes", "Minutes to get there", "w-20"),
  {
    id: "parts",
    header: "Parts and plugs within reach there",
    enableSorting: false,
    cell: ({ row: { original } }) => (
      <Cell
        label={`parts at ${original.id}`}
        value={original.parts.join(" ")}
        width="w-full"
        edit={(text) => ({
          do: "set",
          list: "places",
          id: original.id,
          key: "parts",
          value: cellValue(text, original.parts),
        })}
      />
    ),
  },
  removeColumn("places"),
];

/** A circuit's places and what can be reached there. */
export function PlaceTable({ places }: { places: readonly Place[] }) {
  return (
    <CircuitTable caption="Places" rows={places} columns={placeColumns} rowId={(_, index) => String(index)} />
  );
}
