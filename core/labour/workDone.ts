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
