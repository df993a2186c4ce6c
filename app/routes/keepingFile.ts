import { createReadStream, statSync } from "node:fs";
import { Readable } from "node:stream";
import { backupFile } from "@db/keeping/backup.server";
import { shopBundle } from "@db/keeping/shopBundle.server";
import { data } from "react-router";
import type { Route } from "./+types/keepingFile";

/** The whole shop as one bundle, or a backup, as a file. */
export async function loader({ params }: Route.LoaderArgs) {
  const head = (type: string, name: string) => ({
    "Content-Type": type,
    "Content-Disposition": `attachment; filename="${name}"`,
    "X-Content-Type-Options": "nosniff",
  });
  if (params.file === "airway-shop.zip")
    return new Response(new Uint8Array(await shopBundle()), {
      headers: head("application/zip", "airway-shop.zip"),
    });
  const file = backupFile(params.file);
  if (!file) throw data("There is no such file.", { status: 404 });
  return new Response(Readable.toWeb(createReadStream(file)) as ReadableStream, {
    headers: {
      ...head("application/vnd.sqlite3", params.file),
      "Content-Length": String(statSync(file).size),
    },
  });
}
