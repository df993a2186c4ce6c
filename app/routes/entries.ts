import { takeEntry } from "../entries/takeEntry.server";
import { queueAnswer } from "../job/intoJob.server";
import { jobViewAt } from "../job/jobView.server";
import { probeView } from "../probe/probeView.server";
import { logger } from "../shell/log.server";
import type { Route } from "./+types/entries";

/** The job's page as it now is; null where it cannot be made, so that the browser loads it and shows why. */
async function pageAfterEntry(id: string) {
  try {
    return probeView(await jobViewAt(id));
  } catch (cause) {
    logger.error(cause, `job ${id}: the entry is saved, but its page could not be made`);
    return null;
  }
}

/**
 * Stores one entry from the probe page's queue. Answers with the job's new page once the entry is on disk, or with
 * the reason when it is refused.
 */
export async function action({ params, request }: Route.ActionArgs) {
  const refused = await takeEntry(params.id, await request.formData());
  return refused ? queueAnswer(refused) : queueAnswer(null, { page: await pageAfterEntry(params.id) });
}
