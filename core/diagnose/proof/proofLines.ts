import type { PartKind } from "../../circuit/parts/index";
import { type Repair, theCar } from "../../fault/repair";
import { keyOfReading, type Reading } from "../../predict/reading";
import type { CompiledCircuit } from "../../predict/tables/compiledCircuit";
import { perCircuitAnd } from "../../predict/tables/perCircuit";
import type { Belief } from "../belief/belief";
import { tellsOfFault } from "../tests/tellsOfFault";
import { batteryProof } from "./batteryProof";
import { carProof } from "./carProof";
import { climatePanelProof } from "./climatePanelProof";
import { controlModuleProof } from "./controlModuleProof";
import { fuseProof } from "./fuseProof";
import { groundProof } from "./groundProof";
import { motorProof } from "./motorProof";
import { packProof } from "./packProof";
import { plugProof } from "./plugProof";
import type { Accused, ProofLine, ProofStep, ProofsOf } from "./proofStep";
import { relayProof } from "./relayProof";
import { switchProof } from "./switchProof";
import { wireProof } from "./wireProof";

const byKind: Readonly<Partial<Record<PartKind, ProofsOf>>> = {
  motor: motorProof,
  module: controlModuleProof,
  head: climatePanelProof,
  resistor: packProof,
  selector: switchProof,
  ignition: switchProof,
  relay: relayProof,
  fuse: fuseProof,
  inline: plugProof,
  ground: groundProof,
  battery: batteryProof,
};

function proofsFor({ netlist: { circuit } }: CompiledCircuit, part: string): ProofsOf {
  const kind = circuit.parts.find(({ id }) => id === part)?.kind;
  const own = kind && byKind[kind];
  if (own) return own;
  if (part === theCar) return carProof;
  if (circuit.connectors.some(({ id }) => id === part)) return plugProof;
  return circuit.wires.some(({ id }) => id === part) ? wireProof : () => [];
}

/** Proofs of a fault's parts: for each part its lines. */
export const proofLines = perCircuitAnd((compiled, variant: number): readonly (readonly ProofLine[])[] => {
  const { names = [], parts = [] } = compiled.variants[variant]?.fault ?? {};
  const withFuse = names.some(({ mode }) => mode === "blown");
  return names.map(({ where, mode }, index) => {
    const accused: Accused = { part: parts[index] ?? where, where, mode, withFuse };
    return proofsFor(compiled, accused.part)(compiled, accused);
  });
});

/** Whether each reading counts: it shows the fault, and its test was not taken again since. */
export function counting(readings: readonly Reading[]): boolean[] {
  const last = new Map(readings.map((reading, place) => [keyOfReading(reading), place]));
  return readings.map((reading, place) => tellsOfFault(reading) && last.get(keyOfReading(reading)) === place);
}

/** The places of readings that show the steps of a line; null for a step nothing shows. */
export const shownBy = (
  line: ProofLine,
  readings: readonly Reading[],
  counts: readonly boolean[],
): (number | null)[] =>
  line.steps.map(({ asks, shows }) => {
    const place = readings.findLastIndex(
      (reading, index) => counts[index] && asks(reading) && shows(reading),
    );
    return place < 0 ? null : place;
  });

/** The likeliest fault with a repair. */
export function likeliestOf(compiled: CompiledCircuit, belief: Belief, repair: Repair): number | null {
  let best: number | null = null;
  compiled.variants.forEach((own, variant) => {
    if (own.repair !== repair) return;
    if (best === null || (belief.variants[variant] as number) > (belief.variants[best] as number))
      best = variant;
  });
  return best;
}

/** The steps that no reading shows yet, of every part's proofs; none for a part that is proved. */
export function stepsLeft(compiled: CompiledCircuit, belief: Belief, repair: Repair): ProofStep[] {
  const variant = likeliestOf(compiled, belief, repair);
  if (variant === null) return [];
  const counts = counting(belief.readings);
  const left = new Set<ProofStep>();
  for (const lines of proofLines(compiled, variant)) {
    const shown = lines.map((line) => shownBy(line, belief.readings, counts));
    if (shown.some((places) => places.every((place) => place !== null))) continue;
    lines.forEach((line, index) => {
      for (const [at, step] of line.steps.entries()) if (shown[index]?.[at] === null) left.add(step);
    });
  }
  return [...left];
}
