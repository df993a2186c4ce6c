import { adaptationFacts } from "@core/access/adaptation";
import { stepIdSchema, testStepId } from "@core/access/plan";
import { sortCountsSchema } from "@core/access/sortCount";
import { stepsWaitedFor } from "@core/access/stepOrder";
import { trayNoteKinds } from "@core/access/tray";
import { parsedJson } from "@core/formats/parsedJson";
import type { WorkState } from "@core/workList/workLine";
import { addTick, addTrayNote, deleteTick, deleteTrayNote, ticksOf } from "@db/repositories/repairs.server";
import { setWorkState } from "@db/repositories/works.server";
import { adaptationTitle } from "@words/adaptationWords";
import { trayNoteText } from "@words/trayWords";
import { z } from "zod";
import { madeAt } from "../entries/madeAt.server";
import { intoJob, type Refused } from "../job/intoJob.server";
import { jobAt, presentWorks } from "../job/jobView.server";
import { textFields } from "../text/formText";
import { measuredMinutes } from "./measuredMinutes";
import { type RepairState, repairState } from "./repairState.server";

const form = z.discriminatedUnion("intent", [
  z.object({
    intent: z.literal("tick"),
    token: z.uuid(),
    step: z.union([stepIdSchema, z.literal(testStepId)]),
    way: z.enum(["in", "back"]),
    screws: z.coerce.number().int().min(0).max(99),
    counts: z.string().max(2000).transform(parsedJson).pipe(sortCountsSchema).optional(),
    /** Why the step is ticked before one it waits for. */
    reason: z.string().trim().max(200).optional(),
  }),
  z.object({ intent: z.literal("untick"), id: z.uuid() }),
  z.object({
    intent: z.literal("tray"),
    token: z.uuid(),
    kind: z.enum(trayNoteKinds),
    sort: z.string().trim().min(1).max(60),
    count: z.coerce.number().int().min(1).max(99),
    words: z.string().trim().max(200).default(""),
  }),
  z.object({ intent: z.literal("tray-delete"), id: z.uuid() }),
]);

/**
 * Stores a tick of a job's repair or what became of a screw, or removes one. Resolves once it is on disk. The same tick sent twice is stored
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
  if (sent.intent === "untick") {
    const undone = (await ticksOf(job.id)).find(({ id }) => id === sent.id);
    const refused = await intoJob({ ...own, words: "a step undone" }, () => deleteTick(job.id, sent.id, at));
    if (refused || !undone) return refused;
    return markLine(await repairState(job, circuit), undone.step, "planned");
  }
  if (sent.intent === "tray-delete")
    return intoJob({ ...own, words: "a note about a screw deleted" }, () =>
      deleteTrayNote(job.id, sent.id, at),
    );
  if (sent.intent === "tray") {
    const { token, kind, sort, count, words } = sent;
    // A screw lost or left over is explained by where it went or why.
    if ((kind === "lost" || kind === "spare") && words === "")
      return { status: 422, problem: "Say where it fell, or why it is not needed." };
    const note = { id: token, kind, sort, count, words, takenAt: at };
    return intoJob({ ...own, words: trayNoteText(note) }, () => addTrayNote(job.id, note));
  }
  const state = await repairState(job, circuit);
  if (!state) return { status: 422, problem: "This vehicle has no plan yet." };
  const step = state.plan.steps.find(({ id }) => id === sent.step);
  const fitting = state.fittings.find((one) => one.fitting.id === sent.step)?.fitting;
  if (!step && !fitting && sent.step !== testStepId)
    return { status: 422, problem: "The plan has no such step." };
  const title = step?.title ?? (fitting ? adaptationTitle(fitting.adaptation) : "the test of the new part");
  const waited = stepsWaitedFor(state, state.ticks, sent);
  if (waited.length > 0 && !sent.reason)
    return {
      status: 422,
      problem: `${title}: another step comes before it. Tick that one first, or say why it can wait.`,
    };
  const before = state.ticks.filter(({ way }) => way === sent.way).at(-1);
  const refused = await intoJob({ ...own, words: `${title} ticked` }, () =>
    addTick(job.id, circuit.id, {
      id: sent.token,
      step: sent.step,
      way: sent.way,
      screws: sent.screws,
      minutes: step && before ? measuredMinutes(step.minutes, before.takenAt, at) : null,
      takenAt: at,
      reason: waited.length > 0 ? (sent.reason ?? null) : null,
      counts: sent.counts ?? null,
    }),
  );
  return refused ?? markLine(state, sent.step, "done");
}

/** Marks the line that a step on a new part, a plug or a wire carries out; other steps have no line of their own. */
async function markLine(state: RepairState | null, step: string, mark: WorkState): Promise<Refused | null> {
  const fitting = state?.fittings.find((one) => one.fitting.id === step)?.fitting;
  if (!state || !fitting) return null;
  const { view } = state;
  const line = presentWorks(view).find(({ adapts, part, done }) =>
    adapts
      ? adapts.part === fitting.part && adapts.work === fitting.adaptation.work
      : part === fitting.part && done === adaptationFacts[fitting.adaptation.work].done,
  );
  const { job } = view;
  if (!line || line.state === mark) return null;
  return intoJob(
    {
      jobId: job.id,
      address: `/jobs/${job.id}/work`,
      fields: {},
      words: `work: ${line.what}`,
      at: new Date(),
    },
    () => setWorkState(job.id, line.id, mark),
  );
}
