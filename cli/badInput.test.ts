import { describe, expect, test } from "@jest/globals";
import { shippedJson } from "../core/testing/shippedCircuit";
import { airway, file, onlyTop, whimbrel } from "./testing/airway";

describe("bad input exits 2 with one line that names the place", () => {
  // biome-ignore lint/suspicious/noExplicitAny: writes into a file of unknown shape on purpose
  const spoilt = (change: (circuit: any) => void): string => {
    const circuit = shippedJson("whimbrel-four-speed");
    change(circuit);
    return file(`spoilt-${Math.floor(performance.now() * 1000)}.json`, JSON.stringify(circuit));
  };

  test.each<[string, () => string[], RegExp]>([
    [
      "an unknown terminal",
      () => ["check", spoilt((c) => (c.wires[0].to = "J1.q"))],
      /wires\.0\.to: unknown terminal "J1\.q"/,
    ],
    ["no such file", () => ["check", "none.json"], /cannot be read \(ENOENT\)/],
    ["no JSON", () => ["check", file("text.json", "{ nearly")], /not JSON: /],
    [
      "another format",
      () => ["check", file("other.json", '{"format":"other"}')],
      /format: expected "airway-circuit", "airway-case", "airway-plan" or "airway-part", got "other"/,
    ],
    [
      "a file too large",
      () => ["check", file("large.json", `"${"x".repeat(5_000_000)}"`)],
      /at most 4194304 bytes are read, got 5000002/,
    ],
    ["an unknown setting", () => ["solve", whimbrel, "--setting", "9"], /setting: unknown setting "9"/],
    [
      "an unknown fault",
      () => ["solve", whimbrel, "--fault", "Q9:open"],
      /no fault "Q9:open" in this circuit/,
    ],
    [
      "an engine running without the key",
      () => ["solve", whimbrel, "--engine"],
      /engine: the engine runs only with key "run"/,
    ],
    [
      "a jump lead to nowhere",
      () => ["solve", whimbrel, "--bridged", "X3:1,Z"],
      /bridged\.0\.1: no point "Z"/,
    ],
    ["an unknown option", () => ["solve", whimbrel, "--colour", "red"], /Unknown option '--colour'/],
    [
      "an option of another verb",
      () => ["faults", whimbrel, "--fault", "M1:open"],
      /--fault is not an option of faults/,
    ],
    ["an unknown verb", () => ["mend", whimbrel], /unknown verb "mend"/],
    ["nothing", () => [], /usage: airway/],
  ])("%s", async (_, args, message) => {
    const { status, stdout, stderr } = await airway(args());
    expect(stderr).toMatch(message);
    expect(stderr.trim().split("\n")).toHaveLength(1);
    expect({ status, stdout }).toEqual({ status: 2, stdout: "" });
  });

  test("a case for a circuit that is not there", async () => {
    const { status, stderr } = await airway(
      ["diagnose", "-"],
      JSON.stringify({ ...onlyTop, circuitId: "heron" }),
    );
    expect({ status, stderr }).toEqual({
      status: 2,
      stderr: 'airway: circuitId: no circuit "heron" in the library\n',
    });
  });
});
