import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import type { Circuit } from "../circuit/circuit";
import { parseCircuit } from "../circuit/parseCircuit";
import { type Repair, repairText } from "../fault/repair";
import type { Pattern } from "../predict/moment";
import type { Reading } from "../predict/reading";
import { CompiledCircuit } from "../predict/tables/compiledCircuit";
import { problemText } from "../problem/problem";
import { buildNetlist } from "../solve/buildNetlist";
import type { Netlist } from "../solve/netlist/netlist";
import { adoptSharedTables } from "./sharedTables";

const folder = join(process.cwd(), "demo", "circuits");

/** Ids of the circuits that ship with Airway. */
export const shippedIds: readonly string[] = readdirSync(folder).map((name) => name.replace(/\.json$/, ""));

/** A shipped circuit as stored in its file, for tests that spoil it. */
export function shippedJson(id: string): Record<string, unknown> {
  return JSON.parse(readFileSync(join(folder, `${id}.json`), "utf8")) as Record<string, unknown>;
}

export function shippedCircuit(id: string): Circuit {
  const parsed = parseCircuit(shippedJson(id));
  if (!parsed.ok) throw new Error(parsed.problems.map(problemText).join("; "));
  return parsed.value;
}

export function netlistOf(circuit: Circuit): Netlist {
  const netlist = buildNetlist(circuit);
  if (!netlist.ok) throw new Error(netlist.problems.map(problemText).join("; "));
  return netlist.value;
}

export const shippedNetlist = (id: string): Netlist => netlistOf(shippedCircuit(id));

const compiled = new Map<string, CompiledCircuit>();

/** A compiled shipped circuit with its usual tables solved; solved once for all suites of a run. */
export function shippedEngine(id: string): CompiledCircuit {
  const known = compiled.get(id);
  if (known) return known;
  const netlist = buildNetlist(shippedCircuit(id), { lumpWires: true });
  if (!netlist.ok) throw new Error(id);
  const made = new CompiledCircuit(netlist.value);
  adoptSharedTables(made);
  compiled.set(id, made);
  return made;
}

/** The complaint for each speed, as `heard` readings, each with how it comes and goes if that is told. */
export function heard(
  speeds: Readonly<Record<string, "none" | "weak" | "normal" | "strong">>,
  pattern?: Pattern,
): Reading[] {
  return Object.entries(speeds).map(([setting, seen]) => ({
    test: "airflow",
    heard: true,
    key: "run",
    setting,
    seen,
    ...(pattern ? { pattern } : {}),
  }));
}

/**
 * A circuit's repair by its text: `R1`, `M1+R1`, `unknown`.
 * @throws if no fault of the circuit has this repair
 */
export function repairIn({ repairs }: CompiledCircuit, text: string): Repair {
  const found = repairs.find((repair) => repairText(repair) === text);
  if (!found) throw new Error(text);
  return found;
}
