import { takeComplaint } from "../complaint/takeComplaint.server";
import { queueAnswer } from "../job/intoJob.server";
import { sentForm } from "../shell/sentForm.server";
import type { Route } from "./+types/heard";

/** Stores an entry of the complaint page from the browser's queue, and answers once it is on disk. */
export async function action({ params, request }: Route.ActionArgs) {
  return queueAnswer(await takeComplaint(params.id, await sentForm(request)));
}
