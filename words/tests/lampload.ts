import { wording } from "./wording";

export const lamploadWords = wording("lampload", {
  title: "load lamp in place of a part",
  short: "lamp",
  action: "Load lamp in its place",
  picks: ["At"],
  toDo: ({ lampFor }, named) => `load lamp in place of ${named(lampFor)}`,
  result: ({ seen }) => seen,
  card: (_circuit, { lampFor }) => ({
    before: "Connect a load lamp in place of",
    points: [lampFor],
    also: "Connect it at the plug or socket of the part.",
  }),
});
