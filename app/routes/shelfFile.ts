import { spiceNetlist } from "@core/formats/spiceNetlist";
import { wireList } from "@core/formats/wireList";
import { problemText } from "@core/problem/problem";
import { buildNetlist } from "@core/solve/buildNetlist";
import { findCircuit, versionsOf } from "@db/repositories/circuits.server";
import Papa from "papaparse";
import { data } from "react-router";
import type { Route } from "./+types/shelfFile";

/** A circuit as a file: its own format, its wire list, or one operating point for ngspice. */
export async function loader({ params, request }: Route.LoaderArgs) {
  const [newest] = await versionsOf(params.id);
  const circuit = newest ? await findCircuit(newest.rowId) : null;
  if (!circuit) throw data("There is no such circuit.", { status: 404 });
  const file = (text: string, type: string): Response =>
    new Response(text, {
      headers: {
        "Content-Type": `${type}; charset=utf-8`,
        "Content-Disposition": `attachment; filename="${circuit.id}.${params.kind}"`,
        "X-Content-Type-Options": "nosniff",
      },
    });
  switch (params.kind) {
    case "json":
      return file(`${JSON.stringify(circuit, null, 2)}\n`, "application/json");
    case "csv":
      return file(`${Papa.unparse(wireList(circuit), { escapeFormulae: true })}\r\n`, "text/csv");
    case "cir": {
      const netlist = buildNetlist(circuit);
      if (!netlist.ok) throw data(netlist.problems.map(problemText).join("; "), { status: 422 });
      const asked = new URL(request.url).searchParams.get("setting") ?? circuit.settings.at(-1) ?? "";
      if (!circuit.settings.includes(asked)) throw data("There is no such setting.", { status: 422 });
      return file(spiceNetlist(netlist.value, { key: "run", setting: asked }, []).text, "text/plain");
    }
    default:
      throw data("There is no such file.", { status: 404 });
  }
}
