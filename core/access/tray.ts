import { screwsBack, screwsOut } from "./fastener";
import type { AccessStep } from "./plan";

/** A step ticked during removal or refitting, with the screws counted. */
export interface TrayEntry {
  readonly step: string;
  readonly way: "in" | "back";
  readonly screws: number;
}

/** How the tray stands after some ticks. */
export interface Tray {
  /** Screws lying in it. */
  readonly lying: number;
  readonly out: number;
  readonly back: number;
  /** Steps whose screws differ from the plan or between out and back. */
  readonly calls: readonly TrayCall[];
}

/** A step whose screws do not add up. */
export interface TrayCall {
  readonly step: AccessStep;
  readonly kind: "short" | "left-over" | "not-as-planned";
  /** Screws left over or short; those that came out where they are not as planned. */
  readonly screws: number;
}

const planned = (step: AccessStep) => ({
  out: (step.fasteners ?? []).reduce((sum, fastener) => sum + screwsOut(fastener), 0),
  back: (step.fasteners ?? []).reduce((sum, fastener) => sum + screwsBack(fastener), 0),
});

/** Screws a step puts into the tray, and takes from it when refitted, by its plan. */
export const plannedScrews = planned;

/**
 * The tray after some ticks; the last tick of a step and way counts. A step that went back with fewer screws than came
 * out has some left over; with more, they are another step's, which will be short.
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
    // Put back without having come out, by a tick taken back: it counts once it is ticked off again.
    back += taken === undefined ? 0 : (put ?? 0);
    if (taken !== undefined && taken !== plan.out)
      calls.push({ step, kind: "not-as-planned", screws: taken });
    if (put === undefined || taken === undefined) continue;
    // What the plan leaves out for good is in the tray still, and no one's loss.
    const forGood = Math.min(plan.out - plan.back, Math.max(0, taken - put));
    scrapped += forGood;
    const missing = taken - put - forGood;
    if (missing !== 0)
      calls.push({ step, kind: missing > 0 ? "left-over" : "short", screws: Math.abs(missing) });
  }
  return { lying: out - back - scrapped, out, back, calls };
}

/**
 * What must be called before a step closes: leftovers and shortages of every step that went back before it.
 * @param closing the step about to go back
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
