import { wording } from "./wording";

export const spinWords = wording("spin", {
  title: "spin by hand",
  short: "spin",
  action: "Spin by hand",
  picks: ["At"],
  toDo: ({ at }) => `spin ${at} by hand`,
  result: ({ seen }) => seen,
  card: (_circuit, { at }) => ({
    before: "Spin",
    points: [at],
    after: "by hand",
    how: "Key off, hands clear until it stands still, then turn the wheel by hand.",
  }),
});
