import { takeEntry } from "../entries/takeEntry.server";
import { queueAnswer } from "../job/intoJob.server";
import { storedFirst } from "../probe/entriesFirst.server";
import { probePageOf } from "../probe/probePage.server";
import { pushedPagesContext } from "../probe/pushedPages.server";
import { logger } from "../shell/log.server";
import { sentForm } from "../shell/sentForm.server";
import type { Route } from "./+types/entries";

/**
 * Milliseconds to wait for the page; a circuit that is not compiled yet takes longer, and the entry is answered before
 * that.
 */
const pageWithinMilliseconds = 1000;

/** The job's page as it now is. Null if it fails or takes too long; then the browser loads it. */
async function pageAfterEntry(id: string) {
  const late = new Promise<null>((resolve) =>
    setTimeout(() => resolve(null), pageWithinMilliseconds).unref(),
  );
  const made = probePageOf(id);
  // A later failure is reported by the page the browser then loads.
  made.catch(() => {});
  try {
    return await Promise.race([made, late]);
  } catch (cause) {
    logger.error(cause, `job ${id}: the entry is saved, but its page could not be made`);
    return null;
  }
}

/**
 * Stores one entry from the probe page's queue. Answers with the job's new page once the entry is on disk, or with the
 * reason if it is refused. Where the page is pushed to several devices, the answer does not wait for it.
 */
export async function action({ params, request, context }: Route.ActionArgs) {
  const sent = await sentForm(request);
  const refused = await storedFirst(takeEntry(params.id, sent));
  if (refused) return queueAnswer(refused);
  const isPushed = context.get(pushedPagesContext)(Number(params.id));
  return queueAnswer(null, isPushed ? { isPushed } : { page: await pageAfterEntry(params.id) });
}
