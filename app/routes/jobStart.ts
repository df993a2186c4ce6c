import { redirect } from "react-router";
import { jobAt } from "../job/jobView.server";
import type { Route } from "./+types/jobStart";

const firstPage = {
  probing: "probe",
  "part-awaited": "verdict",
  "proof-due": "prove",
  closed: "close",
} as const;

/** A job opens at the page where its work continues. */
export async function loader({ params }: Route.LoaderArgs) {
  const { job } = await jobAt(params.id);
  const page = job.stage === "part-awaited" && job.partsInAt ? "fit" : firstPage[job.stage];
  return redirect(`/jobs/${job.id}/${page}`);
}

/** Nothing: with a component, a job that does not exist gets the error page in place of its bare words. */
export default function JobStart() {
  return null;
}
