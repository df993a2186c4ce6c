import type { TraceAnswers } from "./traceAnswer";

/** A kind of blower circuit to start a trace from, with its questions of structure answered. */
export interface TraceFamily {
  readonly id: string;
  readonly words: string;
  readonly answers: TraceAnswers;
}

/** The common families, by what makes the speeds and where. */
export const traceFamilies: readonly TraceFamily[] = [
  {
    id: "pack-ground",
    words: "Resistor pack, ground-side switch, one relay",
    answers: { feed: "always", relay: "yes", control: "resistor", hands: "ground", top: "switch" },
  },
  {
    id: "pack-feed",
    words: "Resistor pack, feed-side switch, one relay",
    answers: { feed: "always", relay: "yes", control: "resistor", hands: "feed", top: "switch" },
  },
  {
    id: "switch-feed",
    words: "Resistor pack, feed-side switch, no relay, hot with the key on",
    answers: { feed: "key", relay: "no", control: "resistor", hands: "feed", top: "switch" },
  },
  {
    id: "high-relay",
    words: "Resistor pack, separate relay for the top speed",
    answers: { feed: "always", relay: "yes", control: "resistor", hands: "ground", top: "relay" },
  },
  {
    id: "linear-ground",
    words: "Linear control module on the ground side, climate panel",
    answers: { feed: "always", relay: "yes", control: "linear", hands: "ground" },
  },
  {
    id: "linear-feed",
    words: "Linear control module on the feed side, climate panel",
    answers: { feed: "always", relay: "yes", control: "linear", hands: "feed" },
  },
  {
    id: "chopping-ground",
    words: "PWM control module on the ground side, climate panel",
    answers: { feed: "always", relay: "yes", control: "chopping", hands: "ground" },
  },
  {
    id: "chopping-feed",
    words: "PWM control module on the feed side, climate panel",
    answers: { feed: "always", relay: "yes", control: "chopping", hands: "feed" },
  },
];
