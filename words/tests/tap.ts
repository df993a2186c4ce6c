import { wording } from "./wording";

export const tapWords = wording("tap", {
  title: "tap or wiggle",
  short: "tap",
  action: "Tap or wiggle",
  picks: ["At"],
  toDo: ({ at }, named) => `tap or wiggle ${named(at)}`,
  result: ({ seen }) => seen,
  card: (_circuit, { at }) => ({
    before: "Tap or wiggle",
    points: [at],
    also: "Tap a motor on its case; wiggle a plug and its wires.",
  }),
});
