import { addNote, deleteNote, type Photo } from "@db/repositories/notes.server";
import { readingsOf } from "@db/repositories/readings.server";
import { z } from "zod";
import { jobAt } from "../job/jobView.server";
import { photoFrom } from "../job/photo.server";
import type { Route } from "./+types/notes";

const noteForm = z.discriminatedUnion("intent", [
  z.object({
    intent: z.literal("note"),
    id: z.uuid(),
    reading: z.string().max(64).default(""),
    // A form sends its line ends as carriage return and line feed.
    words: z
      .string()
      .transform((text) => text.replaceAll("\r\n", "\n").trim())
      .pipe(z.string().max(1000))
      .default(""),
  }),
  z.object({ intent: z.literal("strike"), id: z.uuid(), struck: z.enum(["yes", "no"]) }),
]);

const answer = (problem?: string) =>
  Response.json(
    { problem },
    { status: problem === undefined ? 200 : 422, headers: { "Cache-Control": "no-store" } },
  );

/** Takes a note on a job, with a photo if one is sent; or strikes one out. */
export async function action({ params, request }: Route.ActionArgs) {
  const { job } = await jobAt(params.id);
  const sent = await request.formData();
  const { photo: file, ...fields } = Object.fromEntries(sent);
  const parsed = noteForm.safeParse(fields);
  if (!parsed.success) return answer("That note cannot be read: at most 1000 characters.");
  const form = parsed.data;
  if (form.intent === "strike") {
    await deleteNote(job.id, form.id, form.struck === "yes" ? new Date() : null);
    return answer();
  }
  let photo: Photo | null = null;
  if (file instanceof File && file.size > 0) {
    const made = await photoFrom(new Uint8Array(await file.arrayBuffer()));
    if ("problem" in made) return answer(made.problem);
    photo = made.photo;
  }
  if (form.words === "" && photo === null) return answer("Write a word or choose a photo.");
  const about = form.reading === "" ? null : form.reading;
  if (about !== null && !(await readingsOf(job.id)).some(({ id }) => id === about))
    return answer("That reading is not this job's.");
  await addNote(
    { id: form.id, jobId: job.id, readingId: about, words: form.words, takenAt: new Date() },
    photo,
  );
  return answer();
}
