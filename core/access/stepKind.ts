/** What a step does, if its title is not enough to tell. */
export const stepKinds = [
  "battery-off",
  "battery",
  "panel",
  "plug",
  "tube",
  "bracket",
  "screws",
  "twist",
  "tie",
  "cut",
  "break",
  "splice",
  "out",
] as const;
export type StepKind = (typeof stepKinds)[number];
