import type { Draft } from "@db/repositories/drafts.server";
import { previewImport } from "../shelf/importCircuit.server";
import { draftView } from "./draftView.server";

/** Everything the trace page shows: the draft, and what storing it would change on the shelf. */
export async function tracedDraft(draft: Draft) {
  const view = draftView(draft);
  const preview = view.problems.length === 0 ? await previewImport(view.circuit) : null;
  const stored = preview && "value" in preview ? preview.value : null;
  return {
    ...view,
    shelf: stored && { version: stored.version, changes: stored.changes, twins: stored.twins },
  };
}

export type TracedDraft = Awaited<ReturnType<typeof tracedDraft>>;
