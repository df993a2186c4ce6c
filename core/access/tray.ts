import { screwsBack, screwsOut, sortBack, sortName } from "./fastener";
import type { AccessStep } from "./plan";
import type { SortCount } from "./sortCount";
import { cyclesOf } from "./stepCycle";

/** Screws of all sorts together. */
export const screwsIn = (counts: readonly SortCount[]): number =>
  counts.reduce((sum, { count }) => sum + count, 0);

/** A step ticked during removal or refitting, with its counted screws. */
export interface TrayEntry {
  readonly step: string;
  readonly way: "in" | "back";
  readonly screws: number;
  /** The same by sort; null where only the total was counted. */
  readonly counts?: readonly SortCount[] | null;
  /** The round of the job; absent means the first. */
  readonly round?: number | undefined;
}

/** What can become of a screw that no tick explains. */
export const trayNoteKinds = ["lost", "found", "new", "spare"] as const;
export type TrayNoteKind = (typeof trayNoteKinds)[number];

/** What became of some screws: lost in the car, found again, taken new from stock, or left over for a known reason. */
export interface TrayNote extends SortCount {
  readonly kind: TrayNoteKind;
}

/** The tray's screws of one sort. */
export interface TraySort {
  readonly sort: string;
  /** Lying in the tray; never below zero. */
  readonly lying: number;
  readonly out: number;
  readonly back: number;
  /** Lost and not found. */
  readonly lost: number;
  /** Refitted beyond those that came out and those taken new. */
  readonly tooMany: number;
}

/** The state of the tray after some ticks. */
export interface Tray {
  /** Screws in the tray; never below zero. If more went back than came out, `calls` says at which step. */
  readonly lying: number;
  readonly out: number;
  readonly back: number;
  readonly sorts: readonly TraySort[];
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

/** Fasteners a step puts into the tray, or those it takes when refitted, by its plan and by sort. */
export function plannedSorts({ fasteners = [] }: AccessStep, way: "in" | "back"): SortCount[] {
  const counts = new Map<string, number>();
  for (const fastener of fasteners) {
    const count = way === "in" ? screwsOut(fastener) : screwsBack(fastener);
    const sort = sortName(way === "in" ? fastener : sortBack(fastener));
    if (count > 0) counts.set(sort, (counts.get(sort) ?? 0) + count);
  }
  return [...counts].map(([sort, count]) => ({ sort, count }));
}

/** A tick's screws by sort; where only the total was counted, the plan's sorts are filled in their order. */
function countsOf(step: AccessStep, { way, screws, counts }: TrayEntry): readonly SortCount[] {
  if (counts) return counts;
  let rest = screws;
  const filled = plannedSorts(step, way).map(({ sort, count }) => {
    const own = Math.min(rest, count);
    rest -= own;
    return { sort, count: own };
  });
  if (rest === 0) return filled;
  const [first = { sort: "screw", count: 0 }, ...others] = filled;
  return [{ ...first, count: first.count + rest }, ...others];
}

/** Screws by sort, added up. */
class SortSums {
  private readonly sums = new Map<string, number>();
  add(sort: string, count: number): void {
    this.sums.set(sort, (this.sums.get(sort) ?? 0) + count);
  }
  of = (sort: string): number => this.sums.get(sort) ?? 0;
  sorts = (): string[] => [...this.sums.keys()];
}

/** Fasteners of a step that the plan leaves out of it for good, and new ones it puts in, by sort. */
function plannedAway(step: AccessStep, away: SortSums, fresh: SortSums): void {
  for (const fastener of step.fasteners ?? []) {
    const [out, back] = [screwsOut(fastener), screwsBack(fastener)];
    away.add(sortName(fastener), fastener.instead ? out : out - back);
    if (fastener.instead) fresh.add(sortName(fastener.instead), back);
  }
}

/**
 * The tray after some ticks; in each round the last tick of each step and direction counts. A step refitted with fewer screws
 * than were removed has some left over; with more, they belong to another step, which will be short.
 * @param notes what became of screws that no tick explains
 */
export function trayOf(
  steps: readonly AccessStep[],
  entries: readonly TrayEntry[],
  notes: readonly TrayNote[] = [],
): Tray {
  const calls: TrayCall[] = [];
  const [out, back, away, fresh] = [new SortSums(), new SortSums(), new SortSums(), new SortSums()];
  for (const { step, taken, put } of steps.flatMap((own) =>
    cyclesOf(entries, own.id).map((cycle) => ({ step: own, ...cycle })),
  )) {
    const plan = { out: screwsIn(plannedSorts(step, "in")), back: screwsIn(plannedSorts(step, "back")) };
    for (const { sort, count } of countsOf(step, taken)) out.add(sort, count);
    if (taken.screws !== plan.out) calls.push({ step, kind: "not-as-planned", screws: taken.screws });
    if (!put) continue;
    for (const { sort, count } of countsOf(step, put)) back.add(sort, count);
    plannedAway(step, away, fresh);
    // Screws the plan leaves out for good are still in the tray and are not missing.
    const forGood = Math.min(plan.out - plan.back, Math.max(0, taken.screws - put.screws));
    const missing = taken.screws - put.screws - forGood;
    if (missing !== 0)
      calls.push({ step, kind: missing > 0 ? "left-over" : "short", screws: Math.abs(missing) });
  }
  const noted = (kind: TrayNoteKind, sort: string): number =>
    notes.reduce((sum, note) => sum + (note.kind === kind && note.sort === sort ? note.count : 0), 0);
  const names = new Set([...out.sorts(), ...back.sorts(), ...notes.map(({ sort }) => sort)]);
  const sorts = [...names].map((sort): TraySort => {
    const lost = Math.max(0, noted("lost", sort) - noted("found", sort));
    const there = out.of(sort) + fresh.of(sort) + noted("new", sort) - lost - noted("spare", sort);
    const left = there - back.of(sort);
    return {
      sort,
      lying: Math.max(0, left - Math.min(away.of(sort), Math.max(0, left))),
      out: out.of(sort),
      back: back.of(sort),
      lost,
      tooMany: Math.max(0, -left),
    };
  });
  const sum = (of: (sort: TraySort) => number): number => sorts.reduce((total, own) => total + of(own), 0);
  return {
    lying: Math.max(0, sum(({ lying }) => lying) - sum(({ tooMany }) => tooMany)),
    out: sum((own) => own.out),
    back: sum((own) => own.back),
    sorts,
    calls,
  };
}

/** Screws that are not accounted for yet: still in the tray, or refitted without having come out. */
export const unexplained = ({ sorts }: Tray): SortCount[] =>
  sorts.flatMap(({ sort, lying, tooMany }) =>
    lying + tooMany > 0 ? [{ sort, count: lying + tooMany }] : [],
  );

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
