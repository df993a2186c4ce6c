import type { Circuit } from "@core/circuit/circuit";
import { readCautions, setStrategy } from "@db/repositories/jobs.server";
import { addReading, deleteReading } from "@db/repositories/readings.server";
import type { z } from "zod";
import { engineFor } from "../engine/engine.server";
import { jobAt } from "../job/jobView.server";
import { offeredReading, ownReading, probeForm } from "./probeForm";

/** An entry that waited is dated back to when it was made, by at most this. */
const longestWaitSeconds = 7 * 24 * 3600;

type ProbeForm = z.infer<typeof probeForm>;
type ReadingForm = Extract<ProbeForm, { intent: "reading" | "own-reading" }>;

/** The reading a form makes, or what is wrong with it. */
async function enteredReading(circuit: Circuit, form: ReadingForm) {
  const engine = await engineFor(circuit);
  return form.intent === "reading" ? offeredReading(engine, form) : ownReading(engine, form);
}

/**
 * Takes what was entered on the probe page into a job; resolves once it is on disk.
 * @returns why it was refused, or undefined
 */
export async function takeEntry(
  jobId: string | undefined,
  fields: FormData,
): Promise<{ problem: string | undefined }> {
  const { job, circuit } = await jobAt(jobId);
  const parsed = probeForm.safeParse(Object.fromEntries(fields));
  if (!parsed.success) return { problem: "That entry cannot be read." };
  const form = parsed.data;
  const waited = Number(fields.get("waitedSeconds") ?? 0);
  const age = Number.isFinite(waited) ? Math.min(Math.max(0, waited), longestWaitSeconds) : 0;
  const madeAt = new Date(Date.now() - 1000 * age);
  switch (form.intent) {
    case "school":
      await setStrategy(job.id, form.school);
      break;
    case "cautions":
      await readCautions(job.id, form.cautions);
      break;
    case "strike":
      await deleteReading(job.id, form.id, form.struck === "yes" ? madeAt : null);
      break;
    case "reading":
    case "own-reading": {
      const entered = await enteredReading(circuit, form);
      if ("problem" in entered) return entered;
      await addReading({ id: form.token, jobId: job.id, reading: entered.reading, takenAt: madeAt });
    }
  }
  return { problem: undefined };
}
