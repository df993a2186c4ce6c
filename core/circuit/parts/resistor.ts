import { z } from "zod";
import { itemId, nonNegative, partBase, positive, terminalName } from "./partBase";

const elementBase = { id: itemId, from: terminalName, to: terminalName };

export const resistorElementSchema = z.union([
  z.strictObject({ ...elementBase, ohms: positive }),
  z.strictObject({ ...elementBase, thermalLink: z.literal(true), ohms: nonNegative.optional() }),
]);
export type ResistorElement = z.infer<typeof resistorElementSchema>;

/** A resistor pack: any network of elements and thermal links between named points. */
export const resistorSchema = z.strictObject({
  ...partBase,
  kind: z.literal("resistor"),
  elements: z.array(resistorElementSchema).min(1).max(32),
});
export type ResistorPack = z.infer<typeof resistorSchema>;

/** Every name in the elements; names that no wire or pin uses are internal. */
export function resistorTerminals(part: ResistorPack): string[] {
  return [...new Set(part.elements.flatMap((element) => [element.from, element.to]))];
}
