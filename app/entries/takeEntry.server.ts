import type { Circuit } from "@core/circuit/circuit";
import { readCautions, setStrategy } from "@db/repositories/jobs.server";
import { addReading, deleteReading } from "@db/repositories/readings.server";
import { entryWords } from "@words/entryWords";
import { evidenceText, resultText } from "@words/tests/testText";
import type { z } from "zod";
import { withoutTables } from "../engine/engine.server";
import { intoJob, type Refused, type WriteToJob } from "../job/intoJob.server";
import { jobAt } from "../job/jobView.server";
import { textFields } from "../text/formText";
import { madeAt } from "./madeAt.server";
import { offeredReading, ownReading, probeForm } from "./probeForm";

type ProbeForm = z.infer<typeof probeForm>;
type ReadingForm = Extract<ProbeForm, { intent: "reading" | "own-reading" }>;

/** The reading a form makes, or what is wrong with it. */
function enteredReading(circuit: Circuit, form: ReadingForm) {
  const engine = withoutTables(circuit);
  return form.intent === "reading" ? offeredReading(engine, form) : ownReading(engine, form);
}

/**
 * Stores what was entered on the probe page in a job. Resolves once it is on disk.
 * @returns why it was refused, or null
 */
export async function takeEntry(jobId: string | undefined, sent: FormData): Promise<Refused | null> {
  const { job, circuit } = await jobAt(jobId);
  const fields = textFields(sent);
  const parsed = probeForm.safeParse(fields);
  if (!parsed.success) return { status: 422, problem: "That entry could not be read. Load the page again." };
  const form = parsed.data;
  const at = madeAt(sent);
  const address = `/jobs/${job.id}/entries`;
  const into = (write: WriteToJob, words = entryWords(fields)) =>
    intoJob({ jobId: job.id, address, fields, words, at }, write);
  switch (form.intent) {
    case "school":
      return into(() => setStrategy(job.id, form.school));
    case "cautions":
      return into(() => readCautions(job.id, form.cautions));
    case "strike":
      return into(() => deleteReading(job.id, form.id, form.struck === "yes" ? at : null));
    case "reading":
    case "own-reading": {
      const entered = enteredReading(circuit, form);
      if ("problem" in entered) return { status: 422, ...entered };
      return into(
        () => addReading({ id: form.token, jobId: job.id, reading: entered.reading, takenAt: at }),
        `${evidenceText(circuit, entered.reading)}: ${resultText(entered.reading)}`,
      );
    }
  }
}
