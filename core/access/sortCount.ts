import { z } from "zod";

/** Fasteners of one sort, by its name: `5.5 mm screw`. */
export const sortCountSchema = z.strictObject({
  sort: z.string().min(1).max(60),
  count: z.number().int().min(0).max(99),
});
export type SortCount = Readonly<z.infer<typeof sortCountSchema>>;
export const sortCountsSchema = z.array(sortCountSchema).max(12);
