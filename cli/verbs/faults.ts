import type { Circuit } from "@core/circuit/circuit";
import { catalogue } from "@core/fault/catalogue";
import type { Parsed } from "@core/problem/problem";
import { buildNetlist } from "@core/solve/buildNetlist";

/** Every fault the engine considers in a circuit, with its part and its prior. */
export function listFaults(circuit: Circuit): Parsed<{ fault: string; part: string; prior: number }[]> {
  const netlist = buildNetlist(circuit);
  if (!netlist.ok) return netlist;
  return {
    ok: true,
    value: catalogue(netlist.value).map(({ id, fault, prior }) => ({
      fault: id,
      part: fault.parts.join("+"),
      prior,
    })),
  };
}
