import { readFileSync, statSync } from "node:fs";
import type { Readable } from "node:stream";
import { type Parsed, refused } from "@core/problem/problem";

/** Files and lines longer than this are refused before they are parsed. */
export const mostBytes = 4 * 1024 * 1024;

/** Bad input: one line on standard error, exit status 2. */
export class BadInput extends Error {}

const tooLarge = (bytes: number | "more"): string =>
  `input: at most ${mostBytes} bytes are read, got ${bytes}`;

/** Reads standard input up to the limit, and waits for a pipe that is not ready yet. */
async function standardInput(input: Readable): Promise<Buffer> {
  const chunks: Buffer[] = [];
  let bytes = 0;
  for await (const chunk of input) {
    const buffer = Buffer.from(chunk as Buffer | string);
    bytes += buffer.length;
    if (bytes > mostBytes) throw new BadInput(tooLarge("more"));
    chunks.push(buffer);
  }
  return Buffer.concat(chunks);
}

/** Reads a file, or standard input for `-`. */
export async function readInput(file: string, input: Readable): Promise<string> {
  try {
    if (file === "-") return (await standardInput(input)).toString("utf8");
    const { size } = statSync(file);
    if (size > mostBytes) throw new BadInput(tooLarge(size));
    return readFileSync(file, "utf8");
  } catch (error) {
    if (error instanceof BadInput) throw error;
    throw new BadInput(`${file}: cannot be read (${(error as NodeJS.ErrnoException).code ?? "error"})`);
  }
}

/** Largest size of a recording, in bytes. */
const mostTraceBytes = 256 * 1024 * 1024;

/** Reads a recording's bytes. */
export function recordingFrom(file: string): Uint8Array {
  try {
    const { size } = statSync(file);
    if (size > mostTraceBytes)
      throw new BadInput(`${file}: at most ${mostTraceBytes} bytes are read, got ${size}`);
    return readFileSync(file);
  } catch (error) {
    if (error instanceof BadInput) throw error;
    throw new BadInput(`${file}: cannot be read (${(error as NodeJS.ErrnoException).code ?? "error"})`);
  }
}

/** Parses JSON; the error says where the text cannot be read. */
export function parseJson(text: string): Parsed<unknown> {
  if (text.length > mostBytes)
    return refused([{ code: "contradiction", path: "", message: tooLarge(text.length) }]);
  try {
    return { ok: true, value: JSON.parse(text) as unknown };
  } catch (error) {
    return refused([{ code: "unreadable", path: "", message: `not JSON: ${(error as Error).message}` }]);
  }
}
