import { problemText } from "@core/problem/problem";
import { setupProblems } from "@core/solve/netlist/setup";
import { z } from "zod";
import { jobViewAt, sheetStatesAt } from "../job/jobView.server";
import type { Route } from "./+types/sheetStates";

const asked = z.object({
  key: z.enum(["off", "run"]),
  setting: z.string().max(16),
  engine: z.stringbool().default(false),
  unplugged: z.array(z.string().max(32)).max(50).default([]),
  lampFor: z.string().max(32).optional(),
  fault: z.array(z.string().max(120)).max(6).default([]),
});

/** The circuit's states in any set-up: engine running, plugs off, a lamp in a part's place. */
export async function loader({ params, request }: Route.LoaderArgs) {
  const { engine } = await jobViewAt(params.id, request.signal);
  const query = new URL(request.url).searchParams;
  const parsed = asked.safeParse({
    ...Object.fromEntries(query),
    unplugged: query.getAll("unplugged"),
    fault: query.getAll("fault"),
  });
  if (!parsed.success)
    return Response.json({ problem: "That set-up could not be read. Load the page again." }, { status: 422 });
  const { fault, ...setup } = parsed.data;
  const [wrong] = setupProblems(engine.netlist, setup);
  if (wrong) return Response.json({ problem: problemText(wrong) }, { status: 422 });
  return Response.json(
    { states: sheetStatesAt(engine, ["healthy", ...fault], [setup]) },
    { headers: { "Cache-Control": "no-store" } },
  );
}
