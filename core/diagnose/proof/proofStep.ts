import type { Reading, Test } from "../../predict/reading";
import type { CompiledCircuit } from "../../predict/tables/compiledCircuit";

/** One thing a proof needs: the tests that can show it, and whether a reading of such a test does. */
export interface ProofStep {
  readonly asks: (test: Test) => boolean;
  readonly shows: (reading: Reading) => boolean;
}

/** What a proof shows, for `words/` to put into a sentence. */
export const proofKinds = [
  "fed-and-dead",
  "lamp-lights",
  "no-better-on-leads",
  "starts-when-tapped",
  "ripple",
  "stiff",
  "noise",
  "silenced",
  "debris",
  "output-wrong",
  "output-at-off",
  "stops-unplugged",
  "command-wrong",
  "ohms",
  "in-not-out",
  "seen-burnt",
  "seen-blown",
  "swap-cures",
  "makes-when-off",
  "wiggle",
  "plug-bypassed",
  "one-end-fed",
  "shorted",
  "stray-feed",
  "ground-drop",
  "battery-low",
  "air-blocked",
] as const;
export type ProofKind = (typeof proofKinds)[number];

/** Steps that together prove a fault. */
export interface ProofLine {
  readonly says: ProofKind;
  readonly steps: readonly ProofStep[];
}

export const line = (says: ProofKind, ...steps: readonly ProofStep[]): ProofLine => ({ says, steps });

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

/** The proofs of one kind of part (docs/formats): any one line is enough. */
export type ProofsOf = (compiled: CompiledCircuit, accused: Accused) => readonly ProofLine[];

/** A step that any one of several can show. */
export const anyOf = (...steps: readonly ProofStep[]): ProofStep => ({
  asks: (test) => steps.some(({ asks }) => asks(test)),
  shows: (reading) => steps.some(({ asks, shows }) => asks(reading) && shows(reading)),
});
