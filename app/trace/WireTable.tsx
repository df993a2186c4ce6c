import type { Wire } from "@core/circuit/circuit";
import type { ColumnDef } from "@tanstack/react-table";
import { Cell } from "./Cell";
import { CircuitTable } from "./CircuitTable";
import { assumedColumn, nameColumn, removeColumn, valueColumn } from "./columns";

const wireColumns: ColumnDef<Wire, string>[] = [
  nameColumn("wires", "Wire"),
  valueColumn("wires", "from", "From", "w-24", true),
  valueColumn("wires", "to", "To", "w-24", true),
  {
    id: "colour",
    header: "Colour",
    accessorFn: ({ colour, colourName }) => colourName ?? colour,
    cell: ({ row: { original } }) => (
      <Cell
        label={`Colour of ${original.id}`}
        value={original.colourName ?? original.colour}
        width="w-20"
        guess={original.assumed === true}
        edit={(value) => ({ do: "set", list: "wires", id: original.id, key: "colour", value })}
      />
    ),
  },
  valueColumn("wires", "mm2", "mm²", "w-14"),
  valueColumn("wires", "metres", "Metres", "w-14"),
  assumedColumn("wires"),
  removeColumn("wires"),
];

/** A circuit's wires. */
export function WireTable({ wires }: { wires: readonly Wire[] }) {
  return (
    <CircuitTable caption="Wires" rows={wires} columns={wireColumns} rowId={(_, index) => String(index)} />
  );
}
