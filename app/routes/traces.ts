import { problemsOf, problemText } from "@core/problem/problem";
import { recordingRecordSchema } from "@core/recording/storedRecording";
import { mostKept } from "@core/signal/recordingPicture";
import { addRecording } from "@db/repositories/recordings.server";
import { z } from "zod";
import { queueAnswer } from "../job/intoJob.server";
import { jobAt } from "../job/jobView.server";
import { sentForm } from "../shell/sentForm.server";
import type { Route } from "./+types/traces";

const fields = z.object({ id: z.uuid(), record: z.string().max(2_000_000) });
const refuse = (problem: string) => queueAnswer({ status: 422, problem });

/** Stores a recording read in the browser; answers once it is on disk, or 422 with the reason if it was refused. */
export async function action({ params, request }: Route.ActionArgs) {
  const sent = await sentForm(request);
  const { job, circuit } = await jobAt(params.id);
  const parsed = fields.safeParse({ id: sent.get("id"), record: sent.get("record") });
  const samples = sent.get("samples");
  if (!parsed.success || !(samples instanceof File)) return refuse("That recording cannot be read.");
  let input: unknown;
  try {
    input = JSON.parse(parsed.data.record);
  } catch {
    return refuse("That recording cannot be read.");
  }
  const record = recordingRecordSchema.safeParse(input);
  if (!record.success)
    return refuse(problemsOf(record.error, input).map(problemText)[0] ?? "That recording cannot be read.");
  if (!circuit.parts.some(({ id, kind }) => kind === "motor" && id === record.data.motor))
    return refuse(`This circuit has no motor ${record.data.motor}.`);
  if (samples.size > 4 * mostKept || samples.size % 4 !== 0)
    return refuse("Too many samples came with that recording.");
  const refusal = await addRecording({
    id: parsed.data.id,
    jobId: job.id,
    record: record.data,
    samples: Buffer.from(await samples.arrayBuffer()),
    takenAt: new Date(),
  });
  // Any job takes a recording, unless its id belongs to another job's, which no page sends.
  if (refusal) return queueAnswer({ status: 409, problem: "Another job has a recording of this id." });
  return queueAnswer(null, { stored: true });
}
