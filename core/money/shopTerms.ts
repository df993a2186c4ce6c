import { z } from "zod";
import { roundingSchema } from "./estimateLine";

const minor = z.number().int().min(0).max(1e9);
const basisPoints = z.number().int().min(0).max(10_000);

/** A shop's rates and rules for every estimate. Money is in minor units of its currency. */
export const shopTermsSchema = z.strictObject({
  /** ISO 4217: three capitals. */
  currency: z.string().regex(/^[A-Z]{3}$/, "must be three capitals, like EUR"),
  hourMinor: minor,
  /** Smallest diagnosis time that is charged. */
  diagnosisMinimumMinutes: z.number().int().min(0).max(240),
  /** Diagnosis is charged on top of the repair, or included if the repair is done here. */
  diagnosisPolicy: z.enum(["on-top", "swallowed"]),
  /** Labour by book time in tenths of an hour, or by the access plan's minutes. */
  labourBy: z.enum(["book", "plan"]),
  /** Markup on what a part costs the shop. */
  markupBasisPoints: z.number().int().min(0).max(100_000),
  /** Grease, ties and cleaner, as a share of the labour. */
  consumablesBasisPoints: basisPoints,
  labourTaxBasisPoints: basisPoints,
  partTaxBasisPoints: basisPoints,
  rounding: roundingSchema,
  /** Cost of a comeback: the labour again, the part, and the customer's patience. */
  comebackMinor: minor,
  warrantyMonths: z.number().int().min(0).max(120),
});
export type ShopTerms = z.infer<typeof shopTermsSchema>;

/** Terms of a shop that has set none (judgements, no source; `XXX` is ISO 4217's code for no currency). */
export const defaultShopTerms: ShopTerms = {
  currency: "XXX",
  hourMinor: 9000,
  diagnosisMinimumMinutes: 30,
  diagnosisPolicy: "on-top",
  labourBy: "plan",
  markupBasisPoints: 3000,
  consumablesBasisPoints: 200,
  labourTaxBasisPoints: 2000,
  partTaxBasisPoints: 2000,
  rounding: { rule: "half-up", at: "line", coinMinor: 1 },
  comebackMinor: 20000,
  warrantyMonths: 12,
};

/** Minutes as thousandths of an hour, rounded up to the tenth of an hour the trade bills in. */
export function tenthsMilli(minutes: number): number {
  return Math.ceil(Math.round(minutes * 1e6) / 6e6) * 100;
}
