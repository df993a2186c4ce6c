import type { Connector } from "@core/circuit/circuit";
import type { ColumnDef } from "@tanstack/react-table";
import { useMemo } from "react";
import { Cell, useEditing } from "./Cell";
import { CircuitTable } from "./CircuitTable";
import { renameCell } from "./columns";

interface PinRow {
  readonly id: string;
  /** Stays the same while its plug or pin is renamed, so that the focus stays in its row. */
  readonly row: string;
  readonly plug: Connector;
  readonly pin: string;
  readonly terminal: string;
}

const pinColumns: ColumnDef<PinRow, string>[] = [
  {
    id: "plug",
    header: "Plug",
    accessorFn: ({ plug }) => plug.id,
    cell: ({ row: { original, index } }) => (
      <div className="flex gap-2">
        {renameCell("connectors", original.plug.id)}
        <Cell
          label={`title of ${original.plug.id}, line ${index + 1}`}
          value={original.plug.title ?? ""}
          width="w-40"
          edit={(text) => ({
            do: "set",
            list: "connectors",
            id: original.plug.id,
            key: "title",
            value: text.trim() || null,
          })}
        />
      </div>
    ),
  },
  {
    id: "pin",
    header: "Pin",
    accessorFn: ({ pin }) => pin,
    sortingFn: "alphanumeric",
    cell: ({ row: { original } }) => (
      <Cell
        label={`pin ${original.id}`}
        value={original.pin}
        width="w-16"
        edit={(to) => ({ do: "pin", id: original.plug.id, pin: original.pin, to: to.trim() })}
      />
    ),
  },
  {
    id: "terminal",
    header: "Connects to",
    accessorFn: ({ terminal }) => terminal,
    cell: ({ row: { original } }) => (
      <Cell
        label={`where ${original.id} connects to`}
        value={original.terminal}
        width="w-28"
        terminal
        edit={(value) => ({
          do: "set",
          list: "connectors",
          id: original.plug.id,
          key: `pins.${original.pin}`,
          value,
        })}
      />
    ),
  },
  {
    id: "remove",
    header: "",
    enableSorting: false,
    cell: ({ row: { original } }) => <RemovePin {...original} />,
  },
];

function RemovePin({ id, plug, pin }: PinRow) {
  const { send } = useEditing();
  const last = Object.keys(plug.pins).length === 1;
  return (
    <button
      type="button"
      className="min-h-11 px-1 whitespace-nowrap underline"
      aria-label={`delete pin ${id}`}
      onClick={() =>
        send(
          last
            ? { do: "remove", list: "connectors", id: plug.id }
            : { do: "set", list: "connectors", id: plug.id, key: `pins.${pin}`, value: null },
        )
      }
    >
      delete{" "}
    </button>
  );
}

/** The pins of a circuit's plugs, one row each. */
export function PinTable({ connectors }: { connectors: readonly Connector[] }) {
  const rows = useMemo(
    () =>
      connectors.flatMap((plug, index) =>
        Object.entries(plug.pins).map(
          ([pin, terminal]): PinRow => ({
            id: `${plug.id}:${pin}`,
            row: `${index} ${terminal}`,
            plug,
            pin,
            terminal,
          }),
        ),
      ),
    [connectors],
  );
  return <CircuitTable caption="Pins" rows={rows} columns={pinColumns} rowId={({ row }) => row} />;
}
