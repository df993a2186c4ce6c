import type { Circuit, Connector, Place, Wire } from "@core/circuit/circuit";
import type { CircuitEdit, CircuitList } from "@core/circuit/circuitEdit";
import { type Part, terminalsOf } from "@core/circuit/parts/index";
import type { ColumnDef } from "@tanstack/react-table";
import { Tabs } from "radix-ui";
import { useMemo } from "react";
import { AddElement, AddPart, AddPin, AddWire } from "./AddItem";
import { Cell, EditingProvider, useEditing } from "./Cell";
import { CircuitTable } from "./CircuitTable";
import { cellText, cellValue, partValues } from "./partValues";

/** Where a wire can end or a pin be plugged: every terminal of every part. */
const terminalsIn = ({ parts }: Circuit): string[] =>
  parts.flatMap((part) => terminalsOf(part).map((terminal) => `${part.id}.${terminal}`));

function Remove({ list, id }: { list: CircuitList; id: string }) {
  const { send } = useEditing();
  return (
    <button
      type="button"
      className="min-h-11 px-1 whitespace-nowrap underline"
      aria-label={`take out ${id}`}
      onClick={() => send({ do: "remove", list, id })}
    >
      out
    </button>
  );
}

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

const renameCell = (list: CircuitList, id: string, width = "w-16") => (
  <Cell
    label={`name of ${id}`}
    value={id}
    width={width}
    edit={(to) => ({ do: "rename", list, id, to: to.trim() })}
  />
);

/** Takes a coil or a link out of its pack. */
function RemoveElement({ part, element, at }: { part: string; element: string; at: string }) {
  const { send } = useEditing();
  return (
    <button
      type="button"
      className="min-h-11 px-1 text-left whitespace-nowrap underline"
      aria-label={`take ${element} out of ${part}`}
      onClick={() => send({ do: "set", list: "parts", id: part, key: at, value: null })}
    >
      out
    </button>
  );
}

/** A column of plain values of one key. */
function valueColumn<Row extends { readonly id: string }>(
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

function nameColumn<Row extends { readonly id: string }>(
  list: CircuitList,
  title: string,
  width?: string,
): ColumnDef<Row, string> {
  return {
    id: "id",
    header: title,
    accessorFn: ({ id }) => id,
    sortingFn: "alphanumeric",
    cell: ({ row: { original } }) => renameCell(list, original.id, width),
  };
}

const removeColumn = <Row extends { readonly id: string }>(list: CircuitList): ColumnDef<Row, string> => ({
  id: "remove",
  header: "",
  enableSorting: false,
  cell: ({ row: { original } }) => <Remove list={list} id={original.id} />,
});

const wireColumns: ColumnDef<Wire, string>[] = [
  nameColumn("wires", "Wire"),
  valueColumn("wires", "from", "From", "w-24", true),
  valueColumn("wires", "to", "To", "w-24", true),
  valueColumn("wires", "colour", "Colour", "w-18"),
  valueColumn("wires", "mm2", "mm²", "w-14"),
  valueColumn("wires", "metres", "Metres", "w-14"),
  {
    id: "assumed",
    header: "Guess",
    accessorFn: ({ assumed }) => (assumed ? "yes" : ""),
    cell: ({ row: { original } }) => (
      <Assumed list="wires" id={original.id} assumed={original.assumed ?? false} />
    ),
  },
  removeColumn("wires"),
];

// Columns stay what they are while the circuit changes: a new cell would take the place of one being typed in.
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
  {
    id: "assumed",
    header: "Guess",
    accessorFn: ({ assumed }) => (assumed ? "yes" : ""),
    cell: ({ row: { original } }) => (
      <Assumed list="parts" id={original.id} assumed={original.assumed ?? false} />
    ),
  },
  removeColumn("parts"),
];

interface PinRow {
  readonly id: string;
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
    header: "Goes to",
    accessorFn: ({ terminal }) => terminal,
    cell: ({ row: { original } }) => (
      <Cell
        label={`where ${original.id} goes`}
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
      aria-label={`take out pin ${id}`}
      onClick={() =>
        send(
          last
            ? { do: "remove", list: "connectors", id: plug.id }
            : { do: "set", list: "connectors", id: plug.id, key: `pins.${pin}`, value: null },
        )
      }
    >
      out
    </button>
  );
}

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

const tabs = [
  ["questions", "Questions"],
  ["wires", "Wires"],
  ["parts", "Parts"],
  ["pins", "Pins"],
  ["places", "Places"],
] as const;

interface CircuitTablesProps {
  readonly circuit: Circuit;
  readonly onEdit: (edit: CircuitEdit) => void;
  /** What the circuit is asked for; null where it did not begin with questions. */
  readonly questions: React.ReactNode | null;
  /** Below the wires. */
  readonly children?: React.ReactNode;
}

/** A circuit's questions, and its wires, parts, pins and places, every cell of them to be changed. */
export function CircuitTables({ circuit, onEdit, questions, children }: CircuitTablesProps) {
  const terminals = useMemo(() => terminalsIn(circuit), [circuit]);
  const editing = useMemo(() => ({ circuit, terminals, send: onEdit }), [circuit, terminals, onEdit]);
  const pinRows = useMemo(
    () =>
      circuit.connectors.flatMap((plug) =>
        Object.entries(plug.pins).map(
          ([pin, terminal]): PinRow => ({ id: `${plug.id}:${pin}`, plug, pin, terminal }),
        ),
      ),
    [circuit],
  );
  const idOf = ({ id }: { readonly id: string }): string => id;
  return (
    <EditingProvider value={editing}>
      <Tabs.Root defaultValue={questions ? "questions" : "wires"} className="sheet-card p-3">
        <Tabs.List aria-label="Questions and tables" className="flex flex-wrap border-b border-rule">
          {tabs.slice(questions ? 0 : 1).map(([value, title]) => (
            <Tabs.Trigger
              key={value}
              value={value}
              className="min-h-11 border-b-4 border-transparent px-3 text-base data-[state=active]:border-feed data-[state=active]:font-bold"
            >
              {title}
            </Tabs.Trigger>
          ))}
        </Tabs.List>
        {questions && (
          <Tabs.Content value="questions" className="max-w-[26rem] p-2">
            {questions}
          </Tabs.Content>
        )}
        <Tabs.Content value="wires" className="grid gap-3 pt-2">
          <CircuitTable caption="Wires" rows={circuit.wires} columns={wireColumns} rowId={idOf} />
          <AddWire terminals={terminals} />
          {children}
        </Tabs.Content>
        <Tabs.Content value="parts" className="grid gap-3 pt-2">
          <fieldset className="flex flex-wrap items-end gap-2">
            <legend className="text-base text-soft">What the settings are called</legend>
            {circuit.settings.map((setting, index) => (
              <Cell
                key={`${index} ${setting}`}
                label={`setting ${index + 1}`}
                value={setting}
                width="w-20"
                edit={(to) => ({ do: "setting", from: setting, to: to.trim() })}
              />
            ))}
          </fieldset>
          <CircuitTable caption="Parts" rows={circuit.parts} columns={partColumns} rowId={idOf} />
          <AddPart />
          <AddElement />
        </Tabs.Content>
        <Tabs.Content value="pins" className="grid gap-3 pt-2">
          <CircuitTable caption="Pins" rows={pinRows} columns={pinColumns} rowId={idOf} />
          <AddPin terminals={terminals} />
        </Tabs.Content>
        <Tabs.Content value="places" className="pt-2">
          <CircuitTable caption="Places" rows={circuit.places} columns={placeColumns} rowId={idOf} />
        </Tabs.Content>
      </Tabs.Root>
    </EditingProvider>
  );
}
