import { readingBeingTyped } from "../entries/takeEntry.server";
import { expectReading } from "../probe/lookahead.server";
import type { Route } from "./+types/typing";

/** Told of a figure while it is typed, so that what it means is worked out by the time it is entered; nothing is stored. */
export async function action({ params, request }: Route.ActionArgs) {
  const typed = await readingBeingTyped(params.id, await request.formData());
  if (typed) await expectReading(typed.jobId, typed.reading);
  return new Response(null, { status: 204, headers: { "Cache-Control": "no-store" } });
}
