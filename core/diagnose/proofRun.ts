import type { Circuit } from "../circuit/circuit";
import type { Reading } from "../predict/reading";

/** One step of a proof run: a set-up and what a healthy vehicle does in it. */
export interface ProofStep {
  readonly id: string;
  readonly title: string;
  readonly setup: { readonly key: "run" | "off"; readonly setting: string };
  readonly expected: "none" | "normal";
}

/**
 * The proof run of a repaired vehicle: off, every speed up and back down, off stays off, key out.
 * The first setting is off; a healthy vehicle blows normally on all others.
 */
export function proofSteps(circuit: Circuit): ProofStep[] {
  const [off = "off", ...speeds] = circuit.settings;
  const still = (id: string, title: string, setup: ProofStep["setup"]): ProofStep => ({
    id,
    title,
    setup,
    expected: "none",
  });
  const blowing = (id: string, title: string, setting: string): ProofStep => ({
    id,
    title,
    setup: { key: "run", setting },
    expected: "normal",
  });
  const top = speeds.at(-1) ?? off;
  return [
    still("off-first", "off, key on", { key: "run", setting: off }),
    ...speeds.map((speed) => blowing(`up-${speed}`, `up to ${speed}`, speed)),
    ...speeds
      .slice(0, -1)
      .reverse()
      .map((speed) => blowing(`down-${speed}`, `down to ${speed}`, speed)),
    still("off-again", "off again stays off", { key: "run", setting: off }),
    still("key-out", `key out, switch on ${top}`, { key: "off", setting: top }),
  ];
}

/** A failed proof step as evidence: what the vehicle did, measured, not heard. */
export function proofReading(step: ProofStep, seen: "none" | "weak" | "normal" | "strong"): Reading {
  return { test: "airflow", ...step.setup, seen };
}
