import { wording } from "./wording";

export const spinWords = wording("spin", {
  title: "spin by hand",
  short: "spin",
  action: "Spin by hand",
  picks: ["At"],
  toDo: ({ at }, named) => `spin ${named(at)} by hand`,
  result: ({ seen }) => seen,
  card: (_circuit, { at }) => ({
    before: "Spin",
    points: [at],
    after: "by hand",
    also: "Wait until the wheel stands still, then turn it by hand.",
  }),
});
