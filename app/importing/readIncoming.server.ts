import { importer } from "./importProcess.server";
import type { ImportTasks } from "./importTask";
import {
  dropBody,
  type IncomingKind,
  incomingPath,
  keepBody,
  mostBytes,
  TooLarge,
} from "./incomingFile.server";

/** Kinds of which a file is being received or read; another one waits. */
const busy = new Set<IncomingKind>();

type ReadsFile = "readShop" | "readShelf";
type Answered<Name extends ReadsFile> = { readonly answer: ImportTasks[Name]["answers"] };

/** A file that was refused, with the status of the answer. */
type Refused = { readonly status: 409 | 413 | 422; readonly problems: readonly string[] };

/** Receives the file of a request and reads it in another process; aborting the request stops it. */
export async function readIncoming<Name extends ReadsFile>(
  kind: IncomingKind,
  task: Name,
  request: Request,
): Promise<Answered<Name> | Refused> {
  if (busy.has(kind)) {
    await dropBody(request);
    return { status: 409, problems: ["Another file is being checked. Wait until it is done."] };
  }
  busy.add(kind);
  try {
    await keepBody(kind, request);
    return await readKept(kind, task, request.signal);
  } catch (thrown) {
    if (!(thrown instanceof TooLarge)) throw thrown;
    return { status: 413, problems: [`A file may be at most ${mostBytes[kind] / 1024 / 1024} MB.`] };
  } finally {
    busy.delete(kind);
  }
}

/** Reads the file that is in its kind's place. */
export async function readKept<Name extends ReadsFile>(
  kind: IncomingKind,
  task: Name,
  signal: AbortSignal,
): Promise<Answered<Name> | Refused> {
  const own = importer();
  const stop = (): void => own.end();
  signal.addEventListener("abort", stop);
  try {
    const came = await own.run(task, { file: incomingPath(kind) });
    return "problems" in came ? { status: 422, problems: came.problems } : came;
  } finally {
    signal.removeEventListener("abort", stop);
    own.end();
  }
}
