import type { TestOf } from "@core/predict/reading";
import { wording } from "./wording";

/** What the customer is asked. */
export const questionWords: Readonly<Record<TestOf<"history">["of"], string>> = {
  heat: "does heat change it",
  bumps: "do bumps change it",
  damp: "does damp change it",
  "wet-carpet": "is the carpet wet",
  "recent-work": "was there recent work on it",
  recall: "is there a recall on it",
};

/** The same where it is chosen what was told. */
export const answerTitles: Readonly<Record<TestOf<"history">["of"], string>> = {
  heat: "heat changes it",
  bumps: "bumps change it",
  damp: "damp changes it",
  "wet-carpet": "wet carpet",
  "recent-work": "recent work",
  recall: "a recall",
};

export const historyWords = wording("history", {
  title: "ask the customer",
  short: "ask",
  action: "Ask the customer",
  picks: ["About"],
  toDo: ({ of }) => `ask: ${questionWords[of]}`,
  result: ({ seen }) => seen,
  card: (_circuit, { of }) => ({
    before: `Ask: ${questionWords[of]}?`,
    points: [],
    how: "The customer, or the job card.",
  }),
});
