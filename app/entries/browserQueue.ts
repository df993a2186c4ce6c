import { useSyncExternalStore } from "react";
import { madeByHeader, nobody } from "../network/madeBy";
import { dropFile, keptFile } from "./attachedFiles";
import {
  type Answer,
  type EnteredBy,
  type Entry,
  EntryQueue,
  type QueueState,
  type Refusal,
} from "./entryQueue";

/** Milliseconds without an answer after which the server counts as away. */
const answerWithin = 6000;
/** The same for an entry with a photo, which a bad connection sends slowly. */
const answerToFileWithin = 120_000;

/** What an entry sends: its fields, and its file if it has one; null if its file is gone. */
async function bodyOf({ id, fields, file }: Entry, ageSeconds: number): Promise<BodyInit | null> {
  const all = { ...fields, token: id, waitedSeconds: ageSeconds.toFixed(1) };
  if (file === undefined) return new URLSearchParams(all);
  const kept = await keptFile(id);
  if (!kept) return null;
  const form = new FormData();
  for (const [name, value] of Object.entries(all)) form.set(name, value);
  form.set(file, kept);
  return form;
}

/** Deletes an entry's file from this browser once the entry was stored or refused. */
async function sendAndTidy(entry: Entry, ageSeconds: number): Promise<Answer> {
  const answer = await post(entry, ageSeconds);
  if (answer !== "away" && answer !== "signed-out" && entry.file !== undefined) await dropFile(entry.id);
  return answer;
}

const refusal = (problem: string): Refusal => ({ problem, isKept: false });

/** Sends one entry to its address; no answer, or a server error, is `away`. */
async function post(entry: Entry, ageSeconds: number): Promise<Answer> {
  try {
    const body = await bodyOf(entry, ageSeconds);
    if (body === null) return refusal("Its photo is no longer on this device.");
    const answer = await fetch(entry.to, {
      method: "POST",
      body,
      headers: { [madeByHeader]: entry.by?.id ?? nobody },
      signal: AbortSignal.timeout(entry.file === undefined ? answerWithin : answerToFileWithin),
    });
    if (answer.ok) {
      const { page = null, isPushed = false } = (await answer.json()) as {
        readonly page?: unknown;
        readonly isPushed?: boolean;
      };
      return { taken: true, page, isPushed };
    }
    if (answer.status === 409 || answer.status === 422) {
      const { problem } = (await answer.json()) as { problem: string };
      return { problem, isKept: answer.status === 409 };
    }
    if (answer.status === 401) return "signed-out";
    if (answer.status === 413) return refusal("The file is too large.");
    if (answer.status === 404) return refusal("The job it belongs to no longer exists.");
    return answer.status >= 500 ? "away" : refusal(`The server refused it (${answer.status}).`);
  } catch {
    return "away";
  }
}

/** Who is signed in on this page, as the server put it into the page. */
function signedIn(): EnteredBy | null {
  const { person, personName } = document.documentElement.dataset;
  return person && personName ? { id: person, name: personName } : null;
}

let queue: EntryQueue | null = null;
/** The one queue of this window, for entries of every page; made on first use, in a browser. */
export function theQueue(): EntryQueue {
  queue ??= new EntryQueue(localStorage, sendAndTidy, signedIn());
  return queue;
}

const nothing: QueueState = {
  waiting: [],
  ofOthers: [],
  signedOut: false,
  away: false,
  refused: null,
  stored: 0,
  shown: null,
};
export const subscribe = (listener: () => void) => theQueue().subscribe(listener);

/** What the queue holds; only the components that show it render again when it changes. */
export const useQueue = (): QueueState =>
  useSyncExternalStore(
    subscribe,
    () => theQueue().snapshot(),
    () => nothing,
  );
