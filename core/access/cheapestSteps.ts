import type { Routes } from "./plan";
import {
  eachOutside,
  emptySet,
  has,
  include,
  join,
  joined,
  keyWithin,
  meet,
  meetOutside,
  type StepSet,
  within,
  without,
} from "./stepSet";

/** A step of an and/or graph: its cost and its needs, any one of the lists. */
export interface GraphStep {
  readonly id: string;
  /** Not negative. */
  readonly cost: number;
  readonly needs: Routes;
}

/**
 * The cheapest set of steps that meets every goal, or the reason there is none: it cannot be done, or the search limit
 * was reached.
 */
export type Cheapest =
  | { readonly kind: "found"; readonly ids: ReadonlySet<string>; readonly cost: number }
  | { readonly kind: "none" }
  | { readonly kind: "too-many" };

/**
 * Number of branches tried before the search gives up; some seconds of work. A plan of 300 steps, of which one in five
 * has two ways, takes tens.
 */
const mostBranches = 2000;
class TooMany extends Error {}

/** Costs closer than this are equal, because sums of tenths are not exact. */
const equal = 1e-9;

/** A way: its steps, the steps it cannot do without, and the steps it may lead to. */
interface Way {
  readonly steps: readonly number[];
  readonly bits: StepSet;
  readonly forced: StepSet;
  readonly reach: StepSet;
}

/** A goal is met by any one of its ways. The same ways form the same goal, identified by its number. */
interface Goal {
  readonly number: number;
  readonly ways: readonly Way[];
  readonly forced: StepSet;
  readonly reach: StepSet;
}

interface Found {
  readonly steps: StepSet;
  readonly cost: number;
}

/**
 * The cheapest set of steps of an acyclic and/or graph that meets every goal; a step that several need is paid for
 * once. Exact, by branch and bound: what every way of a goal has in common is taken at once, goals that share no step
 * are solved separately and remembered, and a branch ends when its lower bound is too high.
 * @param steps with distinct ids, whose needs name steps among them and contain no circle
 * @param goals each is met by any one of its lists; a goal with no list cannot be met, an empty list meets it at once
 */
export function cheapestSteps(steps: readonly GraphStep[], goals: readonly Routes[]): Cheapest {
  const search = new Search(steps);
  try {
    const wanted = goals.map((ways) => search.goalOf(ways));
    const found = search.best(wanted, emptySet(steps.length), Number.POSITIVE_INFINITY);
    if (!found) return { kind: "none" };
    const ids = new Set(steps.flatMap(({ id }, index) => (has(found.steps, index) ? [id] : [])));
    return { kind: "found", ids, cost: found.cost };
  } catch (thrown) {
    if (thrown instanceof TooMany) return { kind: "too-many" };
    throw thrown;
  }
}

class Search {
  private readonly index: ReadonlyMap<string, number>;
  private readonly costs: Float64Array;
  /** A step's needs as a goal; null if it needs nothing. */
  private readonly needs: (Goal | null | undefined)[] = [];
  /** A step with all the steps it cannot do without, and with all it may lead to. */
  private readonly forcedOf: StepSet[] = [];
  private readonly reachOf: StepSet[] = [];
  /** Steps in an order in which needed ones come first. */
  private readonly deepFirst: number[] = [];
  private readonly settled = new Map<string, Found | { readonly above: number }>();
  private readonly known = new Map<string, Goal>();
  private branches = 0;

  constructor(private readonly steps: readonly GraphStep[]) {
    this.index = new Map(steps.map(({ id }, index) => [id, index]));
    this.costs = Float64Array.from(steps, ({ cost }) => cost);
    for (const index of steps.keys()) this.prepare(index);
  }

  private prepare(index: number): void {
    if (this.needs[index] !== undefined) return;
    const ways = this.steps[index]?.needs ?? [];
    for (const id of ways.flat()) this.prepare(this.at(id));
    const goal = ways.length > 0 ? this.goalOf(ways) : null;
    this.needs[index] = goal;
    const [forced, reach] = [goal?.forced.slice() ?? this.empty(), goal?.reach.slice() ?? this.empty()];
    include(forced, index);
    include(reach, index);
    this.forcedOf[index] = forced;
    this.reachOf[index] = reach;
    this.deepFirst.push(index);
  }

  private at(id: string): number {
    const index = this.index.get(id);
    if (index === undefined) throw new Error(`no step ${id}`);
    return index;
  }

  private readonly empty = (): StepSet => emptySet(this.steps.length);

  /** Ways as a goal. A way that contains all of another way's steps and more is left out. */
  goalOf(ways: Routes): Goal {
    const key = JSON.stringify(ways);
    const met = this.known.get(key);
    if (met) return met;
    const read = ways.map((way) => this.wayOf(way));
    const kept = read.filter(
      ({ bits }, i) =>
        !read.some((other, j) => i !== j && within(other.bits, bits) && (!within(bits, other.bits) || j < i)),
    );
    const reach = this.empty();
    for (const way of kept) join(reach, way.reach);
    const goal = { number: this.known.size, ways: kept, forced: this.common(kept), reach };
    this.known.set(key, goal);
    return goal;
  }

  private wayOf(way: readonly string[]): Way {
    const steps = [...new Set(way)].map((id) => this.at(id));
    const [bits, forced, reach] = [this.empty(), this.empty(), this.empty()];
    for (const step of steps) {
      include(bits, step);
      join(forced, this.forcedOf[step] as StepSet);
      join(reach, this.reachOf[step] as StepSet);
    }
    return { steps, bits, forced, reach };
  }

  /** The steps all ways have in common. */
  private common([first, ...rest]: readonly Way[]): StepSet {
    const own = first?.forced.slice() ?? this.empty();
    for (const { forced } of rest) meet(own, forced);
    return own;
  }

  private costOf(set: StepSet, taken: StepSet): number {
    let sum = 0;
    eachOutside(set, taken, (step) => {
      sum += this.costs[step] as number;
    });
    return sum;
  }

  /** The goals that newly taken steps add. */
  private needsOf(fresh: StepSet, taken: StepSet): Goal[] {
    const goals: Goal[] = [];
    eachOutside(fresh, taken, (step) => {
      const goal = this.needs[step];
      if (goal) goals.push(goal);
    });
    return goals;
  }

  /**
   * The cheapest steps, in addition to those taken, that meet the goals.
   * @param limit only results that cost less than this are wanted
   */
  best(goals: readonly Goal[], taken: StepSet, limit: number): Found | null {
    // Takes all unavoidable steps until no more follow.
    const have = taken.slice();
    let open = goals;
    for (;;) {
      open = dropMet(open, have);
      if (open.some(({ ways }) => ways.length === 0)) return null;
      const must = this.empty();
      for (const { forced } of open) join(must, forced);
      if (within(must, have)) break;
      const brought = this.needsOf(must, have);
      join(have, must);
      open = [...open, ...brought];
    }
    let steps = without(have, taken);
    let spent = this.costOf(have, taken);
    if (spent >= limit - equal) return null;
    const groups = apart(open, have);
    const bounds = groups.map((group) => this.atLeast(group, have));
    let ahead = bounds.reduce((sum, bound) => sum + bound, 0);
    for (const [place, group] of groups.entries()) {
      ahead -= bounds[place] as number;
      const found = this.settle(group, bounds[place] as number, have, limit - spent - ahead);
      if (!found) return null;
      spent += found.cost;
      steps = joined(steps, found.steps);
    }
    return spent < limit - equal ? { steps, cost: spent } : null;
  }

  /** Goals that share steps, solved by trying the ways of one of them; remembered by the steps they touch. */
  private settle(group: readonly Goal[], bound: number, have: StepSet, limit: number): Found | null {
    if (bound >= limit - equal) return null;
    const reach = this.empty();
    for (const goal of group) join(reach, goal.reach);
    const numbers = group.map(({ number }) => number).sort((a, b) => a - b);
    const key = `${numbers.join()}|${keyWithin(have, reach)}`;
    const known = this.settled.get(key);
    if (known && "steps" in known) return known.cost < limit - equal ? known : null;
    if (known && limit <= known.above + equal) return null;
    this.branches += 1;
    if (this.branches > mostBranches) throw new TooMany();
    const leasts = group.map((goal) => this.least(goal, have));
    const hardest = group[leasts.indexOf(Math.max(...leasts))] as Goal;
    const rest = group.filter((goal) => goal !== hardest);
    let best: Found | null = null;
    let bar = limit;
    for (const { bits } of this.inOrder(hardest, have)) {
      const own = this.costOf(bits, have);
      const found = this.best([...rest, ...this.needsOf(bits, have)], joined(have, bits), bar - own);
      if (!found) continue;
      best = { steps: joined(found.steps, without(bits, have)), cost: found.cost + own };
      bar = best.cost;
    }
    this.settled.set(key, best ?? { above: limit });
    return best;
  }

  /** The least cost of a goal in addition to what is taken: the cheapest of its ways' unavoidable steps. */
  private least({ ways }: Goal, have: StepSet): number {
    let least = Number.POSITIVE_INFINITY;
    for (const { forced } of ways) least = Math.min(least, this.costOf(forced, have));
    return least;
  }

  /** The ways of a goal, the probably cheapest first; ways of equal cost keep the written order. */
  private inOrder({ ways }: Goal, have: StepSet): Way[] {
    return ways
      .map((way) => ({ way, least: this.costOf(way.forced, have) }))
      .sort((a, b) => a.least - b.least)
      .map(({ way }) => way);
  }

  /**
   * A lower bound on the cost of several goals together. It is the larger of two: the most expensive goal alone, or
   * the sum with every step's cost (including its own needs) split evenly among all goals that may need it, so that no
   * step is paid for more than once.
   */
  private atLeast(group: readonly Goal[], have: StepSet): number {
    const alone = Math.max(...group.map((goal) => this.least(goal, have)));
    if (group.length === 0) return 0;
    const reach = this.empty();
    for (const goal of group) join(reach, goal.reach);
    const asked = new Uint16Array(this.steps.length);
    const counted = new Set<Goal>();
    const count = (goal: Goal | null | undefined): void => {
      if (!goal || counted.has(goal)) return;
      counted.add(goal);
      const own = this.empty();
      for (const { bits } of goal.ways) join(own, bits);
      eachOutside(own, have, (step) => {
        (asked[step] as number) += 1;
        count(this.needs[step]);
      });
    };
    for (const goal of group) count(goal);
    // Steps with the same needs share their cost; an open goal pays for itself in full.
    const askers = new Map<Goal, number>();
    eachOutside(reach, have, (step) => {
      const goal = this.needs[step];
      if (goal) askers.set(goal, (askers.get(goal) ?? 0) + 1);
    });
    for (const goal of group) askers.set(goal, Number.POSITIVE_INFINITY);
    const share = new Float64Array(this.steps.length);
    const worth = new Map<Goal, number>();
    const worthOf = (goal: Goal): number => {
      const known = worth.get(goal);
      if (known !== undefined) return known;
      let least = Number.POSITIVE_INFINITY;
      for (const { steps } of goal.ways) {
        let sum = 0;
        for (const step of steps) if (!has(have, step)) sum += share[step] as number;
        least = Math.min(least, sum);
      }
      worth.set(goal, least);
      return least;
    };
    for (const step of this.deepFirst) {
      if (!has(reach, step) || has(have, step)) continue;
      const goal = this.needs[step];
      const need = goal ? worthOf(goal) / (askers.get(goal) as number) : 0;
      share[step] = ((this.costs[step] as number) + need) / Math.max(1, asked[step] as number);
    }
    const together = group.reduce((sum, goal) => sum + worthOf(goal), 0);
    return Math.max(alone, together);
  }
}

/** Goals not met yet, each once. */
function dropMet(goals: readonly Goal[], have: StepSet): Goal[] {
  return [...new Set(goals)].filter(({ ways }) => !ways.some(({ bits }) => within(bits, have)));
}

/** Goals in groups that share no step still to be taken, so that the groups are independent. */
function apart(goals: readonly Goal[], have: StepSet): Goal[][] {
  let groups: { readonly reach: StepSet; readonly goals: Goal[] }[] = [];
  for (const goal of goals) {
    const touching = groups.filter(({ reach }) => meetOutside(reach, goal.reach, have));
    const reach = goal.reach.slice();
    for (const group of touching) join(reach, group.reach);
    groups = [
      ...groups.filter((group) => !touching.includes(group)),
      { reach, goals: [...touching.flatMap((group) => group.goals), goal] },
    ];
  }
  return groups.map((group) => group.goals);
}
