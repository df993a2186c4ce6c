import { sentence, whereAt } from "../pointWords";
import { wording } from "./wording";

export const swapWords = wording("swap", {
  title: "known-good relay",
  short: "swap",
  action: "Known-good one in its place",
  picks: ["At"],
  toDo: ({ at }) => `known-good relay in place of ${at}`,
  result: ({ seen }) => seen,
  card: (circuit, { at }, setup) => ({
    before: "Known-good relay in place of",
    points: [at],
    how: `${setup} Does that cure it? ${sentence(whereAt(circuit, at))}`,
  }),
});
