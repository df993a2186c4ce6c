import { engineFor } from "../engine/engine.server";
import { jobAt, jobViewAt } from "../job/jobView.server";
import { entriesStored } from "./entriesFirst.server";
import { probeView } from "./probeView.server";

type Probed = Awaited<ReturnType<typeof probeView>>;

/** Pages that were asked for and have not begun to be made, by job. */
const waiting = new Map<string, Promise<Probed>>();
let last: Promise<unknown> = Promise.resolve();

/** Makes a page in its turn. A circuit that is still being compiled keeps no other page waiting. */
async function make(id: string): Promise<Probed> {
  const { circuit } = await jobAt(id);
  await engineFor(circuit);
  const made = last.then(async () => {
    await entriesStored();
    waiting.delete(id);
    return probeView(await jobViewAt(id));
  });
  last = made.catch(() => undefined);
  return made;
}

/**
 * A job's probe page, made after this was asked for. Whoever asks before it is begun shares it, so that many devices on
 * one job cost little more than one. Pages are made one after another: side by side, each would hold up the others
 * between its reads.
 */
export function probePageOf(id: string): Promise<Probed> {
  const asked = waiting.get(id);
  if (asked) return asked;
  const made = make(id).finally(() => {
    if (waiting.get(id) === made) waiting.delete(id);
  });
  waiting.set(id, made);
  return made;
}
