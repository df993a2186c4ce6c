// Runs the command in the tests' own process: the same code as the `airway` command, without starting Node each time.
import { mkdtempSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { Readable, Writable } from "node:stream";
import { CircuitCache } from "@core/predict/tables/circuitCache";
import { CandidateCache } from "@core/wiring/compiledCandidate";
import { heard } from "../../core/testing/shippedCircuit";
import { runCommand } from "../command";

const circuits = new CircuitCache(4);
const candidates = new CandidateCache();

/** Collects what is written to it. */
function kept() {
  const parts: string[] = [];
  const stream = new Writable({
    write(chunk: Buffer, _encoding, done) {
      parts.push(chunk.toString());
      done();
    },
  });
  return { stream, text: () => parts.join("") };
}

/** Runs a command with a given standard input. */
export async function airway(args: readonly string[], input = "") {
  const [output, errors] = [kept(), kept()];
  const status = await runCommand([...args], {
    root: process.cwd(),
    input: Readable.from([input]),
    output: output.stream,
    errors: errors.stream,
    circuits,
    candidates,
  });
  return { status, stdout: output.text(), stderr: errors.text() };
}

const folder = mkdtempSync(join(tmpdir(), "airway-cli-"));

/** Writes a file for the command to read; returns its path. */
export function file(name: string, content: string): string {
  const path = join(folder, name);
  writeFileSync(path, content);
  return path;
}

/** A path in the demo folder. */
export const demoFile = (...path: string[]): string => join(process.cwd(), "demo", ...path);

export const whimbrel = demoFile("circuits", "whimbrel-four-speed.json");

/** A case where only the top speed works. */
export const onlyTop = {
  format: "airway-case",
  version: 1,
  id: "van-3",
  circuitId: "whimbrel-four-speed",
  readings: heard({ "1": "none", "2": "none", "3": "none", "4": "normal" }),
};
