import { z } from "zod";

/** A name as written in the diagram or typed by a person; the part's id is derived from it. */
const label = z
  .string()
  .trim()
  .min(1, "enter a name")
  .max(40)
  .refine((name) => /[A-Za-z0-9]/.test(name), "must have a letter or a digit");
const amps = z.number().positive().max(400);
const volts = z.number().min(-60).max(60);
const minutes = z.number().nonnegative().max(600);

/** A fuse as the diagram names it. */
const fuse = z.strictObject({ id: label, amps });

/**
 * The type of answer to each question of a trace. Null means the question was asked and the answer is not known; a
 * usual value is then used and marked as assumed.
 */
export const traceAnswerSchemas = {
  /** When the motor's fuse is live. */
  feed: z.enum(["always", "key"]),
  fuse,
  /** Whether there is a relay between the fuse and the blower. */
  relay: z.enum(["yes", "no"]),
  /** The relay, and the fuse that feeds its coil with the key on. */
  coil: z.strictObject({ relay: label, fuse: label, amps }),
  /** What makes the lower speeds. */
  control: z.enum(["resistor", "linear", "chopping"]),
  /** The side of the motor the switch or the control module works on. */
  hands: z.enum(["ground", "feed"]),
  /** How many speeds there are besides off. */
  speeds: z.number().int().min(2).max(12),
  /** How the top speed bypasses the pack. */
  top: z.enum(["switch", "relay", "pack"]),
  /** Speeds that run through the pack's thermal link. */
  link: z.enum(["all", "lowest", "none"]),
  /** Ohms of the pack's elements, the lowest speed's first; null for one that is not known. */
  ohms: z.strictObject({ steps: z.array(z.number().positive().max(1000).nullable()).max(12) }),
  /** What the command wire carries: a voltage, a duty signal, or messages of a data bus. */
  signal: z.enum(["volts", "duty", "bus"]),
  /** Command volts, as a meter shows them, at which the control module is off and at which it is full on. */
  command: z.strictObject({ still: volts, full: volts }).refine(({ still, full }) => still !== full, {
    message: "the two volts must differ",
  }),
  /** The panel's own fuses: one always live, one with the key. */
  panel: z.strictObject({
    batteryFuse: label,
    batteryAmps: amps,
    keyFuse: label,
    keyAmps: amps,
  }),
  /** Where the blower's current goes to ground, and the coil's if there is a relay. */
  grounds: z.strictObject({ blower: label, coil: label.optional() }),
  /** The motor's current at full speed. */
  motor: z.strictObject({ amps: z.number().positive().max(200) }),
  /** The plugs at the motor, at the pack or control module, and at the switch or panel. */
  plugs: z.strictObject({ motor: label, control: label, switch: label }),
  /** Minutes to reach each. */
  reach: z.strictObject({ box: minutes, dashBox: minutes, blower: minutes, switch: minutes }),
} as const;

export type TraceQuestionId = keyof typeof traceAnswerSchemas;
/** The questions in the order the trade reads a diagram: from the feed to the ground, then what can be touched. */
export const traceQuestionIds = Object.keys(traceAnswerSchemas) as TraceQuestionId[];

export type TraceAnswer<Id extends TraceQuestionId> = z.infer<(typeof traceAnswerSchemas)[Id]>;
/** The answers so far; null for what was asked and is not known. */
export type TraceAnswers = { readonly [Id in TraceQuestionId]?: TraceAnswer<Id> | null };

/** The name of the relay coil's ground while it is not known. */
export const usualCoilGround = "E2";

/** The usual answer to each question (common practice); used while a question is open or not known. */
export const usualAnswers: { readonly [Id in TraceQuestionId]: TraceAnswer<Id> } = {
  feed: "always",
  fuse: { id: "F1", amps: 40 },
  relay: "yes",
  coil: { relay: "K1", fuse: "F2", amps: 10 },
  control: "resistor",
  hands: "ground",
  speeds: 4,
  top: "switch",
  link: "all",
  ohms: { steps: [] },
  signal: "volts",
  command: { still: 0.5, full: 4.5 },
  panel: { batteryFuse: "F3", batteryAmps: 10, keyFuse: "F2", keyAmps: 10 },
  grounds: { blower: "E1", coil: usualCoilGround },
  motor: { amps: 20 },
  plugs: { motor: "X1", control: "X2", switch: "X3" },
  reach: { box: 2, dashBox: 1, blower: 4, switch: 8 },
};

/** An answer, or the usual one; `known` says which. */
export function answered<Id extends TraceQuestionId>(
  answers: TraceAnswers,
  id: Id,
): { readonly value: TraceAnswer<Id>; readonly known: boolean } {
  const own = answers[id] as TraceAnswer<Id> | null | undefined;
  return own === null || own === undefined
    ? { value: usualAnswers[id], known: false }
    : { value: own, known: true };
}

/** The questions that follow from the answers so far, in order; a question that no answer leads to is not asked. */
export function questionsAsked(answers: TraceAnswers): TraceQuestionId[] {
  const resistor = answered(answers, "control").value === "resistor";
  const relay = answered(answers, "relay").value === "yes";
  const skipped = new Set<TraceQuestionId>([
    ...(relay ? [] : (["coil"] as const)),
    ...(resistor ? (["signal", "command", "panel"] as const) : (["top", "link", "ohms"] as const)),
    ...(answered(answers, "signal").value === "bus" ? (["command"] as const) : []),
  ]);
  return traceQuestionIds.filter((id) => !skipped.has(id));
}
