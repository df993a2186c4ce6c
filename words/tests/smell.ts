import { wording } from "./wording";

export const smellWords = wording("smell", {
  title: "smell",
  short: "smell",
  action: "Smell",
  picks: [],
  toDo: () => "smell at the vent",
  result: ({ seen }) => seen,
  card: () => ({ before: "Smell the air at the vent", points: [] }),
});
