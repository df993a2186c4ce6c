import { afterEach, beforeEach, describe, expect, jest, test } from "@jest/globals";
import { randomId } from "../text/randomId";
import { entryId } from "./entryId";
import { type Answer, type Entry, EntryQueue, type EntryStore } from "./entryQueue";

/** The part of a browser's storage the queue uses. */
class MemoryStore implements EntryStore {
  readonly held = new Map<string, string>();
  get length(): number {
    return this.held.size;
  }
  key = (index: number): string | null => [...this.held.keys()][index] ?? null;
  getItem = (key: string): string | null => this.held.get(key) ?? null;
  setItem: EntryStore["setItem"] = (key, value) => void this.held.set(key, value);
  removeItem = (key: string): void => void this.held.delete(key);
}

const entry = (id: string, jobId = 1): Omit<Entry, "at"> => ({
  id,
  to: `/jobs/${jobId}/entries`,
  fields: { intent: "reading", seen: "dark" },
  words: id,
});

/** A server that answers as the test says, and remembers what it stored. */
function server() {
  const stored: string[] = [];
  const ages: number[] = [];
  let answer: Answer = { taken: true, page: null, isPushed: false };
  const send = async ({ id }: Entry, age: number): Promise<Answer> => {
    await Promise.resolve();
    if (typeof answer !== "string" && "taken" in answer && !stored.includes(id)) stored.push(id);
    if (answer !== "away") ages.push(age);
    return answer;
  };
  const answers = (next: Answer): void => {
    answer = next;
  };
  return { stored, ages, send, answers };
}

beforeEach(() => void jest.useFakeTimers());
afterEach(() => void jest.useRealTimers());

const settle = () => jest.advanceTimersByTimeAsync(0);

describe("the queue of entries", () => {
  test("stores entries in the order they were made, and keeps nothing afterwards", async () => {
    const store = new MemoryStore();
    const there = server();
    const queue = new EntryQueue(store, there.send);
    for (const id of ["a", "b", "c"]) queue.enter(entry(id));
    expect(store.held.size).toBe(3);
    await settle();
    expect(there.stored).toEqual(["a", "b", "c"]);
    expect(store.held.size).toBe(0);
    expect(queue.snapshot()).toMatchObject({ waiting: [], away: false, stored: 3 });
  });

  test("waits while the server is away, says so, and stores once it is back, with the age of each", async () => {
    const there = server();
    there.answers("away");
    const queue = new EntryQueue(new MemoryStore(), there.send);
    const told = jest.fn();
    queue.subscribe(told);
    queue.enter(entry("a"));
    await settle();
    expect(queue.snapshot()).toMatchObject({ away: true, waiting: [{ id: "a" }] });
    queue.enter(entry("b"));
    await jest.advanceTimersByTimeAsync(4000);
    expect(there.stored).toEqual([]);
    there.answers({ taken: true, page: null, isPushed: false });
    await jest.advanceTimersByTimeAsync(10_000);
    expect(there.stored).toEqual(["a", "b"]);
    expect(there.ages.every((age) => age >= 4)).toBe(true);
    expect(queue.snapshot()).toMatchObject({ away: false, waiting: [] });
    expect(told).toHaveBeenCalled();
  });

  test("a page opened again sends what the last one left, and ignores what is not its own", async () => {
    const store = new MemoryStore();
    store.setItem("airway:waiting:bad", "{not json");
    store.setItem("airway:waiting:odd", JSON.stringify({ id: 3 }));
    store.setItem("theme", "night");
    const away = server();
    away.answers("away");
    const before = new EntryQueue(store, away.send);
    before.enter(entry("a"));
    await settle();
    const there = server();
    const after = new EntryQueue(store, there.send);
    expect(after.snapshot().waiting.map(({ id }) => id)).toEqual(["a"]);
    await after.flush();
    expect(there.stored).toEqual(["a"]);
    expect([...store.held.keys()]).toEqual(["airway:waiting:bad", "airway:waiting:odd", "theme"]);
  });

  test("entries an earlier version stored by job number are sent to that job", () => {
    const store = new MemoryStore();
    const old = { id: "a", jobId: 7, fields: { intent: "reading" }, words: "a", at: 5 };
    store.setItem("airway:waiting:a", JSON.stringify(old));
    const queue = new EntryQueue(store, server().send);
    expect(queue.snapshot().waiting).toEqual([
      { id: "a", to: "/jobs/7/entries", fields: { intent: "reading" }, words: "a", at: 5 },
    ]);
  });

  test("nothing waits behind an entry with a file", async () => {
    const there = server();
    there.answers("away");
    const queue = new EntryQueue(new MemoryStore(), there.send);
    for (const [id, file] of [["photo", "photo"], ["a"], ["b"]] as const)
      queue.enter({ ...entry(id), ...(file === undefined ? {} : { file }) });
    await settle();
    there.answers({ taken: true, page: null, isPushed: false });
    await queue.flush();
    await settle();
    expect(there.stored.at(-1)).toBe("photo");
    expect(there.stored.slice(0, 2)).toEqual(["a", "b"]);
  });

  test("a refused entry is removed with its reason, and the next one is still sent", async () => {
    const there = server();
    there.answers({ problem: "no point Z9", isKept: false });
    const queue = new EntryQueue(new MemoryStore(), there.send);
    queue.enter(entry("a"));
    await settle();
    expect(queue.snapshot()).toMatchObject({
      waiting: [],
      refused: { problem: "no point Z9", fields: { seen: "dark" } },
      stored: 0,
    });
    there.answers({ taken: true, page: null, isPushed: false });
    queue.enter(entry("b"));
    expect(queue.snapshot().refused).toBeNull();
    await settle();
    expect(there.stored).toEqual(["b"]);
  });

  test("the last waiting entry of an address can be removed", async () => {
    const there = server();
    there.answers("away");
    const queue = new EntryQueue(new MemoryStore(), there.send);
    queue.enter(entry("a", 1));
    queue.enter(entry("b", 2));
    await settle();
    expect(queue.withdrawLast("/jobs/3/entries")).toBe(false);
    expect(queue.withdrawLast("/jobs/2/entries")).toBe(true);
    expect(queue.snapshot().waiting.map(({ id }) => id)).toEqual(["a"]);
  });

  test("a browser that stores nothing still sends the entry", async () => {
    const full = new MemoryStore();
    full.setItem = () => {
      throw new Error("QuotaExceededError");
    };
    const there = server();
    const queue = new EntryQueue(full, there.send);
    queue.enter(entry("a"));
    await settle();
    expect(there.stored).toEqual(["a"]);
    expect(queue.snapshot().waiting).toEqual([]);
  });

  test("the same entry made twice waits once", async () => {
    const there = server();
    const queue = new EntryQueue(new MemoryStore(), there.send);
    queue.enter(entry("a"));
    queue.enter(entry("a"));
    expect(queue.snapshot().waiting).toHaveLength(1);
    await settle();
    expect(there.stored).toEqual(["a"]);
  });
});

describe("ids of entries", () => {
  test("are version 4 UUIDs (RFC 9562, 5.4), all different", () => {
    const ids = Array.from({ length: 500 }, randomId);
    for (const id of ids)
      expect(id).toMatch(/^[0-9a-f]{8}-[0-9a-f]{4}-4[0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$/);
    expect(new Set(ids).size).toBe(500);
  });

  test("a double tap has the id of the first; another result or a later page has its own", () => {
    const dark = entryId("page 1", { look: "x", seen: "dark" });
    expect(entryId("page 1", { look: "x", seen: "dark" })).toBe(dark);
    expect(entryId("page 1", { look: "x", seen: "dim" })).not.toBe(dark);
    expect(entryId("page 2", { look: "x", seen: "dark" })).not.toBe(dark);
  });

  test("entries wait under the name they were made with, and go once that person signs in again", async () => {
    const store = new MemoryStore();
    const there = server();
    there.answers("signed-out");
    const bayTwo = { id: "2", name: "Bay two" };
    const idle = new EntryQueue(store, there.send, bayTwo);
    idle.enter(entry("a"));
    await settle();
    expect(idle.snapshot()).toMatchObject({ away: true, signedOut: true });
    expect(idle.snapshot().waiting[0]?.by).toEqual(bayTwo);

    // Somebody else signs in on the same device: their entries are stored, and nothing waits behind the others.
    there.answers({ taken: true, page: null, isPushed: false });
    const other = new EntryQueue(store, there.send, { id: "1", name: "Front desk" });
    other.enter(entry("b"));
    await settle();
    expect(there.stored).toEqual(["b"]);
    expect(other.snapshot().waiting).toEqual([]);
    expect(other.snapshot().ofOthers.map(({ id }) => id)).toEqual(["a"]);

    const again = new EntryQueue(store, there.send, bayTwo);
    expect(again.snapshot().ofOthers).toEqual([]);
    await again.flush();
    expect(there.stored).toEqual(["b", "a"]);
    expect(again.snapshot()).toMatchObject({ waiting: [], away: false, signedOut: false });
  });

  test("entries from before the shop named its people go with whoever is signed in", async () => {
    const store = new MemoryStore();
    const there = server();
    there.answers("away");
    new EntryQueue(store, there.send).enter(entry("a"));
    await settle();
    there.answers({ taken: true, page: null, isPushed: false });
    await new EntryQueue(store, there.send, { id: "1", name: "Front desk" }).flush();
    expect(there.stored).toEqual(["a"]);
  });
});
