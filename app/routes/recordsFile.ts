import { exportRecords } from "@db/repositories/records.server";
import { data } from "react-router";
import { recordsCsv } from "../records/recordsCsv";
import type { Route } from "./+types/recordsFile";

/** Every closed job as a file, to keep or to import elsewhere. */
export async function loader({ params }: Route.LoaderArgs) {
  const file = (content: string, type: string): Response =>
    new Response(content, {
      headers: {
        "Content-Type": `${type}; charset=utf-8`,
        "Content-Disposition": `attachment; filename="airway-records.${params.kind}"`,
        "X-Content-Type-Options": "nosniff",
      },
    });
  switch (params.kind) {
    case "csv":
      return file(recordsCsv(await exportRecords()), "text/csv");
    case "json": {
      const records = { format: "airway-records", version: 1, records: await exportRecords() };
      return file(`${JSON.stringify(records, null, 1)}\n`, "application/json");
    }
    default:
      throw data("There is no such file.", { status: 404 });
  }
}
