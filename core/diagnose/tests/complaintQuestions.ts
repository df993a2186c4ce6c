import type { Circuit } from "../../circuit/circuit";
import { noises } from "../../motor/mechanicalMode";
import { airflowSeen } from "../../predict/observations/airflowSeen";
import { historyOf } from "../../predict/observations/history";
import { smellSeen } from "../../predict/observations/smell";
import { type Reading, resultOf, type Test } from "../../predict/reading";

/** One possible answer of a customer, and the reading it makes. */
export interface ComplaintAnswer {
  readonly id: string;
  readonly reading: Reading;
  /** The same answer with further details. */
  readonly further: readonly ComplaintAnswer[];
}

/** What a question is about. */
export type ComplaintTopic =
  | { readonly kind: "key-out"; readonly setting: string }
  | { readonly kind: "own-switch"; readonly part: string; readonly position: string }
  | { readonly kind: "noise" | "smell" }
  | { readonly kind: "history"; readonly of: (typeof historyOf)[number] };

/** A question to the customer apart from the speeds: the test it stands for, and its answers. */
export interface ComplaintQuestion {
  readonly id: string;
  readonly topic: ComplaintTopic;
  readonly test: Test;
  readonly answers: readonly ComplaintAnswer[];
}

const plain = (id: string, reading: Reading): ComplaintAnswer => ({
  id,
  reading: { ...reading, heard: true },
  further: [],
});

/**
 * With the key out, even the strongest setting must be off. One that blows is compared with its top speed: people say
 * that it keeps blowing, and some of them that it only blows weakly.
 */
function keyOut(top: string): ComplaintQuestion {
  const test = { test: "airflow", key: "off", setting: top } as const;
  return {
    id: "key-out",
    topic: { kind: "key-out", setting: top },
    test,
    answers: [
      plain("none", { ...test, seen: "none" }),
      {
        ...plain("blows", { ...test, seen: "strong" }),
        further: [plain("weak", { ...test, seen: "weak" })],
      },
    ],
  };
}

/** For a blower with a switch of its own, each position is a question. */
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
        topic: { kind: "own-switch", part: part.id, position },
        test,
        answers: airflowSeen.map((seen) => plain(seen, { ...test, seen })),
      };
    });
  });
}

/** A noise, and whether it follows the speed. */
function noise(top: string): ComplaintQuestion {
  const test = { test: "listen", key: "run", setting: top } as const;
  return {
    id: "noise",
    topic: { kind: "noise" },
    test,
    answers: noises.map((seen) => ({
      ...plain(seen, { ...test, seen }),
      further:
        seen === "quiet"
          ? []
          : [
              plain(`${seen}-follows`, { ...test, seen, followsSpeed: true }),
              plain(`${seen}-apart`, { ...test, seen, followsSpeed: false }),
            ],
    })),
  };
}

/**
 * Questions for the customer apart from the speeds. Every answer is a reading marked `heard`; a missing answer says
 * nothing.
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
      topic: { kind: "smell" },
      test: smell,
      answers: smellSeen.map((seen) => plain(seen, { ...smell, seen })),
    },
    ...historyOf.map((of): ComplaintQuestion => {
      const test = { test: "history", of } as const;
      return {
        id: of,
        topic: { kind: "history", of },
        test,
        answers: (["yes", "no"] as const).map((seen) => plain(seen, { ...test, seen })),
      };
    }),
  ];
}

/** Every answer of a question, including those with details. */
export const everyAnswer = ({ answers }: ComplaintQuestion): ComplaintAnswer[] =>
  answers.flatMap((answer) => [answer, ...answer.further]);

const told = (reading: Reading): string =>
  `${resultOf(reading)} ${reading.test === "listen" ? reading.followsSpeed : ""}`;

/** The answer that a reading of the question's test gave, if it is one of them. */
export function answerOf(question: ComplaintQuestion, reading: Reading): ComplaintAnswer | null {
  // Until 2026 "keeps blowing" was stored as normal air.
  const blows = question.topic.kind === "key-out" && reading.test === "airflow" && reading.seen === "normal";
  const said = told(blows ? { ...reading, seen: "strong" } : reading);
  return everyAnswer(question).find((answer) => told(answer.reading) === said) ?? null;
}
