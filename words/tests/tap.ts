import { sentence, whereAt } from "../pointWords";
import { wording } from "./wording";

export const tapWords = wording("tap", {
  title: "tap or wiggle",
  short: "tap",
  action: "Tap or wiggle",
  picks: ["At"],
  toDo: ({ at }) => `tap or wiggle ${at}`,
  result: ({ seen }) => seen,
  card: (circuit, { at }, setup) => ({
    before: "Tap or wiggle",
    points: [at],
    how: `${setup} A knock on a motor's case, a wiggle at a plug. ${sentence(whereAt(circuit, at))}`,
  }),
});
