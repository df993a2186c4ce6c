import { answered, type TraceAnswers, type TraceQuestionId } from "@core/trace/traceAnswer";
import { typedFigure } from "@core/units/typedFigure";

/** One thing a question asks for. */
export type QuestionField =
  | {
      readonly kind: "choice";
      readonly name: string;
      readonly options: readonly { readonly value: string; readonly words: string }[];
    }
  | {
      readonly kind: "text" | "number";
      readonly name: string;
      readonly label: string;
      readonly unit?: string;
      /** May be left empty where it is not known. */
      readonly optional?: true;
    };

/** A question as the page asks it. */
export interface Question {
  readonly ask: string;
  /** Where the diagram tells. */
  readonly hint: string;
  readonly fields: readonly QuestionField[];
}

const choice = (...options: readonly (readonly [string, string])[]): readonly QuestionField[] => [
  { kind: "choice", name: "value", options: options.map(([value, words]) => ({ value, words })) },
];
const text = (name: string, label: string): QuestionField => ({ kind: "text", name, label });
const number = (name: string, label: string, unit: string): QuestionField => ({
  kind: "number",
  name,
  label,
  unit,
});

/** How each question is asked, given the answers so far. */
const questions: Readonly<Record<TraceQuestionId, (answers: TraceAnswers) => Question>> = {
  feed: () => ({
    ask: "Follow the blower's feed back to the battery. When is its fuse hot?",
    hint: "The line over the fuse says: hot at all times, or hot with the key on.",
    fields: choice(["always", "at all times"], ["key", "with the key on"]),
  }),
  fuse: () => ({
    ask: "What is that fuse called, and how large is it?",
    hint: "The thick one the blower's current runs through.",
    fields: [text("id", "Fuse"), number("amps", "Rating", "A")],
  }),
  relay: () => ({
    ask: "Does the feed go through a relay before it gets to the blower?",
    hint: "A relay for the top speed alone comes later.",
    fields: choice(["yes", "through a relay"], ["no", "straight on"]),
  }),
  coil: () => ({
    ask: "What is the relay called, and which fuse feeds its coil?",
    hint: "The thin wire at 86, hot with the key on.",
    fields: [text("relay", "Relay"), text("fuse", "Coil's fuse"), number("amps", "Its rating", "A")],
  }),
  control: () => ({
    ask: "What makes the lower speeds?",
    hint: "A pack of wire coils in the air stream, or an electronic control with a command wire.",
    fields: choice(
      ["resistor", "a resistor pack"],
      ["linear", "a control that drops volts"],
      ["chopping", "a control that chops the current"],
    ),
  }),
  hands: (answers) => ({
    ask:
      answered(answers, "control").value === "resistor"
        ? "What does the speed switch hand out?"
        : "On which side of the motor does the control work?",
    hint: "Ground side: the motor has feed all the time, and its other wire is what is switched.",
    fields: choice(["ground", "ground"], ["feed", "feed"]),
  }),
  speeds: () => ({
    ask: "How many speeds are there, off not counted?",
    hint: "Count the switch's outputs, or the panel's steps.",
    fields: [number("value", "Speeds", "")],
  }),
  top: () => ({
    ask: "How does the top speed get past the pack?",
    hint: "Follow the switch's last output.",
    fields: choice(
      ["switch", "straight through the switch"],
      ["relay", "by a relay of its own"],
      ["pack", "not at all: through its last coil"],
    ),
  }),
  link: () => ({
    ask: "Which speeds run through the pack's thermal link?",
    hint: "The small bridge that melts when the pack gets no air.",
    fields: choice(
      ["all", "all that use the pack"],
      ["lowest", "the lowest alone"],
      ["none", "none: there is no link"],
    ),
  }),
  ohms: (answers) => {
    const speeds = answered(answers, "speeds").value;
    const lows = answered(answers, "top").value === "pack" ? speeds : speeds - 1;
    return {
      ask: "Ohms of the pack's coils, as far as known?",
      hint: "From a good pack on the meter, or the diagram. Leave empty what is not known.",
      fields: Array.from({ length: lows }, (_, index) => ({
        kind: "number" as const,
        name: `step${index}`,
        label: `Coil ${index + 1}, ${index === 0 ? "the lowest speed's own" : `from speed ${index + 1}`}`,
        unit: "Ω",
        optional: true as const,
      })),
    };
  },
  command: () => ({
    ask: "Which volts on the command wire stop the motor, and which turn it full on?",
    hint: "Either may be the larger. A healthy one of the same kind tells on the meter.",
    fields: [number("still", "Stands at", "V"), number("full", "Full on at", "V")],
  }),
  panel: () => ({
    ask: "Which fuses feed the panel itself?",
    hint: "One hot at all times, one hot with the key.",
    fields: [
      text("batteryFuse", "Always hot"),
      number("batteryAmps", "Its rating", "A"),
      text("keyFuse", "Hot with the key"),
      number("keyAmps", "Its rating", "A"),
    ],
  }),
  grounds: () => ({
    ask: "Where do the blower's current and the relay's coil go to ground?",
    hint: "The same place may serve both.",
    fields: [text("blower", "Blower's ground"), text("coil", "Coil's ground")],
  }),
  motor: () => ({
    ask: "What does the motor draw at full speed?",
    hint: "From its label or a clamp round its wire.",
    fields: [number("amps", "Draw", "A")],
  }),
  plugs: (answers) => ({
    ask: "What are the plugs called?",
    hint: "Pin numbers can be set in the table of pins.",
    fields: [
      text("motor", "At the motor"),
      text("control", answered(answers, "control").value === "resistor" ? "At the pack" : "At the control"),
      text("switch", answered(answers, "control").value === "resistor" ? "At the switch" : "At the panel"),
    ],
  }),
  reach: () => ({
    ask: "How long does it take to get to each?",
    hint: "Minutes from the open door to a probe on the part. It decides which look comes first.",
    fields: [
      number("box", "Fuse box with the relay", "min"),
      number("dashBox", "Fuses in the dash", "min"),
      number("blower", "Motor and pack or control", "min"),
      number("switch", "Switch or panel", "min"),
    ],
  }),
};

/** How a question is asked, given the answers so far. */
export const questionOf = (id: TraceQuestionId, answers: TraceAnswers): Question => questions[id](answers);

/** A field's value as it stands in an answer, for the form. */
export function fieldValue(answer: unknown, name: string): string {
  if (typeof answer === "string" || typeof answer === "number") return name === "value" ? String(answer) : "";
  if (typeof answer !== "object" || answer === null) return "";
  const step = /^step(\d+)$/.exec(name);
  const held = step
    ? (answer as { steps?: readonly (number | null)[] }).steps?.[Number(step[1])]
    : (answer as Record<string, unknown>)[name];
  return typeof held === "string" || typeof held === "number" ? String(held) : "";
}

/** A number as typed: a decimal comma is a point; text that is none stays text, to be refused by name. */
const typed = (text: string): number | string => {
  const value = typedFigure(text);
  return Number.isNaN(value) ? text : value;
};

/** The answer a question's form was filled in with, to be parsed; null for `not known`. */
export function answerFrom(
  id: TraceQuestionId,
  answers: TraceAnswers,
  field: (name: string) => string,
): unknown {
  if (field("unknown") !== "") return null;
  const { fields } = questionOf(id, answers);
  const given = (one: QuestionField): unknown => {
    const text = field(one.name).trim();
    if (one.kind !== "number") return text;
    return one.optional && text === "" ? null : typed(text);
  };
  if (id === "ohms") return { steps: fields.map(given) };
  const [first] = fields;
  if (fields.length === 1 && first?.name === "value") return given(first);
  return Object.fromEntries(fields.map((one) => [one.name, given(one)]));
}

/** An answer in a few words, for the list of what was answered. */
export function answerText(id: TraceQuestionId, answers: TraceAnswers): string {
  const { value } = answered(answers, id);
  const { fields } = questionOf(id, answers);
  const words = fields.flatMap((one): string[] => {
    const held = fieldValue(value, one.name);
    if (one.kind === "choice") return [one.options.find((option) => option.value === held)?.words ?? held];
    if (held === "") return [];
    return [one.kind === "number" && one.unit ? `${held} ${one.unit}` : held];
  });
  return words.length === 0 ? "usual values" : words.join(", ");
}

/** The question's name in the list. */
export const questionNames: Readonly<Record<TraceQuestionId, string>> = {
  feed: "Feed hot",
  fuse: "Fuse",
  relay: "Relay",
  coil: "Relay's coil",
  control: "Speeds made by",
  hands: "Works on the side of",
  speeds: "Speeds",
  top: "Top speed",
  link: "Thermal link",
  ohms: "Ohms",
  command: "Command",
  panel: "Panel's fuses",
  grounds: "Grounds",
  motor: "Motor",
  plugs: "Plugs",
  reach: "Minutes to reach",
};
