import { data } from "react-router";
import { dropBody, keepBody, mostBytes, TooLarge } from "../importing/incomingFile.server";
import { dropRecords, isImportingRecords, readRecords } from "../importing/recordsImport.server";
import { logger } from "../shell/log.server";
import type { Route } from "./+types/recordsInFile";

/** Receives a file of records and starts to read it; the page shows the progress. */
export async function action({ request }: Route.ActionArgs) {
  if (isImportingRecords()) {
    await dropBody(request);
    return data({ problem: "Another file is being imported. Wait until it is done." }, { status: 409 });
  }
  dropRecords();
  try {
    await keepBody("records", request);
  } catch (thrown) {
    if (!(thrown instanceof TooLarge)) throw thrown;
    return data({ problem: `A file may be at most ${mostBytes.records / 1024 / 1024} MB.` }, { status: 413 });
  }
  const store = new URL(request.url).searchParams.get("store") === "yes";
  readRecords(store).catch((cause: unknown) => logger.error(cause, "bringing records in failed"));
  return data({ problem: null }, { status: 202 });
}
