import { minutesMinor, repairDefaults, type StoppingCosts } from "../money/stoppingCosts";
import type { CompiledCircuit } from "../predict/compiledCircuit";
import type { Forecast } from "./nextLook";

/** What a repair costs to fit: every part of it, its price and its minutes. */
export function fitCostMinor(compiled: CompiledCircuit, repair: string, costs: StoppingCosts): number {
  const { circuit } = compiled.netlist;
  return repair.split("+").reduce((sum, id) => {
    const part = circuit.parts.find((candidate) => candidate.id === id);
    const kind =
      part?.kind ??
      (circuit.connectors.some((connector) => connector.id === id)
        ? "connector"
        : circuit.wires.some((wire) => wire.id === id)
          ? "wire"
          : id === "CAR"
            ? "car"
            : "unknown");
    const own = repairDefaults[kind] ?? { priceMinor: 0, minutes: 60 };
    return sum + own.priceMinor + minutesMinor(own.minutes, costs);
  }, 0);
}

/** Expected cost of fitting the likeliest repair now: its own, and a comeback when it is the wrong one. */
function bestFitMinor(
  compiled: CompiledCircuit,
  repairs: readonly string[],
  belief: readonly number[],
  costs: StoppingCosts,
): number {
  let best = Number.POSITIVE_INFINITY;
  repairs.forEach((repair, i) => {
    if (repair === "unknown") return;
    const right = belief[i] ?? 0;
    const cost = fitCostMinor(compiled, repair, costs) + (1 - right) * costs.comebackMinor;
    if (cost < best) best = cost;
  });
  return best;
}

/** Fit now against one more look and then deciding. */
export interface Stopping {
  readonly fitNowMinor: number;
  /** Null when no look is left that tells anything. */
  readonly testMoreMinor: number | null;
  readonly bestLook: Forecast | null;
}

/**
 * Weighs stopping in money: the expected cost of fitting the likeliest repair now, against the
 * cheapest look's minutes plus the expected cost of the best repair after each way it can turn out.
 */
export function weighStopping(
  compiled: CompiledCircuit,
  repairs: ReadonlyMap<string, number>,
  looks: readonly Forecast[],
  costs: StoppingCosts,
): Stopping {
  const names = [...repairs.keys()];
  const fitNowMinor = Math.round(bestFitMinor(compiled, names, [...repairs.values()], costs));
  let testMoreMinor: number | null = null;
  let bestLook: Forecast | null = null;
  for (const look of looks) {
    const after = look.outcomes.reduce(
      (sum, outcome) => sum + outcome.p * bestFitMinor(compiled, look.repairs, outcome.repairs, costs),
      0,
    );
    const total = Math.round(minutesMinor(look.minutes, costs) + after);
    if (testMoreMinor === null || total < testMoreMinor) [testMoreMinor, bestLook] = [total, look];
  }
  return { fitNowMinor, testMoreMinor, bestLook };
}
