import { screwsBack, screwsOut } from "./fastener";
import type { AccessStep } from "./plan";

/** A step ticked during removal or refitting, with its counted screws. */
export interface TrayEntry {
  readonly step: string;
  readonly way: "in" | "back";
  readonly screws: number;
}

/** The state of the tray after some ticks. */
export interface Tray {
  /** Screws in the tray; never below zero. If more went back than came out, `calls` says at which step. */
  readonly lying: number;
  readonly out: number;
  readonly back: number;
  /** Steps whose screws differ from the plan, or between removal and refitting. */
  readonly calls: readonly TrayCall[];
}

/** A step whose screws do not add up. */
export interface TrayCall {
  readonly step: AccessStep;
  readonly kind: "short" | "left-over" | "not-as-planned";
  /** Screws left over or missing; for steps not yet refitted, the difference from the plan. */
  readonly screws: number;
}

const planned = (step: AccessStep) => ({
  out: (step.fasteners ?? []).reduce((sum, fastener) => sum + screwsOut(fastener), 0),
  back: (step.fasteners ?? []).reduce((sum, fastener) => sum + screwsBack(fastener), 0),
});

/** Screws a step puts into the tray, and takes from it when refitted, by its plan. */
export const plannedScrews = planned;

/**
 * The tray after some ticks; only the last tick of each step and direction counts. A step refitted with fewer screws
 * than were removed has some left over; with more, they belong to another step, which will be short.
 */
export function trayOf(steps: readonly AccessStep[], entries: readonly TrayEntry[]): Tray {
  const last = new Map(entries.map((entry) => [`${entry.way} ${entry.step}`, entry.screws]));
  const calls: TrayCall[] = [];
  let [out, back] = [0, 0];
  let scrapped = 0;
  for (const step of steps) {
    const { id } = step;
    const plan = planned(step);
    const [taken, put] = [last.get(`in ${id}`), last.get(`back ${id}`)];
    out += taken ?? 0;
    // Refitted although its removal was unticked: it counts once the removal is ticked again.
    back += taken === undefined ? 0 : (put ?? 0);
    if (taken !== undefined && taken !== plan.out)
      calls.push({ step, kind: "not-as-planned", screws: taken });
    if (put === undefined || taken === undefined) continue;
    // Screws the plan leaves out for good are still in the tray and are not missing.
    const forGood = Math.min(plan.out - plan.back, Math.max(0, taken - put));
    scrapped += forGood;
    const missing = taken - put - forGood;
    if (missing !== 0)
      calls.push({ step, kind: missing > 0 ? "left-over" : "short", screws: Math.abs(missing) });
  }
  return { lying: Math.max(0, out - back - scrapped), out, back, calls };
}

/**
 * What must be reported before a step closes: left-over and missing screws of every step refitted before it.
 * @param closing the step about to be refitted
 */
export function callsBefore(
  steps: readonly AccessStep[],
  entries: readonly TrayEntry[],
  closing: string,
): TrayCall[] {
  const order = [...steps].reverse().map(({ id }) => id);
  const at = order.indexOf(closing);
  return trayOf(steps, entries).calls.filter(
    ({ step, kind }) => kind !== "not-as-planned" && order.indexOf(step.id) < at,
  );
}
