import { line, type ProofsOf } from "./proofStep";
import { ProofSteps } from "./proofSteps";

/** A battery: its volts low across its own posts with the blower on. */
export const batteryProof: ProofsOf = (compiled, { part }) => {
  const steps = new ProofSteps(compiled);
  return compiled
    .runningSetups()
    .map((setup) => line("battery-low", steps.missing([`${part}.+`, `${part}.-`], setup)));
};
