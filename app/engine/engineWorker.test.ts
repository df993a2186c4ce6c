// The thread that compiles circuits, bundled as in the build, against the same work in this process.
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { diagnose } from "@core/diagnose/diagnose";
import type { TableParts } from "@core/predict/tables/setupTable";
import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { heard, shippedCircuit, shippedEngine } from "../../core/testing/shippedCircuit";
import { WorkerThread } from "../shell/workerThread.server";
import { bundledEngineWorker } from "../testing/bundledEngineWorker";
import type { EngineNews, EngineTask } from "./engineWorker";

let folder = "";
let thread: WorkerThread<EngineTask, EngineNews>;

beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), "airway-engine-"));
  const outfile = await bundledEngineWorker(folder);
  thread = new WorkerThread<EngineTask, EngineNews>(outfile, () => {});
});
afterAll(() => rmSync(folder, { recursive: true, force: true }));

/** The thread's messages about a circuit, in order. */
async function compiledThere(circuit: EngineTask["circuit"]): Promise<EngineNews[]> {
  const said: EngineNews[] = [];
  await thread.ask({ does: "compile", circuit }, (news) => {
    said.push(news);
    return !("parts" in news);
  });
  return said;
}

/** Whether two arrays hold the same bytes, with NaN in the same places. */
const sameBytes = (one: ArrayBufferView | undefined, other: ArrayBufferView): boolean =>
  one !== undefined &&
  Buffer.compare(
    Buffer.from(one.buffer, one.byteOffset, one.byteLength),
    Buffer.from(other.buffer, other.byteOffset, other.byteLength),
  ) === 0;

const tablesIn = (news: readonly EngineNews[]): TableParts[] =>
  news.flatMap((own) => ("parts" in own ? [own.parts] : []));

describe("the thread that compiles circuits", () => {
  test("sends every usual set-up's table, equal to one computed in this process", async () => {
    const said = await compiledThere(shippedCircuit("whimbrel-four-speed"));
    const tables = tablesIn(said);
    const here = shippedEngine("whimbrel-four-speed");
    const setups = here.usualSetups();
    expect(tables).toHaveLength(setups.length);
    expect(said.at(-1)).toHaveProperty("ready", true);
    setups.forEach((setup, index) => {
      const table = here.table(setup);
      table.complete();
      const own = table.parts();
      for (const name of ["volts", "speed", "amps", "behind", "buzz"] as const)
        expect(sameBytes(tables[index]?.[name], own[name])).toBe(true);
    });
  });

  test("diagnoses as this process does: the verdict, and the next test", async () => {
    const engine = shippedEngine("whimbrel-four-speed");
    const readings = heard({ "1": "none", "2": "none", "3": "none", "4": "normal" });
    const here = diagnose(engine, readings, { school: "motor-first" });
    if (!here.ok) throw new Error("refused");
    const said: EngineNews[] = [];
    const task = { does: "diagnose", circuit: engine.netlist.circuit, readings } as const;
    await thread.ask({ ...task, options: { school: "motor-first" } }, (news) => said.push(news) > 0);
    const { state, replace, p } = here.value.verdict;
    expect(said).toEqual([
      { id: expect.any(Number), next: { verdict: { state, replace, p }, test: here.value.next[0]?.test } },
    ]);
  });

  test("a circuit it cannot solve is refused in words", async () => {
    const circuit = shippedCircuit("whimbrel-four-speed");
    const [refusal] = await compiledThere({
      ...circuit,
      parts: circuit.parts.filter(({ kind }) => kind !== "battery"),
    });
    expect(refusal).toHaveProperty("problem", expect.stringContaining("battery"));
  });
});
