import { data } from "react-router";
import { learnerOf } from "../practice/learner.server";
import { progressOf } from "../practice/progress.server";
import { progressCsv } from "../practice/progressCsv";
import type { Route } from "./+types/practiceProgress";

/** A learner's progress as a file: lessons, cases and odds. */
export async function loader({ params, request }: Route.LoaderArgs) {
  const { learner } = await learnerOf(request);
  if (learner === null) throw data("Nobody has practised yet.", { status: 404 });
  const progress = await progressOf(learner, new Date());
  const name = `airway-progress-${learner.replace(/[^\w-]+/g, "-")}`;
  const download = (type: string, ending: string) => ({
    headers: {
      "Content-Type": `${type}; charset=utf-8`,
      "Content-Disposition": `attachment; filename="${name}.${ending}"`,
      "Cache-Control": "no-store",
    },
  });
  if (params.kind === "csv") return new Response(progressCsv(progress), download("text/csv", "csv"));
  if (params.kind === "json")
    return new Response(`${JSON.stringify(progress, null, 2)}\n`, download("application/json", "json"));
  throw data("There is no such file.", { status: 404 });
}
