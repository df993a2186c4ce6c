import type { Circuit } from "../../circuit/circuit";
import { noises } from "../../motor/mechanicalMode";
import { airflowSeen, historyOf, type Reading, resultOf, smellSeen, type Test } from "../../predict/reading";
import { historyWords } from "../../predict/readingText";

/** One thing a customer may answer, and the reading it makes. */
export interface ComplaintAnswer {
  readonly id: string;
  readonly words: string;
  readonly reading: Reading;
  /** The same answer with what else may be known of it. */
  readonly further: readonly ComplaintAnswer[];
}

/** A question to the customer beside the speeds: the look it stands for, and its answers. */
export interface ComplaintQuestion {
  readonly id: string;
  readonly title: string;
  readonly look: Test;
  readonly answers: readonly ComplaintAnswer[];
}

const plain = (id: string, words: string, reading: Reading): ComplaintAnswer => ({
  id,
  words,
  reading: { ...reading, heard: true },
  further: [],
});

/** With the key out the strongest setting must give nothing. */
function keyOut(top: string): ComplaintQuestion {
  const test = { test: "airflow", key: "off", setting: top } as const;
  return {
    id: "key-out",
    title: `Key out, switch left on ${top}`,
    look: test,
    answers: [
      plain("none", "stays off", { ...test, seen: "none" }),
      plain("normal", "keeps blowing", { ...test, seen: "normal" }),
    ],
  };
}

const airWords = { none: "nothing", weak: "weak", normal: "right", strong: "too strong" } as const;

/** A blower with a switch of its own is asked for position by position. */
function ownSwitches({ parts, settings }: Circuit): ComplaintQuestion[] {
  const motor = parts.filter(({ kind }) => kind === "motor").at(-1)?.id;
  return parts.flatMap((part) => {
    if (part.kind !== "selector" || !part.settings || !motor) return [];
    return part.settings.slice(1).map((position): ComplaintQuestion => {
      const test = {
        test: "airflow",
        at: motor,
        key: "run",
        setting: settings[0] ?? "off",
        selectors: { [part.id]: position },
      } as const;
      return {
        id: `${part.id}-${position}`,
        title: `${part.place ?? `Switch ${part.id}`} on ${position}`,
        look: test,
        answers: airflowSeen.map((seen) => plain(seen, airWords[seen], { ...test, seen })),
      };
    });
  });
}

/** A noise, and whether it follows the speed. */
function noise(top: string): ComplaintQuestion {
  const test = { test: "listen", key: "run", setting: top } as const;
  return {
    id: "noise",
    title: "Noise while it runs",
    look: test,
    answers: noises.map((seen) => ({
      ...plain(seen, seen === "quiet" ? "none" : seen, { ...test, seen }),
      further:
        seen === "quiet"
          ? []
          : [
              plain(`${seen}-follows`, "rises with the speed", { ...test, seen, followsSpeed: true }),
              plain(`${seen}-apart`, "does not", { ...test, seen, followsSpeed: false }),
            ],
    })),
  };
}

const sentence = (text: string): string => `${text.charAt(0).toUpperCase()}${text.slice(1)}?`;

/**
 * What to ask the customer beside what each speed does: every answer is a reading marked `heard`, and an
 * answer not given says nothing.
 */
export function complaintQuestions(circuit: Circuit): ComplaintQuestion[] {
  const top = circuit.settings.at(-1) ?? "off";
  const smell = { test: "smell", key: "run", setting: top } as const;
  return [
    keyOut(top),
    ...ownSwitches(circuit),
    noise(top),
    {
      id: "smell",
      title: "Smell at the vents",
      look: smell,
      answers: smellSeen.map((seen) => plain(seen, seen, { ...smell, seen })),
    },
    ...historyOf.map((of): ComplaintQuestion => {
      const test = { test: "history", of } as const;
      return {
        id: of,
        title: sentence(historyWords[of]),
        look: test,
        answers: (["yes", "no"] as const).map((seen) => plain(seen, seen, { ...test, seen })),
      };
    }),
  ];
}

/** Every answer of a question, further ones too. */
export const everyAnswer = ({ answers }: ComplaintQuestion): ComplaintAnswer[] =>
  answers.flatMap((answer) => [answer, ...answer.further]);

const told = (reading: Reading): string =>
  `${resultOf(reading)} ${reading.test === "listen" ? reading.followsSpeed : ""}`;

/** The answer a reading of the question's look gave, if it is one of them. */
export function answerOf(question: ComplaintQuestion, reading: Reading): ComplaintAnswer | null {
  return everyAnswer(question).find((answer) => told(answer.reading) === told(reading)) ?? null;
}
