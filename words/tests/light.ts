import { postName } from "../seenName";
import { wording } from "./wording";

export const lightWords = wording("light", {
  title: "test light",
  short: "light",
  action: "Test light",
  picks: ["Touch", "Clip on"],
  toDo: ({ clip, probe }, named) => `test light clipped to ${named(clip)}, touching ${named(probe)}`,
  result: ({ seen }) => seen,
  card: (circuit, { clip, probe }) => ({
    before: `Clip the test light to ${postName(circuit, clip) ?? clip} and touch`,
    points: [probe],
  }),
});
