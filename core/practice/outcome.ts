import type { Diagnosis } from "../diagnose/diagnose";
import type { Fault } from "../fault/fault";
import { repairText, sameParts } from "../fault/repair";

export type Outcome = "right" | "apart" | "wrong";

/** Whether a verdict names what had to be replaced, or leaves the truth in a group of at most two. */
export function outcomeOf({ verdict, suspects }: Diagnosis, truth: Fault): Outcome {
  if (sameParts(verdict.replace, truth.parts)) return "right";
  if (verdict.state !== "best-guess") return "wrong";
  const leader = suspects.find(({ repair }) => sameParts(repair.parts, verdict.replace));
  const repairs = new Set(
    suspects
      .filter(({ group, fault }) => fault !== null && group === leader?.group)
      .map(({ repair }) => repairText({ parts: [...repair.parts].sort() })),
  );
  const wanted = repairText({ parts: [...truth.parts].sort() });
  return repairs.size <= 2 && repairs.has(wanted) ? "apart" : "wrong";
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
