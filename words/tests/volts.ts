import { voltsText } from "@core/units/wording";
import { postName, sentence, whereAt } from "../pointWords";
import { wording } from "./wording";

export const voltsWords = wording("volts", {
  title: "volts",
  short: "volts",
  action: "Volts",
  picks: ["Red on", "Black on"],
  unit: "V",
  hint: "(V)",
  display: voltsText,
  toDo: ({ red, black }) => `volts, red on ${red}, black on ${black}`,
  result: ({ volts }) => voltsText(volts),
  card: (circuit, { red, black }, setup) => {
    const post = postName(circuit, black);
    return {
      before: "Volts, red on",
      points: post ? [red] : [red, black],
      between: ", black on",
      after: post ? `, black on ${post}` : "",
      how: `${setup} ${sentence(whereAt(circuit, red))}`,
    };
  },
});
