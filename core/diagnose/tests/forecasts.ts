import { comesAndGoes } from "../../predict/moment";
import type { Test } from "../../predict/reading";
import type { CompiledCircuit } from "../../predict/tables/compiledCircuit";
import { activeSuspects, cellsOf } from "../belief/activeSuspects";
import type { Belief } from "../belief/belief";
import { minutesNow, openPlaces, testCost } from "./access";
import { type Forecast, forecastTest } from "./forecast";

/** The circuit at the moment a test is best taken: where the symptom comes and goes, that is while it is there. */
export const whenTested = (circuit: CompiledCircuit, { readings }: Belief): CompiledCircuit =>
  comesAndGoes(readings) ? circuit.at("failing") : circuit;

/** Forecasts of any test under the present belief, whether or not it was taken before. */
export function forecasts(circuit: CompiledCircuit, belief: Belief): (look: Test) => Forecast {
  const compiled = whenTested(circuit, belief);
  const active = activeSuspects(compiled, belief);
  const cells = cellsOf(compiled, belief, active);
  const open = openPlaces(compiled, belief.readings);
  const { repairs, entropy } = active;
  return (look) => {
    const cost = testCost(compiled, look);
    const minutes = minutesNow(cost, open);
    const told = forecastTest(compiled, active, cells, look);
    const accessMinutes = minutes - cost.minutes;
    return { look, minutes, accessMinutes, ...told, repairs, entropy, outcomes: told.outcomes() };
  };
}
