import { takeFinding } from "../check/takeFinding.server";
import { queueAnswer } from "../job/intoJob.server";
import { sentForm } from "../shell/sentForm.server";
import type { Route } from "./+types/checks";

/** Stores a step of the final check from the browser's queue, and answers once it is on disk. */
export async function action({ params, request }: Route.ActionArgs) {
  return queueAnswer(await takeFinding(params.id, await sentForm(request)));
}
