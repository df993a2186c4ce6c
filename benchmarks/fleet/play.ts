import type { Chance } from "@core/chance/chance";
import { believe, repairBelief } from "@core/diagnose/belief/belief";
import { entropyBits } from "@core/diagnose/belief/entropy";
import type { DiagnoseOptions, Diagnosis } from "@core/diagnose/diagnose";
import { followChart, swapBySymptom } from "@core/diagnose/tests/flowChart";
import { catalogue } from "@core/fault/catalogue";
import type { Fault } from "@core/fault/fault";
import { faultId } from "@core/fault/faultId";
import { followAirway } from "@core/practice/followAirway";
import { type Outcome, outcomeOf } from "@core/practice/outcome";
import { type FaultSource, faultSource, sampleFault } from "@core/practice/sampledFault";
import { SimulatedVehicle } from "@core/practice/simulatedVehicle";
import type { World } from "@core/practice/world";
import { testOf } from "@core/predict/reading";
import type { CompiledCircuit } from "@core/predict/tables/compiledCircuit";
import { asksTheUnreachable } from "@core/predict/touchedTest";
import type { Netlist } from "@core/solve/netlist/netlist";

/** One vehicle's job by Airway and by the fixed strategies. */
export interface Played {
  readonly circuit: string;
  readonly truth: string;
  /** The group it is reported under. */
  readonly kind: string;
  readonly modes: string;
  readonly outcome: Outcome;
  readonly state: string;
  readonly p: number;
  readonly replace: string;
  /** Whether a part of the verdict had really failed. */
  readonly failed: boolean;
  readonly looks: number;
  /** Tests at a point no probe can touch. */
  readonly unreachable: number;
  readonly minutes: number;
  /** Trips to a place of the vehicle. */
  readonly visits: number;
  readonly entropy: number;
  readonly chart: { readonly right: boolean; readonly looks: number; readonly minutes: number };
  readonly swapRight: boolean;
  readonly log: readonly string[];
}

export interface PlayOptions {
  readonly draw: "prior" | "even";
  readonly world: World;
  readonly diagnose: DiagnoseOptions;
  /** Whether the fixed strategies are played too. */
  readonly compare: boolean;
}

/**
 * The outcome of a job. What heat or water has marked is work in any case, so a verdict that renews it as well is as
 * right as one that does not.
 */
function scored(diagnosis: Diagnosis, truth: Fault, vehicle: SimulatedVehicle): Outcome {
  const unmarked = (part: string): boolean =>
    truth.parts.includes(part) || !["melted", "wet"].includes(vehicle.eyes(part));
  const replace = diagnosis.verdict.replace.filter(unmarked);
  return outcomeOf({ ...diagnosis, verdict: { ...diagnosis.verdict, replace } }, truth);
}

const sources = new WeakMap<Netlist, FaultSource>();

function sourceOf(netlist: Netlist): FaultSource {
  const known = sources.get(netlist) ?? faultSource(netlist, catalogue(netlist));
  sources.set(netlist, known);
  return known;
}

/** Samples one vehicle and plays its job. */
export function playVehicle(
  netlist: Netlist,
  compiled: CompiledCircuit,
  chance: Chance,
  options: PlayOptions,
): Played {
  const source = sourceOf(netlist);
  for (let attempt = 0; ; attempt++) {
    if (attempt > 200) throw new Error(`${netlist.circuit.id}: nobody complains`);
    const { fault, behaviour, kind } = sampleFault(netlist, source, options.draw, options.world, chance);
    const vehicle = new SimulatedVehicle(netlist, fault, options.world, chance, null, behaviour);
    const complaint = vehicle.complaint();
    if (complaint.length === 0) continue;
    const job = followAirway(compiled, vehicle, complaint, options.diagnose);
    const wanted = [...fault.parts].sort().join("+");
    const chart = options.compare
      ? followChart(
          compiled,
          new SimulatedVehicle(netlist, fault, options.world, chance, null, behaviour),
          complaint,
        )
      : { replace: "", looks: 0, minutes: 0, readings: [] };
    const { verdict } = job.diagnosis;
    return {
      circuit: netlist.circuit.id,
      truth: faultId(fault.names),
      kind,
      modes: fault.names.map(({ mode }) => mode).join("+"),
      outcome: scored(job.diagnosis, fault, vehicle),
      state: verdict.state,
      p: verdict.p,
      replace: verdict.replace.join("+"),
      failed: verdict.replace.some((part) => fault.parts.includes(part)),
      looks: job.looks,
      unreachable: job.readings.filter(
        (reading) => !reading.heard && asksTheUnreachable(netlist, testOf(reading)),
      ).length,
      minutes: job.minutes,
      visits: job.visits,
      entropy: entropyBits([...repairBelief(compiled, believe(compiled, complaint)).values()]),
      chart: { right: chart.replace === wanted, looks: chart.looks, minutes: chart.minutes },
      swapRight: swapBySymptom(compiled, complaint) === wanted,
      log: job.readings.map((reading) => JSON.stringify(reading)),
    };
  }
}
