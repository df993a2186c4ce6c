import { queueAnswer } from "../job/intoJob.server";
import { takeSeenEntry } from "../seen/takeSeenEntry.server";
import { sentForm } from "../shell/sentForm.server";
import type { Route } from "./+types/seenEntries";

/** Stores an entry of a job without a diagram from the browser's queue, and answers once it is on disk. */
export async function action({ params, request }: Route.ActionArgs) {
  return queueAnswer(await takeSeenEntry(params.id, await sentForm(request)));
}
