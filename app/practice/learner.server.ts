import { listLearners } from "@db/repositories/practice.server";
import { z } from "zod";

/** A learner's label: short, of their own choosing; no name is asked for. */
export const learnerLabel = z
  .string()
  .trim()
  .min(1, "enter a name or label")
  .max(40, "at most 40 characters");

/** The learner in the address; otherwise the first one. */
export async function learnerOf(
  request: Request,
): Promise<{ readonly learner: string | null; readonly learners: readonly string[] }> {
  const learners = await listLearners();
  const asked = new URL(request.url).searchParams.get("learner");
  return { learner: learners.find((own) => own === asked) ?? learners[0] ?? null, learners };
}
