import { useSyncExternalStore } from "react";
import { type Answer, type Entry, EntryQueue, type QueueState } from "./entryQueue";

/** Milliseconds after which a server that does not answer is away. */
const answerWithin = 6000;

/** What the server says of an entry it stored or refused. */
interface Answered {
  readonly page?: unknown;
  readonly problems?: readonly string[];
}

/** Sends one entry to its address; no answer, or one that says the server is unwell, is `away`. */
async function post({ to, id, fields }: Entry, ageSeconds: number): Promise<Answer> {
  try {
    const answer = await fetch(to, {
      method: "POST",
      body: new URLSearchParams({ ...fields, token: id, waitedSeconds: ageSeconds.toFixed(1) }),
      signal: AbortSignal.timeout(answerWithin),
    });
    if (answer.ok) {
      const { page = null, problems = [] } = (await answer.json()) as Answered;
      return problems.length > 0 ? { problem: problems.join("\n") } : { taken: true, page };
    }
    if (answer.status === 422) return (await answer.json()) as { problem: string };
    if (answer.status === 404) return { problem: "What this belongs to is not there any more." };
    return answer.status >= 500 ? "away" : { problem: `The server refused it (${answer.status}).` };
  } catch {
    return "away";
  }
}

let queue: EntryQueue | null = null;
/** The one queue of this window, whatever page its entries come from; made when first asked for, in a browser. */
export function theQueue(): EntryQueue {
  queue ??= new EntryQueue(localStorage, post);
  return queue;
}

const nothing: QueueState = { waiting: [], away: false, refused: null, stored: 0, shown: null };
export const subscribe = (listener: () => void) => theQueue().subscribe(listener);

/** What the queue holds; only what shows it is drawn anew when it changes. */
export const useQueue = (): QueueState =>
  useSyncExternalStore(
    subscribe,
    () => theQueue().snapshot(),
    () => nothing,
  );
