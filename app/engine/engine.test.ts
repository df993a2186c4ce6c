// If the thread dies, the circuit is compiled anyway, and the shop's people are told.
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, expect, jest, test } from "@jest/globals";
import { shippedCircuit } from "../../core/testing/shippedCircuit";
import { logger, troublesNow } from "../shell/log.server";
import { compileOn } from "./compileThread.server";
import { compileHere, compileWith, engineFor } from "./engine.server";

const folder = mkdtempSync(join(tmpdir(), "airway-engine-"));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

test("the circuit is compiled in this process, the cause is logged, and every page reports it", async () => {
  const logged = jest.spyOn(logger, "error").mockImplementation(() => undefined);
  const file = join(folder, "dies.mjs");
  writeFileSync(
    file,
    'import { parentPort } from "node:worker_threads"; parentPort.on("message", () => { throw new Error("out of memory"); });',
  );
  compileWith(compileOn(file) ?? compileHere);
  expect(troublesNow()).toEqual([]);
  const engine = await engineFor(shippedCircuit("dunlin-three-speed"));
  for (const setup of engine.usualSetups()) expect(() => engine.table(setup).parts()).not.toThrow();
  expect(troublesNow()).toEqual([
    { words: expect.stringMatching(/prepares circuits stopped once.*Nothing is lost/), at: expect.any(Date) },
  ]);
  expect(logged).toHaveBeenCalledWith(
    expect.objectContaining({ message: "out of memory" }),
    expect.stringContaining("stopped"),
  );
});

test("a circuit that cannot be compiled at all does not stop the next one", async () => {
  jest.spyOn(logger, "error").mockImplementation(() => undefined);
  const file = join(folder, "dies.mjs");
  const compile = compileOn(file) ?? compileHere;
  const engine = await engineFor(shippedCircuit("dunlin-three-speed"));
  const broken = Object.assign(Object.create(engine) as typeof engine, {
    usualSetups: () => {
      throw new Error("no set-up can be solved");
    },
  });
  await expect(compile(broken, () => true)).rejects.toThrow("no set-up can be solved");
  await expect(compile(engine, () => true)).resolves.toBeUndefined();
});

test("a circuit is skipped if every request for it was aborted, and compiled if one still waits", async () => {
  const wanted: boolean[] = [];
  let takeTurn = (): void => undefined;
  const turn = new Promise<void>((resolve) => {
    takeTurn = resolve;
  });
  compileWith(async (_compiled, isWanted) => {
    await turn;
    wanted.push(isWanted());
    if (!isWanted()) throw new Error("nobody waits");
  });
  const [left, stayed, alsoLeft] = [new AbortController(), new AbortController(), new AbortController()];
  const dropped = engineFor(shippedCircuit("siskin-five-speed"), left.signal);
  const kept = engineFor(shippedCircuit("siskin-linear-low"), stayed.signal);
  void engineFor(shippedCircuit("siskin-linear-low"), alsoLeft.signal);
  left.abort();
  alsoLeft.abort();
  takeTurn();
  await expect(dropped).rejects.toThrow("nobody waits");
  await expect(kept).resolves.toHaveProperty("netlist");
  expect(wanted).toEqual([false, true]);
  // The next request compiles it after all.
  await expect(engineFor(shippedCircuit("siskin-five-speed"))).resolves.toHaveProperty("netlist");
});
