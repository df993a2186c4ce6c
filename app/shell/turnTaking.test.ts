import { EventEmitter } from "node:events";
import { expect, test } from "@jest/globals";
import { countAsAnswering, inSlices, requestsFirst } from "./turnTaking.server";

const later = (milliseconds: number): Promise<void> =>
  new Promise((resolve) => setTimeout(resolve, milliseconds));

/** A work of many steps, each as long as a slice may be. */
function* work(done: string[], steps: number): Generator<void, string> {
  for (let step = 0; step < steps; step++) {
    const began = performance.now();
    while (performance.now() - began < 5);
    done.push(`step ${step}`);
    yield;
  }
  return "through";
}

test("a work of the background waits while a request is being answered, and goes on after", async () => {
  const done: string[] = [];
  const answer = new EventEmitter();
  countAsAnswering(answer);
  const through = inSlices(work(done, 3), requestsFirst).then((result) => done.push(result));
  await later(20);
  expect(done).toEqual(["step 0"]);
  done.push("answered");
  answer.emit("close");
  await through;
  expect(done).toEqual(["step 0", "answered", "step 1", "step 2", "through"]);
});

test("each of several requests is waited for", async () => {
  const [first, second] = [new EventEmitter(), new EventEmitter()];
  countAsAnswering(first);
  countAsAnswering(second);
  let idle = false;
  const waited = requestsFirst().then(() => {
    idle = true;
  });
  first.emit("close");
  await later(20);
  expect(idle).toBe(false);
  second.emit("close");
  await waited;
  expect(idle).toBe(true);
});

test("a request that lasts does not stop the background for good", async () => {
  const upload = new EventEmitter();
  countAsAnswering(upload);
  await expect(requestsFirst()).resolves.toBeUndefined();
  upload.emit("close");
});

test("a work somebody waits for goes on while its own request is being answered", async () => {
  const own = new EventEmitter();
  countAsAnswering(own);
  const done: string[] = [];
  // Forty slices, each held up by the request for a quarter of a second, would take ten seconds.
  const first = later(5000).then(() => "still waiting");
  expect(await Promise.race([inSlices(work(done, 40)), first])).toBe("through");
  own.emit("close");
});
