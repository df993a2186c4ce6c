import { type Priced, priced } from "@core/money/estimate";
import { estimateLineSchema, roundingSchema } from "@core/money/estimateLine";
import { type Parsed, problemsOf, refused } from "@core/problem/problem";
import { z } from "zod";

const schema = z.strictObject({ rounding: roundingSchema, lines: z.array(estimateLineSchema).max(500) });

/** Prices the lines of an estimate: net, tax and totals in whole minor units. */
export function priceFrom(input: unknown): Parsed<Priced> {
  const shaped = schema.safeParse(input);
  if (!shaped.success) return refused(problemsOf(shaped.error, input));
  return { ok: true, value: priced(shaped.data.lines, shaped.data.rounding) };
}
