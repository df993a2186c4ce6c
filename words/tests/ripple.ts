import { sentence, whereAt } from "../pointWords";
import { wording } from "./wording";

export const rippleWords = wording("ripple", {
  title: "current humps",
  short: "humps",
  action: "Humps",
  picks: ["At"],
  toDo: ({ at }) => `current humps of ${at}`,
  result: ({ seen }) => seen,
  card: (circuit, { at }, setup) => ({
    before: "Current humps of",
    points: [at],
    how: `${setup} Clamp and scope: even, ragged, or none. ${sentence(whereAt(circuit, at))}`,
  }),
});
