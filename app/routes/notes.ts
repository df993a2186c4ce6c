import { addNote, deleteNote, type Photo } from "@db/repositories/notes.server";
import { readingsOf } from "@db/repositories/readings.server";
import { worksOf } from "@db/repositories/works.server";
import { z } from "zod";
import { madeAt } from "../entries/madeAt.server";
import { intoJob, queueAnswer, type WriteToJob } from "../job/intoJob.server";
import { jobAt } from "../job/jobView.server";
import { photoFrom } from "../job/photo.server";
import { sentForm } from "../shell/sentForm.server";
import { textFields } from "../text/formText";
import type { Route } from "./+types/notes";

const noteForm = z.discriminatedUnion("intent", [
  z.object({
    intent: z.literal("note"),
    token: z.uuid(),
    reading: z.string().max(64).default(""),
    work: z.string().max(120).default(""),
    // A form sends line ends as carriage return and line feed.
    words: z
      .string()
      .transform((text) => text.replaceAll("\r\n", "\n").trim())
      .pipe(z.string().max(1000))
      .default(""),
  }),
  z.object({ intent: z.literal("strike"), id: z.uuid(), struck: z.enum(["yes", "no"]) }),
]);

const refuse = (problem: string) => queueAnswer({ status: 422, problem });

/** Stores a note on a job, with a photo if one is sent; or deletes one. */
export async function action({ params, request }: Route.ActionArgs) {
  const sent = await sentForm(request);
  const { job } = await jobAt(params.id);
  const file = sent.get("photo");
  const fields = textFields(sent);
  const parsed = noteForm.safeParse(fields);
  if (!parsed.success) return refuse("That note could not be read. A note can have at most 1000 characters.");
  const form = parsed.data;
  const at = madeAt(sent);
  const into = async (words: string, write: WriteToJob) =>
    queueAnswer(await intoJob({ jobId: job.id, address: `/jobs/${job.id}/notes`, fields, words, at }, write));
  if (form.intent === "strike") {
    return into("a note deleted or restored", () =>
      deleteNote(job.id, form.id, form.struck === "yes" ? at : null),
    );
  }
  let photo: Photo | null = null;
  if (file instanceof File && file.size > 0) {
    const made = await photoFrom(new Uint8Array(await file.arrayBuffer()));
    if ("problem" in made) return refuse(made.problem);
    photo = made.photo;
  }
  if (form.words === "" && photo === null) return refuse("Write a note or choose a photo.");
  const about = form.reading === "" ? null : form.reading;
  if (about !== null && !(await readingsOf(job.id)).some(({ id }) => id === about))
    return refuse("That reading belongs to another job.");
  const workId = form.work === "" ? null : form.work;
  if (workId !== null && !(await worksOf(job.id)).some(({ id }) => id === workId))
    return refuse("That line of work belongs to another job.");
  return into(`note: ${form.words}`, () =>
    addNote(
      { id: form.token, jobId: job.id, readingId: about, workId, words: form.words, takenAt: at },
      photo,
    ),
  );
}
