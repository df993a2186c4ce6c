// The command line as it is started: its own process, its own exit status. Each verb's answer is tested next to the
// verb.
import { spawn, spawnSync } from "node:child_process";
import { join } from "node:path";
import { beforeAll, describe, expect, test } from "@jest/globals";
import { shippedJson } from "../core/testing/shippedCircuit";
import { askInstrument, askNumber } from "../server/instrumentSocket";
import { airway, onlyTop, whimbrel } from "./testing/airway";

/** What `npm run airway` starts; it checks whether a source file changed, and bundles again if one did. */
const script = join(process.cwd(), "scripts", "airway.mjs");
const bundled = join(process.cwd(), "build", "cli", "airway.mjs");

function inOwnProcess(args: readonly string[], input = "") {
  const { status, stdout, stderr } = spawnSync(process.execPath, [bundled, ...args], {
    input,
    encoding: "utf8",
  });
  return { status, stdout, stderr };
}

beforeAll(() => {
  expect(spawnSync(process.execPath, [script, "check", whimbrel]).status).toBe(0);
});

describe("the airway command", () => {
  test("prints the verb's answer and exits 0", async () => {
    const cases = [
      ["check", whimbrel],
      ["diagnose", "-"],
    ];
    for (const args of cases)
      expect(inOwnProcess(args, JSON.stringify(onlyTop))).toEqual(
        await airway(args, JSON.stringify(onlyTop)),
      );
  });

  test("exits 2 with one line on standard error where the input is bad", async () => {
    for (const args of [["solve", whimbrel, "--setting", "9"], [], ["check", "nowhere.json"]]) {
      const own = inOwnProcess(args);
      expect(own).toEqual(await airway(args));
      expect(own.status).toBe(2);
      expect(own.stdout).toBe("");
    }
  });

  test("lines answers in order, one line for each, and continues after a bad one", async () => {
    const child = spawn(process.execPath, [script, "lines"], { stdio: ["pipe", "pipe", "inherit"] });
    let out = "";
    child.stdout.on("data", (chunk: Buffer) => {
      out += chunk.toString();
    });
    const closed = new Promise<number | null>((resolve) => child.on("close", resolve));
    const inline = {
      ...onlyTop,
      id: "own",
      circuitId: undefined,
      circuit: shippedJson("godwit-four-speed-feed"),
    };
    const lines = [
      "not json",
      JSON.stringify(onlyTop),
      JSON.stringify(inline),
      "{}",
      JSON.stringify({ ...onlyTop, id: "again" }),
    ];
    child.stdin.end(`${lines.join("\n")}\n`);
    expect(await closed).toBe(0);
    const answers = out
      .trim()
      .split("\n")
      .map((line) => JSON.parse(line));
    expect(answers.map(({ id, error }) => id ?? Boolean(error))).toEqual([
      true,
      "van-3",
      "own",
      true,
      "again",
    ]);
    expect({ ...answers[4], id: "van-3" }).toEqual(answers[1]);
  });

  test("100 MB on standard input", () => {
    const { status, stderr } = inOwnProcess(["diagnose", "-"], `{"format":"${"x".repeat(100_000_000)}"}`);
    expect(status).toBe(2);
    expect(stderr).toMatch(/at most 4194304 bytes are read, got more/);
  });

  test("puts a practice instrument on a port, and answers there until it is stopped", async () => {
    const child = spawn(process.execPath, [script, "instrument", whimbrel, "--port", "0", "--setting", "2"], {
      stdio: ["ignore", "pipe", "inherit"],
    });
    try {
      const line = await new Promise<string>((resolve) =>
        child.stdout.once("data", (chunk: Buffer) => resolve(chunk.toString())),
      );
      const { port, identity } = JSON.parse(line) as { port: number; identity: string };
      expect((await askInstrument(port, ["*IDN?"])).toString()).toBe(identity);
      const healthy = JSON.parse(
        (await airway(["solve", whimbrel, "--key", "run", "--setting", "2"])).stdout,
      );
      expect(Math.abs((await askNumber(port, ["MEAS:CURR:DC?"])) - healthy.amps.M1)).toBeLessThan(0.5);
    } finally {
      child.kill();
    }
  });
});
