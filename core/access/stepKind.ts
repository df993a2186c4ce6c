/** What a step does, where more follows from it than its title. */
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
