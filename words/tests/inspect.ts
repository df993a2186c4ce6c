import { sentence, whereAt } from "../pointWords";
import { wording } from "./wording";

export const inspectWords = wording("look", {
  title: "a look",
  short: "look",
  action: "Look at it",
  picks: ["At"],
  toDo: ({ at }) => `look at ${at}`,
  result: ({ seen }) => seen,
  card: (circuit, { at }) => ({ before: "Look at", points: [at], how: sentence(whereAt(circuit, at)) }),
});
