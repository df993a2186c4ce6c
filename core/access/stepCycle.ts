/** A tick of a step, and the round of the job it belongs to. Each failed final check begins a new round. */
export interface RoundTick {
  readonly step: string;
  readonly way: "in" | "back";
  /** From 1; absent means the first. */
  readonly round?: number | undefined;
}

/** A step taken off, and put back unless it is still off. */
export interface StepCycle<T extends RoundTick> {
  readonly taken: T;
  readonly put: T | null;
}

const roundOf = ({ round = 1 }: RoundTick): number => round;

/**
 * How often a step was taken off and put back, in order. In each round its last tick of each direction counts. What is
 * still off when a check fails is put back in a later round. A step put back although its removal was unticked counts
 * once the removal is ticked again.
 */
export function cyclesOf<T extends RoundTick>(ticks: readonly T[], step: string): StepCycle<T>[] {
  const own = ticks.filter((tick) => tick.step === step);
  const rounds = [...new Set(own.map(roundOf))].sort((a, b) => a - b);
  const cycles: StepCycle<T>[] = [];
  for (const round of rounds) {
    const last = (way: T["way"]) => own.findLast((tick) => tick.way === way && roundOf(tick) === round);
    const [taken, put] = [last("in"), last("back")];
    const open = cycles.at(-1);
    if (open?.put === null) {
      // Ticked again while it is off: the later count replaces the earlier one.
      cycles[cycles.length - 1] = { taken: taken ?? open.taken, put: put ?? null };
    } else if (taken) cycles.push({ taken, put: put ?? null });
  }
  return cycles;
}

/** Ticks that matter in a round: its own, and those of steps still off from an earlier one. */
export function presentTicks<T extends RoundTick>(ticks: readonly T[], round: number): T[] {
  const stillOff = new Set(
    [...new Set(ticks.map(({ step }) => step))].flatMap((step) => {
      const last = cyclesOf(ticks, step).at(-1);
      return last && (last.put === null || roundOf(last.put) === round) ? [last.taken] : [];
    }),
  );
  return ticks.filter((tick) => roundOf(tick) === round || stillOff.has(tick));
}
