import { queueAnswer } from "../job/intoJob.server";
import { takeSeenEntry } from "../seen/takeSeenEntry.server";
import { sentForm } from "../shell/sentForm.server";
import type { Route } from "./+types/seenEntries";

/** Stores an entry that the browser's queue sends for a job without a diagram; answers once it is on disk. */
export async function action({ params, request }: Route.ActionArgs) {
  return queueAnswer(await takeSeenEntry(params.id, await sentForm(request)));
}
