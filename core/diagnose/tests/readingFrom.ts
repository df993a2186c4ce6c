import { observationOf } from "../../predict/observations/index";
import { type Reading, readingSchema, type Test } from "../../predict/reading";
import type { ForecastOutcome } from "./forecast";

/** The reading that an outcome of a test would make. */
export function readingFrom(test: Test, { seen, value }: Pick<ForecastOutcome, "seen" | "value">): Reading {
  const model = observationOf(test.test);
  const result = model.gives === "word" ? seen : (value ?? Number.POSITIVE_INFINITY);
  return readingSchema.parse(model.withResult(test, result));
}
