import { currentPath } from "@core/diagnose/explain/currentPath";
import { jobViewAt } from "../job/jobView.server";
import type { Route } from "./+types/path";

/** Parts and wires on the path of a cell of the path board. */
export async function loader({ params, request }: Route.LoaderArgs) {
  const { engine } = await jobViewAt(params.id, request.signal);
  const asked = new URL(request.url).searchParams;
  const { settings } = engine.netlist.circuit;
  const setting = settings.find((own) => own === asked.get("setting"));
  if (setting === undefined) return Response.json({ problem: "There is no such speed." }, { status: 422 });
  return Response.json({ path: currentPath(engine.netlist, setting, asked.get("piece") ?? "") });
}
