import { type FittingStep, fittingNeedsBatteryOff } from "./fittingStep";
import type { AccessPlan, AccessStep } from "./plan";
import { type PlacedFitting, stepThatFrees } from "./refitting";
import { needsBatteryOff } from "./stepCaution";

/** A step that was ticked, and in which direction. */
export interface StepTicked {
  readonly step: string;
  readonly way: "in" | "back";
}

/** The steps of a repair: the removal in order, and the work on the new parts. */
export interface RepairSteps {
  readonly steps: readonly AccessStep[];
  readonly fittings: readonly PlacedFitting[];
}

/** Work on new parts, each with the step that lets the old part out. */
export const placeFittings = (
  plan: Pick<AccessPlan, "targets">,
  steps: readonly AccessStep[],
  fittings: readonly FittingStep[],
): PlacedFitting[] =>
  fittings.map((fitting) => ({ fitting, before: stepThatFrees(plan, steps, fitting.part) }));

/**
 * Steps that have to be ticked before one of a repair, by their ids. A removal step waits for one of its ways to be
 * done. A refitting step waits for what was removed after it and needed it gone, and for the work on the part it puts
 * in. Work on a new part waits for the step that lets the old part out. What cuts or splices waits for the negative.
 */
export function stepsWaitedFor(
  { steps, fittings }: RepairSteps,
  ticked: readonly StepTicked[],
  { step, way }: StepTicked,
): string[] {
  const done = (id: string, own: StepTicked["way"]): boolean =>
    ticked.some((tick) => tick.step === id && tick.way === own);
  const negative = steps.flatMap(({ id, kind }) => (kind === "battery-off" && !done(id, "in") ? [id] : []));
  const placed = fittings.find((own) => own.fitting.id === step);
  if (placed) {
    const out = placed.before !== null && !done(placed.before, "in") ? [placed.before] : [];
    return fittingNeedsBatteryOff([placed.fitting]) ? [...negative, ...out] : out;
  }
  const own = steps.find(({ id }) => id === step);
  if (!own) return [];
  if (way === "in") {
    const needed = missingNeeds(own, steps, (id) => done(id, "in"));
    return needsBatteryOff(own) ? [...new Set([...negative, ...needed])] : needed;
  }
  const work = fittings.filter(({ before, fitting: { id } }) => before === step && !done(id, "back"));
  const stillOff = steps.filter(
    (other) =>
      other.back !== null &&
      other.kind !== "battery-off" &&
      done(other.id, "in") &&
      !done(other.id, "back") &&
      (other.needs ?? []).some((needs) => needs.includes(step)),
  );
  return [...work.map(({ fitting: { id } }) => id), ...stillOff.map(({ id }) => id).reverse()];
}

/** What is missing of the way that lacks the least; none if one way is done. */
function missingNeeds(
  { needs = [] }: AccessStep,
  steps: readonly AccessStep[],
  isDone: (id: string) => boolean,
): string[] {
  const onRoute = new Set(steps.map(({ id }) => id));
  const missing = needs
    .filter((way) => way.every((id) => onRoute.has(id)))
    .map((way) => way.filter((id) => !isDone(id)))
    .sort((a, b) => a.length - b.length);
  return missing[0] ?? [];
}
