import { z } from "zod";

const words = (most: number) => z.string().trim().max(most);
const day = z.iso.date("must be a date such as 2026-12-24");

/** What caused the part to fail: found and named, looked for and not found, normal wear, or not said. */
export const causeKinds = ["found", "not-found", "none", "unsaid"] as const;
export type CauseKind = (typeof causeKinds)[number];

/** What was found in something that was worked on. */
const closureFindingSchema = z.strictObject({
  round: z.number().int().min(1),
  part: z.string().min(1).max(32),
  /** The fault without its size; `sound` if the part was good, `unknown` for a cause outside the circuit's list. */
  fault: z.string().min(1).max(200),
  /** Whether the readings before the work prove it. */
  proved: z.boolean(),
});
export type ClosureFinding = z.infer<typeof closureFindingSchema>;

/** How a job was closed: what was found and done, the root cause, and what remains to do. */
export const closureSchema = z.strictObject({
  found: words(1000).min(3, "enter in a few words what was found"),
  /** The fault without its size, `R1.link:open`; `unknown` for a cause outside the circuit's list. */
  fault: z.string().min(1).max(200),
  parts: z.array(z.string().min(1).max(32)).min(1).max(8),
  /** What was found, line by line; absent on jobs closed before there was a work list. */
  findings: z.array(closureFindingSchema).max(40).optional(),
  cause: z.enum(causeKinds),
  causeWords: words(300).optional(),
  /** A temporary repair, such as an oiled bearing. */
  stopgap: words(300).optional(),
  followUpOn: day.optional(),
  advice: words(500).optional(),
  /**
   * Probability of a comeback within the warranty, as repaired and with the advised work done too, as it was at
   * closing.
   */
  comeback: z
    .strictObject({ months: z.number().int(), plain: z.number(), advised: z.number().nullable() })
    .optional(),
  /** Whether the shop may learn from it. */
  learn: z.boolean(),
});
export type Closure = z.infer<typeof closureSchema>;

/**
 * What is wrong with a closure beyond its shape: a temporary repair without a date to check again, a cause without a
 * name.
 */
export function closureProblem({ stopgap, followUpOn, cause, causeWords }: Closure): string | null {
  if (stopgap && !followUpOn) return "a temporary repair needs a date to check it again";
  if (cause === "found" && !causeWords) return "enter the root cause, or choose that it was not found";
  return null;
}
