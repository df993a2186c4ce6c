import type { Circuit } from "@core/circuit/circuit";
import type { ComplaintAnswer, ComplaintTopic } from "@core/diagnose/tests/complaintQuestions";
import type { Pattern } from "@core/predict/moment";
import { airflowWords, patternWords } from "./stateWords";
import { questionWords } from "./tests/history";

/** What a speed does, in the history and in the list of entries not sent yet; an empty word deletes it. */
export function heardSpeedText(
  setting: string,
  seen: keyof typeof airflowWords | "",
  pattern: Pattern | "",
): string {
  if (seen === "") return `speed ${setting}: deleted`;
  return `speed ${setting}: ${[airflowWords[seen], pattern && patternWords[pattern]].filter(Boolean).join(", ")}`;
}

/** A question to the customer, on the complaint page. */
export function topicText(circuit: Circuit, topic: ComplaintTopic): string {
  switch (topic.kind) {
    case "key-out":
      return `Key out, switch still on ${topic.setting}`;
    case "own-switch": {
      const place = circuit.parts.find(({ id }) => id === topic.part)?.place;
      return `${place ?? `Switch ${topic.part}`} on ${topic.position}`;
    }
    case "noise":
      return "Noise while running";
    case "smell":
      return "Smell at the vents";
    case "history": {
      const question = questionWords[topic.of];
      return `${question.charAt(0).toUpperCase()}${question.slice(1)}?`;
    }
  }
}

/** An answer in the customer's words. */
export function answerText({ kind }: ComplaintTopic, { reading }: ComplaintAnswer): string {
  if (reading.test === "airflow") {
    if (kind !== "key-out") return airflowWords[reading.seen];
    if (reading.seen === "none") return "stays off";
    return reading.seen === "weak" ? "only weakly" : "keeps blowing";
  }
  if (reading.test === "listen") {
    if (reading.followsSpeed !== undefined)
      return reading.followsSpeed ? "follows the speed" : "does not follow the speed";
    return reading.seen === "quiet" ? "none" : reading.seen;
  }
  return "seen" in reading ? reading.seen : "";
}
