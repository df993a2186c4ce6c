import { LRUCache } from "lru-cache";
import { type Repair, RepairList } from "../fault/repair";
import { CompiledCircuit } from "../predict/tables/compiledCircuit";
import { problemText } from "../problem/problem";
import { buildNetlist } from "../solve/buildNetlist";
import type { Candidate } from "./candidate";
import { candidateOf } from "./candidateCircuit";
import type { RepairPlace } from "./place";
import type { WiringPlan } from "./wiringPlan";

/** A candidate ready to be weighed. */
export interface CompiledCandidate {
  readonly candidate: Candidate;
  readonly compiled: CompiledCircuit;
  /** Each variant's repair by places, the cause first. */
  readonly repairs: readonly Repair[];
}

/** Whole vehicles sampled for each candidate: fewer than for a known circuit, because there are many candidates. */
const samples = 6;

/** Number of candidates kept: all those of two vehicles that look different. */
const mostCandidates = 48;

/** The places of a repair, the cause first, each once. */
const placesOf = ({ repairPlace }: Candidate, parts: readonly string[]): RepairPlace[] => [
  ...new Set(parts.map((part) => repairPlace.get(part) ?? ("duct" as const))),
];

/** Compiled candidates, kept by the way they are wired; the least recently used is dropped first. */
export class CandidateCache {
  /** Repairs by place, of every candidate. */
  private readonly repairs = new RepairList();
  private readonly kept: LRUCache<string, Omit<CompiledCandidate, "candidate">>;

  /** @param most largest number of candidates kept */
  constructor(most = mostCandidates) {
    this.kept = new LRUCache({ max: most });
  }

  /** The repair of some places, the cause first; one object for all candidates. */
  repairOf(places: readonly RepairPlace[]): Repair {
    return this.repairs.of(places);
  }

  /** A candidate compiled; once for each way to wire a vehicle, whatever its share is this time. */
  compile(plan: WiringPlan): CompiledCandidate {
    const candidate = candidateOf(plan);
    const known = this.kept.get(candidate.id);
    if (known) return { ...known, candidate };
    const netlist = buildNetlist(candidate.circuit, { lumpWires: true });
    if (!netlist.ok) throw new Error(netlist.problems.map(problemText).join("; "));
    const compiled = new CompiledCircuit(netlist.value, { samples });
    const repairs = compiled.variants.map(({ fault }) => this.repairs.of(placesOf(candidate, fault.parts)));
    this.kept.set(candidate.id, { compiled, repairs });
    return { candidate, compiled, repairs };
  }
}
