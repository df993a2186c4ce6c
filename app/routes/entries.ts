import { takeEntry } from "../entries/takeEntry.server";
import type { Route } from "./+types/entries";

/** Takes one entry of the bench's queue and says whether it is on disk; 422 tells why it was refused. */
export async function action({ params, request }: Route.ActionArgs) {
  const taken = await takeEntry(params.id, await request.formData());
  return Response.json(taken, {
    status: taken.problem === undefined ? 200 : 422,
    headers: { "Cache-Control": "no-store" },
  });
}
