import { z } from "zod";

const words = (most: number) => z.string().trim().max(most);
const day = z.iso.date("must be a date such as 2026-12-24");

/** What killed the part: found and named, looked for and not found, or nothing that had to be. */
export const causeKinds = ["found", "not-found", "none"] as const;
export type CauseKind = (typeof causeKinds)[number];

/** How a job was closed: what was found and done, what killed it, what is left to do. */
export const closureSchema = z.strictObject({
  found: words(1000).min(3, "enter in a few words what was found"),
  /** The fault by its family, `R1.link:open`; `unknown` where it is none the circuit lists. */
  fault: z.string().min(1).max(200),
  parts: z.array(z.string().min(1).max(32)).min(1).max(8),
  cause: z.enum(causeKinds),
  causeWords: words(300).optional(),
  /** Something that only holds for a while: a bearing oiled. */
  stopgap: words(300).optional(),
  followUpOn: day.optional(),
  advice: words(500).optional(),
  /** Chance of a comeback within the warranty, and with what was advised done too; as they were when it was closed. */
  comeback: z
    .strictObject({ months: z.number().int(), plain: z.number(), advised: z.number().nullable() })
    .optional(),
  /** Whether the shop may learn from it. */
  learn: z.boolean(),
});
export type Closure = z.infer<typeof closureSchema>;

/** What is wrong with a closure beyond its shape: a stopgap without a day to look again, a cause without its name. */
export function closureProblem({ stopgap, followUpOn, cause, causeWords }: Closure): string | null {
  if (stopgap && !followUpOn) return "a temporary repair needs a date to check it again";
  if (cause === "found" && !causeWords) return "enter the root cause, or choose that it was not found";
  return null;
}
