import { z } from "zod";

const size = z
  .string()
  .regex(/^[A-Za-z0-9][A-Za-z0-9 ./,]{0,15}$/, "must be a size as stamped, like 7 mm or T20");

/** Screws, bolts or nuts of one sort that a step removes. */
export const fastenerSchema = z.strictObject({
  count: z.number().int().min(1).max(60),
  head: z.enum(["hex", "torx", "phillips", "pozidriv", "slotted", "allen"]),
  /** As stamped on the tool: `7 mm`, `9/32 in`, `T20`, `PH2`. */
  size: size.optional(),
  into: z.enum(["plastic", "metal"]),
  /** It cannot be seen from where the hand is. */
  hidden: z.literal(true).optional(),
  /** Its ear is slotted, so it is only loosened and stays in place. */
  loosenOnly: z.literal(true).optional(),
  /** How many are refitted, if not all: a trimmed ear no longer needs its screw. */
  back: z.number().int().min(0).max(60).optional(),
});
export type Fastener = z.infer<typeof fastenerSchema>;

const heads: Readonly<Record<Fastener["head"], string>> = {
  hex: "socket",
  torx: "driver",
  phillips: "Phillips screwdriver",
  pozidriv: "Pozidriv screwdriver",
  slotted: "flat screwdriver",
  allen: "Allen key",
};

/** The tool that turns it: `7 mm socket`, `T20 driver`, `PH2 Phillips screwdriver`. */
export const toolFor = ({ head, size: stamped }: Fastener): string =>
  stamped ? `${stamped} ${heads[head]}` : heads[head];

/** `3 screws 5.5 mm into plastic, one of them hidden`. */
export function fastenerText({ count, size: stamped, head, into, hidden, loosenOnly }: Fastener): string {
  const sort = stamped ?? head;
  const words = `${count} × ${sort} into ${into}`;
  const marks = [
    ...(hidden ? [count > 1 ? "hidden among them" : "hidden"] : []),
    ...(loosenOnly ? ["loosened only, the ear is slotted"] : []),
  ];
  return marks.length > 0 ? `${words} (${marks.join("; ")})` : words;
}

/** Screws of this sort that go into the tray; none if they are only loosened. */
export const screwsOut = ({ count, loosenOnly }: Fastener): number => (loosenOnly ? 0 : count);

/** Screws of this sort that are refitted from the tray. */
export const screwsBack = (fastener: Fastener): number =>
  Math.min(screwsOut(fastener), fastener.back ?? screwsOut(fastener));
