import type { Circuit } from "@core/circuit/circuit";
import type { KeyPosition } from "@core/circuit/parts/ignition";
import { keyPositions } from "@core/circuit/parts/ignition";
import { faultFromId } from "@core/fault/fault";
import { spiceNetlist } from "@core/formats/spiceNetlist";
import { type Parsed, quoted, refused } from "@core/problem/problem";
import { buildNetlist } from "@core/solve/buildNetlist";
import type { Change } from "@core/solve/netlist/change";
import type { Netlist } from "@core/solve/netlist/netlist";
import { type Setup, setupProblems } from "@core/solve/netlist/setup";
import { type OperatingPoint, operatingPoint } from "@core/solve/operatingPoint";

/** The options of `solve` from the command line. */
export interface SolveOptions {
  readonly key?: string | undefined;
  readonly engine?: boolean | undefined;
  readonly setting?: string | undefined;
  readonly selector?: readonly string[] | undefined;
  readonly fault?: string | undefined;
  readonly unplugged?: readonly string[] | undefined;
  readonly bridged?: readonly string[] | undefined;
  readonly "lamp-for"?: string | undefined;
}

interface Asked {
  readonly netlist: Netlist;
  readonly setup: Setup;
  readonly changes: readonly Change[];
}

/** The set-up and fault a command asks for, checked against the circuit. */
function asked(circuit: Circuit, options: SolveOptions): Parsed<Asked> {
  const netlist = buildNetlist(circuit);
  if (!netlist.ok) return netlist;
  const setup = setupFrom(options);
  if (!setup.ok) return setup;
  const wrong = setupProblems(netlist.value, setup.value);
  if (wrong.length > 0) return refused(wrong);
  const ready = (changes: readonly Change[]): Parsed<Asked> => ({
    ok: true,
    value: { netlist: netlist.value, setup: setup.value, changes },
  });
  if (options.fault === undefined) return ready([]);
  const fault = faultFromId(netlist.value, options.fault);
  return fault.ok ? ready(fault.value.changes) : fault;
}

/** One set-up of a circuit, healthy or with a fault in it. */
export function solveCircuit(circuit: Circuit, options: SolveOptions): Parsed<OperatingPoint> {
  const found = asked(circuit, options);
  if (!found.ok) return found;
  const { netlist, setup, changes } = found.value;
  return { ok: true, value: operatingPoint(netlist, setup, changes) };
}

/** The same operating point as an ngspice netlist. */
export function spiceCircuit(circuit: Circuit, options: SolveOptions): Parsed<string> {
  const found = asked(circuit, options);
  if (!found.ok) return found;
  const { netlist, setup, changes } = found.value;
  return { ok: true, value: spiceNetlist(netlist, setup, changes).text };
}

function setupFrom(options: SolveOptions): Parsed<Setup> {
  const { key } = options;
  if (key !== undefined && !keyPositions.includes(key as KeyPosition))
    return refused([
      {
        code: "wrong-value",
        path: "--key",
        message: `expected ${keyPositions.join(", ")}, got ${quoted(key)}`,
      },
    ]);
  const selectors = pairs(options.selector ?? [], "=", "--selector", "S3=1");
  if (!selectors.ok) return selectors;
  const bridged = pairs(options.bridged ?? [], ",", "--bridged", "X3:1,G1.+");
  if (!bridged.ok) return bridged;
  return {
    ok: true,
    value: {
      key: key as KeyPosition | undefined,
      engine: options.engine,
      setting: options.setting,
      selectors: Object.fromEntries(selectors.value),
      unplugged: options.unplugged,
      bridged: bridged.value,
      lampFor: options["lamp-for"],
    },
  };
}

function pairs(
  texts: readonly string[],
  mark: string,
  flag: string,
  example: string,
): Parsed<[string, string][]> {
  const split = texts.map((text) => text.split(mark));
  const wrong = split.findIndex((pieces) => pieces.length !== 2 || pieces.includes(""));
  if (wrong >= 0)
    return refused([
      { code: "wrong-value", path: flag, message: `expected ${example}, got ${quoted(texts[wrong])}` },
    ]);
  return { ok: true, value: split as [string, string][] };
}
