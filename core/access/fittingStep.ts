import { type Adaptation, adaptationFacts } from "./adaptation";
import type { StepCaution } from "./stepCaution";

/** Work on a new part, done while the old one is out, and ticked like any step. */
export interface FittingStep {
  readonly id: string;
  /** The part of the circuit that it is done for. */
  readonly part: string;
  readonly adaptation: Adaptation;
}

/** Order of the work: first at the car's wires, then on the bench, last what holds the part in its place. */
function turnOf({ work }: Adaptation): number {
  if (adaptationFacts[work].needsBatteryOff) return 0;
  return work === "fit-ring" || work === "fit-lead" ? 2 : 1;
}

/** The steps that a part's adaptations ask for, in the order they are done. */
export function fittingSteps(part: string, adaptations: readonly Adaptation[]): FittingStep[] {
  const order = [...adaptations].sort((a, b) => turnOf(a) - turnOf(b));
  return order.map((adaptation) => ({ id: `fit-${part}-${adaptation.work}`, part, adaptation }));
}

/** Whether one of the steps is done at the car's wires, so that the negative has to be off. */
export const fittingNeedsBatteryOff = (steps: readonly FittingStep[]): boolean =>
  steps.some(({ adaptation }) => adaptationFacts[adaptation.work].needsBatteryOff);

/** The cautions of work on a new part. */
export const fittingCautions = ({ adaptation }: FittingStep): readonly StepCaution[] =>
  adaptationFacts[adaptation.work].cautions;
