import { ampsText } from "@core/units/wording";
import { sentence, whereAt } from "../pointWords";
import { wording } from "./wording";

export const ampsWords = wording("amps", {
  title: "amps, by clamp",
  short: "amps",
  action: "Clamp round it",
  picks: ["At"],
  unit: "A",
  hint: "(A)",
  display: ampsText,
  toDo: ({ around }) => `clamp round ${around}`,
  result: ({ amps }) => ampsText(amps),
  card: (circuit, { around }, setup) => ({
    before: "Clamp round",
    points: [around],
    how: `${setup} ${sentence(whereAt(circuit, around))}`,
  }),
});
