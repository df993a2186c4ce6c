import { z } from "zod";
import { noises } from "../motor/mechanicalMode";
import { airflowSeen } from "../predict/observations/airflowSeen";
import type { Reading } from "../predict/reading";
import type { Band, ProofBands } from "./proofBand";
import type { ProofPhase, ProofStep } from "./proofRun";

/** The result of a step of a final check, by hand at the vent, clamp, meter, ear or eye. */
export const proofFindingSchema = z.discriminatedUnion("by", [
  z.strictObject({ by: z.literal("airflow"), seen: z.enum(airflowSeen) }),
  z.strictObject({ by: z.literal("amps"), amps: z.number().min(-1000).max(1000) }),
  z.strictObject({ by: z.literal("volts"), volts: z.number().min(-100).max(100) }),
  z.strictObject({ by: z.literal("listen"), seen: z.enum(noises) }),
  z.strictObject({ by: z.literal("check"), good: z.boolean() }),
]);
export type ProofFinding = z.infer<typeof proofFindingSchema>;

/** What a sound vehicle shows at a step, by hand and ear. */
export const soundFinding = (step: ProofStep): ProofFinding =>
  step.kind === "air"
    ? { by: "airflow", seen: step.expected }
    : step.kind === "listen"
      ? { by: "listen", seen: "quiet" }
      : { by: "check", good: true };

/** How a step can be checked; amps and volts only if there is a motor to compare. */
export function instrumentsFor(step: ProofStep, bands: ProofBands | null): readonly ProofFinding["by"][] {
  if (step.kind === "listen") return ["listen"];
  if (step.kind === "check") return ["check"];
  return bands ? ["airflow", "amps", "volts"] : ["airflow"];
}

/** Whether a finding is what a sound vehicle shows, and if not, in which direction it differs. */
export type ProofJudgement = "right" | "too-low" | "too-high" | "wrong";

/** Compares a figure with its band. */
function against(value: number, { low, high }: Band): ProofJudgement {
  return value < low ? "too-low" : value > high ? "too-high" : "right";
}

const strength: readonly string[] = airflowSeen;

/**
 * Judges the result of a step.
 * @param bands of the step's set-up; null if there are none
 * @throws RangeError if the finding is not of the kind the step asks for
 */
export function judgeFinding(
  step: ProofStep,
  finding: ProofFinding,
  bands: ProofBands | null,
): ProofJudgement {
  if (step.kind === "check" && finding.by === "check") return finding.good ? "right" : "wrong";
  if (step.kind === "listen" && finding.by === "listen") return finding.seen === "quiet" ? "right" : "wrong";
  if (step.kind === "air" && finding.by === "airflow") {
    const off = strength.indexOf(finding.seen) - strength.indexOf(step.expected);
    return off === 0 ? "right" : off < 0 ? "too-low" : "too-high";
  }
  if (step.kind === "air" && bands && finding.by === "amps") return against(finding.amps, bands.amps);
  if (step.kind === "air" && bands && finding.by === "volts") return against(finding.volts, bands.volts);
  throw new RangeError(`${step.id} is not proven by ${finding.by}`);
}

/** The result of a step as a reading for the belief; null if it says nothing about the circuit. */
export function proofReading(
  step: ProofStep,
  finding: ProofFinding,
  bands: ProofBands | null,
): Reading | null {
  if (step.kind === "check" || finding.by === "check") return null;
  const { setup } = step;
  switch (finding.by) {
    case "airflow":
      // A second switch drives a motor of its own.
      return {
        test: "airflow",
        ...setup,
        ...(setup.selectors && bands ? { at: bands.motor } : {}),
        seen: finding.seen,
      };
    case "listen":
      return { test: "listen", ...setup, seen: finding.seen };
    case "amps":
      return bands ? { test: "amps", ...setup, around: bands.motor, amps: finding.amps } : null;
    case "volts":
      return bands
        ? {
            test: "volts",
            ...setup,
            red: `${bands.motor}.+`,
            black: `${bands.motor}.-`,
            volts: finding.volts,
          }
        : null;
  }
}

/** How far a check has come. */
export type ProofState = "waiting" | "failed" | "proven";

/** A phase's state from the judgement of each of its steps; null for a step not done. */
export function proofState(judged: readonly (ProofJudgement | null)[]): ProofState {
  if (judged.some((own) => own !== null && own !== "right")) return "failed";
  return judged.includes(null) ? "waiting" : "proven";
}

/** The state of a whole check, both phases. */
export const wholeState = (byPhase: Readonly<Record<ProofPhase, ProofState>>): ProofState =>
  proofState(
    Object.values(byPhase).map((own) => (own === "proven" ? "right" : own === "failed" ? "wrong" : null)),
  );
