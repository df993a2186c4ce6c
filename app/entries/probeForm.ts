import { cautions } from "@core/diagnose/tests/caution";
import { strategies } from "@core/diagnose/tests/strategy";
import { states } from "@core/predict/moment";
import { observationOf, observations } from "@core/predict/observations/index";
import { pickedTest } from "@core/predict/observations/testForm";
import { parseTest, type Reading, readingSchema } from "@core/predict/reading";
import { readingProblems } from "@core/predict/readingProblems";
import type { CompiledCircuit } from "@core/predict/tables/compiledCircuit";
import { problemsOf, problemText } from "@core/problem/problem";
import { typedFigure } from "@core/units/typedFigure";
import { z } from "zod";

const short = z.string().max(64);

/** Whether the symptom was there; empty if nobody said. */
const state = z.union([z.enum(states), z.literal("")]).optional();

const offeredForm = z.object({
  intent: z.literal("reading"),
  token: z.uuid(),
  look: z.string().max(2000),
  seen: short.optional(),
  value: short.optional(),
  /** The middle of the range that was tapped instead of a figure. */
  about: short.optional(),
  noEnd: z.literal("yes").optional(),
  state,
});

const ownForm = z.object({
  intent: z.literal("own-reading"),
  token: z.uuid(),
  test: z.enum(observations.map(({ name }) => name)),
  key: z.enum(["off", "acc", "run"]),
  setting: short,
  first: short.default(""),
  second: short.default(""),
  at: short.default(""),
  unplugged: short.default(""),
  result: short,
  state,
});

/** Everything the probe page can ask for. */
export const probeForm = z.discriminatedUnion("intent", [
  offeredForm,
  ownForm,
  z.object({ intent: z.literal("strike"), id: short, struck: z.enum(["yes", "no"]) }),
  z.object({
    intent: z.literal("cautions"),
    cautions: short.transform((text) => text.split(" ")).pipe(z.array(z.enum(cautions))),
  }),
  z.object({ intent: z.literal("school"), school: z.enum(strategies) }),
]);

/** A figure as typed; null if it is not a number. */
export function typedNumber(text: string): number | null {
  const value = typedFigure(text);
  return Number.isNaN(value) ? null : value;
}

type Entered = { readonly reading: Reading } | { readonly problem: string };

function checked(engine: CompiledCircuit, input: unknown): Entered {
  const parsed = readingSchema.safeParse(input);
  if (!parsed.success) {
    const [slip] = problemsOf(parsed.error, input);
    const isFigure = observations.some((own) => own.gives === "number" && own.figure === slip?.path);
    return {
      problem:
        slip && isFigure
          ? `${problemText(slip)}.`
          : "That reading could not be understood. Check the points and the value.",
    };
  }
  const [wrong] = readingProblems(engine, parsed.data);
  return wrong ? { problem: problemText(wrong) } : { reading: parsed.data };
}

/** Whether it was failing, for tests of the blower or its wiring; an inspection shows the same either way. */
const momentSaid = (test: string, said: z.infer<typeof state>) =>
  said && observationOf(test).form.setup !== "none" ? { state: said } : {};

/** The reading a filled-in suggested test makes. */
export function offeredReading(engine: CompiledCircuit, form: z.infer<typeof offeredForm>): Entered {
  let look: unknown;
  try {
    look = JSON.parse(form.look);
  } catch {
    return { problem: "That test could not be read. Load the page again." };
  }
  const test = parseTest(look);
  if (!test) return { problem: "That test could not be read. Load the page again." };
  const typed = form.seen ?? form.about ?? form.value;
  return checked(engine, {
    ...test,
    ...momentSaid(test.test, form.state),
    ...resultOf(test.test, typed, form.noEnd === "yes"),
  });
}

/** The result as typed or tapped; a figure if it can be read as one. */
function resultOf(name: string, typed: string | undefined, noEnd: boolean): Record<string, unknown> {
  const observation = observationOf(name);
  if (observation.gives === "word") return { seen: typed };
  return { [observation.figure]: noEnd ? null : (typedNumber(typed ?? "") ?? typed) };
}

/** What may be typed for ohms that the meter shows as OL (open). */
const openCircuit = /^(no end|open|ol)$/i;

/** The reading of a technician's own choice of test and points. */
export function ownReading(engine: CompiledCircuit, form: z.infer<typeof ownForm>): Entered {
  const observation = observationOf(form.test);
  const picked = observation.form.pick.kind === "points" ? [form.first, form.second] : [form.at];
  const unplugged = form.unplugged === "" ? {} : { unplugged: [form.unplugged] };
  const test = pickedTest(observation, picked, { key: form.key, setting: form.setting, ...unplugged });
  return checked(engine, {
    ...test,
    ...momentSaid(form.test, form.state),
    ...resultOf(form.test, form.result, openCircuit.test(form.result.trim())),
  });
}
