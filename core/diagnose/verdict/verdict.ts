import { type Declined, declinedParts } from "../../circuit/declined";
import { notListed, type Repair } from "../../fault/repair";
import type { StoppingCosts } from "../../money/stoppingCosts";
import type { Reading, Test } from "../../predict/reading";
import type { CompiledCircuit } from "../../predict/tables/compiledCircuit";
import { perCircuitAnd } from "../../predict/tables/perCircuit";
import { type Belief, rankedRepairs } from "../belief/belief";
import type { Support } from "../explain/expectation";
import { type Cited, cite, decisiveReasons, pathReason, type Reason } from "../explain/reasons";
import { nothingProved, type Proof } from "../proof/proof";
import type { Forecast } from "../tests/forecast";
import { damageLeft } from "./damageSeen";
import { repairKind, type Stopping, weighStopping } from "./stopping";

/** What to replace, with what belief, and whether stopping now pays. */
export interface Verdict {
  readonly state: "open" | "settled" | "best-guess";
  /** Everything that needs work, the cause first. */
  readonly replace: readonly string[];
  /** Probability of the whole set. */
  readonly p: number;
  /** Other sets of parts that no test with the tools at hand can tell from this one; empty once it is confirmed. */
  readonly orElse: readonly (readonly string[])[];
  readonly killedBy: string | null;
  readonly alsoCheck: readonly string[];
  readonly fitNowMinor: number;
  readonly testMoreMinor: number | null;
  /** The test to take next, the first of `next`; null if no informative test is left. */
  readonly payingLook: Test | null;
  /** Belief above which repairing now is cheaper than further testing. */
  readonly breakEven: number | null;
  readonly because: readonly Reason[];
  /** The readings that prove it, by their number on the job's list, and the tests its proof still needs. */
  readonly proof: { readonly have: readonly number[]; readonly missing: readonly Test[] };
}

/** Variants whose repair this is. */
const variantsOf = perCircuitAnd((compiled, repair: Repair) =>
  [...compiled.variants.keys()].filter((index) => compiled.variants[index]?.repair === repair),
);

/** What a tight motor burns out (common practice, no source). */
const burntOut: ReadonlySet<string> = new Set(["resistor", "fuse", "connector", "inline"]);

/**
 * Motors to check before new parts are fitted: a burnt-out pack, a burnt pin or a blown fuse had a cause. A motor that
 * somebody has measured is not among them.
 */
export function motorsToCheck(
  { netlist: { circuit, motors } }: CompiledCircuit,
  replace: readonly string[],
  readings: readonly Reading[],
): string[] {
  const heated = replace.some((id) => burntOut.has(repairKind(circuit, id)));
  if (!heated) return [];
  return motors.map(({ part }) => part.id).filter((id) => !replace.includes(id) && !isMeasured(readings, id));
}

/** Whether somebody turned a motor by hand, clamped its current or saw its ripple. */
const isMeasured = (readings: readonly Reading[], motor: string): boolean =>
  readings.some(
    (own) =>
      ((own.test === "spin" || own.test === "ripple") && own.at === motor) ||
      (own.test === "amps" && own.around === motor),
  );

/** What else a verdict waits for. */
export interface Standing {
  /**
   * The test due before a verdict: a reading to repeat, a noise to hear for oneself, a question to the customer, or a
   * plug to look at.
   */
  readonly due: Forecast | null;
  /** The reading that contradicts the others, if one does. */
  readonly disputed: Cited | null;
  /** The repairs that no test can tell from this one. */
  readonly alike: (repair: Repair) => readonly Repair[];
  /** What proves a repair, and what is still missing of it. */
  readonly prove: (repair: Repair) => Proof;
}

/** Whether to go on testing, and with what. */
export interface Decision {
  readonly state: Verdict["state"];
  readonly ranked: readonly (readonly [Repair, number])[];
  readonly stopping: Stopping;
  readonly proof: Proof;
  readonly measured: boolean;
  readonly standing: Standing;
  /** Tests that come before all others, in order. */
  readonly first: readonly Forecast[];
}

/**
 * Decides whether a verdict stands: `settled` only if the repair is proved, something was measured, the wiring is known,
 * the belief is above the shop's limit, no remaining test is worth its minutes and no reading contradicts the others; `best-guess` if none
 * is worth it otherwise and no proof can be had; `open` if one is.
 */
export function decide(
  compiled: CompiledCircuit,
  belief: Belief,
  repairs: ReadonlyMap<Repair, number>,
  tests: readonly Forecast[],
  costs: StoppingCosts,
  standing: Standing,
): Decision {
  const { due, disputed, prove } = standing;
  const ranked = rankedRepairs(repairs);
  const [repair = notListed, p = 0] = ranked[0] ?? [];
  const stopping = weighStopping(compiled, repairs, tests, costs);
  const measured = belief.readings.some(({ heard, test }) => !heard && test !== "history");
  const pays = stopping.testMoreMinor !== null && stopping.testMoreMinor < stopping.fitNowMinor;
  const sure =
    p >= costs.settledBar &&
    declinedIn(compiled, repair).length === 0 &&
    disputed === null &&
    !isWiringAssumed(compiled);
  const weighed = verdictState({ measured, pays, sure, any: tests.length > 0 });
  // A contradiction is cleared up while the probe is still there, a complaint that says enough by itself is first seen
  // or heard for oneself, and the customer is asked before anything comes off.
  const waits =
    due !== null &&
    (weighed !== "open" || disputed !== null || (!measured && (sure || fromTheSeat.has(due.look.test))));
  // While a proof can still be had, a part is not condemned, however likely it is.
  const proof = weighed !== "open" && p >= worthProving ? prove(repair) : nothingProved;
  const state = waits || proof.missing.length > 0 ? "open" : proof.complete ? weighed : unproved(weighed);
  const first = waits ? [due] : proof.missing;
  return { state, ranked, stopping, proof, measured, standing, first };
}

/** Whether nobody has seen how the circuit is wired: a verdict on a guessed wiring is never confirmed. */
const isWiringAssumed = ({ netlist }: CompiledCircuit): boolean => netlist.circuit.wiring === "assumed";

/** Parts of a repair that are left to the maker's procedure. */
const declinedIn = ({ netlist }: CompiledCircuit, { parts }: Repair): Declined[] =>
  declinedParts(netlist.circuit).filter(({ part }) => parts.includes(part));

/**
 * The verdict of a decision, with its reasons.
 * @param next the test to take next; null if none is left
 */
export function verdictOf(
  compiled: CompiledCircuit,
  belief: Belief,
  support: Support,
  decision: Decision,
  next: Forecast | null,
): Verdict {
  const { state, ranked, stopping, proof, measured, standing } = decision;
  const [repair = notListed, p = 0] = ranked[0] ?? [];
  const replace = repair.parts;
  const rivalRepair = ranked[1];
  const rival = rivalRepair
    ? { parts: rivalRepair[0].parts, variants: variantsOf(compiled, rivalRepair[0]) }
    : null;
  const proving = new Set(proof.have.map((place) => belief.numbers[place] as number));
  const path = pathReason(compiled, belief.readings);
  const cause = replace.length > 1 ? (replace[0] ?? null) : null;
  return {
    state,
    replace,
    p,
    orElse: state === "settled" ? [] : standing.alike(repair).map(({ parts }) => parts),
    killedBy: cause,
    alsoCheck: motorsToCheck(compiled, replace, belief.readings),
    fitNowMinor: stopping.fitNowMinor,
    testMoreMinor: stopping.testMoreMinor,
    payingLook: next?.look ?? null,
    breakEven: stopping.breakEven,
    because: [
      ...(path ? [path] : []),
      ...proof.shown.map(
        ({ part, says, readings }): Reason => ({
          kind: "proved",
          part,
          says,
          cited: readings.map((place) => cite(belief, place)),
        }),
      ),
      ...decisiveReasons(compiled, belief, support, variantsOf(compiled, repair), rival).filter(
        (reason) => reason.kind !== "deciding" || !proving.has(reason.cited.number),
      ),
      ...damageLeft(belief.readings, replace).map((own): Reason => ({ kind: "renew-too", ...own })),
      ...declinedIn(compiled, repair).map((own): Reason => ({ kind: "declined", declined: own })),
      ...(isWiringAssumed(compiled) && measured ? [{ kind: "wiring-assumed" } as const] : []),
      ...(proof.missing[0] ? [{ kind: "unproved", test: proof.missing[0].look } as const] : []),
      ...doubt({ state, ranked, measured, next, disputed: standing.disputed }),
    ],
    proof: {
      have: proof.have.map((place) => belief.numbers[place] as number),
      missing: proof.missing.map(({ look }) => look),
    },
  };
}

/** Due tests that come before all others while nothing was measured. */
const fromTheSeat: ReadonlySet<string> = new Set(["listen", "history"]);

/** Belief in a repair from which its proof is looked for (judgement). */
const worthProving = 0.5;

/** Nothing is confirmed without its proof. */
const unproved = (state: Verdict["state"]): Verdict["state"] => (state === "settled" ? "best-guess" : state);

interface Weighed {
  readonly measured: boolean;
  readonly pays: boolean;
  readonly sure: boolean;
  readonly any: boolean;
}

function verdictState({ measured, pays, sure, any }: Weighed): Verdict["state"] {
  if (pays || (!measured && any)) return "open";
  return sure && measured ? "settled" : "best-guess";
}

interface Doubt {
  readonly state: Verdict["state"];
  readonly ranked: readonly (readonly [Repair, number])[];
  readonly measured: boolean;
  readonly next: Forecast | null;
  readonly disputed: Standing["disputed"];
}

/** The remaining doubt. */
function doubt({ state, ranked, measured, next, disputed }: Doubt): Reason[] {
  const others = ranked.slice(1, 3).filter(([, p]) => p >= 0.02);
  const repairs = others.map(([repair, p]) => ({ parts: repair.parts, p }));
  const left: Reason[] = others.length > 0 ? [{ kind: "still-possible", repairs }] : [];
  if (state === "settled") return left;
  if (state === "best-guess")
    return [...left, disputed ? { kind: "disputed", cited: disputed } : { kind: "nothing-pays" }];
  if (!measured) return [{ kind: "complaint-only" }, ...left];
  return next ? [...left, { kind: "paying-test", test: next.look, minutes: next.minutes }] : left;
}
