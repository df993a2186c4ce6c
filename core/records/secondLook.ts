import { z } from "zod";
import type { Closure } from "./closure";

/** What the shop's counts hold of a closed job. */
export const taughtSchema = z.strictObject({
  kind: z.string().min(1).max(64),
  mode: z.string().min(1).max(64),
  counted: z.boolean(),
});
export type Taught = z.infer<typeof taughtSchema>;

/**
 * The result of reviewing a closing: it counts as before; it stops counting because the repair was temporary; or it
 * counts as another fault because the readings prove that one.
 */
export type SecondLook =
  | { readonly kind: "keeps" }
  | { readonly kind: "stops" }
  | { readonly kind: "teaches"; readonly fault: string };

/**
 * Reviews a job that was closed before the closing asked for the fault of each line of work. If its readings prove
 * nothing, it counts as before.
 * @param proved faults of the parts put right that the readings prove, without their sizes, likeliest first
 * @param temporary whether any of its work only bought time
 */
export function secondLook(
  closure: Closure,
  counted: boolean,
  proved: readonly string[],
  temporary: boolean,
): SecondLook {
  if (!counted || closure.findings) return { kind: "keeps" };
  if (closure.stopgap || temporary) return { kind: "stops" };
  const [likeliest] = proved;
  if (!likeliest || proved.includes(closure.fault)) return { kind: "keeps" };
  return { kind: "teaches", fault: likeliest };
}
