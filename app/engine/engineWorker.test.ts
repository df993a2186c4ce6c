// The thread circuits are made ready on, bundled as the build bundles it, against the same work done here.
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { deserialize } from "node:v8";
import { diagnose } from "@core/diagnose/diagnose";
import { defaultStoppingCosts } from "@core/money/stoppingCosts";
import type { Reading } from "@core/predict/reading";
import type { TableParts } from "@core/predict/tables/setupTable";
import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { heard, shippedCircuit, shippedEngine } from "../../core/testing/shippedCircuit";
import { WorkerThread } from "../shell/workerThread.server";
import { bundledEngineWorker } from "../testing/bundledEngineWorker";
import type { EngineNews, EngineTask } from "./engineWorker";

const readings: Reading[] = [
  ...heard({ "1": "none", "2": "none", "3": "none", "4": "normal" }),
  { test: "ohms", red: "R1.T1", black: "R1.T4", unplugged: ["X5"], ohms: null },
];
const options = { school: "least-time", costs: defaultStoppingCosts, asIf: 3 } as const;

let folder = "";
let thread: WorkerThread<EngineTask, EngineNews>;

beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), "airway-engine-"));
  const outfile = await bundledEngineWorker(folder);
  thread = new WorkerThread<EngineTask, EngineNews>(outfile, () => {});
});
afterAll(() => rmSync(folder, { recursive: true, force: true }));

/** Has a circuit made ready under a name; returns the tables' numbers in the order they came. */
async function ready(name: number, id = "whimbrel-four-speed"): Promise<TableParts[]> {
  const tables: TableParts[] = [];
  await thread.ask({ name, circuit: shippedCircuit(id) }, (news) => {
    if ("parts" in news) tables.push(news.parts);
    return "ready" in news;
  });
  return tables;
}

const weighed = async (name: number): Promise<EngineNews[]> => {
  const heardBack: EngineNews[] = [];
  await thread.ask({ name, readings, options }, (news) => {
    heardBack.push(news);
    return true;
  });
  return heardBack;
};

describe("the thread that works ahead", () => {
  test("hands over every usual set-up's table, as it is worked out here", async () => {
    const tables = await ready(1);
    const here = shippedEngine("whimbrel-four-speed");
    const setups = here.usualSetups();
    expect(tables).toHaveLength(setups.length);
    setups.forEach((setup, index) => {
      const table = here.table(setup);
      table.complete();
      const { volts, amps } = table.parts();
      expect(tables[index]?.volts).toEqual(volts);
      expect(tables[index]?.amps).toEqual(amps);
      // Both threads read the same numbers: none are kept twice.
      expect(Object.prototype.toString.call(tables[index]?.volts.buffer)).toBe("[object SharedArrayBuffer]");
    });
  });

  test("says what readings mean just as it is worked out here", async () => {
    const [news] = await weighed(1);
    const here = diagnose(shippedEngine("whimbrel-four-speed"), readings, options);
    expect(here.ok).toBe(true);
    if (here.ok && news && "diagnosis" in news) expect(deserialize(news.diagnosis)).toEqual(here.value);
    expect(news).toHaveProperty("diagnosis");
  });

  test("a circuit it does not know, and a reading of what the circuit has not, are refused in words", async () => {
    expect(await weighed(77)).toEqual([
      expect.objectContaining({ problem: "this circuit is not ready here" }),
    ]);
    const stray: EngineNews[] = [];
    const wrong: Reading = { test: "amps", around: "M9", key: "run", setting: "4", amps: 3 };
    await thread.ask({ name: 1, readings: [wrong], options }, (news) => {
      stray.push(news);
      return true;
    });
    expect(stray).toEqual([expect.objectContaining({ problem: expect.stringContaining("M9") })]);
  });

  test("answers for one circuit while others are still being made ready, which all come to be", async () => {
    const order: string[] = [];
    const others = ["dunlin-pwm-high", "godwit-two-relays"].map((id, index) =>
      ready(10 + index, id).then(() => order.push(id)),
    );
    const asked = weighed(1).then(() => order.push("weighed"));
    await Promise.all([...others, asked]);
    expect(order).toEqual(["weighed", "dunlin-pwm-high", "godwit-two-relays"]);
  });
});
