import type { PracticeKind, PracticeLevel } from "@core/practice/practiceCase";

export const levelWords: Readonly<Record<PracticeLevel, string>> = {
  first: "first steps: one plain fault",
  usual: "as they come in",
  hard: "hard: causes, slips, comes and goes",
};

export const kindWords: Readonly<Record<PracticeKind | "any", string>> = {
  any: "whatever comes",
  single: "one fault",
  cause: "a part and what killed it",
  intermittent: "comes and goes",
  slip: "somebody had it apart",
};
