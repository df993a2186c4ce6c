import { ohmsText } from "@core/units/wording";
import { wording } from "./wording";

export const ohmsWords = wording("ohms", {
  title: "ohms, battery disconnected",
  short: "ohms",
  action: "Ohms, battery disconnected",
  picks: ["Red on", "Black on"],
  unit: "Ω",
  hint: "(Ω, or OL)",
  display: ohmsText,
  toDo: ({ red, black }, named) => `ohms from ${named(red)} to ${named(black)}`,
  result: ({ ohms }) => ohmsText(ohms),
  card: (_circuit, { red, black }) => ({
    before: "Measure ohms from",
    points: [red, black],
    between: "to",
    also: "Battery disconnected, wheel still.",
  }),
});
