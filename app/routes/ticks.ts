import { queueAnswer } from "../job/intoJob.server";
import { takeTick } from "../repair/takeTick.server";
import { sentForm } from "../shell/sentForm.server";
import type { Route } from "./+types/ticks";

/** Stores one tick of a repair from the queue, and answers once it is on disk. */
export async function action({ params, request }: Route.ActionArgs) {
  return queueAnswer(await takeTick(params.id, await sentForm(request)));
}
