import { ampsText } from "@core/units/wording";
import { wording } from "./wording";

export const ampsWords = wording("amps", {
  title: "amps, by clamp meter",
  short: "amps",
  action: "Clamp meter",
  picks: ["At"],
  unit: "A",
  hint: "(A)",
  display: ampsText,
  toDo: ({ around }, named) => `clamp meter on ${named(around)}`,
  result: ({ amps }) => ampsText(amps),
  card: (_circuit, { around }) => ({ before: "Put the clamp meter on the feed of", points: [around] }),
});
