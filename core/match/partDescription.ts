import { z } from "zod";
import { type Parsed, problemsOf, refused } from "../problem/problem";
import { mounts, plugSeats, sides } from "./partFeature";

const millimetres = z.number().min(0).max(1000);
const place = z.number().min(-1000).max(1000);
const partNumber = z
  .string()
  .regex(/^[A-Z0-9][A-Z0-9 .-]{2,23}$/, "must be capitals, digits, dots and dashes");
export const climates = ["manual", "automatic"] as const;

/** The shape of an `airway-part` file, version 1: what can be seen and measured on a part, old or new. */
export const partDescriptionSchema = z.strictObject({
  format: z.literal("airway-part"),
  version: z.literal(1),
  number: partNumber,
  title: z.string().min(1).max(120),
  kind: z.enum(["motor", "resistor", "module", "relay", "selector", "connector"]),
  /** The numbers this part replaces, and the one that replaces it. */
  replaces: z.array(partNumber).max(30).optional(),
  replacedBy: partNumber.optional(),
  /** What it is listed for: circuits by id, and the part there. */
  fits: z
    .array(z.strictObject({ circuit: z.string().min(1).max(64), part: z.string().min(1).max(32) }))
    .max(50)
    .optional(),
  priceMinor: z.number().int().min(0).max(1e9).optional(),
  climate: z.enum(climates).optional(),
  plug: z
    .strictObject({
      pins: z.number().int().min(1).max(40),
      tab: z.enum(sides).optional(),
      seat: z.enum(plugSeats).optional(),
      /** Millimetres of wire between the part and its plug. */
      tailMm: millimetres.optional(),
    })
    .optional(),
  /** It comes with a loose lead between its terminals and the car's plug. */
  lead: z.boolean().optional(),
  mount: z.enum(mounts).optional(),
  /** Centres of the fixing holes, seen from the side the screws go in. */
  holes: z
    .array(z.tuple([place, place]))
    .max(12)
    .optional(),
  /** Clearance of a hole over its screw in millimetres; one by default. */
  holePlayMm: z.number().min(0).max(10).optional(),
  wheel: z
    .strictObject({
      included: z.boolean(),
      outerMm: millimetres.optional(),
      heightMm: millimetres.optional(),
      boreMm: millimetres.optional(),
      shaft: z.enum(["round", "flat", "splined"]).optional(),
      hold: z.enum(["pressed", "clip", "nut"]).optional(),
    })
    .optional(),
  /** The clip that holds the wheel or the part. */
  clip: z.boolean().optional(),
  /** Seen facing the wheel, with the plug connected normally. */
  turns: z.enum(["clockwise", "anticlockwise"]).optional(),
  ventTube: z.boolean().optional(),
  drainNose: z.boolean().optional(),
  gasket: z.boolean().optional(),
  screws: z.number().int().min(0).max(20).optional(),
  /** Where a corner is cut out of it, so that something of the housing has room. */
  notch: z.enum(["none", ...sides]).optional(),
  /** Where a key projects from it, which fits a slot of the housing. */
  key: z.enum(["none", ...sides]).optional(),
  /** A pack's ohms between terminals of the circuit. */
  elements: z
    .array(
      z.strictObject({
        from: z.string().max(16),
        to: z.string().max(16),
        ohms: z.number().min(0.01).max(1000),
      }),
    )
    .max(12)
    .optional(),
  /** A motor's plate. */
  plate: z
    .strictObject({
      ratedVolts: z.number().min(1).max(60),
      ratedAmps: z.number().min(0.1).max(200),
      stallAmps: z.number().min(0.2).max(2000),
      ratedRpm: z.number().min(10).max(30_000),
    })
    .optional(),
  /** Leads it comes with for splicing: the new plug's pin, the colour and the cross-section. */
  leads: z
    .array(
      z.strictObject({
        pin: z.string().min(1).max(8),
        colour: z.string().regex(/^[A-Z]{2}(\/[A-Z]{2})?$/, "must be IEC 60757, like BK or BK/YE"),
        mm2: z.number().min(0.1).max(50),
      }),
    )
    .max(12)
    .optional(),
});
export type PartDescription = z.infer<typeof partDescriptionSchema>;

/** Reads a part's description; refused with the place that does not fit. */
export function parsePart(input: unknown): Parsed<PartDescription> {
  const shaped = partDescriptionSchema.safeParse(input);
  return shaped.success ? { ok: true, value: shaped.data } : refused(problemsOf(shaped.error, input));
}

/** Whether a part is listed for a part of a circuit. */
export const listedFor = ({ fits }: PartDescription, circuit: string, part: string): boolean =>
  fits?.some((own) => own.circuit === circuit && own.part === part) ?? false;

/** What a part costs the shop, if one is listed for its place: the cheapest that is not superseded, otherwise null. */
export function listedPriceMinor(
  catalogue: readonly PartDescription[],
  circuit: string,
  part: string,
): number | null {
  const prices = catalogue.flatMap((own) =>
    own.priceMinor !== undefined && !own.replacedBy && listedFor(own, circuit, part) ? [own.priceMinor] : [],
  );
  return prices.length > 0 ? Math.min(...prices) : null;
}
