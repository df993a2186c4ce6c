import pino, { type Logger } from "pino";

/** The server's own logger: AIRWAY_LOG sets how much it says. */
export const logger: Logger = pino({ level: process.env.AIRWAY_LOG ?? "warn" });

/** Something that failed behind the pages, in words for the people of the shop. */
export interface Trouble {
  readonly words: string;
  readonly at: Date;
}

const troubles = new Map<string, Trouble>();

/**
 * Logs a failure that no request answers for, with its cause, and tells of it on every page until the server is started again.
 * @param words what failed, and what it means for the work
 */
export function reportTrouble(cause: unknown, words: string): void {
  logger.error(cause, words);
  troubles.set(words, { words, at: new Date() });
}

/** What failed since the start, the newest first. */
export const troublesNow = (): readonly Trouble[] => [...troubles.values()].reverse();
