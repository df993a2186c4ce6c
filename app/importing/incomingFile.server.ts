import { createWriteStream, mkdirSync, rmSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { Readable, Transform } from "node:stream";
import { pipeline } from "node:stream/promises";
import type { ReadableStream } from "node:stream/web";
import { dataFolder } from "@db/dataFolder.server";

/** Files from elsewhere: each kind has one place, where the latest stays until it is finished with. */
export type IncomingKind = "records" | "shop" | "shelf";

const folder = (): string => join(dataFolder(), "importing");

/** Path of a kind's file, or of something made from it. */
export function incomingPath(kind: IncomingKind, made: "file" | "staging" = "file"): string {
  mkdirSync(folder(), { recursive: true });
  return join(folder(), `${kind}.${made}`);
}

/** Deletes a kind's file, and what was made from it. */
export function dropIncomingFile(kind: IncomingKind): void {
  for (const made of ["file", "staging"] as const) rmSync(incomingPath(kind, made), { force: true });
}

/** Stores text as a file. */
export const keepText = (kind: IncomingKind, text: string): void => writeFileSync(incomingPath(kind), text);

/** A file larger than its kind allows. */
export class TooLarge extends Error {}

/** The largest file of each kind, in bytes. */
export const mostBytes: Readonly<Record<IncomingKind, number>> = {
  records: 100 * 1024 * 1024,
  shop: 400 * 1024 * 1024,
  shelf: 20 * 1024 * 1024,
};

/** Reads a body to its end and discards it, because closing the connection would lose the answer on its way. */
export async function dropBody(request: Request): Promise<void> {
  await request.body?.pipeTo(new WritableStream());
}

/**
 * Writes the body of a request to its kind's place as it arrives, so that it is never in memory as a whole.
 * @throws TooLarge
 */
export async function keepBody(kind: IncomingKind, request: Request): Promise<void> {
  let bytes = 0;
  const counted = new Transform({
    transform(chunk: Buffer, _encoding, done) {
      bytes += chunk.length;
      done(bytes > mostBytes[kind] ? new TooLarge() : null, chunk);
    },
  });
  const body = Readable.fromWeb((request.body ?? new Blob([]).stream()) as ReadableStream);
  await pipeline(body, counted, createWriteStream(incomingPath(kind)));
}
