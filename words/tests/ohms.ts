import { ohmsText } from "@core/units/wording";
import { sentence, whereAt } from "../pointWords";
import { wording } from "./wording";

export const ohmsWords = wording("ohms", {
  title: "ohms, battery off",
  short: "ohms",
  action: "Ohms, battery off",
  picks: ["Red on", "Black on"],
  unit: "Ω",
  hint: "(Ω, or “no end”)",
  display: ohmsText,
  toDo: ({ red, black }) => `ohms from ${red} to ${black}`,
  result: ({ ohms }) => ohmsText(ohms),
  card: (circuit, { red, black }, setup) => ({
    before: "Ohms from",
    points: [red, black],
    between: "to",
    how: `${setup} Battery off, fan still. ${sentence(whereAt(circuit, red))}`,
  }),
});
