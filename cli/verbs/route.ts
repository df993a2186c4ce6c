import { parsePlan } from "@core/access/plan";
import { type Preference, preferences, quickestRoute, type Route } from "@core/access/route";
import { type Parsed, quoted, refused } from "@core/problem/problem";
import { backTitle } from "@words/accessWords";

/** The options of `route` from the command line. */
export interface RouteFlags {
  readonly to?: string | undefined;
  readonly prefer?: string | undefined;
  readonly done?: string | undefined;
}

const listOf = (text: string | undefined): string[] => (text ?? "").split(",").filter((id) => id !== "");

/** Removal and refitting, as printed by `route`. */
export type RouteAnswer = Omit<Route, "back"> & { readonly back: readonly string[] };

/** The removal and refitting a command asks for. */
export function routeFrom(
  input: unknown,
  { to, prefer = "quickest", done }: RouteFlags,
): Parsed<RouteAnswer> {
  const targets = listOf(to);
  if (targets.length === 0)
    return refused([
      { code: "wrong-value", path: "--to", message: "expected one or more parts, as --to M1,R1" },
    ]);
  if (!preferences.includes(prefer as Preference))
    return refused([
      {
        code: "wrong-value",
        path: "--prefer",
        message: `expected ${preferences.join(", ")}, got ${quoted(prefer)}`,
      },
    ]);
  const plan = parsePlan(input);
  if (!plan.ok) return plan;
  const off = listOf(done);
  const strange = off.find((id) => !plan.value.steps.some((step) => step.id === id));
  if (strange !== undefined)
    return refused([{ code: "no-such-thing", path: "--done", message: `no step ${quoted(strange)}` }]);
  const route = quickestRoute(plan.value, targets, { prefer: prefer as Preference, done: new Set(off) });
  if (!route.ok) return route;
  return { ok: true, value: { ...route.value, back: route.value.back.map(({ work }) => backTitle(work)) } };
}
