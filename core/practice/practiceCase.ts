import { type Chance, chanceFrom } from "../chance/chance";
import { believe, rankedRepairs, repairBelief } from "../diagnose/belief/belief";
import { swapBySymptom } from "../diagnose/tests/flowChart";
import { type CatalogueEntry, catalogue } from "../fault/catalogue";
import { type Fault, placeFault } from "../fault/fault";
import { type FaultName, faultId } from "../fault/faultId";
import { sameParts, theCar } from "../fault/repair";
import { allTools } from "../predict/observations/tool";
import type { Reading } from "../predict/reading";
import type { CompiledCircuit } from "../predict/tables/compiledCircuit";
import { perCircuit, perCircuitAnd } from "../predict/tables/perCircuit";
import { type Parsed, problemText } from "../problem/problem";
import { buildNetlist } from "../solve/buildNetlist";
import type { Netlist } from "../solve/netlist/netlist";
import { followAirway, type Job } from "./followAirway";
import { outcomeOf } from "./outcome";
import { behaviourOf, waits } from "./sampledFault";
import { sampleSeverity } from "./sampledVehicle";
import { SimulatedVehicle } from "./simulatedVehicle";
import { harderWorld, usualWorld, type World } from "./world";

/** How hard a case is. */
export const practiceLevels = ["first", "usual", "hard"] as const;
export type PracticeLevel = (typeof practiceLevels)[number];

/** What lies behind a case. */
export const practiceKinds = ["single", "cause", "intermittent", "slip"] as const;
export type PracticeKind = (typeof practiceKinds)[number];

/**
 * A circuit to practise on. The vehicle is solved wire by wire, while the engine uses the circuit with lumped wires.
 */
export interface PracticeCircuit {
  readonly exact: Netlist;
  readonly compiled: CompiledCircuit;
}

/** A circuit compiled for practice. */
export function practiceCircuit(compiled: CompiledCircuit): PracticeCircuit {
  return { exact: exactNetlist(compiled), compiled };
}

const exactNetlist = perCircuit(({ netlist }): Netlist => {
  const exact = buildNetlist(netlist.circuit);
  if (!exact.ok) throw new Error(exact.problems.map(problemText).join("; "));
  return exact.value;
});

/** A vehicle with a hidden fault. Only its complaint is ever sent to the page. */
export interface PracticeCase {
  readonly level: PracticeLevel;
  readonly kind: PracticeKind;
  /** What is wrong, the cause first. */
  readonly fault: readonly FaultName[];
  /** Seed of this vehicle's own values, senses and noise. */
  readonly seed: number;
  /** What the customer says. */
  readonly complaint: readonly Reading[];
}

/** Modes for a beginner's vehicle: something is open, stuck or stopped, and shows wherever one tests. */
const plainModes: ReadonlySet<string> = new Set([
  "open",
  "blown",
  "dead",
  "full-on",
  "seized",
  "coil-open",
  "stuck-open",
  "welded",
  "debris",
]);
const intermittent: ReadonlySet<string> = new Set(["loose", "dead-spot", "thermal", "fades-hot", "chafed"]);

/** The bay: hands reach what hands reach, electronics stutter, damage travels, and people say when it fails. */
const bay: World = {
  ...usualWorld,
  slip: 0,
  realHands: true,
  dropOutVolts: harderWorld.dropOutVolts,
  flickerShare: harderWorld.flickerShare,
  neighbourMarks: harderWorld.neighbourMarks,
  whileFailing: harderWorld.whileFailing,
  timeSaid: 1,
};

/** The vehicles of a level: a beginner's show every sign, and a hard one's customer may be wrong. */
const worlds: Readonly<Record<PracticeLevel, World>> = {
  first: { ...bay, heardSlip: 0, senses: 1, handError: 0.05 },
  usual: { ...bay, heardSlip: 0 },
  hard: bay,
};

/** The world of a case's vehicle, by its level and kind. */
export function worldOf({ level, kind }: Pick<PracticeCase, "level" | "kind">): World {
  const world = worlds[level];
  if (kind === "slip") return { ...world, recentWork: true };
  return kind === "intermittent" ? { ...world, comesAndGoes: 1 } : world;
}

/** Kinds a level draws from unless one is chosen, with the frequency of their entries. */
const kindsOf: Readonly<Record<PracticeLevel, readonly PracticeKind[]>> = {
  first: ["single"],
  usual: ["single", "single", "single", "slip", "cause"],
  hard: ["single", "cause", "cause", "intermittent", "slip"],
};

/** Faults of the catalogue that a level's cases of a kind may hide. */
export function entriesOf(netlist: Netlist, level: PracticeLevel, kind: PracticeKind): CatalogueEntry[] {
  const { parts } = netlist.circuit;
  // What an earlier repair leaves behind: a pin not seated, a loose ground, a fuse blown by a test lead, a wire pulled
  // out.
  const touched = (where: string): boolean => {
    const own = where.split(/[.:/]/)[0] ?? where;
    const part = parts.find(({ id }) => id === own);
    return !part || part.kind === "ground" || part.kind === "fuse" || part.kind === "inline";
  };
  return catalogue(netlist).filter(({ fault: { names } }) => {
    const [first] = names;
    if (!first || first.where === theCar) return false;
    if (kind === "cause") return names.length === 2;
    if (names.length !== 1) return false;
    if (kind === "intermittent") return intermittent.has(first.mode) || waits.has(first.mode);
    if (kind === "slip") return touched(first.where) && ["open", "high", "blown"].includes(first.mode);
    return level === "first" ? plainModes.has(first.mode) : !intermittent.has(first.mode);
  });
}

/** Why a sampled vehicle makes no case. */
export type Rejected = "no complaint" | "trivial" | "not solved with these tools";

export interface CaseMade {
  readonly case: PracticeCase;
  /** Number of tests Airway takes on it after the complaint, and their minutes. */
  readonly looks: number;
  readonly minutes: number;
  /** Belief in the likeliest repair from the complaint alone. */
  readonly atFirst: number;
}

/** Belief from the complaint alone above which a case is too easy. */
const givenAway: Readonly<Record<PracticeLevel, number>> = { first: 0.95, usual: 0.85, hard: 0.75 };
const leastLooks: Readonly<Record<PracticeLevel, number>> = { first: 1, usual: 1, hard: 2 };

/**
 * Whether a vehicle is worth practising on: there is a complaint, it does not give the repair away, and someone who
 * tests on finds it with these tools. At `usual` and `hard`, replacing what the symptom suggests must not cure it.
 */
export function judgeCase(on: PracticeCircuit, own: PracticeCase, fault: Fault): CaseMade | Rejected {
  const { compiled } = on;
  const { complaint } = own;
  if (complaint.length === 0) return "no complaint";
  const atFirst = Math.max(
    ...rankedRepairs(repairBelief(compiled, believe(compiled, complaint))).map(([, p]) => p),
  );
  if (atFirst > givenAway[own.level]) return "trivial";
  if (own.level !== "first" && sameParts([swapBySymptom(compiled, complaint)], fault.parts)) return "trivial";
  const first = playedOn(on, own, fault, 1);
  if (first.looks < leastLooks[own.level]) return "trivial";
  // Again with other noise, because a case that was only solved by luck does not count.
  const solved = [first, playedOn(on, own, fault, 2)].every(
    ({ diagnosis }) => outcomeOf(diagnosis, fault) !== "wrong",
  );
  if (!solved) return "not solved with these tools";
  return { case: own, looks: first.looks, minutes: first.minutes, atFirst };
}

/**
 * A case played by a technician who follows Airway.
 * @param noise which visit of the vehicle: its own values stay, the noise of each test differs
 */
export function playedOn(
  { exact, compiled }: PracticeCircuit,
  own: PracticeCase,
  fault: Fault,
  noise: number,
): Job {
  const vehicle = vehicleOf(exact, own, fault, 424_243 * noise);
  return followAirway(compiled, vehicle, own.complaint, { looks: 1, tools: allTools });
}

/**
 * The vehicle of a case on one visit: its values are the case's own, and lasting things stay the same.
 * @param fault what is wrong with it by then
 * @param visit selects the noise of the tests on this visit
 * @param awoken true once a knock has freed a dead spot
 */
export const vehicleOf = (
  netlist: Netlist,
  own: Pick<PracticeCase, "level" | "kind" | "seed">,
  fault: Fault,
  visit: number,
  awoken = false,
): SimulatedVehicle =>
  new SimulatedVehicle(
    netlist,
    fault,
    worldOf(own),
    chanceFrom(own.seed),
    { chance: chanceFrom(own.seed + visit), lasting: lastingChance(own.seed), awoken },
    // It behaves the same on every visit.
    behaviourOf(netlist, fault, worldOf(own), lastingChance(own.seed)("behaviour")),
  );

/** A random number that is the same for the same thing on the same vehicle: FNV-1a over its name, from the seed. */
export const lastingChance =
  (seed: number) =>
  (key: string): Chance => {
    let hash = 0x811c9dc5 ^ seed;
    for (let i = 0; i < key.length; i++) hash = Math.imul(hash ^ key.charCodeAt(i), 0x01000193);
    return chanceFrom(hash >>> 0);
  };

/** The fault of a case in its circuit. Names the circuit does not have are refused. */
export const faultOf = (netlist: Netlist, own: Pick<PracticeCase, "fault">): Parsed<Fault> =>
  placeFault(netlist, own.fault);

/** What a level may draw, by kind of case. */
const caseEntries = perCircuitAnd((compiled, level: PracticeLevel) => {
  const entries = (kind: PracticeKind) => entriesOf(exactNetlist(compiled), level, kind);
  return {
    single: entries("single"),
    cause: entries("cause"),
    intermittent: entries("intermittent"),
    slip: entries("slip"),
  };
});

/**
 * One attempt at a case: a vehicle sampled from a seed, and whether it is worth practising on. The caller decides how
 * often to try and when to yield.
 */
export function tryCase(
  on: PracticeCircuit,
  level: PracticeLevel,
  kind: PracticeKind | null,
  seed: number,
): CaseMade | Rejected {
  const { exact, compiled } = on;
  const chance = chanceFrom(seed);
  const wanted = kind ?? chance.pick(kindsOf[level]);
  const entries = caseEntries(compiled, level)[wanted];
  if (entries.length === 0) return "no complaint";
  // Every kind of fault equally often, because daily work already trains the frequent ones.
  const modes = [...new Set(entries.map(({ fault }) => modesOf(fault)))];
  const mode = chance.pick(modes);
  const entry = chance.pick(entries.filter(({ fault }) => modesOf(fault) === mode));
  const fault = sampleSeverity(exact, entry, worlds[level], chance);
  const own = { level, kind: wanted, fault: fault.names, seed };
  return judgeCase(on, { ...own, complaint: complaintOf(exact, own, fault, 0) }, fault);
}

const modesOf = ({ names }: Fault): string => names.map(({ mode }) => mode).join("+");

/**
 * What the customer of a case says.
 * @param visit 0 when the vehicle first comes, 1 when it comes back
 */
export function complaintOf(
  netlist: Netlist,
  own: Pick<PracticeCase, "level" | "kind" | "seed">,
  fault: Fault,
  visit: number,
): Reading[] {
  return vehicleOf(netlist, own, fault, 7919 * (visit + 1)).complaint();
}

/** The fault as one line, for the debrief and the trainer. */
export const caseFaultId = (own: PracticeCase): string => faultId(own.fault);
