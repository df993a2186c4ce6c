import type { TraceAnswers } from "./traceAnswer";

/** A kind of blower circuit a trace can begin from: its questions of structure answered. */
export interface TraceFamily {
  readonly id: string;
  readonly words: string;
  readonly answers: TraceAnswers;
}

/** The families on the road, by what makes the speeds and where. */
export const traceFamilies: readonly TraceFamily[] = [
  {
    id: "pack-ground",
    words: "Resistor pack, switch hands out ground, one relay",
    answers: { feed: "always", relay: "yes", control: "resistor", hands: "ground", top: "switch" },
  },
  {
    id: "pack-feed",
    words: "Resistor pack, switch hands out feed, one relay",
    answers: { feed: "always", relay: "yes", control: "resistor", hands: "feed", top: "switch" },
  },
  {
    id: "switch-feed",
    words: "Resistor pack, switch hands out feed, no relay, hot with the key",
    answers: { feed: "key", relay: "no", control: "resistor", hands: "feed", top: "switch" },
  },
  {
    id: "high-relay",
    words: "Resistor pack, a relay of its own for the top speed",
    answers: { feed: "always", relay: "yes", control: "resistor", hands: "ground", top: "relay" },
  },
  {
    id: "linear-ground",
    words: "Linear control on the ground side, with a panel",
    answers: { feed: "always", relay: "yes", control: "linear", hands: "ground" },
  },
  {
    id: "linear-feed",
    words: "Linear control on the feed side, with a panel",
    answers: { feed: "always", relay: "yes", control: "linear", hands: "feed" },
  },
  {
    id: "chopping-ground",
    words: "Chopping control on the ground side, with a panel",
    answers: { feed: "always", relay: "yes", control: "chopping", hands: "ground" },
  },
  {
    id: "chopping-feed",
    words: "Chopping control on the feed side, with a panel",
    answers: { feed: "always", relay: "yes", control: "chopping", hands: "feed" },
  },
];
