import type { TestOf } from "@core/predict/reading";
import { wording } from "./wording";

/** The question to the customer. */
export const questionWords: Readonly<Record<TestOf<"history">["of"], string>> = {
  heat: "does it fail when hot and come back when cold",
  bumps: "does it come and go on bumps",
  damp: "does it change in damp weather",
  "wet-carpet": "is the carpet wet",
  "recent-work": "has anybody worked on it recently",
  recall: "is there a recall for it",
};

/** The same in a list of the customer's statements. */
export const answerTitles: Readonly<Record<TestOf<"history">["of"], string>> = {
  heat: "changes with heat",
  bumps: "changes on bumps",
  damp: "changes in damp weather",
  "wet-carpet": "wet carpet",
  "recent-work": "recent work",
  recall: "recall",
};

export const historyWords = wording("history", {
  title: "question to the customer",
  short: "ask",
  action: "Ask the customer",
  picks: ["About"],
  toDo: ({ of }) => `customer asked: ${questionWords[of]}`,
  result: ({ seen }) => seen,
  card: (_circuit, { of }) => ({
    before: `Ask the customer: ${questionWords[of]}?`,
    points: [],
    also: "It may also be on the job card.",
  }),
});
