import { voltsText } from "@core/units/wording";
import { postName } from "../seenName";
import { wording } from "./wording";

export const voltsWords = wording("volts", {
  title: "volts",
  short: "volts",
  action: "Volts",
  picks: ["Red on", "Black on"],
  unit: "V",
  hint: "(V)",
  display: voltsText,
  toDo: ({ red, black }, named) => `volts, red on ${named(red)}, black on ${named(black)}`,
  result: ({ volts }) => voltsText(volts),
  card: (circuit, { red, black }) => {
    const post = postName(circuit, black);
    return {
      before: "Measure volts with red on",
      points: post ? [red] : [red, black],
      between: "and black on",
      after: post ? `and black on ${post}` : "",
    };
  },
});
