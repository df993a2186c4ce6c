import type { Reading, Test } from "../../predict/reading";
import type { CompiledCircuit } from "../../predict/tables/compiledCircuit";

/** One thing a proof needs: the tests that can show it, and whether a reading of such a test does. */
export interface ProofStep {
  readonly asks: (test: Test) => boolean;
  readonly shows: (reading: Reading) => boolean;
}

/** Steps that together prove a fault. */
export type ProofLine = readonly ProofStep[];

/** The fault a proof is about. */
export interface Accused {
  /** The part, plug or wire to renew. */
  readonly part: string;
  /** Where in it: a part's own branch, a pin, an end of a wire. */
  readonly where: string;
  readonly mode: string;
  /** True if a fuse blew with it. */
  readonly withFuse: boolean;
}

/** The proofs of one kind of part (`docs/formats.md`, section 6): any one line is enough. */
export type ProofsOf = (compiled: CompiledCircuit, accused: Accused) => readonly ProofLine[];

/** A step that any one of several can show. */
export const anyOf = (...steps: readonly ProofStep[]): ProofStep => ({
  asks: (test) => steps.some(({ asks }) => asks(test)),
  shows: (reading) => steps.some(({ asks, shows }) => asks(reading) && shows(reading)),
});
