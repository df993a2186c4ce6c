import { wording } from "./wording";

export const listenWords = wording("listen", {
  title: "listening",
  short: "listen",
  action: "Listen",
  picks: [],
  toDo: ({ ventCovered }) =>
    ventCovered ? "listen with a finger over the motor's vent hole" : "listen to the blower",
  result: ({ seen, followsSpeed }) =>
    followsSpeed === undefined || seen === "quiet"
      ? seen
      : `${seen}, ${followsSpeed ? "follows" : "does not follow"} the speed`,
  card: (_circuit, { ventCovered }) => ({
    before: ventCovered ? "Listen with a finger over the motor's vent hole" : "Listen to the blower",
    points: [],
    also: "Does the noise rise and fall with the speed?",
  }),
});
