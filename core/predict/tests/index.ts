import type { TestName } from "../reading";
import type { TestModel } from "../testModel";
import { airflowTest } from "./airflow";
import { lightTest } from "./light";
import { lookTest } from "./look";
import { ohmsTest } from "./ohms";
import { spinTest } from "./spin";
import { voltsTest } from "./volts";

/** Every test's observation model, in the order looks of equal worth are offered. */
export const testModels: { readonly [T in TestName]: TestModel<T> } = {
  airflow: airflowTest,
  light: lightTest,
  look: lookTest,
  volts: voltsTest,
  spin: spinTest,
  ohms: ohmsTest,
};
