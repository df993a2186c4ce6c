import { beginDraft } from "@db/repositories/drafts.server";
import { redirect } from "react-router";
import { jobAt } from "../job/jobView.server";
import type { Route } from "./+types/jobDraft";

/** Begins a draft from a job's circuit, to be finished from its diagram and put on the shelf; sent twice, it is one. */
export async function action({ params }: Route.ActionArgs) {
  const { circuit } = await jobAt(params.id);
  const { id, title, steering } = circuit;
  await beginDraft(id, { id, title, ...(steering ? { steering } : {}) }, { kind: "circuit", circuit });
  return redirect(`/trace/${id}`);
}
