import { cautions } from "@core/diagnose/tests/caution";
import { strategies } from "@core/diagnose/tests/strategy";
import { type Reading, readingSchema, testNames } from "@core/predict/reading";
import { readingProblems } from "@core/predict/readingProblems";
import type { CompiledCircuit } from "@core/predict/tables/compiledCircuit";
import { problemsOf, problemText } from "@core/problem/problem";
import { typedFigure } from "@core/units/typedFigure";
import { z } from "zod";

const short = z.string().max(64);

const offeredForm = z.object({
  intent: z.literal("reading"),
  token: z.uuid(),
  look: z.string().max(2000),
  seen: short.optional(),
  value: short.optional(),
  /** The middle of the range that was tapped instead of a figure. */
  about: short.optional(),
  noEnd: z.literal("yes").optional(),
});

const ownForm = z.object({
  intent: z.literal("own-reading"),
  token: z.uuid(),
  test: z.enum(testNames),
  key: z.enum(["off", "acc", "run"]),
  setting: short,
  first: short.default(""),
  second: short.default(""),
  at: short.default(""),
  unplugged: short.default(""),
  result: short,
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

/** A figure as typed; null when it is no number. */
export function typedNumber(text: string): number | null {
  const value = typedFigure(text);
  return Number.isNaN(value) ? null : value;
}

/** What a meter's reading gives. */
const figures = ["volts", "ohms", "amps"];

type Entered = { readonly reading: Reading } | { readonly problem: string };

function checked(engine: CompiledCircuit, input: unknown): Entered {
  const parsed = readingSchema.safeParse(input);
  if (!parsed.success) {
    const [slip] = problemsOf(parsed.error, input);
    const isFigure = slip !== undefined && figures.includes(slip.path);
    return {
      problem: isFigure
        ? `${problemText(slip)}.`
        : "That reading cannot be understood: check the points and the value.",
    };
  }
  const [wrong] = readingProblems(engine, parsed.data);
  return wrong ? { problem: problemText(wrong) } : { reading: parsed.data };
}

/** The reading a filled-in offered look makes. */
export function offeredReading(engine: CompiledCircuit, form: z.infer<typeof offeredForm>): Entered {
  let test: unknown;
  try {
    test = JSON.parse(form.look);
  } catch {
    return { problem: "That look cannot be read: load the page again." };
  }
  if (typeof test !== "object" || test === null || !("test" in test))
    return { problem: "That look cannot be read." };
  return checked(engine, {
    ...test,
    ...resultOf(String(test.test), form.seen, form.about ?? form.value, form.noEnd === "yes"),
  });
}

function resultOf(test: string, seen: string | undefined, value: string | undefined, noEnd: boolean) {
  if (!figures.includes(test)) return { seen };
  const number = noEnd ? null : (typedNumber(value ?? "") ?? value);
  return { [test]: number };
}

/** The reading a technician's own choice of test and points makes. */
export function ownReading(engine: CompiledCircuit, form: z.infer<typeof ownForm>): Entered {
  const { test, first, second, at, result } = form;
  const unplugged = form.unplugged === "" ? {} : { unplugged: [form.unplugged] };
  const live = { key: form.key, setting: form.setting, ...unplugged };
  switch (test) {
    case "light":
      return checked(engine, { test, probe: first, clip: second, ...live, seen: result });
    case "volts":
      return checked(engine, {
        test,
        red: first,
        black: second,
        ...live,
        ...resultOf(test, "", result, false),
      });
    case "ohms": {
      const noEnd = /^(no end|open|ol)$/i.test(result.trim());
      const { setting } = form;
      return checked(engine, {
        test,
        red: first,
        black: second,
        setting,
        ...unplugged,
        ...resultOf(test, "", result, noEnd),
      });
    }
    case "amps":
      return checked(engine, { test, around: at, ...live, ...resultOf(test, "", result, false) });
    case "airflow":
    case "listen":
    case "smell":
      return checked(engine, { test, key: form.key, setting: form.setting, seen: result });
    case "look":
    case "spin":
      return checked(engine, { test, at, seen: result });
    case "tap":
    case "swap":
    case "ripple":
      return checked(engine, { test, at, ...live, seen: result });
    case "lampload":
      return checked(engine, { test, lampFor: at, ...live, seen: result });
    case "history":
      return checked(engine, { test, of: at, seen: result });
  }
}
