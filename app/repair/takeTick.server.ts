import { stepIdSchema, testStepId } from "@core/access/plan";
import { findPlan } from "@db/repositories/plans.server";
import { addTick, deleteTick, ticksOf } from "@db/repositories/repairs.server";
import { z } from "zod";
import { madeAt } from "../entries/madeAt.server";
import { intoJob, type Refused } from "../job/intoJob.server";
import { jobAt } from "../job/jobView.server";
import { textFields } from "../text/formText";
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
 * Stores a tick of a job's repair, or removes one. Resolves once it is on disk. The same tick sent twice is stored
 * once.
 * @returns why it was refused, or null
 */
export async function takeTick(jobId: string | undefined, sentForm: FormData): Promise<Refused | null> {
  const { job, circuit } = await jobAt(jobId);
  const fields = textFields(sentForm);
  const parsed = form.safeParse(fields);
  if (!parsed.success) return { status: 422, problem: "That step could not be read. Load the page again." };
  const sent = parsed.data;
  const at = madeAt(sentForm);
  const own = { jobId: job.id, address: `/jobs/${job.id}/ticks`, fields, at };
  if (sent.intent === "untick")
    return intoJob({ ...own, words: "a step undone" }, deleteTick(job.id, sent.id, at));
  const stored = await findPlan(circuit.id);
  if (!stored) return { status: 422, problem: "This vehicle has no plan yet." };
  const step = stored.plan.steps.find(({ id }) => id === sent.step);
  if (!step && sent.step !== testStepId) return { status: 422, problem: "The plan has no such step." };
  const before = (await ticksOf(job.id)).filter(({ way }) => way === sent.way).at(-1);
  return intoJob(
    { ...own, words: `${step?.title ?? "the test of the new part"} ticked` },
    addTick(job.id, circuit.id, {
      id: sent.token,
      step: sent.step,
      way: sent.way,
      screws: sent.screws,
      minutes: step && before ? measuredMinutes(step.minutes, before.takenAt, at) : null,
      takenAt: at,
    }),
  );
}
