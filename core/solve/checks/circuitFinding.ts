import type { Circuit, Wire } from "../../circuit/circuit";
import { terminalsOf } from "../../circuit/parts/index";
import { ampacity } from "../../units/ampacity";
import { ampsText, listed, voltsText } from "../../units/wording";
import { type HealthyPoint, healthyPoints } from "../healthyPoint";
import type { Netlist } from "../netlist/netlist";

/** Something about a circuit that parses and solves, and yet can hardly be right. */
export interface CircuitFinding {
  /** Place in the file, as problems name it. */
  readonly path: string;
  readonly message: string;
  /** `wrong` where no vehicle could be built so; `doubtful` where one might be. */
  readonly weight: "wrong" | "doubtful";
}

/** Current a healthy blower circuit never reaches: a short between the battery's posts (judgement). */
const shortAmps = 120;
/** Two settings closer than this share of the motor's speed are one (judgement). */
const sameSpeed = 0.01;
/** Volts a healthy wire should not lose (common practice, no source: half a volt a side). */
const mostDrop = 0.5;
/** A fuse is chosen so that what it carries for long stays below this share (common practice, no source). */
const fuseShare = 0.8;

/**
 * What a circuit's own healthy currents say about it: terminals on nothing, a short across the battery, a speed
 * that changes nothing or turns the wrong way, a fuse or a wire too small for what it carries.
 * @returns findings in the order of the file; none for a circuit that can be believed
 */
export function circuitFindings(netlist: Netlist): CircuitFinding[] {
  const { circuit } = netlist;
  const points = healthyPoints(netlist);
  const short = shortFinding(netlist, points);
  return [
    ...looseTerminals(circuit),
    // With a short across the battery no other current means anything.
    ...(short
      ? [short]
      : [
          ...speedFindings(netlist, points),
          ...fuseFindings(circuit, points),
          ...wireFindings(circuit, points),
        ]),
  ];
}

function looseTerminals(circuit: Circuit): CircuitFinding[] {
  const used = new Set(circuit.wires.flatMap(({ from, to }) => [from, to]));
  return circuit.parts.flatMap((part, index): CircuitFinding[] => {
    // The battery's own ground, a relay's resting contact and an unused pin of an in-line plug are left open as a rule.
    if (part.kind === "inline" || part.kind === "battery") return [];
    if (part.kind === "splice") {
      const ends = circuit.wires.filter(({ from, to }) => [from, to].includes(`${part.id}.s`)).length;
      return ends > 1
        ? []
        : [{ path: `parts.${index}`, message: `${part.id} joins no wires`, weight: "doubtful" }];
    }
    const loose = terminalsOf(part).filter(
      (terminal) => !used.has(`${part.id}.${terminal}`) && !(part.kind === "relay" && terminal === "87a"),
    );
    if (loose.length === 0) return [];
    const inner = part.kind === "resistor" ? innerPoints(part.elements) : new Set<string>();
    const outer = loose.filter((terminal) => !inner.has(terminal));
    return outer.length === 0
      ? []
      : [
          {
            path: `parts.${index}`,
            message: `no wire at ${listed(outer.map((terminal) => `${part.id}.${terminal}`))}`,
            weight: "doubtful",
          },
        ];
  });
}

/** Points inside a pack: two elements meet there, and often no pin does. */
function innerPoints(elements: readonly { readonly from: string; readonly to: string }[]): Set<string> {
  const ends = elements.flatMap(({ from, to }) => [from, to]);
  return new Set(ends.filter((end) => ends.filter((other) => other === end).length > 1));
}

function shortFinding({ circuit }: Netlist, points: readonly HealthyPoint[]): CircuitFinding | null {
  for (const { setting, point } of points) {
    const worst = circuit.wires.reduce<{ wire: Wire; amps: number } | null>((most, wire) => {
      const amps = Math.abs(point.amps[wire.id] ?? 0);
      return amps > (most?.amps ?? shortAmps) ? { wire, amps } : most;
    }, null);
    if (!worst) continue;
    return {
      path: `wires.${circuit.wires.indexOf(worst.wire)}`,
      message: `${worst.wire.id} would carry ${ampsText(worst.amps)} on ${setting}: a short across the battery from ${worst.wire.from} to ${worst.wire.to}`,
      weight: "wrong",
    };
  }
  return null;
}

function speedFindings({ circuit, motors }: Netlist, points: readonly HealthyPoint[]): CircuitFinding[] {
  return motors.flatMap(({ part }): CircuitFinding[] => {
    const path = `parts.${circuit.parts.findIndex(({ id }) => id === part.id)}`;
    const speeds = points.map(({ point }) => point.rpm[part.id] ?? 0);
    const top = Math.max(...speeds);
    // A second motor may have a switch of its own.
    if (top <= 0)
      return motors.length > 1
        ? []
        : [{ path, message: `${part.id} turns in no setting with the key on`, weight: "wrong" }];
    return circuit.settings.flatMap((setting, index): CircuitFinding[] => {
      const own = speeds[index] as number;
      const before = speeds[index - 1];
      if (before === undefined || own <= 0) return [];
      if (Math.abs(own - before) < sameSpeed * top)
        return [
          {
            path: `settings.${index}`,
            message: `${setting} changes nothing: ${part.id} turns as on ${circuit.settings[index - 1]}`,
            weight: "doubtful",
          },
        ];
      return own < before
        ? [
            {
              path: `settings.${index}`,
              message: `${setting} is slower than ${circuit.settings[index - 1]}: ${part.id} at ${Math.round(own)} rpm after ${Math.round(before)}`,
              weight: "doubtful",
            },
          ]
        : [];
    });
  });
}

interface Most extends HealthyPoint {
  readonly amps: number;
}

/** The most an item carries in any setting, and where. */
function most(points: readonly HealthyPoint[], id: string): Most {
  return points.reduce<Most>(
    (found, { setting, point }) => {
      const amps = Math.abs(point.amps[id] ?? 0);
      return amps > found.amps ? { amps, setting, point } : found;
    },
    { amps: 0, setting: points[0]?.setting ?? "", point: (points[0] as HealthyPoint).point },
  );
}

function fuseFindings({ parts }: Circuit, points: readonly HealthyPoint[]): CircuitFinding[] {
  return parts.flatMap((part, index): CircuitFinding[] => {
    if (part.kind !== "fuse") return [];
    const { amps, setting } = most(points, part.id);
    if (amps <= fuseShare * part.amps) return [];
    return [
      {
        path: `parts.${index}.amps`,
        message: `${part.id} of ${part.amps} A carries ${ampsText(amps)} on ${setting}`,
        weight: amps > part.amps ? "wrong" : "doubtful",
      },
    ];
  });
}

function wireFindings({ wires }: Circuit, points: readonly HealthyPoint[]): CircuitFinding[] {
  return wires.flatMap((wire, index): CircuitFinding[] => {
    const { amps, setting, point } = most(points, wire.id);
    const able = ampacity(wire.mm2);
    if (amps > able)
      return [
        {
          path: `wires.${index}.mm2`,
          message: `${wire.id} of ${wire.mm2} mm² carries ${ampsText(amps)} on ${setting}, more than the ${ampsText(able)} it can for long`,
          weight: "doubtful",
        },
      ];
    const [from, to] = [point.volts[wire.from], point.volts[wire.to]];
    const drop = typeof from === "number" && typeof to === "number" ? Math.abs(from - to) : 0;
    if (drop <= mostDrop) return [];
    return [
      {
        path: `wires.${index}`,
        message: `${wire.id} loses ${voltsText(drop)} on ${setting}: ${wire.metres} m of ${wire.mm2} mm² at ${ampsText(amps)}`,
        weight: "doubtful",
      },
    ];
  });
}
