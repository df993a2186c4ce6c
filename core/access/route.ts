import { type Parsed, quoted, refused } from "../formats/problem";
import type { AccessPlan, AccessStep } from "./plan";

/** A way in and back. */
export interface Route {
  /** Minutes of the way in. */
  readonly minutes: number;
  /** What comes off, in order. */
  readonly steps: readonly { readonly id: string; readonly title: string; readonly minutes: number }[];
  readonly tools: readonly string[];
  /** What goes back, the last off first. */
  readonly back: readonly string[];
}

/**
 * The quickest set of steps that lays every target free, by branch and bound over the alternatives: a step
 * that two parts share is paid once.
 */
export function quickestRoute(plan: AccessPlan, targets: readonly string[]): Parsed<Route> {
  const unknown = targets.filter((target) => !(target in plan.targets));
  if (unknown.length > 0)
    return refused(
      unknown.map((target) => ({
        path: "--to",
        message: `the plan does not reach ${quoted(target)}, it reaches ${Object.keys(plan.targets).join(", ")}`,
      })),
    );
  const stepOf = new Map(plan.steps.map((step) => [step.id, step]));
  const best = search(
    stepOf,
    targets.map((target) => plan.targets[target] ?? []),
  );
  if (!best) return refused([{ path: "--to", message: "no way leads there: every alternative is empty" }]);
  const ordered = inOrder(stepOf, best);
  return {
    ok: true,
    value: {
      minutes: ordered.reduce((sum, { minutes }) => sum + minutes, 0),
      steps: ordered.map(({ id, title, minutes }) => ({ id, title, minutes })),
      tools: [...new Set(ordered.flatMap(({ tools }) => tools ?? []))],
      back: [...ordered]
        .reverse()
        .flatMap(({ back, title }) => (back === null ? [] : [back ?? `back: ${title}`])),
    },
  };
}

type Ways = readonly (readonly string[])[];

function search(stepOf: ReadonlyMap<string, AccessStep>, goals: readonly Ways[]): ReadonlySet<string> | null {
  let best: { readonly steps: ReadonlySet<string>; readonly minutes: number } | null = null;
  const visit = (open: readonly Ways[], taken: ReadonlySet<string>, minutes: number): void => {
    if (best && minutes >= best.minutes) return;
    const [next, ...rest] = open;
    if (!next) {
      best = { steps: taken, minutes };
      return;
    }
    for (const way of next) {
      const fresh = [...new Set(way)].filter((id) => !taken.has(id));
      const more = fresh.reduce((sum, id) => sum + (stepOf.get(id)?.minutes ?? 0), 0);
      const needs = fresh.flatMap((id) => {
        const ways = stepOf.get(id)?.needs ?? [];
        return ways.length > 0 ? [ways] : [];
      });
      visit([...needs, ...rest], new Set([...taken, ...fresh]), minutes + more);
    }
  };
  visit(goals, new Set(), 0);
  return (best as { readonly steps: ReadonlySet<string> } | null)?.steps ?? null;
}

/** Taken steps with what each needs before it, in the plan's own order otherwise. */
function inOrder(stepOf: ReadonlyMap<string, AccessStep>, taken: ReadonlySet<string>): AccessStep[] {
  const ordered: AccessStep[] = [];
  const done = new Set<string>();
  const place = (id: string): void => {
    const step = stepOf.get(id);
    if (!step || done.has(id)) return;
    done.add(id);
    const ways = step.needs ?? [];
    const met = ways.find((way) => way.every((need) => taken.has(need)));
    for (const need of met ?? []) place(need);
    ordered.push(step);
  };
  for (const id of stepOf.keys()) if (taken.has(id)) place(id);
  return ordered;
}
