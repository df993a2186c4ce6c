import type { AccessPlan } from "./plan";
import { quickestRoute, type RouteOptions } from "./route";

/** Another part, and whether it pays to replace it while everything is open. */
export interface WhileThere {
  readonly part: string;
  /** Minutes it adds now, for removal and refitting. */
  readonly extraMinutes: number;
  /** Minutes as a job of its own later. */
  readonly laterMinutes: number;
  readonly failsWithin: number;
  /** Its cost now: the extra labour and the part. */
  readonly nowMinor: number;
  /** Its expected cost later: its own labour, the part and a comeback, times the probability that it fails. */
  readonly laterMinor: number;
  readonly advice: "replace-now" | "prove-and-leave";
  /** Failure probability from which replacing it now is cheaper; null if it never is. */
  readonly breakEven: number | null;
}

/** A part that could be replaced as well. */
export interface OtherPart {
  readonly part: string;
  readonly priceMinor: number;
  readonly fitMinutes: number;
  readonly failsWithin: number;
}

/**
 * For each other part the plan reaches: minutes and money now against later. The refitting takes as long as the
 * removal (judgement), and shared steps are paid for once.
 * @param parts being replaced anyway
 * @param minor cost of some minutes
 */
export function whileThere(
  plan: AccessPlan,
  parts: readonly string[],
  others: readonly OtherPart[],
  minor: (minutes: number) => number,
  comebackMinor: number,
  options: RouteOptions = {},
): WhileThere[] {
  const minutesTo = (targets: readonly string[]): number | null => {
    const route = quickestRoute(plan, targets, options);
    return route.ok ? 2 * route.value.minutes : null;
  };
  const base = minutesTo(parts);
  if (base === null) return [];
  return others.flatMap(({ part, priceMinor, fitMinutes, failsWithin }): WhileThere[] => {
    if (parts.includes(part)) return [];
    const [both, alone] = [minutesTo([...parts, part]), minutesTo([part])];
    if (both === null || alone === null) return [];
    const extraMinutes = both - base + fitMinutes;
    const laterMinutes = alone + fitMinutes;
    const nowMinor = minor(extraMinutes) + priceMinor;
    const eachMinor = minor(laterMinutes) + priceMinor + comebackMinor;
    const laterMinor = Math.round(failsWithin * eachMinor);
    return [
      {
        part,
        extraMinutes,
        laterMinutes,
        failsWithin,
        nowMinor,
        laterMinor,
        advice: nowMinor < laterMinor ? "replace-now" : "prove-and-leave",
        breakEven: nowMinor < eachMinor ? nowMinor / eachMinor : null,
      },
    ];
  });
}
