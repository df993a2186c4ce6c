import type { AccessPlan } from "./plan";
import { quickestRoute, type RouteOptions } from "./route";

/** Another part, and whether it pays to do it while all is open. */
export interface WhileThere {
  readonly part: string;
  /** Minutes it adds now, in and back. */
  readonly extraMinutes: number;
  /** Minutes of a job of its own later. */
  readonly laterMinutes: number;
  readonly failsWithin: number;
  /** What it costs now: the extra labour and the part. */
  readonly nowMinor: number;
  /** What it is expected to cost later: its own labour, the part and a comeback, as often as it fails. */
  readonly laterMinor: number;
  readonly advice: "replace-now" | "prove-and-leave";
  /** Chance of failing from which doing it now is the cheaper; null where it never is. */
  readonly breakEven: number | null;
}

/** A part that could be done as well. */
export interface OtherPart {
  readonly part: string;
  readonly priceMinor: number;
  readonly fitMinutes: number;
  readonly failsWithin: number;
}

/**
 * For each other part the plan reaches: minutes and money now against later. The refitting takes as long as the removal
 * (judgement), and shared steps are paid once.
 * @param parts being done anyway
 * @param minor what some minutes cost
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
