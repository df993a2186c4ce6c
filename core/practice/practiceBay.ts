import type { Circuit } from "../circuit/circuit";
import { diagnose } from "../diagnose/diagnose";
import type { FailedRepair } from "../diagnose/history/failedRepair";
import { testCost } from "../diagnose/tests/access";
import { repairKind } from "../diagnose/verdict/stopping";
import type { Fault } from "../fault/fault";
import { placeFault } from "../fault/fault";
import { minutesMinor, type RepairCost, repairDefaults, type StoppingCosts } from "../money/stoppingCosts";
import type { Reading, Test } from "../predict/reading";
import { testProblems } from "../predict/readingProblems";
import type { CompiledCircuit } from "../predict/tables/compiledCircuit";
import { asksTheUnreachable } from "../predict/touchedTest";
import { problemText } from "../problem/problem";
import type { Netlist } from "../solve/netlist/netlist";
import { complaintOf, type PracticeCase, type PracticeCircuit, vehicleOf } from "./practiceCase";

/** One action in the bay, with its result. The debrief replays a case from these alone. */
export type PracticeAct =
  | {
      readonly act: "look";
      readonly reading: Reading;
      readonly minutes: number;
      /** A knock freed a dead spot for good. */
      readonly woke?: boolean | undefined;
      /** Rpm while it was listened to, for the sound. */
      readonly rpm?: number | undefined;
    }
  | { readonly act: "open"; readonly place: string; readonly minutes: number }
  | { readonly act: "ask"; readonly look: Test | null; readonly minutes: number }
  | {
      readonly act: "fit";
      readonly parts: readonly string[];
      /** The trainee's odds of being right. */
      readonly odds: number;
      /** Locations that were opened for it. */
      readonly opened: readonly string[];
      readonly minutes: number;
      readonly priceMinor: number;
    }
  | {
      readonly act: "drive";
      readonly held: boolean;
      readonly minutes: number;
      readonly costMinor: number;
      /** The customer's words when it comes back; none if the repair held. */
      readonly complaint: readonly Reading[];
    }
  | { readonly act: "give-up"; readonly minutes: number };

/** Minutes on the clock for asking Airway for the next test (judgement). */
export const askMinutes = 5;
/** Minutes for cleaning up and the test drive (judgement). */
export const driveMinutes = 5;

/** The state of a case after some actions. */
export interface BayScore {
  readonly minutes: number;
  readonly moneyMinor: number;
  /** Locations that are open. */
  readonly open: ReadonlySet<string>;
  /** What was heard and seen since the case began, starting with the first complaint. */
  readonly readings: readonly Reading[];
  /** Parts fitted, each once. */
  readonly fitted: readonly string[];
  readonly comebacks: number;
  /** The customer's latest words. */
  readonly complaint: readonly Reading[];
  readonly over: "held" | "gave-up" | null;
}

/** Adds up the actions: minutes, money, what is disconnected and what was fitted. */
export function scoreOf(own: PracticeCase, acts: readonly PracticeAct[], costs: StoppingCosts): BayScore {
  let [minutes, spent, comebacks] = [0, 0, 0];
  const open = new Set<string>();
  const readings: Reading[] = [...own.complaint];
  const fitted = new Set<string>();
  let complaint = own.complaint;
  let over: BayScore["over"] = null;
  for (const act of acts) {
    minutes += act.minutes;
    if (act.act === "look") readings.push(act.reading);
    if (act.act === "open") open.add(act.place);
    if (act.act === "fit") {
      for (const part of act.parts) fitted.add(part);
      for (const place of act.opened) open.add(place);
      spent += act.priceMinor;
    }
    if (act.act === "give-up") over = "gave-up";
    if (act.act !== "drive") continue;
    spent += act.costMinor;
    // It was reassembled for the drive.
    open.clear();
    if (act.held) over = "held";
    else {
      comebacks += 1;
      complaint = act.complaint;
      readings.push(...act.complaint);
    }
  }
  return {
    minutes,
    moneyMinor: spent + minutesMinor(minutes, costs),
    open,
    readings,
    fitted: [...fitted],
    comebacks,
    complaint,
    over,
  };
}

export type Acted =
  | { readonly ok: true; readonly act: PracticeAct }
  | { readonly ok: false; readonly why: string };

const refused = (why: string): Acted => ({ ok: false, why });

/** The cost of fitting some parts, by the shop's own prices and minutes. */
export function repairCost(
  compiled: CompiledCircuit,
  parts: readonly string[],
  costs: StoppingCosts,
): RepairCost {
  let [priceMinor, minutes] = [0, 0];
  for (const id of parts) {
    const kind = repairKind(compiled.netlist.circuit, id);
    const own = costs.repairs?.[id] ?? costs.repairs?.[kind] ?? repairDefaults[kind];
    priceMinor += own?.priceMinor ?? 0;
    minutes += own?.minutes ?? 0;
  }
  return { priceMinor, minutes };
}

/** Locations of some parts that are not open, and the minutes to open them. */
export function accessStepsTo(
  { places }: Pick<Circuit, "places">,
  parts: readonly string[],
  open: ReadonlySet<string>,
): { readonly places: readonly string[]; readonly minutes: number } {
  const shut = places.filter((place) => !open.has(place.id) && place.parts.some((id) => parts.includes(id)));
  return {
    places: shut.map(({ id }) => id),
    minutes: shut.reduce((sum, { minutes }) => sum + minutes, 0),
  };
}

const nothingWrong: Fault = { names: [], parts: [], changes: [], presentShare: 1 };

/**
 * Parts that are new and still good: on the drive, a remaining cause damages its victim's new part.
 * @param truth what is wrong, the cause first
 */
export function goodParts(truth: readonly string[], acts: readonly PracticeAct[]): ReadonlySet<string> {
  const [cause = "", ...victims] = truth;
  const good = new Set<string>();
  for (const act of acts) {
    if (act.act === "fit") for (const part of act.parts) good.add(part);
    if (act.act === "drive" && !act.held && !good.has(cause)) for (const part of victims) good.delete(part);
  }
  return good;
}

/** True if every faulty part is new and still good. */
export const isCured = (truth: readonly string[], acts: readonly PracticeAct[]): boolean => {
  const good = goodParts(truth, acts);
  return truth.every((part) => good.has(part));
};

/** What is still wrong after some actions. */
export function faultLeft(netlist: Netlist, fault: Fault, acts: readonly PracticeAct[]): Fault {
  const { names, parts } = fault;
  const good = goodParts(parts, acts);
  const standing = names.filter((_, index) => !good.has(parts[index] ?? parts[0] ?? ""));
  if (standing.length === 0) return nothingWrong;
  const placed = placeFault(netlist, standing);
  return placed.ok ? placed.value : nothingWrong;
}

/**
 * A simulated vehicle in the bay. It knows the hidden fault and does not reveal it: each action returns what was seen,
 * and nothing else.
 */
export class PracticeBay {
  private readonly fault: Fault;
  private readonly exact: Netlist;
  private readonly compiled: CompiledCircuit;
  readonly standing: BayScore;

  constructor(
    on: PracticeCircuit,
    private readonly own: PracticeCase,
    readonly acts: readonly PracticeAct[],
    private readonly costs: StoppingCosts,
  ) {
    this.exact = on.exact;
    this.compiled = on.compiled;
    const placed = placeFault(this.exact, own.fault);
    if (!placed.ok) throw new Error(placed.problems.map(problemText).join("; "));
    this.fault = placed.value;
    this.standing = scoreOf(own, acts, costs);
  }

  private left(): Fault {
    return faultLeft(this.exact, this.fault, this.acts);
  }

  /** True once nothing is wrong any more. */
  private get cured(): boolean {
    return this.left().names.length === 0;
  }

  /** Takes a test on the live vehicle; refused if something is in the way. */
  look(test: Test): Acted {
    const over = this.refusedOver();
    if (over) return over;
    const [problem] = testProblems(this.compiled, test);
    if (problem) return refused(problemText(problem));
    if (asksTheUnreachable(this.exact, test))
      return refused("No probe reaches that with the plug on. Back-probe the plug's pin, or unplug it.");
    const cost = testCost(this.compiled, test);
    const shut = cost.places.filter(({ id }) => !this.standing.open.has(id));
    if (shut.length > 0)
      return refused(`First remove what is in the way: ${shut.map(({ id }) => placeWords(id)).join(", ")}.`);
    const woken = this.acts.some((act) => act.act === "look" && act.woke);
    const vehicle = vehicleOf(this.exact, this.own, this.left(), 104_729 * (this.acts.length + 1), woken);
    const reading = vehicle.take(test);
    return {
      ok: true,
      act: {
        act: "look",
        reading,
        minutes: cost.minutes,
        ...(vehicle.woken ? { woke: true } : {}),
        ...(test.test === "listen" ? { rpm: Math.round(vehicle.rpm(test)) } : {}),
      },
    };
  }

  /** Removes what covers a location. */
  open(place: string): Acted {
    const over = this.refusedOver();
    if (over) return over;
    const found = this.compiled.netlist.circuit.places.find(({ id }) => id === place);
    if (!found) return refused("This vehicle has no such place.");
    if (this.standing.open.has(place)) return refused("That is already off.");
    return { ok: true, act: { act: "open", place, minutes: found.minutes } };
  }

  /** Asks Airway for its next test. */
  ask(): Acted {
    const over = this.refusedOver();
    if (over) return over;
    const { readings, repairs } = stretchesOf(this.own, this.acts, this.fault.parts);
    const result = diagnose(this.compiled, readings, { costs: this.costs, repairs, looks: 1 });
    const next = result.ok && result.value.verdict.state === "open" ? result.value.next[0]?.test : undefined;
    return { ok: true, act: { act: "ask", look: next ?? null, minutes: askMinutes } };
  }

  /**
   * Fits parts.
   * @param odds the trainee's odds that they are right, 0 to 1
   */
  fit(parts: readonly string[], odds: number): Acted {
    const over = this.refusedOver();
    if (over) return over;
    const { circuit } = this.compiled.netlist;
    const known = parts.every((id) => repairKind(circuit, id) !== "unknown");
    if (parts.length === 0 || !known) return refused("Choose what to fit.");
    if (!(odds >= 0.01 && odds <= 0.99)) return refused("Enter how sure you are, 1 to 99 %.");
    const cost = repairCost(this.compiled, parts, this.costs);
    const way = accessStepsTo(circuit, parts, this.standing.open);
    return {
      ok: true,
      act: {
        act: "fit",
        parts: [...new Set(parts)],
        odds,
        opened: way.places,
        minutes: cost.minutes + way.minutes,
        priceMinor: cost.priceMinor,
      },
    };
  }

  /** Hands the vehicle over: the repair held, or it comes back. */
  drive(): Acted {
    const over = this.refusedOver();
    if (over) return over;
    if (this.standing.fitted.length === 0)
      return refused("Nothing has been repaired yet, so it would come straight back.");
    const held = this.cured;
    const again = held
      ? null
      : new PracticeBay(
          { exact: this.exact, compiled: this.compiled },
          this.own,
          [...this.acts, { act: "drive", held: false, minutes: 0, costMinor: 0, complaint: [] }],
          this.costs,
        );
    return {
      ok: true,
      act: {
        act: "drive",
        held,
        minutes: driveMinutes,
        costMinor: held ? 0 : this.costs.comebackMinor,
        complaint: again ? complaintOf(this.exact, this.own, again.left(), this.standing.comebacks + 1) : [],
      },
    };
  }

  giveUp(): Acted {
    return this.refusedOver() ?? { ok: true, act: { act: "give-up", minutes: 0 } };
  }

  private refusedOver(): Acted | null {
    return this.standing.over ? refused("This case is finished. See its debrief.") : null;
  }
}

const placeWords = (id: string): string => id.replaceAll("-", " ");

/** The evidence: readings, and the repairs between them that did not cure the vehicle. */
export interface Stretches {
  readonly readings: readonly Reading[];
  readonly repairs: readonly FailedRepair[];
}

/**
 * What was heard and seen up to the repair that cured it. A failed repair shows in the first test after it or in the
 * comeback; tests on a cured vehicle say nothing about its fault.
 * @param truth what has to be fitted for the repair to hold
 */
export function stretchesOf(
  own: PracticeCase,
  acts: readonly PracticeAct[],
  truth: readonly string[],
): Stretches {
  const readings: Reading[] = [...own.complaint];
  const repairs: FailedRepair[] = [];
  let fresh: string[] = [];
  const failed = (): void => {
    if (fresh.length > 0) repairs.push({ after: readings.length, parts: [...new Set(fresh)] });
    fresh = [];
  };
  for (const [index, act] of acts.entries()) {
    if (act.act === "fit") fresh.push(...act.parts);
    if (isCured(truth, acts.slice(0, index + 1))) continue;
    if (act.act === "look") {
      failed();
      readings.push(act.reading);
    }
    if (act.act !== "drive") continue;
    failed();
    readings.push(...act.complaint);
  }
  return { readings, repairs };
}
