import { data } from "react-router";
import { readIncoming } from "../importing/readIncoming.server";
import { previewBundle } from "../shelf/bundle.server";
import type { Route } from "./+types/shelfImportFile";

/** Receives a shelf bundle, reads it in another process, and answers what importing it would change. */
export async function action({ request }: Route.ActionArgs) {
  const came = await readIncoming("shelf", "readShelf", request);
  if ("problems" in came)
    return data({ problem: came.problems.join("\n"), lines: null }, { status: came.status });
  const preview = await previewBundle(came.answer);
  if ("problems" in preview)
    return data({ problem: preview.problems.join("\n"), lines: null }, { status: 422 });
  return data({ problem: null, lines: preview.value });
}
