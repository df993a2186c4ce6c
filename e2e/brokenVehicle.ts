// A vehicle with a hidden fault for the tests' technician. It answers tests from the operating point, with nominal
// parts and hard thresholds. The page never sees the fault.
import { readFileSync } from "node:fs";
import { join } from "node:path";
import { buildNetlist } from "@core/solve/buildNetlist";
import { parseCircuit } from "../core/circuit/parseCircuit";
import { faultFromId } from "../core/fault/fault";
import type { Test } from "../core/predict/reading";
import type { Netlist } from "../core/solve/netlist/netlist";
import { lampEnds, type Setup, setupState } from "../core/solve/netlist/setup";
import { nominalValues } from "../core/solve/netlist/values";
import { PointSolver } from "../core/solve/pointSolver";
import { lampVolts, testLight } from "../core/solve/tungstenLamp";

export interface BrokenVehicle {
  /** The word or the figure a test gives; null is a meter's OL (open). */
  readonly answer: (look: Test) => string | number | null;
  /** The airflow of a speed, in the complaint's words. */
  readonly airflow: (setting: string) => "none" | "weak" | "normal" | "strong";
}

function netlistOf(text: string): Netlist {
  const circuit = parseCircuit(JSON.parse(text));
  const netlist = circuit.ok ? buildNetlist(circuit.value) : circuit;
  if (!netlist.ok) throw new Error("the circuit cannot be solved");
  return netlist.value;
}

/** A vehicle with a shipped circuit. */
export const brokenVehicle = (circuitId: string, faultId: string): BrokenVehicle =>
  brokenVehicleOf(
    readFileSync(join(process.cwd(), "demo", "circuits", `${circuitId}.json`), "utf8"),
    faultId,
  );

/** What tests of the senses find if nothing is wrong mechanically. */
const unremarkable: Readonly<Record<string, string>> = {
  look: "clean",
  spin: "free",
  listen: "quiet",
  smell: "none",
  history: "no",
  tap: "nothing",
  ripple: "even",
};

/** A vehicle with the circuit in a file's text. */
export function brokenVehicleOf(text: string, faultId: string): BrokenVehicle {
  const netlist = netlistOf(text);
  const fault = faultFromId(netlist, faultId);
  if (!fault.ok) throw new Error(faultId);
  const { changes } = fault.value;
  const solver = new PointSolver(netlist);
  const values = nominalValues(netlist);
  const node = (point: string): number => netlist.nodeOf.get(point) ?? -1;
  const speed = (setup: Setup, broken: boolean): number =>
    solver.solve(values, setupState(netlist, setup), broken ? changes : []).speeds[0] ?? 0;

  const between = (look: Test, one: string, other: string) => {
    const solved = solver.solve(values, setupState(netlist, look), changes);
    const at = (point: string): number => (node(point) < 0 ? 0 : (solved.volts[node(point)] ?? 0));
    const lost = (point: string): boolean => node(point) >= 0 && solved.floating[node(point)] === 1;
    const volts = lost(one) || lost(other) ? 0 : at(one) - at(other);
    return { volts, ohms: solver.ohmsBetween(node(one), node(other)) };
  };

  const top = netlist.circuit.settings.at(-1);
  const airflow = (setup: Setup) => {
    const sound = speed(setup, false);
    // Where a healthy blower stands still, what blows is compared with its top speed.
    if (sound < 1) {
      const share = speed(setup, true) / speed({ key: "run", setting: top }, false);
      return share < 0.08 ? "none" : share < 0.5 ? "weak" : "strong";
    }
    const share = speed(setup, true) / sound;
    return share < 0.08 ? "none" : share < 0.75 ? "weak" : share < 1.25 ? "normal" : "strong";
  };

  return {
    airflow: (setting) => airflow({ key: "run", setting }),
    answer: (look) => {
      switch (look.test) {
        case "light": {
          const { volts, ohms } = between(look, look.probe, look.clip);
          const lit = lampVolts(testLight, volts, ohms);
          return lit > 9 ? "bright" : lit > 3 ? "dim" : "dark";
        }
        case "volts":
          return Math.round(between(look, look.red, look.black).volts * 100) / 100;
        case "ohms": {
          solver.solve(values, setupState(netlist, look, true), changes);
          const ohms = solver.ohmsBetween(node(look.red), node(look.black));
          return Number.isFinite(ohms) && ohms < 2e6 ? Math.round(ohms * 100) / 100 : null;
        }
        case "airflow":
          return airflow(look);
        case "amps": {
          const solved = solver.solve(values, setupState(netlist, look), changes);
          return Math.round((solved.amps[netlist.branchOf.get(look.around) ?? -1] ?? 0) * 10) / 10;
        }
        case "lampload": {
          const ends = lampEnds(netlist, look.lampFor) ?? ["", ""];
          const lit = Math.abs(between(look, ends[0], ends[1]).volts);
          return lit > 9 ? "bright" : lit > 3 ? "dim" : "dark";
        }
        case "swap":
          return fault.value.parts.every((part) => part === look.at) ? "fixed" : "same";
        default: {
          const word = unremarkable[look.test];
          if (word === undefined) throw new Error(`this vehicle does not answer "${look.test}"`);
          return word;
        }
      }
    },
  };
}
