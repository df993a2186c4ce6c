import { wording } from "./wording";

export const rippleWords = wording("ripple", {
  title: "current ripple",
  short: "ripple",
  action: "Current ripple",
  picks: ["At"],
  toDo: ({ at }, named) => `current ripple of ${named(at)}`,
  result: ({ seen }) => seen,
  card: (_circuit, { at }) => ({
    before: "Record the current ripple of",
    points: [at],
    also: "With a clamp and a scope: is it even, uneven or missing?",
  }),
});
