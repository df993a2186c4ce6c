import type { Circuit } from "../../circuit/circuit";
import { notListed, type Repair, theCar } from "../../fault/repair";
import { minutesMinor, type RepairCost, repairDefaults, type StoppingCosts } from "../../money/stoppingCosts";
import type { CompiledCircuit } from "../../predict/tables/compiledCircuit";
import { perCircuitAnd } from "../../predict/tables/perCircuit";
import { rankedRepairs } from "../belief/belief";
import type { Forecast } from "../tests/forecast";

const noRepair: RepairCost = { priceMinor: 0, minutes: 60 };

/** What a repair costs: the price and the minutes of every part. */
export function fitCostMinor(compiled: CompiledCircuit, repair: Repair, costs: StoppingCosts): number {
  const own = fitCosts(compiled, costs);
  const met = own.get(repair);
  if (met !== undefined) return met;
  const sum = repair.parts.reduce((total, id) => {
    const { priceMinor, minutes } = usualRepair(compiled.netlist.circuit, id, costs.repairs);
    return total + priceMinor + minutesMinor(minutes, costs);
  }, 0);
  own.set(repair, sum);
  return sum;
}

const fitCosts = perCircuitAnd<StoppingCosts, Map<Repair, number>>(() => new Map());

/**
 * The kind of part that sets a repair's price: the part's own kind, `connector`, `wire` or `car`.
 * @returns `unknown`, as stored records spell it, for an id that is not in the circuit
 */
export function repairKind(circuit: Circuit, id: string): string {
  const part = circuit.parts.find((candidate) => candidate.id === id);
  if (part) return part.kind;
  if (circuit.connectors.some((connector) => connector.id === id)) return "connector";
  if (circuit.wires.some((wire) => wire.id === id)) return "wire";
  return id === theCar ? "car" : "unknown";
}

/**
 * Price and minutes that a repair of something usually takes.
 * @param own the shop's own figures, by id or by kind; the table's are used where it has none
 */
export function usualRepair(
  circuit: Circuit,
  id: string,
  own?: Readonly<Record<string, RepairCost>>,
): RepairCost {
  const kind = repairKind(circuit, id);
  return own?.[id] ?? own?.[kind] ?? repairDefaults[kind] ?? noRepair;
}

/** A repair with less belief than this is never the one to do. */
const leastRight = 0.02;

/** Cost of each repair; the unknown has none. */
const pricesOf = (compiled: CompiledCircuit, repairs: readonly Repair[], costs: StoppingCosts): number[] =>
  repairs.map((repair) =>
    repair === notListed ? Number.POSITIVE_INFINITY : fitCostMinor(compiled, repair, costs),
  );

/** Expected cost of doing the likeliest repair now: its own, plus a comeback if it is the wrong one. */
function bestFitMinor(prices: readonly number[], belief: readonly number[], comebackMinor: number): number {
  let best = Number.POSITIVE_INFINITY;
  for (let i = 0; i < prices.length; i++) {
    const right = belief[i] as number;
    if (right < leastRight) continue;
    const cost = (prices[i] as number) + (1 - right) * comebackMinor;
    if (cost < best) best = cost;
  }
  return best;
}

/**
 * What knowing a test's result saves: the expected cost of the repair that is best now, less that of the best one after
 * each result. A test whose results all lead to the same repair saves nothing.
 */
function savedMinor({ outcomes }: Forecast, prices: readonly number[], comebackMinor: number): number {
  const now = prices.map((_, i) =>
    outcomes.reduce((sum, { p, repairs }) => sum + p * (repairs[i] as number), 0),
  );
  const cost = (repair: number, belief: readonly number[]): number =>
    (prices[repair] as number) + (1 - (belief[repair] as number)) * comebackMinor;
  const best = now.reduce(
    (own, p, repair) => (p >= leastRight && (own < 0 || cost(repair, now) < cost(own, now)) ? repair : own),
    -1,
  );
  if (best < 0) return 0;
  return outcomes.reduce((sum, { p, repairs }) => {
    const after = bestFitMinor(prices, repairs, comebackMinor);
    return sum + p * Math.max(0, cost(best, repairs) - after);
  }, 0);
}

/** Repairing now compared with one more test before deciding. */
export interface Stopping {
  readonly fitNowMinor: number;
  /** Null if no informative test is left. */
  readonly testMoreMinor: number | null;
  readonly bestLook: Forecast | null;
  /** Belief in the likeliest repair above which doing it now is cheaper; null if nothing is left to test. */
  readonly breakEven: number | null;
}

/** Minutes for reading the instructions, setting up and writing down, added to each test (judgement). */
const handlingMinutes = 0.8;
/** Doubt left at the end of a series of tests (judgement). */
const doubtLeft = 0.01;
/** A test with fewer bits than this tells next to nothing (judgement). */
const leastTold = 0.008;
/** A test with fewer bits than this does not start a series. */
const leastBits = 0.02;
/**
 * The longest series of tests worth considering. If it would take more, even the best remaining test cannot tell the
 * remaining suspects apart (judgement).
 */
const longestSeries = 10;

/** Expected cost of the right repair, whichever it turns out to be. */
function rightFitMinor(
  compiled: CompiledCircuit,
  repairs: ReadonlyMap<Repair, number>,
  costs: StoppingCosts,
): number {
  let sum = 0;
  let known = 0;
  for (const [repair, p] of repairs) {
    if (repair === notListed || p < leastRight) continue;
    sum += p * fitCostMinor(compiled, repair, costs);
    known += p;
  }
  return known > 0 ? sum / known : 0;
}

/**
 * Cost of repeating tests like this one until the doubt is gone. If no single outcome would change the repair, one
 * test alone seems worthless although a few of them decide. The location is only opened once.
 */
function seriesMinor(test: Forecast, fitMinor: number, costs: StoppingCosts): number {
  if (test.bits < leastBits) return Number.POSITIVE_INFINITY;
  const tests = Math.max(1, test.entropy / test.bits);
  if (tests > longestSeries) return Number.POSITIVE_INFINITY;
  const each = test.minutes - test.accessMinutes + handlingMinutes;
  return minutesMinor(test.accessMinutes + each * tests, costs) + fitMinor + doubtLeft * costs.comebackMinor;
}

/**
 * Weighs stopping in money: the expected cost of doing the likeliest repair now, against the cheapest test's minutes
 * plus the expected cost of the best repair after each outcome.
 */
export function weighStopping(
  compiled: CompiledCircuit,
  repairs: ReadonlyMap<Repair, number>,
  tests: readonly Forecast[],
  costs: StoppingCosts,
): Stopping {
  const { comebackMinor } = costs;
  const fitNowMinor = Math.round(
    bestFitMinor(pricesOf(compiled, [...repairs.keys()], costs), [...repairs.values()], comebackMinor),
  );
  const fitMinor = rightFitMinor(compiled, repairs, costs);
  let testMoreMinor: number | null = null;
  let bestLook: Forecast | null = null;
  // All tests of one weighing share their list of repairs.
  let named: readonly Repair[] | null = null;
  let prices: readonly number[] = [];
  for (const test of tests) {
    if (test.repairs !== named) [named, prices] = [test.repairs, pricesOf(compiled, test.repairs, costs)];
    // A test that tells next to nothing is only worth waiting for if a result would change the repair. One that tells
    // more also pays by ruling out the many unlikely suspects.
    const after =
      test.bits < leastTold
        ? fitNowMinor - savedMinor(test, prices, comebackMinor)
        : test.outcomes.reduce(
            (sum, { p, repairs: left }) => sum + p * bestFitMinor(prices, left, comebackMinor),
            0,
          );
    const one = minutesMinor(test.minutes + handlingMinutes, costs) + after;
    const total = Math.round(Math.min(one, seriesMinor(test, fitMinor, costs)));
    if (testMoreMinor === null || total < testMoreMinor) [testMoreMinor, bestLook] = [total, test];
  }
  return {
    fitNowMinor,
    testMoreMinor,
    bestLook,
    breakEven: breakEven(compiled, repairs, testMoreMinor, costs),
  };
}

/** Repairing costs F + (1 − p) × comeback; this is the p at which it equals the cost of further testing. */
function breakEven(
  compiled: CompiledCircuit,
  repairs: ReadonlyMap<Repair, number>,
  testMoreMinor: number | null,
  costs: StoppingCosts,
): number | null {
  const [first] = rankedRepairs(repairs);
  if (testMoreMinor === null || !first || costs.comebackMinor <= 0) return null;
  const spare = testMoreMinor - fitCostMinor(compiled, first[0], costs);
  return Math.min(1, Math.max(0, 1 - spare / costs.comebackMinor));
}
