import type { ProofFinding } from "@core/proof/proofFinding";
import { proofFindingSchema } from "@core/proof/proofFinding";
import { z } from "zod";

/** The result of a step of the final check, as the page sends it. */
export const findingForm = z.object({
  intent: z.literal("proof"),
  token: z.uuid(),
  step: z.string().max(60),
  by: z.enum(["airflow", "amps", "volts", "listen", "check"]),
  seen: z.string().max(20),
});

/** A finding as tapped or typed; null if it cannot be read. A decimal comma counts as a point. */
export function findingFrom({
  by,
  seen,
}: Pick<z.infer<typeof findingForm>, "by" | "seen">): ProofFinding | null {
  const figure = /^-?\d+(?:[.,]\d+)?$/.test(seen.trim()) ? Number(seen.trim().replace(",", ".")) : null;
  const own =
    by === "amps" || by === "volts"
      ? { by, [by]: figure }
      : by === "check"
        ? { by, good: seen === "good" ? true : seen === "not good" ? false : null }
        : { by, seen };
  const parsed = proofFindingSchema.safeParse(own);
  return parsed.success ? parsed.data : null;
}
