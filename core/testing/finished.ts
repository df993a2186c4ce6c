/** The result of a generator's steps, run without a pause. */
export function finished<T>(steps: Iterator<void, T>): T {
  for (let step = steps.next(); ; step = steps.next()) if (step.done) return step.value;
}
