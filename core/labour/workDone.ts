/** What can be done to something on the vehicle. */
export const worksDone = [
  "renewed",
  "repaired",
  "cleaned",
  "oiled",
  "re-pinned",
  "spliced",
  "carried-over",
  "adapted",
  "fitted",
  "refitted",
  "leak-stopped",
  "other",
] as const;
export type WorkDone = (typeof worksDone)[number];

/** Oil buys time; it is not a repair (common practice, no source). */
export const isTemporary = ({
  done,
  temporary,
}: {
  readonly done: WorkDone;
  readonly temporary?: boolean | undefined;
}): boolean => temporary === true || done === "oiled";

/** Work after which a part counts as put right; one proved good and put back, or only oiled, does not. */
const mending: ReadonlySet<WorkDone> = new Set([
  "renewed",
  "repaired",
  "cleaned",
  "re-pinned",
  "spliced",
  "leak-stopped",
]);
export const mends = (done: WorkDone): boolean => mending.has(done);
