import { z } from "zod";

const size = z
  .string()
  .regex(/^[A-Za-z0-9][A-Za-z0-9 ./,]{0,15}$/, "must be a size as stamped, like 7 mm or T20");

/** Screws, bolts or nuts of one sort that a step takes out. */
export const fastenerSchema = z.strictObject({
  count: z.number().int().min(1).max(60),
  head: z.enum(["hex", "torx", "phillips", "pozidriv", "slotted", "allen"]),
  /** As stamped on the tool: `7 mm`, `9/32 in`, `T20`, `PH2`. */
  size: size.optional(),
  into: z.enum(["plastic", "metal"]),
  /** One that is not seen from where the hand is. */
  hidden: z.literal(true).optional(),
  /** Its ear is slotted: it is loosened and stays. */
  loosenOnly: z.literal(true).optional(),
  /** How many go back, where it is not all of them: an ear that was cut needs its screw no more. */
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

/** What turns it: `7 mm socket`, `T20 driver`, `PH2 Phillips screwdriver`. */
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

/** Screws a sort puts into the tray: none where it is only loosened. */
export const screwsOut = ({ count, loosenOnly }: Fastener): number => (loosenOnly ? 0 : count);

/** Screws of a sort that go back from the tray. */
export const screwsBack = (fastener: Fastener): number =>
  Math.min(screwsOut(fastener), fastener.back ?? screwsOut(fastener));
