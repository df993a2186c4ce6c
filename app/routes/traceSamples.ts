import { samplesOf } from "@db/repositories/recordings.server";
import { data } from "react-router";
import type { Route } from "./+types/traceSamples";

/** Stored samples of a recording, 32-bit floats little-endian; they never change. */
export async function loader({ params }: Route.LoaderArgs) {
  const samples = await samplesOf(params.trace);
  if (!samples) throw data("There is no such recording.", { status: 404 });
  return new Response(new Uint8Array(samples), {
    headers: {
      "Content-Type": "application/octet-stream",
      "Cache-Control": "private, max-age=31536000, immutable",
      "X-Content-Type-Options": "nosniff",
    },
  });
}
