import { LRUCache } from "lru-cache";
import type { Circuit } from "../../circuit/circuit";
import type { Parsed } from "../../problem/problem";
import { buildNetlist } from "../../solve/buildNetlist";
import { CompiledCircuit, type CompileOptions } from "./compiledCircuit";

/** Compiled circuits kept by their content, the least recently used forgotten first. */
export class CircuitCache {
  private readonly kept: LRUCache<string, CompiledCircuit>;
  /** Content of circuits as a key: writing one out takes longer than finding it. */
  private readonly keys = new WeakMap<Circuit, string>();

  /**
   * @param most circuits kept at a time
   * @param options `keptMilliseconds`: how long one that is not asked for is kept, without end where it is not given
   */
  constructor(
    most: number,
    private readonly options: CompileOptions & { readonly keptMilliseconds?: number } = {},
  ) {
    const { keptMilliseconds } = options;
    this.kept = new LRUCache({
      max: most,
      ...(keptMilliseconds === undefined
        ? {}
        : { ttl: keptMilliseconds, ttlAutopurge: true, updateAgeOnGet: true }),
    });
  }

  /** The circuit made ready; a circuit met before, by content, is not compiled again. */
  compile(circuit: Circuit): Parsed<CompiledCircuit> {
    const key = this.keys.get(circuit) ?? JSON.stringify(circuit);
    this.keys.set(circuit, key);
    const known = this.kept.get(key);
    if (known) return { ok: true, value: known };
    const netlist = buildNetlist(circuit, { lumpWires: true });
    if (!netlist.ok) return netlist;
    const compiled = new CompiledCircuit(netlist.value, this.options);
    this.kept.set(key, compiled);
    return { ok: true, value: compiled };
  }
}
