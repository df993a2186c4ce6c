/** Longest slice of a debrief, in milliseconds, before others are served. */
const sliceMilliseconds = 4;

/** Works through a long task step by step and serves other requests in between; resolves with its result. */
export async function inSlices<T>(steps: Iterator<void, T>): Promise<T> {
  let began = performance.now();
  for (let step = steps.next(); ; step = steps.next()) {
    if (step.done) return step.value;
    if (performance.now() - began < sliceMilliseconds) continue;
    await new Promise((resolve) => setImmediate(resolve));
    began = performance.now();
  }
}
