import type { Circuit } from "../circuit/circuit";

/** Finds a circuit by its id; null if there is none. */
export type CircuitLibrary = (id: string) => Circuit | null;
