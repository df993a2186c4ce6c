import { postName, sentence, whereAt } from "../pointWords";
import { wording } from "./wording";

export const lightWords = wording("light", {
  title: "test light",
  short: "light",
  action: "Light",
  picks: ["Touch", "Clip on"],
  toDo: ({ clip, probe }) => `light clipped to ${clip}, touch ${probe}`,
  result: ({ seen }) => seen,
  card: (circuit, { clip, probe }, setup) => ({
    before: `Light clipped to ${postName(circuit, clip) ?? clip}, touch`,
    points: [probe],
    how: `${setup} ${sentence(whereAt(circuit, probe))}`,
  }),
});
