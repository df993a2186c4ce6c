import { theCar } from "../fault/repair";
import type { OddsAt } from "./observations/observation";
import type { CompiledCircuit } from "./tables/compiledCircuit";
import { perCircuitAnd } from "./tables/perCircuit";

/** The kind of thing a fault is in, for tables of what it shows. */
export function faultKind(compiled: Pick<CompiledCircuit, "netlist">, where: string, part: string): string {
  if (where === theCar) return theCar;
  if (where.includes(":")) return "pin";
  const { circuit } = compiled.netlist;
  const found = circuit.parts.find(({ id }) => id === part);
  if (!found) return "wire";
  if (where.startsWith(`${part}/`)) return "socket";
  if (found.kind !== "resistor") return found.kind;
  const element = found.elements.find(({ id }) => where === `${part}.${id}`);
  return element && "thermalLink" in element ? "link" : "element";
}

/** The table's row for a suspect: by kind and mode, by mode alone, or the row of a sound vehicle. */
export function tabledOdds(
  compiled: CompiledCircuit,
  variant: number,
  table: Readonly<Record<string, readonly number[]>>,
  sound: readonly number[],
): readonly number[] {
  const { names = [], parts = [] } = compiled.variants[variant]?.fault ?? {};
  for (const [index, { where, mode }] of names.entries()) {
    const kind = faultKind(compiled, where, parts[index] ?? parts[0] ?? where);
    const own = table[`${kind} ${mode}`] ?? table[mode];
    if (own) return own;
  }
  return sound;
}

/**
 * Odds of words that depend on the suspect alone, computed once for each circuit and subject.
 * @param of the odds of one suspect; `healthyVariant` stands for no fault
 */
export function oddsBySuspect<K extends string>(
  of: (compiled: CompiledCircuit, variant: number, at: K) => readonly number[],
): (compiled: CompiledCircuit, at: K) => OddsAt {
  const rowsOf = perCircuitAnd((compiled, at: K) =>
    compiled.variants.map((_, variant) => of(compiled, variant, at)),
  );
  return (compiled, at) => {
    const rows = rowsOf(compiled, at);
    return (variant, _sample, out) => {
      const row = rows[variant] ?? of(compiled, variant, at);
      for (let i = 0; i < row.length; i++) out[i] = row[i] as number;
    };
  };
}
