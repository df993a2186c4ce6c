import { wording } from "./wording";

export const swapWords = wording("swap", {
  title: "known-good relay",
  short: "swap",
  action: "Known-good relay in its place",
  picks: ["At"],
  toDo: ({ at }, named) => `known-good relay in place of ${named(at)}`,
  result: ({ seen }) => seen,
  card: (_circuit, { at }) => ({
    before: "Fit a known-good relay in place of",
    points: [at],
    also: "Does that cure the fault?",
  }),
});
