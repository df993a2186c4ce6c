import { wording } from "./wording";

export const inspectWords = wording("look", {
  title: "inspection",
  short: "inspect",
  action: "Inspect",
  picks: ["At"],
  toDo: ({ at }, named) => `inspect ${named(at)}`,
  result: ({ seen }) => seen,
  card: (_circuit, { at }) => ({ before: "Inspect", points: [at] }),
});
