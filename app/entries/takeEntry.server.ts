import type { Circuit } from "@core/circuit/circuit";
import { readCautions, setStrategy } from "@db/repositories/jobs.server";
import { addReading, deleteReading } from "@db/repositories/readings.server";
import type { z } from "zod";
import { engineFor } from "../engine/engine.server";
import { jobAt } from "../job/jobView.server";
import { madeAt } from "./madeAt.server";
import { offeredReading, ownReading, probeForm } from "./probeForm";

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
  const takenAt = madeAt(fields);
  switch (form.intent) {
    case "school":
      await setStrategy(job.id, form.school);
      break;
    case "cautions":
      await readCautions(job.id, form.cautions);
      break;
    case "strike":
      await deleteReading(job.id, form.id, form.struck === "yes" ? takenAt : null);
      break;
    case "reading":
    case "own-reading": {
      const entered = await enteredReading(circuit, form);
      if ("problem" in entered) return entered;
      await addReading({ id: form.token, jobId: job.id, reading: entered.reading, takenAt });
    }
  }
  return { problem: undefined };
}
