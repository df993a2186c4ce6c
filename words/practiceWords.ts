import type { PracticeKind, PracticeLevel } from "@core/practice/practiceCase";

export const levelWords: Readonly<Record<PracticeLevel, string>> = {
  first: "beginner: one simple fault",
  usual: "usual: typical faults",
  hard: "hard: root causes, mistakes, intermittent faults",
};

export const kindWords: Readonly<Record<PracticeKind | "any", string>> = {
  any: "any kind",
  single: "one fault",
  cause: "a part and its root cause",
  intermittent: "intermittent",
  slip: "left by an earlier repair",
};
