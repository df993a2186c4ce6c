import { airflowTest } from "./airflow";
import { ampsTest } from "./amps";
import { historyTest } from "./history";
import { inspectTest } from "./inspect";
import { lamploadTest } from "./lampload";
import { lightTest } from "./light";
import { listenTest } from "./listen";
import { ohmsTest } from "./ohms";
import { rippleTest } from "./ripple";
import { smellTest } from "./smell";
import { spinTest } from "./spin";
import { swapTest } from "./swap";
import { tapTest } from "./tap";
import { voltsTest } from "./volts";

/**
 * Every test Airway understands, in the order in which tests of equal worth are suggested. To add one, add a file
 * here.
 */
export const observations = [
  airflowTest,
  lightTest,
  inspectTest,
  listenTest,
  smellTest,
  historyTest,
  voltsTest,
  ampsTest,
  tapTest,
  spinTest,
  ohmsTest,
  swapTest,
  lamploadTest,
  rippleTest,
] as const;

export type Observation = (typeof observations)[number];
export type TestName = Observation["name"];

const byName: ReadonlyMap<string, Observation> = new Map(
  observations.map((observation) => [observation.name, observation]),
);

/**
 * The observation model of a test.
 * @throws RangeError for a name that is not a test
 */
export function observationOf(name: string): Observation {
  const found = byName.get(name);
  if (!found) throw new RangeError(`no test is called "${name}"`);
  return found;
}
