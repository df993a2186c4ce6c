import { createInterface } from "node:readline";
import type { Readable, Writable } from "node:stream";
import { diagnoseCase } from "@core/formats/diagnoseCase";
import type { CircuitLibrary } from "@core/formats/library";
import type { CircuitCache } from "@core/predict/tables/circuitCache";
import { problemText } from "@core/problem/problem";
import { diagnosisReport } from "@words/diagnosisReport";
import { parseJson } from "../input";

/** One line's answer: a diagnosis, or what was wrong with the line. */
export function answerLine(line: string, library: CircuitLibrary, cache: CircuitCache): unknown {
  const input = parseJson(line);
  if (!input.ok) return { error: input.problems.map(problemText).join("; ") };
  try {
    const found = diagnoseCase(input.value, library, cache);
    if (found.ok) return diagnosisReport(found.value);
    return { error: found.problems.map(problemText).join("; ") };
  } catch (error) {
    return { error: `internal: ${(error as Error).message}` };
  }
}

/** Reads one case per line and writes one diagnosis per line, in order, until the input ends. */
export async function answerLines(
  input: Readable,
  output: Writable,
  library: CircuitLibrary,
  cache: CircuitCache,
): Promise<void> {
  for await (const line of createInterface({ input, crlfDelay: Number.POSITIVE_INFINITY })) {
    if (line.trim() === "") continue;
    const written = output.write(`${JSON.stringify(answerLine(line, library, cache))}\n`);
    if (!written) await new Promise((resolve) => output.once("drain", resolve));
  }
}
