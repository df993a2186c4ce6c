import { z } from "zod";
import { lineKinds } from "./lineKind";
import { roundingRules } from "./rounding";

const minor = z.number().int().min(-1e11).max(1e11);
const basisPoints = z.number().int().min(0).max(10_000);

/** One line of an estimate or a bill: a quantity at a price each. */
export const estimateLineSchema = z.strictObject({
  kind: z.enum(lineKinds),
  title: z.string().min(1).max(200),
  /** In thousandths: 0.5 h is 500, one part is 1000. */
  quantityMilli: z.number().int().min(0).max(1e7),
  unit: z.enum(["h", "pc"]),
  eachMinor: minor,
  discountBasisPoints: basisPoints.optional(),
  taxBasisPoints: basisPoints,
});
export type EstimateLine = z.infer<typeof estimateLineSchema>;

/** How a shop rounds: each line or only the total, and to which coin. */
export const roundingSchema = z.strictObject({
  rule: z.enum(roundingRules),
  at: z.enum(["line", "total"]),
  coinMinor: z.number().int().min(1).max(10_000),
});
export type Rounding = z.infer<typeof roundingSchema>;
