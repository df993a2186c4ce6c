import { findPhoto } from "@db/repositories/notes.server";
import { data } from "react-router";
import { jobAt } from "../job/jobView.server";
import type { Route } from "./+types/photo";

/** A photo as encoded when it was stored; it never changes. */
export async function loader({ params }: Route.LoaderArgs) {
  const { job } = await jobAt(params.id);
  const photo = await findPhoto(job.id, params.note);
  if (!photo) throw data("There is no such photo.", { status: 404 });
  return new Response(new Uint8Array(photo.jpeg), {
    headers: {
      "Content-Type": "image/jpeg",
      "Cache-Control": "private, max-age=31536000, immutable",
      "X-Content-Type-Options": "nosniff",
    },
  });
}
