import { takeEntry } from "../entries/takeEntry.server";
import { expectReading, probePage } from "../probe/lookahead.server";
import type { Route } from "./+types/entries";

/**
 * Takes one entry of the bench's queue, and answers once it is on disk with the job's page as it now is; 422 tells
 * why it was refused.
 */
export async function action({ params, request }: Route.ActionArgs) {
  const taken = await takeEntry(params.id, await request.formData(), expectReading);
  // Some kilobytes on the shop's own network: packing them would take longer than sending them.
  const headers = { "Cache-Control": "no-store, no-transform" };
  if (taken.problem !== undefined) return Response.json(taken, { status: 422, headers });
  // Stored is stored: a page that cannot be made now is asked for by itself.
  const page = await probePage(params.id).catch(() => null);
  return Response.json({ page }, { headers });
}
