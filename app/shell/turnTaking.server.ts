// Requests and the work of the background share one thread: who goes first.

/** Requests being answered. */
let answering = 0;

/** Works of the background hold the thread no longer than this. */
const sliceMilliseconds = 4;
/** While requests are being answered they are asked after so often, and waited for so long: one may last as long as an upload. */
const askAgainMilliseconds = 2;
const longestWaitMilliseconds = 250;

/** An answer that tells when it has gone out, or will not any more. */
interface Answer {
  once(event: "close", gone: () => void): unknown;
}

/** Counts a request as being answered until its answer is gone. */
export function countAsAnswering(answer: Answer): void {
  answering += 1;
  answer.once("close", () => {
    answering -= 1;
  });
}

/** Lets what has come in meanwhile take its turn. */
export const breath = (): Promise<void> => new Promise((resolve) => void setImmediate(resolve));

/** Lets every request that has come in be answered first; a long one holds the background up for a quarter of a second. */
export async function requestsFirst(): Promise<void> {
  const began = performance.now();
  await breath();
  while (answering > 0 && performance.now() - began < longestWaitMilliseconds)
    await new Promise((resolve) => setTimeout(resolve, askAgainMilliseconds));
}

/**
 * Goes through a work step by step.
 * @param turn what others are given between two slices; a breath for what somebody waits for
 */
export async function inSlices<T>(steps: Iterator<void, T>, turn: () => Promise<void> = breath): Promise<T> {
  let began = performance.now();
  for (let step = steps.next(); ; step = steps.next()) {
    if (step.done) return step.value;
    if (performance.now() - began < sliceMilliseconds) continue;
    await turn();
    began = performance.now();
  }
}
