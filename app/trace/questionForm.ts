import { answered, type TraceAnswers, type TraceQuestionId } from "@core/trace/traceAnswer";
import { typedFigure } from "@core/units/typedFigure";

/** One field of a question. */
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
      /** May be left empty if it is not known. */
      readonly optional?: true;
    };

/** A question on the page. */
export interface Question {
  readonly ask: string;
  /** Where the diagram shows it. */
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
    hint: "The note above the fuse says so: hot at all times, or hot in run.",
    fields: choice(["always", "at all times"], ["key", "with the key on"]),
  }),
  fuse: () => ({
    ask: "Name and rating of that fuse?",
    hint: "The large fuse that carries the blower's current.",
    fields: [text("id", "Fuse"), number("amps", "Rating", "A")],
  }),
  relay: () => ({
    ask: "Does the feed go through a relay before it gets to the blower?",
    hint: "A relay only for the top speed is asked about later.",
    fields: choice(["yes", "through a relay"], ["no", "no relay"]),
  }),
  coil: () => ({
    ask: "Name of the relay, and which fuse feeds its coil?",
    hint: "Follow the thin wire at pin 86, hot with the key on.",
    fields: [text("relay", "Relay"), text("fuse", "Coil's fuse"), number("amps", "Its rating", "A")],
  }),
  control: () => ({
    ask: "What makes the lower speeds?",
    hint: "A pack of wire coils in the air stream, or a control module with a command wire.",
    fields: choice(
      ["resistor", "a resistor pack"],
      ["linear", "a linear control module"],
      ["chopping", "a PWM control module"],
    ),
  }),
  hands: (answers) => ({
    ask:
      answered(answers, "control").value === "resistor"
        ? "What does the speed switch switch?"
        : "On which side of the motor is the control module?",
    hint: "Ground side: the motor always has feed, and its other wire is switched.",
    fields: choice(["ground", "ground"], ["feed", "feed"]),
  }),
  speeds: () => ({
    ask: "How many speeds are there, not counting off?",
    hint: "Count the outputs of the switch, or the steps of the climate panel.",
    fields: [number("value", "Speeds", "")],
  }),
  top: () => ({
    ask: "How does the top speed bypass the pack?",
    hint: "Follow the last output of the switch.",
    fields: choice(
      ["switch", "straight through the switch"],
      ["relay", "through a relay of its own"],
      ["pack", "it does not; it goes through the last coil"],
    ),
  }),
  link: () => ({
    ask: "Which speeds run through the pack's thermal link?",
    hint: "The small link that melts when the pack gets no air.",
    fields: choice(
      ["all", "all speeds that use the pack"],
      ["lowest", "only the lowest speed"],
      ["none", "none; there is no link"],
    ),
  }),
  ohms: (answers) => {
    const speeds = answered(answers, "speeds").value;
    const lows = answered(answers, "top").value === "pack" ? speeds : speeds - 1;
    return {
      ask: "Ohms of the pack's coils, if known?",
      hint: "Measure a good pack, or read them from the diagram. Leave empty what you do not know.",
      fields: Array.from({ length: lows }, (_, index) => ({
        kind: "number" as const,
        name: `step${index}`,
        label: `Coil ${index + 1}, ${index === 0 ? "used only by the lowest speed" : `from speed ${index + 1}`}`,
        unit: "Ω",
        optional: true as const,
      })),
    };
  },
  signal: () => ({
    ask: "What does the command wire to the control module carry?",
    hint: "A data bus is often a twisted pair, or one wire marked LIN.",
    fields: choice(["volts", "a voltage"], ["duty", "a duty signal"], ["bus", "messages of a data bus"]),
  }),
  command: (answers) => ({
    ask:
      answered(answers, "signal").value === "duty"
        ? "Which average volts on the command wire, as a meter shows them, stop the motor, and which give full speed?"
        : "Which volts on the command wire stop the motor, and which give full speed?",
    hint: "Either may be the higher. Measure a good vehicle of the same kind.",
    fields: [number("still", "Motor stops at", "V"), number("full", "Full speed at", "V")],
  }),
  panel: () => ({
    ask: "Which fuses feed the climate panel?",
    hint: "One hot at all times, one hot with the key on.",
    fields: [
      text("batteryFuse", "Always hot"),
      number("batteryAmps", "Its rating", "A"),
      text("keyFuse", "Hot with the key"),
      number("keyAmps", "Its rating", "A"),
    ],
  }),
  grounds: (answers) =>
    answered(answers, "relay").value === "yes"
      ? {
          ask: "Where are the grounds of the blower and of the relay coil?",
          hint: "It may be the same place.",
          fields: [text("blower", "Blower's ground"), text("coil", "Coil's ground")],
        }
      : {
          ask: "Where is the blower's ground?",
          hint: "Follow the wire to the body.",
          fields: [text("blower", "Blower's ground")],
        },
  motor: () => ({
    ask: "What does the motor draw at full speed?",
    hint: "From its label, or measured with a clamp meter.",
    fields: [number("amps", "Draw", "A")],
  }),
  plugs: (answers) => ({
    ask: "What are the plugs called?",
    hint: "Pin numbers can be set in the table of pins.",
    fields: [
      text("motor", "At the motor"),
      text(
        "control",
        answered(answers, "control").value === "resistor" ? "At the pack" : "At the control module",
      ),
      text(
        "switch",
        answered(answers, "control").value === "resistor" ? "At the switch" : "At the climate panel",
      ),
    ],
  }),
  reach: () => ({
    ask: "How long does it take to get to each?",
    hint: "Minutes from opening the door to a probe on the part. This decides which test comes first.",
    fields: [
      number("box", "Fuse box with the relay", "min"),
      number("dashBox", "Fuses in the dash", "min"),
      number("blower", "Motor and pack or control module", "min"),
      number("switch", "Switch or climate panel", "min"),
    ],
  }),
};

/** How a question is asked, given the answers so far. */
export const questionOf = (id: TraceQuestionId, answers: TraceAnswers): Question => questions[id](answers);

/** A field's value from an answer, for the form. */
export function fieldValue(answer: unknown, name: string): string {
  if (typeof answer === "string" || typeof answer === "number") return name === "value" ? String(answer) : "";
  if (typeof answer !== "object" || answer === null) return "";
  const step = /^step(\d+)$/.exec(name);
  const held = step
    ? (answer as { steps?: readonly (number | null)[] }).steps?.[Number(step[1])]
    : (answer as Record<string, unknown>)[name];
  return typeof held === "string" || typeof held === "number" ? String(held) : "";
}

/** A typed number, with decimal point or comma; other text stays text, so that the refusal can quote it. */
const typed = (text: string): number | string => {
  const value = typedFigure(text);
  return Number.isNaN(value) ? text : value;
};

/** The answer in a question's form, not yet parsed; null for `not known`. */
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

/** An answer in a few words, for the list of answers. */
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
  control: "Speed control",
  hands: "Switched side",
  speeds: "Speeds",
  top: "Top speed",
  link: "Thermal link",
  ohms: "Ohms",
  signal: "Command signal",
  command: "Command volts",
  panel: "Climate panel fuses",
  grounds: "Grounds",
  motor: "Motor",
  plugs: "Plugs",
  reach: "Minutes to reach",
};
