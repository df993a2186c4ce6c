import { z } from "zod";

const tableName = z.string().regex(/^[A-Za-z]{1,40}$/, "must be a plain name");

/** The shape of an `airway-shop` bundle's contents, version 1: which tables it holds, with which columns and how many rows. */
export const shopBundleSchema = z.strictObject({
  format: z.literal("airway-shop"),
  version: z.literal(1),
  /** The state of the tables it was made from. */
  schema: z.string().regex(/^\d{3}-[a-z-]{1,40}$/, "must be like 009-memory"),
  tables: z
    .array(
      z.strictObject({
        name: tableName,
        columns: z.array(tableName).min(1).max(60),
        rows: z.number().int().min(0),
      }),
    )
    .max(100),
});
export type ShopBundle = z.infer<typeof shopBundleSchema>;

/** Where a bundle's contents, its tables and its pictures and recordings lie in it. */
export const shopContents = "airway-shop.json";
/** Where a table's rows lie in a bundle. */
export const tableFile = (name: string): string => `tables/${name}.jsonl`;
/** Where the bytes of one cell, a picture or a recording, lie in a bundle. */
export const blobFile = (table: string, row: number, column: string): string =>
  `blobs/${table}-${row}-${column}.bin`;

/** A cell of a row: text, a number, nothing, or the file its bytes are in. */
export const cellSchema = z.union([
  z.string(),
  z.number(),
  z.null(),
  z.strictObject({ blob: z.string().regex(/^blobs\/[A-Za-z]+-\d+-[A-Za-z]+\.bin$/) }),
]);
