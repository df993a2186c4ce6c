import type { Circuit } from "../circuit/circuit";

/** Finds a circuit by its id, or null where there is none. */
export type CircuitLibrary = (id: string) => Circuit | null;
