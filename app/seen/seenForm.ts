import { cautions } from "@core/diagnose/tests/caution";
import { patterns, states } from "@core/predict/moment";
import { airflowSeen } from "@core/predict/observations/airflowSeen";
import { typedFigure } from "@core/units/typedFigure";
import { partPlaces, plugPlaces } from "@core/wiring/place";
import { type PlaceReading, placeReadingSchema } from "@core/wiring/placeReading";
import type { PlaceTest } from "@core/wiring/placeTest";
import { z } from "zod";

/** What the page of a job without a diagram sends. */
export const seenForm = z.discriminatedUnion("intent", [
  z.looseObject({
    intent: z.literal("reading"),
    token: z.uuid(),
    /** The test as JSON, as the page got it. */
    test: z.string().max(500),
    state: z.union([z.enum(states), z.literal("")]).default(""),
  }),
  z.object({
    intent: z.literal("heard"),
    token: z.uuid(),
    setting: z.string().regex(/^\d{1,2}$/),
    seen: z.union([z.enum(airflowSeen), z.literal("")]),
    pattern: z.union([z.enum(patterns), z.literal("")]).default(""),
  }),
  z.object({ intent: z.literal("strike"), id: z.uuid(), struck: z.enum(["yes", "no"]) }),
  z.object({
    intent: z.literal("reach"),
    place: z.enum([...plugPlaces, ...partPlaces]),
    out: z.enum(["yes", "no"]),
  }),
  z.object({
    intent: z.literal("cautions"),
    cautions: z
      .string()
      .transform((text) => text.split(" "))
      .pipe(z.array(z.enum(cautions))),
  }),
]);

type Entered = { readonly reading: PlaceReading } | { readonly problem: string };

/** The form field of a pin, by its label. */
export const pinField = (label: string): string => `pin.${label}`;
export const sizeField = (label: string): string => `size.${label}`;

/** Values by label, from the fields of one kind. */
const byLabel = (fields: Readonly<Record<string, unknown>>, prefix: string): Record<string, string> =>
  Object.fromEntries(
    Object.entries(fields).flatMap(([name, value]) =>
      name.startsWith(prefix) && typeof value === "string" && value !== ""
        ? [[name.slice(prefix.length), value] as const]
        : [],
    ),
  );

/** A figure, or null for OL. */
const figureOf = (text: string): number | null => (/^ol$/i.test(text.trim()) ? null : typedFigure(text));

/** What a form says of a test, as the reading's keys; or what to enter instead. */
function resultOf(
  { test }: { readonly test: PlaceReading["test"] },
  fields: Readonly<Record<string, unknown>>,
): Readonly<Record<string, unknown>> | { readonly problem: string } {
  const { value, seen, followsSpeed } = fields;
  const pins = byLabel(fields, "pin.");
  if (test === "wires") {
    const sizes = byLabel(fields, "size.");
    return {
      seen: Object.fromEntries(
        Object.entries(sizes).map(([label, size]) => [label, [pins[label], size].filter(Boolean).join(" ")]),
      ),
    };
  }
  if (test === "volts" || test === "ohms" || test === "amps") {
    const isMany = Object.keys(pins).length > 0;
    const typed = isMany ? Object.values(pins) : [typeof value === "string" ? value : ""];
    const figures = typed.map(figureOf);
    const wrong = typed.find(
      (_text, at) => Number.isNaN(figures[at]) || (test !== "ohms" && figures[at] === null),
    );
    if (wrong !== undefined)
      return {
        problem:
          wrong === ""
            ? "Enter what the meter reads."
            : `“${wrong}” is not a figure. Enter one such as 12.3${test === "ohms" ? ", or OL" : ""}.`,
      };
    if (!isMany) return { [test]: figures[0] };
    return { [test]: Object.fromEntries(Object.keys(pins).map((label, at) => [label, figures[at]])) };
  }
  if (Object.keys(pins).length > 0) return { seen: pins };
  return {
    seen,
    ...(followsSpeed === "yes" || followsSpeed === "no" ? { followsSpeed: followsSpeed === "yes" } : {}),
  };
}

const testShape = z.looseObject({ test: z.string() });

/** The reading that a form of the page makes; or what is wrong with it. */
export function seenReading(fields: Readonly<Record<string, unknown>>): Entered {
  const lost = { problem: "That entry could not be read. Load the page again." };
  let input: unknown;
  try {
    input = JSON.parse(String(fields.test));
  } catch {
    return lost;
  }
  const shaped = testShape.safeParse(input);
  if (!shaped.success) return lost;
  // The whole reading is checked by its own shape below.
  const test = shaped.data as unknown as PlaceTest;
  const state = fields.state === "failing" || fields.state === "working" ? { state: fields.state } : {};
  const result = fields.absent === "yes" ? { absent: true } : resultOf(test, fields);
  if ("problem" in result) return { problem: String(result.problem) };
  const reading = placeReadingSchema.safeParse({ ...test, ...state, ...result });
  if (reading.success) return { reading: reading.data };
  return { problem: "Choose a result for every pin." };
}
