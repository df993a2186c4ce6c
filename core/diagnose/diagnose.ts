import { type Declined, declinedParts } from "../circuit/declined";
import { notListed, type Repair } from "../fault/repair";
import { defaultStoppingCosts, type StoppingCosts } from "../money/stoppingCosts";
import { allTools, type Tool } from "../predict/observations/tool";
import { keyOfReading, type Reading, type Test } from "../predict/reading";
import { readingProblems } from "../predict/readingProblems";
import type { CompiledCircuit } from "../predict/tables/compiledCircuit";
import { perCircuit } from "../predict/tables/perCircuit";
import { type Parsed, type Problem, refused } from "../problem/problem";
import { type Belief, type PartBelief, partBelief, repairBelief } from "./belief/belief";
import { type FaultCount, priorsFrom } from "./belief/learnedPrior";
import { type Agreement, asIfTrue } from "./explain/asIfTrue";
import { type Conflict, conflicts } from "./explain/conflict";
import { type Support, supportOf } from "./explain/expectation";
import { type SuspectWhy, suspectWhy } from "./explain/reasons";
import { beginning, type EarlierVisit } from "./history/earlierVisit";
import { believeThrough, type FailedRepair, readingsBefore } from "./history/failedRepair";
import { type Proof, proofOf } from "./proof/proof";
import { candidateTests } from "./tests/candidateTests";
import { customerQuestion } from "./tests/customerQuestion";
import type { Forecast, Range } from "./tests/forecast";
import { forecasts } from "./tests/forecasts";
import { indistinguishable } from "./tests/grouping";
import { type Lookahead, lookahead } from "./tests/lookahead";
import { type NextOptions, nextTests } from "./tests/nextTest";
import { readableOutcomes } from "./tests/readableOutcomes";
import type { Strategy } from "./tests/strategy";
import { planVisit, type Visit, type VisitPlan } from "./tests/visit";
import { type Cleared, clearedParts, partsCleared } from "./verdict/cleared";
import { plugToSee, renewal, renewedAsSeen } from "./verdict/damageSeen";
import { disputedReading } from "./verdict/disputed";
import { noiseToHear } from "./verdict/noiseToHear";
import { decide, type Verdict, verdictOf } from "./verdict/verdict";

/** One suspect: a fault at its likeliest size, with the belief of all its sizes. */
export interface Suspect {
  /** Its id; null for a cause outside the list. */
  readonly fault: string | null;
  readonly repair: Repair;
  /** What is wrong, the cause first. */
  readonly modes: readonly string[];
  readonly p: number;
  readonly why: SuspectWhy;
  /** Suspects that no test with these tools can separate share this number. */
  readonly group: number;
}

export interface NextTest {
  readonly test: Test;
  readonly bits: number;
  readonly minutes: number;
  /** The visit it belongs to, if it is part of the next one. */
  readonly visit?: Visit;
  readonly outcomes: readonly {
    readonly seen: string;
    /** A number in a display's range; null for a word and for OL (open). */
    readonly value: number | null;
    /** The display's range; null for a word. */
    readonly range: Range | null;
    readonly p: number;
    /** The ranges it was joined from, if it was. */
    readonly pieces: readonly { readonly seen: string; readonly value: number | null; readonly p: number }[];
    readonly leaves: readonly PartBelief[];
  }[];
}

export interface Diagnosis {
  readonly id: string | null;
  readonly suspects: readonly Suspect[];
  readonly parts: readonly PartBelief[];
  readonly verdict: Verdict;
  readonly next: readonly NextTest[];
  readonly conflicts: readonly Conflict[];
  /** Parts left to the maker's procedure; absent if there are none. */
  readonly declined?: readonly Declined[];
  /** Parts the readings have all but cleared. */
  readonly clearedParts: readonly string[];
  /** What cleared each of them, if requested. */
  readonly cleared?: readonly Cleared[];
  /** The following tests, and the strategies' minutes, if requested. */
  readonly plan?: Lookahead;
  /** The readings as if each leading suspect were true, by its place among the suspects, if requested. */
  readonly asIf?: readonly (readonly Agreement[])[];
}

export interface DiagnoseOptions {
  readonly id?: string | null;
  /** All tools if absent. */
  readonly tools?: readonly Tool[];
  readonly school?: Strategy;
  readonly costs?: StoppingCosts;
  /** How many next tests to return; 8 by default. */
  readonly looks?: number;
  /** The shop's own counts of confirmed faults, which update the priors. */
  readonly counts?: readonly FaultCount[];
  /** Counts of this circuit's own family; `counts` are then those of all others. */
  readonly familyCounts?: readonly FaultCount[];
  /** Repairs that did not fix the fault, between the readings. */
  readonly repairs?: readonly FailedRepair[];
  /** The visit that this one is a comeback of. */
  readonly earlier?: EarlierVisit | null;
  /** Reasons for every suspect and every cleared part, not only for the leading ones. */
  readonly explainAll?: boolean;
  /** The tests that follow each outcome, and the strategies' minutes. */
  readonly plan?: boolean;
  /** The number of each reading on the job's list; its place from 1 by default. */
  readonly numbers?: readonly number[];
  /** For how many leading suspects to compare every reading with the prediction. */
  readonly asIf?: number;
}

const defaultLooks = 8;
/** Number of suspects grouped and explained in full; the rest are too unlikely to matter. */
const groupedSuspects = 12;

/** What is wrong with readings on this circuit, by place. */
const problemsIn = (compiled: CompiledCircuit, readings: readonly Reading[]): Problem[] =>
  readings.flatMap((reading, index) =>
    readingProblems(compiled, reading).map((problem) => ({
      ...problem,
      path: `readings.${index}.${problem.path}`,
    })),
  );

/**
 * Diagnoses readings on a compiled circuit: the suspects, the parts to replace, the next tests. Readings that name
 * things the circuit does not have are refused.
 */
export function diagnose(
  compiled: CompiledCircuit,
  readings: readonly Reading[],
  options: DiagnoseOptions = {},
): Parsed<Diagnosis> {
  const wrong = problemsIn(compiled, readings);
  if (wrong.length > 0) return refused(wrong);
  const priors = priorsFrom(compiled, options.counts, options.familyCounts);
  const repairs = options.repairs ?? [];
  const before = readingsBefore(repairs, readings.length);
  const begun = beginning(compiled, options.earlier, priors);
  const believed = believeThrough(compiled, readings, repairs, begun);
  const belief = options.numbers ? { ...believed, numbers: options.numbers.slice(before) } : believed;
  const tools = options.tools ?? allTools;
  const next: NextOptions = { tools, school: options.school ?? "least-time", count: weighedLooks };
  const weighed = nextTests(compiled, belief, next);
  const renewed = renewal(compiled, readings);
  const byRepair = renewedAsSeen(repairBelief(compiled, belief), renewed);
  const support = supportOf(compiled, belief);
  const costs = options.costs ?? defaultStoppingCosts;
  const fighting = conflicts(compiled, belief, support);
  const disputed = disputedReading(belief.readings, fighting);
  const again = disputed?.once ? disputed.test : noiseToHear(belief.readings);
  const due = again
    ? forecasts(compiled, belief)(again)
    : (customerQuestion(compiled, belief, weighed[0]) ?? plugToSee(compiled, readings, byRepair, weighed));
  const tested = { compiled, belief, support, tools, renewed };
  const suspects = suspectsOf(tested, options.explainAll ? Number.POSITIVE_INFINITY : groupedSuspects);
  const prove = (repair: Repair): Proof => proofOf(compiled, belief, repair, tools);
  const standing = { due, disputed: disputed?.cited ?? null, alike: alikeOf(suspects), prove };
  const decision = decide(compiled, belief, byRepair, weighed, costs, standing);
  const planned = planVisit(compiled, belief, decision.first, weighed);
  const following = planned.tests[0] ?? null;
  const verdict = verdictOf(compiled, belief, support, decision, following);
  const declined = declinedParts(compiled.netlist.circuit);
  return {
    ok: true,
    value: {
      id: options.id ?? null,
      suspects,
      parts: partBelief(byRepair),
      verdict,
      next: nextVisit(planned).slice(0, options.looks ?? defaultLooks),
      conflicts: fighting.map((own) => ({
        ...own,
        reading: own.reading + before,
      })),
      clearedParts: partsCleared(compiled, belief).map(({ part }) => part),
      ...(declined.length > 0 ? { declined } : {}),
      ...(options.explainAll ? { cleared: clearedParts(compiled, belief, support) } : {}),
      ...(options.plan
        ? { plan: lookahead(compiled, belief, next, verdict.state === "open" ? following : null) }
        : {}),
      ...(options.asIf
        ? {
            asIf: suspects
              .slice(0, options.asIf)
              .map(({ fault }) => compiled.variants.findIndex(({ id }) => id === fault))
              .map((variant) => (variant < 0 ? [] : asIfTrue(compiled, belief, support, variant)))
              .map((own) => own.map((line) => ({ ...line, reading: line.reading + before }))),
          }
        : {}),
    },
  };
}

/** Number of tests considered when deciding whether another is worth it. */
const weighedLooks = 24;

/** The tests in order, those of the next visit with it. */
const nextVisit = ({ visit, count, tests }: VisitPlan): NextTest[] =>
  tests.map((forecast, place) => nextTest(forecast, place < count ? visit : null));

function nextTest(forecast: Forecast, visit: Visit | null): NextTest {
  return {
    test: forecast.look,
    bits: forecast.bits,
    minutes: forecast.minutes,
    ...(visit ? { visit } : {}),
    outcomes: readableOutcomes(forecast).map(({ seen, value, range, p, repairs, pieces }) => ({
      seen,
      value,
      range,
      p,
      pieces: pieces.map((piece) => ({ seen: piece.seen, value: piece.value, p: piece.p })),
      leaves: partBelief(likely(forecast.repairs, repairs))
        .filter((left) => left.p >= leastLeft)
        .slice(0, 4),
    })),
  };
}

/** An outcome's remaining suspects below this belief are not named. */
const leastLeft = 0.01;

/** Number of repairs that can add up to something worth naming. */
function likely(repairs: readonly Repair[], belief: readonly number[]): (readonly [Repair, number])[] {
  const found: (readonly [Repair, number])[] = [];
  for (const [i, repair] of repairs.entries()) {
    const p = belief[i] ?? 0;
    if (p >= leastLeft / 10) found.push([repair, p]);
  }
  return found;
}

interface Weighed {
  readonly compiled: CompiledCircuit;
  readonly belief: Belief;
  readonly support: Support;
  readonly tools: readonly Tool[];
  /** What a repair comes to with the plugs seen damaged. */
  readonly renewed: (repair: Repair) => Repair;
}

/** A suspect: its sizes, as variants, and what its id says. */
interface Family {
  readonly variants: readonly number[];
  readonly repair: Repair;
  readonly modes: readonly string[];
}

/** Every suspect with its sizes. */
const familiesOf = perCircuit(({ variants }): Family[] => {
  const families = new Map<string, number[]>();
  variants.forEach(({ family }, variant) => {
    const own = families.get(family);
    if (own) own.push(variant);
    else families.set(family, [variant]);
  });
  return [...families.values()].map((sizes) => {
    const own = variants[sizes[0] as number];
    return {
      variants: sizes,
      repair: own?.repair ?? notListed,
      modes: own?.fault.names.map(({ mode }) => mode) ?? [],
    };
  });
});

/** A suspect's sizes, likeliest first. */
function bySize(belief: Belief, variants: readonly number[]): readonly number[] {
  if (variants.length === 1) return variants;
  return [...variants].sort((a, b) => (belief.variants[b] as number) - (belief.variants[a] as number));
}

/** A size of a suspect counts if it has this share of the suspect's belief. */
const believedSize = 0.05;

/** A suspect that no test tells from another is named beside it from this belief on. */
const worthNaming = 0.02;

/** The repairs of suspects that no test tells from those of a given one. */
const alikeOf =
  (suspects: readonly Suspect[]) =>
  (repair: Repair): Repair[] => {
    const leader = suspects.find((suspect) => suspect.repair === repair);
    const same = suspects.filter(
      ({ fault, group, p }) => fault !== null && group === leader?.group && p >= worthNaming,
    );
    return [...new Set(same.map((suspect) => suspect.repair))].filter((other) => other !== repair);
  };

/**
 * Suspects without sizes, likeliest first, `unknown` among them; their probabilities sum to 1.
 * @param explained how many get reasons
 */
function suspectsOf({ compiled, belief, support, tools, renewed }: Weighed, explained: number): Suspect[] {
  const ranked = familiesOf(compiled)
    .map(({ variants, repair, modes }) => {
      let p = 0;
      for (const variant of variants) p += belief.variants[variant] as number;
      return { variants: bySize(belief, variants), repair, modes, p };
    })
    .sort((a, b) => b.p - a.p);
  const leaders = ranked
    .slice(0, groupedSuspects)
    .map(({ variants, p }) =>
      variants.filter((variant, at) => at === 0 || (belief.variants[variant] as number) >= believedSize * p),
    );
  const taken = new Set(belief.readings.map((reading) => keyOfReading(reading)));
  const groups = indistinguishable(compiled, leaders, candidateTests(compiled, tools, true), taken);
  const suspects = ranked.map(({ variants, repair, modes, p }, index): Suspect => {
    const full = index < explained;
    return {
      fault: compiled.variants[variants[0] as number]?.id ?? "",
      repair: renewed(repair),
      modes,
      p,
      why: full ? suspectWhy(compiled, belief, support, variants) : { kind: "unlikely" },
      group: groups[index] ?? groupedSuspects + index + 1,
    };
  });
  const unknown: Suspect = {
    fault: null,
    repair: notListed,
    modes: [],
    p: belief.unknown,
    why: { kind: "not-listed" },
    group: 0,
  };
  return [...suspects, unknown].sort((a, b) => b.p - a.p);
}
