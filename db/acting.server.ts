import { AsyncLocalStorage } from "node:async_hooks";

const acting = new AsyncLocalStorage<string | null>();

/**
 * Runs work in the name of somebody: what it writes, at once or later, is theirs.
 * @param name null for nobody in particular
 */
export const actAs = <T>(name: string | null, work: () => T): T => acting.run(name, work);

/** In whose name the present work is done; null if nobody's, as the server's own. */
export const actingName = (): string | null => acting.getStore() ?? null;
