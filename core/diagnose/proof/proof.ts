import type { Repair } from "../../fault/repair";
import type { Tool } from "../../predict/observations/tool";
import { keyOfReading, type Test } from "../../predict/reading";
import type { CompiledCircuit } from "../../predict/tables/compiledCircuit";
import type { Belief } from "../belief/belief";
import { attentionMinutes, minutesNow, openPlaces } from "../tests/access";
import { calledFor } from "../tests/calledFor";
import { type CandidateTest, candidateTests } from "../tests/candidateTests";
import type { Forecast } from "../tests/forecast";
import { forecasts } from "../tests/forecasts";
import { tellsOfFault } from "../tests/tellsOfFault";
import { counting, likeliestOf, proofLines, shownBy } from "./proofLines";
import type { ProofKind, ProofLine, ProofStep } from "./proofStep";
import { shareShown } from "./shareShown";

/** What proves a verdict. */
export interface Proof {
  /** The readings that prove it, by their place among the belief's. */
  readonly have: readonly number[];
  /** What they show, part by part, for the parts that have their proof. */
  readonly shown: readonly {
    readonly part: string;
    readonly says: ProofKind;
    readonly readings: readonly number[];
  }[];
  /** The tests still missing, in the order they are best taken; empty if it is proved, or if no tool at hand can. */
  readonly missing: readonly Forecast[];
  /** True if every part to renew has its proof. */
  readonly complete: boolean;
}

export const nothingProved: Proof = { have: [], shown: [], missing: [], complete: false };

/** A proof is tried only if a vehicle with the fault shows all its steps with at least this probability (judgement). */
const leastShown = 0.3;
/** Number of tests tried for one step, the quickest first. */
const mostTried = 6;

/**
 * What proves a repair, with the readings so far and the tools at hand.
 * @param tools those at hand
 */
export function proofOf(
  compiled: CompiledCircuit,
  belief: Belief,
  repair: Repair,
  tools: readonly Tool[],
): Proof {
  const variant = likeliestOf(compiled, belief, repair);
  if (variant === null) return nothingProved;
  const have = new Set<number>();
  const said: Proof["shown"][number][] = [];
  const missing: Forecast[] = [];
  let complete = true;
  const counts = counting(belief.readings);
  let search: ProofSearch | null = null;
  const parts = compiled.variants[variant]?.fault.parts ?? [];
  for (const [index, lines] of proofLines(compiled, variant).entries()) {
    const shown = lines.map((line) => shownBy(line, belief.readings, counts));
    const proved = shown.findIndex((places) => places.every((place) => place !== null));
    if (proved >= 0) {
      for (const place of shown[proved] ?? []) if (place !== null) have.add(place);
      const readings = [...new Set((shown[proved] ?? []).filter((place) => place !== null))].sort(
        (a, b) => a - b,
      );
      said.push({ part: parts[index] ?? "", says: (lines[proved] as ProofLine).says, readings });
      continue;
    }
    complete = false;
    search ??= new ProofSearch(compiled, belief, repair, tools);
    const way = search.quickest(lines, shown);
    if (!way) return { have: [...have].sort((a, b) => a - b), shown: said, missing: [], complete: false };
    for (const place of way.have) have.add(place);
    missing.push(...way.tests);
  }
  return { have: [...have].sort((a, b) => a - b), shown: said, missing, complete };
}

interface Way {
  readonly have: readonly number[];
  readonly tests: readonly Forecast[];
}

/** A test for a step, and how often a vehicle with the fault would show it. */
interface Chance {
  readonly forecast: Forecast;
  readonly p: number;
}

/** Looks for the quickest line that can still be completed. */
class ProofSearch {
  private readonly chances = new Map<ProofStep, Chance | null>();
  private readonly taken: ReadonlySet<string>;
  private readonly forecast: (look: Test) => Forecast;
  private candidates: readonly (readonly [CandidateTest, number])[] | null = null;

  constructor(
    private readonly compiled: CompiledCircuit,
    private readonly belief: Belief,
    private readonly repair: Repair,
    private readonly tools: readonly Tool[],
  ) {
    this.forecast = forecasts(compiled, belief);
    this.taken = new Set(belief.readings.filter(tellsOfFault).map((reading) => keyOfReading(reading)));
  }

  quickest(lines: readonly ProofLine[], shown: readonly (readonly (number | null)[])[]): Way | null {
    let best: { readonly way: Way; readonly minutes: number } | null = null;
    for (const [index, line] of lines.entries()) {
      const places = shown[index] ?? [];
      const left = line.steps.filter((_, step) => places[step] === null);
      const chances = left.map((step) => this.chanceOf(step));
      if (chances.some((chance) => chance === null)) continue;
      const found = chances.filter((chance) => chance !== null);
      const p = found.reduce((product, chance) => product * chance.p, 1);
      if (p < leastShown) continue;
      const minutes = found.reduce((sum, { forecast }) => sum + forecast.minutes + attentionMinutes, 0) / p;
      if (best && best.minutes <= minutes) continue;
      const have = places.filter((place) => place !== null);
      best = { way: { have, tests: found.map(({ forecast }) => forecast) }, minutes };
    }
    return best?.way ?? null;
  }

  /** The test not yet taken that shows a step most surely for its minutes. */
  private chanceOf(step: ProofStep): Chance | null {
    const known = this.chances.get(step);
    if (known !== undefined) return known;
    let best: Chance | null = null;
    let tried = 0;
    for (const [{ test }, minutes] of this.inOrder()) {
      if (tried >= mostTried) break;
      if (!step.asks(test)) continue;
      tried += 1;
      const forecast = this.forecast(test);
      const p = shareShown(step, forecast, this.repair);
      const worth = (one: Chance, cost: number): number => one.p / (cost + attentionMinutes);
      const own = { forecast, p };
      if (p > 0 && (!best || worth(own, minutes) > worth(best, best.forecast.minutes))) best = own;
    }
    this.chances.set(step, best);
    return best;
  }

  private inOrder(): readonly (readonly [CandidateTest, number])[] {
    if (this.candidates) return this.candidates;
    const open = openPlaces(this.compiled, this.belief.readings);
    const fits = calledFor(this.compiled, this.belief.readings);
    this.candidates = candidateTests(this.compiled, this.tools, true)
      .filter(({ key, test }) => !this.taken.has(key) && fits(test))
      .map((own) => [own, minutesNow(own.cost, open)] as const)
      .sort(([, a], [, b]) => a - b);
    return this.candidates;
  }
}
