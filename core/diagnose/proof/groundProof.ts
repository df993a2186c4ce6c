import { line, type ProofsOf } from "./proofStep";
import { ProofSteps } from "./proofSteps";

/** A ground: volts from its stud to the battery over the limit while current flows. */
export const groundProof: ProofsOf = (compiled, { part }) => {
  const steps = new ProofSteps(compiled);
  return compiled.runningSetups().map((setup) => line("ground-drop", steps.groundDrop(`${part}.31`, setup)));
};
