import { createInterface } from "node:readline";
import type { Readable, Writable } from "node:stream";
import { diagnoseCase } from "@core/formats/diagnoseCase";
import type { CircuitLibrary } from "@core/formats/library";
import { diagnoseSeenCase, isSeenCase } from "@core/formats/seenCase";
import type { CircuitCache } from "@core/predict/tables/circuitCache";
import { problemText } from "@core/problem/problem";
import type { CandidateCache } from "@core/wiring/compiledCandidate";
import { diagnosisReport } from "@words/diagnosisReport";
import { wiringReport } from "@words/wiringWords";
import { parseJson } from "../input";

/** One line's answer: a diagnosis, or what was wrong with the line. */
export function answerLine(
  line: string,
  library: CircuitLibrary,
  cache: CircuitCache,
  candidates: CandidateCache,
): unknown {
  const input = parseJson(line);
  if (!input.ok) return { error: input.problems.map(problemText).join("; ") };
  try {
    if (isSeenCase(input.value)) {
      const seen = diagnoseSeenCase(input.value, candidates);
      return seen.ok ? wiringReport(seen.value) : { error: seen.problems.map(problemText).join("; ") };
    }
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
  candidates: CandidateCache,
): Promise<void> {
  for await (const line of createInterface({ input, crlfDelay: Number.POSITIVE_INFINITY })) {
    if (line.trim() === "") continue;
    const written = output.write(`${JSON.stringify(answerLine(line, library, cache, candidates))}\n`);
    if (!written) await new Promise((resolve) => output.once("drain", resolve));
  }
}
