import { sentence, whereAt } from "../pointWords";
import { wording } from "./wording";

export const lamploadWords = wording("lampload", {
  title: "load lamp in its place",
  short: "lamp",
  action: "Load lamp in its place",
  picks: ["At"],
  toDo: ({ lampFor }) => `load lamp in place of ${lampFor}`,
  result: ({ seen }) => seen,
  card: (circuit, { lampFor }, setup) => ({
    before: "Load lamp in place of",
    points: [lampFor],
    how: `${setup} At its plug or socket. ${sentence(whereAt(circuit, lampFor))}`,
  }),
});
