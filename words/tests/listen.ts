import { wording } from "./wording";

export const listenWords = wording("listen", {
  title: "listen",
  short: "listen",
  action: "Listen",
  picks: [],
  toDo: ({ ventCovered }) => (ventCovered ? "listen, a finger over the motor's vent hole" : "listen"),
  result: ({ seen, followsSpeed }) =>
    followsSpeed === undefined || seen === "quiet"
      ? seen
      : `${seen}, ${followsSpeed ? "follows" : "does not follow"} the speed`,
  card: (_circuit, { ventCovered }, setup) => ({
    before: ventCovered ? "Listen, a finger over the motor's vent hole" : "Listen to the blower",
    points: [],
    how: `${setup} Does the noise rise and fall with the speed?`,
  }),
});
