import type { Circuit } from "@core/circuit/circuit";
import type { Expectation } from "@core/diagnose/explain/expectation";
import type { Reading, Test } from "@core/predict/reading";
import { sentence } from "../pointWords";
import { wordingOf } from "./index";
import { setupText } from "./setupText";
import type { TestWords } from "./wording";

/** What to do, in a few words: `light clipped to G1.+, touch X5:2`. */
export const testText = (test: Test): string => wordingOf(test.test).toDo(test);

/** What was seen, in a word or a figure with its unit. */
export const resultText = (reading: Reading): string => wordingOf(reading.test).result(reading);

/** What was tested and what came of it. */
export const evidenceResult = (reading: Reading): string => `${testText(reading)}: ${resultText(reading)}`;

/** What a test would show, in a word or a figure with its unit. */
export const expectationText = ({ test, value }: Expectation): string =>
  typeof value === "string" ? value : (wordingOf(test).display?.(value) ?? String(value));

/**
 * What was tested and how the vehicle stood, as evidence is listed. What was heard of a running blower names its
 * speed already, and what was asked or smelled has no set-up worth saying.
 */
export function evidenceText(reading: Reading): string {
  const plain =
    reading.heard === true &&
    (reading.test !== "airflow" || (reading.key === "run" && reading.selectors === undefined));
  return plain ? testText(reading) : `${testText(reading)}, ${setupText(reading)}`;
}

/** A test in words for this circuit, for the head of a card. */
export const testWords = (circuit: Circuit, test: Test): TestWords =>
  wordingOf(test.test).card(circuit, test, sentence(setupText(test)));
