import pino, { type Logger } from "pino";

/** The server's own logger; AIRWAY_LOG sets its level. */
export const logger: Logger = pino({ level: process.env.AIRWAY_LOG ?? "warn" });

/** A failure in the background, in words for the people of the shop. */
export interface Trouble {
  readonly words: string;
  readonly at: Date;
}

const troubles = new Map<string, Trouble>();

/**
 * Logs a failure that belongs to no request, with its cause, and shows it on every page until the server restarts.
 * @param words what failed, and what it means for the work
 */
export function reportTrouble(cause: unknown, words: string): void {
  logger.error(cause, words);
  troubles.set(words, { words, at: new Date() });
}

/** The failures since the start, the newest first. */
export const troublesNow = (): readonly Trouble[] => [...troubles.values()].reverse();
