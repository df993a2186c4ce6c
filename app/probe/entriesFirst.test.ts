import { afterEach, beforeEach, expect, jest, test } from "@jest/globals";
import { entriesStored, storedFirst } from "./entriesFirst.server";

beforeEach(() => void jest.useFakeTimers({ doNotFake: ["nextTick", "queueMicrotask"] }));
afterEach(() => void jest.useRealTimers());

/** Something that is being stored until the test says so. */
function storing(): {
  readonly done: () => void;
  readonly failed: () => void;
  readonly entry: Promise<void>;
} {
  let done = (): void => undefined;
  let failed = (): void => undefined;
  const entry = new Promise<void>((resolve, reject) => {
    done = resolve;
    failed = () => reject(new Error("refused"));
  });
  return { done, failed, entry };
}

/** Whether something has come to its end. */
function ended(waiting: Promise<void>): () => Promise<boolean> {
  let isOver = false;
  void waiting.then(() => {
    isOver = true;
  });
  return async () => {
    await jest.advanceTimersByTimeAsync(0);
    return isOver;
  };
}

test("a page waits for the entries that are being stored, also for those that come meanwhile", async () => {
  const [one, other] = [storing(), storing()];
  const stored = storedFirst(one.entry);
  const isOver = ended(entriesStored());
  expect(await isOver()).toBe(false);
  const refused = storedFirst(other.entry).catch((cause: unknown) => (cause as Error).message);
  one.done();
  await stored;
  expect(await isOver()).toBe(false);
  other.failed();
  expect(await refused).toBe("refused");
  expect(await isOver()).toBe(true);
  const nobody = ended(entriesStored());
  expect(await nobody()).toBe(true);
});

test("a page waits for an entry that does not end, but not for ever", async () => {
  const { entry, done } = storing();
  const stored = storedFirst(entry);
  const isOver = ended(entriesStored());
  await jest.advanceTimersByTimeAsync(299);
  expect(await isOver()).toBe(false);
  await jest.advanceTimersByTimeAsync(2);
  expect(await isOver()).toBe(true);
  done();
  await stored;
});
