import type { Diagnosis } from "../diagnose/diagnose";
import type { Fault } from "../fault/fault";
import { sameParts } from "../fault/repair";

export type Outcome = "right" | "apart" | "wrong";

/** The most repairs a verdict may name together: three wires at one joint that no reading separates. */
const mostNamed = 3;

/** Whether a verdict names what had to be replaced, or names it among the few that no test separates. */
export function outcomeOf({ verdict }: Diagnosis, truth: Fault): Outcome {
  if (sameParts(verdict.replace, truth.parts)) return "right";
  if (verdict.orElse.length >= mostNamed) return "wrong";
  return verdict.orElse.some((parts) => sameParts(parts, truth.parts)) ? "apart" : "wrong";
}

const bins = 10;

/** Expected calibration error over ten equal bins of the claimed probability. */
export function calibrationError(claims: readonly { readonly p: number; readonly right: boolean }[]): number {
  let error = 0;
  for (let bin = 0; bin < bins; bin++) {
    const own = claims.filter(({ p }) => Math.min(bins - 1, Math.floor(p * bins)) === bin);
    if (own.length === 0) continue;
    const claimed = own.reduce((sum, { p }) => sum + p, 0);
    const right = own.filter((claim) => claim.right).length;
    error += Math.abs(claimed - right);
  }
  return claims.length === 0 ? 0 : error / claims.length;
}
