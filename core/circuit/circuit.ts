import { z } from "zod";
import { partSchema } from "./parts/index";
import { itemId, nonNegative, positive, settingName, shortText } from "./parts/partBase";
import { wireColour } from "./wireColour";

const reference = z.string().min(3).max(64);

export const connectorSchema = z.strictObject({
  id: itemId,
  title: shortText.optional(),
  pins: z.record(
    z.string().regex(/^[A-Za-z0-9_-]{1,12}$/, "a pin is 1 to 12 letters, digits, _ or -"),
    reference,
  ),
  pinOhms: nonNegative.optional(),
});
export type Connector = z.infer<typeof connectorSchema>;

export const wireSchema = z.strictObject({
  id: itemId,
  from: reference,
  to: reference,
  colour: wireColour,
  mm2: positive.max(1000),
  metres: nonNegative.max(1000),
  fromOhms: nonNegative.optional(),
  toOhms: nonNegative.optional(),
  /** The colour in words, if the code cannot express it: `dark blue`. */
  colourName: z.string().min(1).max(40).optional(),
  /** Its colour, size and length are guesses. */
  assumed: z.literal(true).optional(),
});
export type Wire = z.infer<typeof wireSchema>;

export const placeSchema = z.strictObject({
  id: z.string().regex(/^[A-Za-z][A-Za-z0-9_-]{0,47}$/, "must be letters, digits, _ or -"),
  minutes: z.number().nonnegative().max(10_000),
  parts: z.array(itemId).max(500),
});
export type Place = z.infer<typeof placeSchema>;

/** The shape of an `airway-circuit` file, version 1; references are checked by `parseCircuit`. */
export const circuitSchema = z.strictObject({
  format: z.literal("airway-circuit"),
  version: z.literal(1),
  id: z.string().regex(/^[A-Za-z0-9][A-Za-z0-9_.-]{0,63}$/, "must be letters, digits, . _ or -"),
  title: shortText,
  note: z.string().max(4000).optional(),
  steering: z.enum(["left", "right"]).optional(),
  /** Nobody has seen how it is wired: it was worked out, or questions about the wiring were answered "not known". */
  wiring: z.literal("assumed").optional(),
  settings: z.array(settingName).min(1).max(24),
  parts: z.array(partSchema).min(1).max(400),
  connectors: z.array(connectorSchema).max(200),
  wires: z.array(wireSchema).max(800),
  places: z.array(placeSchema).max(100),
});

/** One vehicle's blower circuit, checked: every reference in it resolves. */
export type Circuit = z.infer<typeof circuitSchema>;
