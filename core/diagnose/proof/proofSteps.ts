import { plugsOf } from "../../circuit/plugs";
import { nodeAt } from "../../predict/probePoints";
import { touched } from "../../predict/reach";
import type { Reading, Test } from "../../predict/reading";
import type { CompiledCircuit, LiveSetup } from "../../predict/tables/compiledCircuit";
import type { ProofStep } from "./proofStep";
import { type Compared, compared, isMissing, isStray, isThere, isWrong } from "./soundVehicle";

/** Set-up of a live test: a speed with the key on, or the key off. */
export type ProofSetup = LiveSetup | { readonly key: "off" };

/** A command within this many volts of a sound vehicle's counts as right (judgement). */
const commandVolts = 0.6;
/** Volts between a ground's stud and the battery beyond a sound vehicle's (common practice, no source). */
const groundVolts = 0.2;
/** Differences of a sound part that do not count, in ohms, in amps and in volts at an output (judgement). */
const leastOhms = 0.5;
const leastAmps = 1;
const leastOutputVolts = 0.8;

const text = (selectors: Test["selectors"]): string => JSON.stringify(Object.entries(selectors ?? {}).sort());

/** Whether a test is taken in a set-up, whatever is unplugged. */
function isIn(test: Test, setup: ProofSetup): boolean {
  if (setup.key === "off") return (test.key ?? "off") === "off";
  return (
    test.key === "run" && test.setting === setup.setting && text(test.selectors) === text(setup.selectors)
  );
}

const isBridged = ({ bridged }: Test): boolean => (bridged?.length ?? 0) > 0;
const isOut = ({ unplugged }: Test, plugs: readonly string[]): boolean =>
  plugs.some((plug) => unplugged?.includes(plug) ?? false);

/** The points at which a terminal can be probed: where it is itself out of reach, the next ones along its wires. */
export function pointsAt({ netlist }: CompiledCircuit, terminal: string): string[] {
  const pin = netlist.points.pinOnTerminal.get(terminal);
  const far = netlist.circuit.wires.flatMap(({ from, to }) =>
    [terminal, pin].includes(from) ? [to] : [terminal, pin].includes(to) ? [from] : [],
  );
  return pin ? [pin] : [terminal, ...far.map((point) => touched(netlist, point))];
}

/** The points between which the part lies that a wire's end is crimped to, as far as a probe reaches. */
export const wireEnds = ({ netlist }: CompiledCircuit, wire: string): readonly [string, string] | null => {
  const own = netlist.circuit.wires.find(({ id }) => id === wire);
  return own ? [touched(netlist, own.from), touched(netlist, own.to)] : null;
};

/** The steps of which proofs are made, on one circuit. */
export class ProofSteps {
  constructor(private readonly compiled: CompiledCircuit) {}

  private step(asks: (test: Test) => boolean, holds: (own: Compared) => boolean): ProofStep {
    return { asks, shows: (reading: Reading) => holds(compared(this.compiled, reading)) };
  }

  /** The two leads of a light or a meter on volts, as nodes. */
  private leads(test: Test): readonly [number, number] | null {
    const ends =
      test.test === "light" ? [test.probe, test.clip] : test.test === "volts" ? [test.red, test.black] : null;
    if (!ends) return null;
    const [one, other] = ends.map((point) => nodeAt(this.compiled, point) ?? Number.NaN);
    return [one as number, other as number];
  }

  private nodes(points: readonly string[]): Set<number> {
    return new Set(points.flatMap((point) => nodeAt(this.compiled, point) ?? []));
  }

  /** A light or a meter between one of these points and a post of the battery. */
  private probed(points: readonly string[], setup: ProofSetup): (test: Test) => boolean {
    const own = this.nodes(points);
    const { id } = this.compiled.netlist.battery;
    const posts = this.nodes([`${id}.+`, `${id}.-`]);
    return (test) => {
      if (isBridged(test) || !isIn(test, setup)) return false;
      const leads = this.leads(test);
      if (!leads) return false;
      const [one, other] = leads;
      return (own.has(one) && posts.has(other)) || (own.has(other) && posts.has(one));
    };
  }

  /** Feed or ground at one of these points. */
  there = (points: readonly string[], setup: ProofSetup): ProofStep =>
    this.step(this.probed(points, setup), isThere);

  /** The same at a ground terminal, where a meter that stays near 0 V against the battery tells it too. */
  grounded(points: readonly string[], setup: ProofSetup, plugs: readonly string[]): ProofStep {
    const asks = this.probed(points, setup);
    return this.step(
      (test) => asks(test) && !isOut(test, plugs),
      (own) => isThere(own) || (typeof own.seen === "number" && Math.abs(own.seen) <= groundVolts),
    );
  }

  missing = (points: readonly string[], setup: ProofSetup): ProofStep =>
    this.step(this.probed(points, setup), isMissing);

  /** Voltage where a sound vehicle has none. */
  stray = (points: readonly string[], setup: ProofSetup): ProofStep =>
    this.step(this.probed(points, setup), isStray);

  /** Feed and ground across two points at once. */
  across(one: readonly string[], other: readonly string[], setup: ProofSetup): ProofStep {
    const between = this.between(one, other);
    return this.step((test) => between(test) && isIn(test, setup) && !isBridged(test), isThere);
  }

  private between(one: readonly string[], other: readonly string[]): (test: Test) => boolean {
    const [own, others] = [this.nodes(one), this.nodes(other)];
    return (test) => {
      const leads = this.leads(test);
      if (!leads) return false;
      const [a, b] = leads;
      return (own.has(a) && others.has(b)) || (own.has(b) && others.has(a));
    };
  }

  /** Volts of a command, as in a sound vehicle or not, with these plugs off. */
  command(
    points: readonly string[],
    setup: ProofSetup,
    is: "right" | "wrong",
    off: readonly string[] = [],
  ): ProofStep {
    const asks = this.probed(points, setup);
    return this.step(
      (test) => test.test === "volts" && asks(test) && off.every((plug) => isOut(test, [plug])),
      ({ seen, sound }) => Math.abs(Number(seen) - Number(sound)) <= commandVolts === (is === "right"),
    );
  }

  /** An output that is not what the command asks for: its volts, or the load lamp in the motor's place. */
  output(points: readonly string[], motor: string, setup: ProofSetup): ProofStep {
    const asks = this.probed(points, setup);
    const across = this.between(points, points);
    return this.step(
      (test) =>
        asks(test) ||
        (across(test) && isIn(test, setup)) ||
        (test.test === "lampload" && test.lampFor === motor && isIn(test, setup)),
      (own) => isWrong(own, leastOutputVolts),
    );
  }

  /** The load lamp in a motor's place lights as in a sound vehicle. */
  lamp = (motor: string, setup: ProofSetup): ProofStep =>
    this.step((test) => test.test === "lampload" && test.lampFor === motor && isIn(test, setup), isThere);

  /** The motor does not run right although it should: its air, or its current. */
  runsWrong(motor: string, setup: ProofSetup): ProofStep {
    const [first] = this.compiled.netlist.motors;
    return this.step(
      (test) =>
        isIn(test, setup) &&
        !isBridged(test) &&
        (test.unplugged?.length ?? 0) === 0 &&
        ((test.test === "airflow" && (test.at ?? first?.part.id) === motor) || this.clamps(test, motor)),
      (own) => isWrong(own, leastAmps),
    );
  }

  /** A motor that runs on stops once these plugs are off. */
  stopsWithout = (motor: string, setup: ProofSetup, plugs: readonly string[]): ProofStep => {
    const [first] = this.compiled.netlist.motors;
    return {
      asks: (test) =>
        test.test === "airflow" &&
        (test.at ?? first?.part.id) === motor &&
        isIn(test, setup) &&
        plugs.every((plug) => isOut(test, [plug])),
      shows: (reading) => reading.test === "airflow" && reading.seen === "none",
    };
  };

  /** With every wire of a plug joined to the part's own pins by leads, the motor runs right. */
  runsPast(plug: string): ProofStep {
    return this.step(
      (test) =>
        test.test === "airflow" &&
        isOut(test, [plug]) &&
        (test.bridged ?? []).some((ends) => ends.some((point) => point.startsWith(`${plug}:`))),
      (own) => !isWrong(own, leastAmps),
    );
  }

  private clamps(test: Test, motor: string): boolean {
    const branch = this.compiled.netlist.branchOf;
    return test.test === "amps" && branch.get(test.around) === branch.get(motor);
  }

  /** The motor's current is not a sound one's. */
  drawsWrong = (motor: string, setup: ProofSetup): ProofStep =>
    this.step(
      (test) => isIn(test, setup) && this.clamps(test, motor),
      (own) => isWrong(own, leastAmps),
    );

  /** Fed by fused leads, the motor runs as it should or not. */
  onLeads(motor: string, runs: "right" | "wrong"): ProofStep {
    const own = new Set([`${motor}.+`, `${motor}.-`]);
    const [first] = this.compiled.netlist.motors;
    return this.step(
      (test) =>
        (test.bridged ?? []).flat().some((point) => own.has(point)) &&
        ((test.test === "airflow" && (test.at ?? first?.part.id) === motor) || this.clamps(test, motor)),
      (compare) => isWrong(compare, leastAmps) === (runs === "wrong"),
    );
  }

  /** The ohms of a part by itself, with its plug off. */
  ohms(terminals: readonly string[], are: "right" | "wrong"): ProofStep {
    const own = new Set(terminals);
    return this.step(
      (test) => test.test === "ohms" && own.has(test.red) && own.has(test.black),
      (compare) => isWrong(compare, leastOhms) === (are === "wrong"),
    );
  }

  /** Ohms to the body where a sound vehicle has none, from one of these points, with something unplugged. */
  shorted(points: readonly string[]): ProofStep {
    const own = this.nodes(points);
    return this.step(
      (test) => test.test === "ohms" && own.has(nodeAt(this.compiled, test.red) ?? Number.NaN),
      ({ seen, sound }) => Number(sound) > shortOhms * 10 && Number(seen) < shortOhms,
    );
  }

  /** No continuity between two points that a wire joins. */
  interrupted(one: string, other: string): ProofStep {
    const [a, b] = [this.nodes([one]), this.nodes([other])];
    return this.step(
      (test) => {
        if (test.test !== "ohms") return false;
        const [red, black] = [test.red, test.black].map((point) => nodeAt(this.compiled, point));
        return red !== undefined && black !== undefined && a.has(red) && b.has(black);
      },
      (own) => isWrong(own, leastOhms),
    );
  }

  /** Volts between a ground's stud and the battery while current flows. */
  groundDrop(stud: string, setup: ProofSetup): ProofStep {
    const { id } = this.compiled.netlist.battery;
    const between = this.between([stud], [`${id}.-`]);
    return this.step(
      (test) => test.test === "volts" && between(test) && isIn(test, setup),
      ({ seen, sound }) => Math.abs(Number(seen)) > Math.abs(Number(sound)) + groundVolts,
    );
  }

  plugsOf = (part: string): string[] => plugsOf(this.compiled.netlist.circuit, part);
}

/** Ohms to the body below which a wire is shorted (judgement). */
const shortOhms = 10;

/** One of some words as the result of a test of one part or plug. */
const told =
  (name: "look" | "tap" | "spin" | "ripple" | "swap") =>
  (at: string, ...words: readonly string[]): ProofStep => ({
    asks: (test) => test.test === name && test.at === at,
    shows: (reading) => reading.test === name && words.includes(reading.seen),
  });

export const seenAt = told("look");
/** Tapped or wiggled. */
export const tapped = told("tap");
/** Turned by hand. */
export const turned = told("spin");
export const rippled = told("ripple");
/** A known-good part in its socket. */
export const swapped = told("swap");

/** A noise heard by the technician that does not stay when the speed changes. */
export const noisy: ProofStep = {
  asks: (test) => test.test === "listen" && !test.ventCovered,
  shows: (reading) =>
    reading.test === "listen" && !reading.heard && reading.seen !== "quiet" && reading.followsSpeed !== false,
};

/** Silent with its vent hole covered. */
export const silencedAtVent: ProofStep = {
  asks: (test) => test.test === "listen" && test.ventCovered === true,
  shows: (reading) => reading.test === "listen" && reading.seen === "quiet",
};

/** A whistle, told or heard. */
export const whistles: ProofStep = {
  asks: (test) => test.test === "listen" && !test.ventCovered,
  shows: (reading) => reading.test === "listen" && reading.seen === "whistle",
};
