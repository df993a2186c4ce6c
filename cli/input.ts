import { readFileSync, statSync } from "node:fs";
import { type Parsed, refused } from "@core/problem/problem";

/** Files and lines longer than this are refused before they are parsed. */
export const mostBytes = 4 * 1024 * 1024;

/** Bad input: one line on standard error, exit status 2. */
export class BadInput extends Error {}

const tooLarge = (bytes: number): string => `input: at most ${mostBytes} bytes are read, got ${bytes}`;

/** Reads a file, or standard input for `-`. */
export function readInput(file: string): string {
  try {
    if (file !== "-") {
      const { size } = statSync(file);
      if (size > mostBytes) throw new BadInput(tooLarge(size));
      return readFileSync(file, "utf8");
    }
    const text = readFileSync(0);
    if (text.length > mostBytes) throw new BadInput(tooLarge(text.length));
    return text.toString("utf8");
  } catch (error) {
    if (error instanceof BadInput) throw error;
    throw new BadInput(`${file}: cannot be read (${(error as NodeJS.ErrnoException).code ?? "error"})`);
  }
}

/** Traces are long: these are read up to here. */
const mostTraceBytes = 256 * 1024 * 1024;

/** Reads a trace's bytes. */
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

/** Parses JSON; the error says where the text stops making sense. */
export function parseJson(text: string): Parsed<unknown> {
  if (text.length > mostBytes)
    return refused([{ code: "contradiction", path: "", message: tooLarge(text.length) }]);
  try {
    return { ok: true, value: JSON.parse(text) as unknown };
  } catch (error) {
    return refused([{ code: "unreadable", path: "", message: `not JSON: ${(error as Error).message}` }]);
  }
}
