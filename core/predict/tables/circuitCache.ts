import type { Circuit } from "../../circuit/circuit";
import type { Parsed } from "../../problem/problem";
import { buildNetlist } from "../../solve/buildNetlist";
import { CompiledCircuit, type CompileOptions } from "./compiledCircuit";

/** Compiled circuits kept by their content, the least recently used forgotten first. */
export class CircuitCache {
  private readonly kept = new Map<string, CompiledCircuit>();
  /** Content of circuits as a key: writing one out takes longer than finding it. */
  private readonly keys = new WeakMap<Circuit, string>();

  constructor(
    private readonly most: number,
    private readonly options: CompileOptions = {},
  ) {}

  /** The circuit made ready; a circuit met before, by content, is not compiled again. */
  compile(circuit: Circuit): Parsed<CompiledCircuit> {
    const key = this.keys.get(circuit) ?? JSON.stringify(circuit);
    this.keys.set(circuit, key);
    const known = this.kept.get(key);
    if (known) {
      this.kept.delete(key);
      this.kept.set(key, known);
      return { ok: true, value: known };
    }
    const netlist = buildNetlist(circuit, { lumpWires: true });
    if (!netlist.ok) return netlist;
    const compiled = new CompiledCircuit(netlist.value, this.options);
    this.kept.set(key, compiled);
    if (this.kept.size > this.most) this.kept.delete(this.kept.keys().next().value as string);
    return { ok: true, value: compiled };
  }
}
