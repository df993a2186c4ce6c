import { everything, type RecordQuery, recordOrders, recordOutcomes } from "@db/recordQuery";
import { z } from "zod";

const querySchema = z.object({
  words: z.string().max(200).catch(""),
  vehicle: z.coerce.number().int().positive().nullable().catch(null),
  circuit: z.string().max(64).catch(""),
  fault: z.string().max(200).catch(""),
  part: z.string().max(32).catch(""),
  outcome: z.enum(["", ...recordOutcomes]).catch(""),
  order: z.enum(recordOrders).catch(everything.order),
  down: z.enum(["yes", "no"]).catch("yes"),
  page: z.coerce.number().int().min(1).max(100_000).catch(1),
});

export const pageLength = 50;

/** The query in an address of the records; invalid parts are ignored. */
export function recordQuery(search: URLSearchParams): RecordQuery & { readonly page: number } {
  const { page, down, ...own } = querySchema.parse(Object.fromEntries(search));
  return { ...own, down: down === "yes", page, from: (page - 1) * pageLength, count: pageLength };
}
