import type { TestName } from "../reading";
import { airflowTest } from "./airflow";
import { ampsTest } from "./amps";
import { historyTest } from "./history";
import { inspectTest } from "./inspect";
import { lamploadTest } from "./lampload";
import { lightTest } from "./light";
import { listenTest } from "./listen";
import type { Observation } from "./observation";
import { ohmsTest } from "./ohms";
import { rippleTest } from "./ripple";
import { smellTest } from "./smell";
import { spinTest } from "./spin";
import { swapTest } from "./swap";
import { tapTest } from "./tap";
import { voltsTest } from "./volts";

/** Every test's observation model, in the order looks of equal worth are offered. */
export const observations: { readonly [T in TestName]: Observation<T> } = {
  airflow: airflowTest,
  light: lightTest,
  look: inspectTest,
  listen: listenTest,
  smell: smellTest,
  history: historyTest,
  volts: voltsTest,
  amps: ampsTest,
  tap: tapTest,
  spin: spinTest,
  ohms: ohmsTest,
  swap: swapTest,
  lampload: lamploadTest,
  ripple: rippleTest,
};
