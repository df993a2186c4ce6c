import { line, type ProofsOf } from "./proofStep";
import { ProofSteps, pointsAt, seenAt } from "./proofSteps";

/** The vehicle's filter and ducts: seen blocked, or little air although the motor has its volts. */
export const carProof: ProofsOf = (compiled, { part, mode }) => {
  const steps = new ProofSteps(compiled);
  const fed = compiled.netlist.motors.flatMap(({ part: motor }) =>
    compiled
      .runningSetups()
      .map((setup) =>
        line(
          "air-blocked",
          steps.across(pointsAt(compiled, `${motor.id}.+`), pointsAt(compiled, `${motor.id}.-`), setup),
          steps.runsWrong(motor.id, setup),
        ),
      ),
  );
  return mode === "filter-blocked" ? [line("debris", seenAt(part, "debris")), ...fed] : fed;
};
