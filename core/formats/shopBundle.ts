import { z } from "zod";

const tableName = z.string().regex(/^[A-Za-z]{1,40}$/, "must be a plain name");

/** The shape of an `airway-shop` bundle's contents, version 1: its tables, with their columns and numbers of rows. */
export const shopBundleSchema = z.strictObject({
  format: z.literal("airway-shop"),
  version: z.literal(1),
  /** The schema version of the tables. */
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

/** Paths of a bundle's contents list, tables, pictures and recordings. */
export const shopContents = "airway-shop.json";
/** Path of a table's rows in a bundle. */
export const tableFile = (name: string): string => `tables/${name}.jsonl`;
/** Path of the bytes of one cell, a picture or a recording, in a bundle. */
export const blobFile = (table: string, row: number, column: string): string =>
  `blobs/${table}-${row}-${column}.bin`;

/** A cell of a row: text, a number, null, or the file with its bytes. */
export const cellSchema = z.union([
  z.string(),
  z.number(),
  z.null(),
  z.strictObject({ blob: z.string().regex(/^blobs\/[A-Za-z]+-\d+-[A-Za-z]+\.bin$/) }),
]);
