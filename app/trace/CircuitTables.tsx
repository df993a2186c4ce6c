import type { Circuit } from "@core/circuit/circuit";
import type { CircuitEdit } from "@core/circuit/circuitEdit";
import { terminalsOf } from "@core/circuit/parts/index";
import { Tabs } from "radix-ui";
import { useMemo } from "react";
import { AddElement, AddPart, AddPin, AddWire } from "./AddItem";
import { Cell, EditingProvider } from "./Cell";
import { PartTable } from "./PartTable";
import { PinTable } from "./PinTable";
import { PlaceTable } from "./PlaceTable";
import { WireTable } from "./WireTable";

/** Where a wire can end or a pin be plugged: every terminal of every part. */
const terminalsIn = ({ parts }: Circuit): string[] =>
  parts.flatMap((part) => terminalsOf(part).map((terminal) => `${part.id}.${terminal}`));

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
  /** The circuit's questions; null if it did not start with questions. */
  readonly questions: React.ReactNode | null;
  /** Shown below the wires. */
  readonly children?: React.ReactNode;
}

/** A circuit's questions, and its wires, parts, pins and places in tables; every cell can be changed. */
export function CircuitTables({ circuit, onEdit, questions, children }: CircuitTablesProps) {
  const terminals = useMemo(() => terminalsIn(circuit), [circuit]);
  const editing = useMemo(() => ({ circuit, terminals, send: onEdit }), [circuit, terminals, onEdit]);
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
          <WireTable wires={circuit.wires} />
          <AddWire terminals={terminals} />
          {children}
        </Tabs.Content>
        <Tabs.Content value="parts" className="grid gap-3 pt-2">
          <fieldset className="flex flex-wrap items-end gap-2">
            <legend className="text-base text-soft">Names of the speeds</legend>
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
          <PartTable parts={circuit.parts} />
          <AddPart />
          <AddElement />
        </Tabs.Content>
        <Tabs.Content value="pins" className="grid gap-3 pt-2">
          <PinTable connectors={circuit.connectors} />
          <AddPin terminals={terminals} />
        </Tabs.Content>
        <Tabs.Content value="places" className="pt-2">
          <PlaceTable places={circuit.places} />
        </Tabs.Content>
      </Tabs.Root>
    </EditingProvider>
  );
}
