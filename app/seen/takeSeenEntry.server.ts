import type { PlaceReading } from "@core/wiring/placeReading";
import {
  addSeenReading,
  deleteSeenReading,
  findSeenJob,
  readSeenCautions,
  type SeenJob,
  type SeenRefusal,
  setOutOfReach,
  setSeenComplaint,
} from "@db/repositories/seenJobs.server";
import { data } from "react-router";
import { madeAt } from "../entries/madeAt.server";
import type { Refused } from "../job/intoJob.server";
import { textFields } from "../text/formText";
import { seenForm, seenReading } from "./seenForm";

/** The job without a diagram of an address; answers 404 if there is none. */
export async function seenJobAt(id: string | undefined): Promise<SeenJob> {
  const job = /^\d{1,9}$/.test(id ?? "") ? await findSeenJob(Number(id)) : null;
  if (!job) throw data("There is no such job.", { status: 404 });
  return job;
}

const refusals: Readonly<Record<SeenRefusal, string>> = {
  gone: "This job was deleted. Restore it, then enter that again.",
  "went-on": "This job has its circuit now. Enter that on the job's own page.",
};

const answered = async (writing: Promise<SeenRefusal | null>): Promise<Refused | null> => {
  const refusal = await writing;
  return refusal && { status: 422, problem: refusals[refusal] };
};

/**
 * Stores what was entered on the page of a job without a diagram. Resolves once it is on disk.
 * @returns why it was refused, or null
 */
export async function takeSeenEntry(id: string | undefined, sent: FormData): Promise<Refused | null> {
  const job = await seenJobAt(id);
  const fields = textFields(sent);
  const parsed = seenForm.safeParse(fields);
  if (!parsed.success) return { status: 422, problem: "That entry could not be read. Load the page again." };
  const form = parsed.data;
  const takenAt = madeAt(sent);
  switch (form.intent) {
    case "reading": {
      const entered = seenReading(fields);
      if ("problem" in entered) return { status: 422, problem: entered.problem };
      return answered(addSeenReading(job.id, { id: form.token, reading: entered.reading, takenAt }));
    }
    case "heard": {
      const { setting, seen, pattern, token } = form;
      const as = (own: "none" | "weak" | "normal" | "strong"): PlaceReading => ({
        test: "airflow",
        key: "run",
        setting,
        heard: true,
        seen: own,
      });
      const told = seen === "" ? null : { ...as(seen), ...(pattern === "" ? {} : { pattern }) };
      return answered(setSeenComplaint(job.id, { id: token, reading: as("none"), takenAt }, told));
    }
    case "strike":
      return answered(deleteSeenReading(job.id, form.id, form.struck === "yes" ? takenAt : null));
    case "reach":
      return answered(setOutOfReach(job.id, form.place, form.out === "yes"));
    case "cautions":
      return answered(readSeenCautions(job.id, form.cautions));
  }
}
