import { stepIdSchema, testStepId } from "@core/access/plan";
import { findPlan } from "@db/repositories/plans.server";
import { addTick, deleteTick, ticksOf } from "@db/repositories/repairs.server";
import { z } from "zod";
import { madeAt } from "../entries/madeAt.server";
import { jobAt } from "../job/jobView.server";
import { measuredMinutes } from "./measuredMinutes";

const form = z.discriminatedUnion("intent", [
  z.object({
    intent: z.literal("tick"),
    token: z.uuid(),
    step: z.union([stepIdSchema, z.literal(testStepId)]),
    way: z.enum(["in", "back"]),
    screws: z.coerce.number().int().min(0).max(99),
  }),
  z.object({ intent: z.literal("untick"), id: z.uuid() }),
]);

/**
 * Takes a tick of a job's repair, or takes one back; resolves once it is on disk. The same one sent twice is taken once.
 * @returns why it was refused
 */
export async function takeTick(jobId: string | undefined, fields: FormData): Promise<readonly string[]> {
  const { job, circuit } = await jobAt(jobId);
  const parsed = form.safeParse(Object.fromEntries(fields));
  if (!parsed.success) return ["That tick cannot be read: load the page again."];
  const sent = parsed.data;
  const takenAt = madeAt(fields);
  if (sent.intent === "untick") {
    await deleteTick(job.id, sent.id, takenAt);
    return [];
  }
  const stored = await findPlan(circuit.id);
  if (!stored) return ["This vehicle has no plan yet."];
  const step = stored.plan.steps.find(({ id }) => id === sent.step);
  if (!step && sent.step !== testStepId) return ["The plan has no such step."];
  const before = (await ticksOf(job.id)).filter(({ way }) => way === sent.way).at(-1);
  await addTick(job.id, circuit.id, {
    id: sent.token,
    step: sent.step,
    way: sent.way,
    screws: sent.screws,
    minutes: step && before ? measuredMinutes(step.minutes, before.takenAt, takenAt) : null,
    takenAt,
  });
  return [];
}
