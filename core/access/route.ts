import { type Parsed, quoted, refused } from "../problem/problem";
import { substitutesFor } from "../units/spanner";
import { cheapestSteps, type GraphStep } from "./cheapestSteps";
import { toolFor } from "./fastener";
import { type AccessPlan, type AccessStep, type Routes, stepsBefore } from "./plan";
import { type BackStep, refitting } from "./refitting";
import { needsBatteryOff } from "./stepCaution";
import { type Spread, spreadOf, stepMinutes } from "./stepMinutes";

/**
 * How a route is chosen: the quickest; by the book, without short cuts; or counting the next person's minutes as one's
 * own.
 */
export const preferences = ["quickest", "book", "kind"] as const;
export type Preference = (typeof preferences)[number];

/** Removal and refitting. */
export interface Route {
  /** Minutes of the removal. */
  readonly minutes: number;
  /** The same with its scatter, plus the minutes expected for what may break. */
  readonly expected: Spread;
  /** The steps to remove, in order. */
  readonly steps: readonly AccessStep[];
  readonly tools: readonly string[];
  /** Sockets of the other system that can replace one of the tools. */
  readonly substitutes: readonly {
    readonly tool: string;
    readonly instead: string;
    readonly errorMillimetres: number;
    readonly fit: "snug" | "loose";
  }[];
  /** What the route uses up. */
  readonly uses: readonly string[];
  /** What can be tested while everything is open. */
  readonly opens: readonly string[];
  /** What the route costs the next person. */
  readonly nextPersonMinutes: number;
  /** The steps to refit, the last removed first. */
  readonly back: readonly BackStep[];
}

export interface RouteOptions {
  readonly prefer?: Preference | undefined;
  /** Steps already done: they cost nothing and are not listed. */
  readonly done?: ReadonlySet<string> | undefined;
  /** The negative has to be off, whatever the route, because wires are cut or spliced. */
  readonly batteryOff?: boolean | undefined;
  /** Minutes of a step as this shop has learned them, in place of the plan's own. */
  readonly minutesOf?: ((step: AccessStep) => number) | undefined;
}

/**
 * The quickest safe route that exposes every target: the cheapest set of steps by minutes, including the expected
 * minutes of its risks. A step that two parts share is paid for once. Steps that cut, splice or move the battery have
 * the negative disconnected first, even if their plan does not say so.
 */
export function quickestRoute(
  plan: AccessPlan,
  targets: readonly string[],
  { prefer = "quickest", done = new Set(), batteryOff = false, minutesOf }: RouteOptions = {},
): Parsed<Route> {
  const unknown = targets.filter((target) => !Object.hasOwn(plan.targets, target));
  if (unknown.length > 0)
    return refused(
      unknown.map((target) => ({
        code: "no-such-thing",
        path: "--to",
        message: `the plan does not reach ${quoted(target)}, it reaches ${Object.keys(plan.targets).join(", ")}`,
      })),
    );
  const taken = minutesOf ? plan.steps.map((step) => ({ ...step, minutes: minutesOf(step) })) : plan.steps;
  const shut = prefer === "book" ? shutSteps(plan, done) : new Set<string>();
  const graph = taken.map((step): GraphStep => {
    const { minutes } = step;
    const risk = step.risk ? step.risk.p * step.risk.minutes : 0;
    const next = prefer === "kind" ? (step.nextPerson?.minutes ?? 0) : 0;
    return {
      id: step.id,
      cost: done.has(step.id) ? 0 : minutes + risk + next,
      needs: done.has(step.id) ? [] : safeNeeds(plan, step, shut),
    };
  });
  const negative = batteryOff ? plan.steps.filter(({ kind }) => kind === "battery-off").slice(0, 1) : [];
  const goals: Routes[] = [
    ...targets.map((target) => openWays(plan.targets[target] ?? [], shut)),
    ...negative.map(({ id }) => [[id]]),
  ];
  const found = cheapestSteps(graph, goals);
  if (found.kind !== "found")
    return refused([
      {
        code: found.kind === "none" ? "missing" : "contradiction",
        path: "--to",
        message: noWay(found.kind, prefer),
      },
    ]);
  const steps = stepsInOrder({ ...plan, steps: taken }, new Set([...found.ids, ...done]));
  return {
    ok: true,
    value: routeOf(
      steps.filter(({ id }) => !done.has(id)),
      targets,
    ),
  };
}

function noWay(kind: "none" | "too-many", prefer: Preference): string {
  if (kind === "too-many")
    return "too many alternatives hang together to be sure of the quickest; leave some of them out";
  return prefer === "book"
    ? "no way leads there by the book: every alternative is a short cut"
    : "no way leads there: every alternative is empty";
}

/** All facts about a route once its steps are known, in order. */
export function routeOf(steps: readonly AccessStep[], targets: readonly string[]): Route {
  const tools = [
    ...new Set(
      steps.flatMap(({ tools: own, fasteners }) => [...(own ?? []), ...(fasteners ?? []).map(toolFor)]),
    ),
  ];
  const risks = steps.flatMap(({ risk }) =>
    risk ? [{ mean: risk.p * risk.minutes, variance: risk.p * (1 - risk.p) * risk.minutes ** 2 }] : [],
  );
  return {
    minutes: steps.reduce((sum, { minutes }) => sum + minutes, 0),
    expected: spreadOf([...steps.map(stepMinutes), ...risks]),
    steps,
    tools,
    substitutes: tools.flatMap((tool) =>
      substitutesFor(tool).map(({ text, errorMillimetres, fit }) => ({
        tool,
        instead: text,
        errorMillimetres: Math.round(errorMillimetres * 1000) / 1000,
        fit,
      })),
    ),
    uses: steps.flatMap(({ uses }) => uses ?? []),
    opens: [...new Set(steps.flatMap(({ opens }) => opens ?? []))],
    nextPersonMinutes: steps.reduce((sum, { nextPerson }) => sum + (nextPerson?.minutes ?? 0), 0),
    back: refitting(steps, targets),
  };
}

/** Steps the book does not use: short cuts, and steps that only a short cut reaches. */
function shutSteps({ steps }: AccessPlan, done: ReadonlySet<string>): ReadonlySet<string> {
  const shut = new Set(steps.flatMap(({ id, way }) => (way === "short-cut" && !done.has(id) ? [id] : [])));
  for (let before = -1; before < shut.size; ) {
    before = shut.size;
    for (const { id, needs = [] } of steps)
      if (!done.has(id) && needs.length > 0 && openWays(needs, shut).length === 0) shut.add(id);
  }
  return shut;
}

const openWays = (ways: Routes, shut: ReadonlySet<string>): Routes =>
  ways.filter((way) => !way.some((id) => shut.has(id)));

/**
 * What a step needs, with the negative disconnected before steps that cut, splice or move the battery, except for
 * steps on the way to the negative itself.
 */
function safeNeeds(plan: AccessPlan, step: AccessStep, shut: ReadonlySet<string>): Routes {
  const ways = openWays(step.needs ?? [], shut);
  const off = plan.steps.find(({ kind }) => kind === "battery-off");
  if (!off || !needsBatteryOff(step) || stepsBefore(plan.steps, off).has(step.id)) return ways;
  return (ways.length > 0 ? ways : [[]]).map((way) => (way.includes(off.id) ? way : [...way, off.id]));
}

/**
 * A plan's steps in an order in which each one's needs come first. The negative comes first; otherwise one way is
 * finished before the next begins, in the plan's own order.
 * @param has ids of the steps; each has one of its ways among them
 */
export function stepsInOrder(plan: AccessPlan, has: ReadonlySet<string>): AccessStep[] {
  const steps = plan.steps.filter(({ id }) => has.has(id));
  const open = new Set<string>();
  const ordered: AccessStep[] = [];
  const placed = new Set<string>();
  const byId = new Map(steps.map((step) => [step.id, step]));
  const place = (step: AccessStep): void => {
    if (placed.has(step.id)) return;
    placed.add(step.id);
    const met = safeNeeds(plan, step, open).find((way) => way.every((need) => has.has(need)));
    for (const need of met ?? []) {
      const before = byId.get(need);
      if (before) place(before);
    }
    ordered.push(step);
  };
  for (const step of steps) if (step.kind === "battery-off") place(step);
  for (const step of steps) place(step);
  return ordered;
}
