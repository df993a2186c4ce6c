import { randomInt, timingSafeEqual } from "node:crypto";

/** How long a code can be used, and how many wrong guesses end it. */
const codeMilliseconds = 10 * 60_000;
const mostWrong = 10;
const digits = 8;

interface PairingCode {
  readonly code: string;
  readonly endsAt: number;
  wrong: number;
}

/** The one code that can be used now; it does not outlive the server. */
let current: PairingCode | null = null;

/** Makes a code for one device; an earlier one no longer works. */
export function makePairingCode(now = Date.now()): string {
  const code = String(randomInt(10 ** digits)).padStart(digits, "0");
  current = { code, endsAt: now + codeMilliseconds, wrong: 0 };
  return code;
}

/** The code that can be used now; null if there is none. */
export function pairingCode(now = Date.now()): { readonly code: string; readonly endsAt: number } | null {
  return current && now < current.endsAt ? current : null;
}

/** Ends the code. */
export function endPairingCode(): void {
  current = null;
}

/**
 * Uses the code up for one device. After ten wrong guesses, from wherever they come, it is void, so that guessing
 * 100 million of them gets nowhere.
 */
export function usePairingCode(given: string, now = Date.now()): "right" | "wrong" | "none" {
  if (!current || now >= current.endsAt) return "none";
  const own = Buffer.from(current.code);
  const typed = Buffer.from(given.replace(/\s/g, ""));
  if (typed.length === own.length && timingSafeEqual(typed, own)) {
    current = null;
    return "right";
  }
  current.wrong += 1;
  if (current.wrong >= mostWrong) current = null;
  return "wrong";
}
