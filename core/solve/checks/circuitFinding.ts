import type { Circuit, Wire } from "../../circuit/circuit";
import { terminalsOf } from "../../circuit/parts/index";
import { ampacity } from "../../units/ampacity";
import { type HealthyPoint, healthyPoints } from "../healthyPoint";
import type { Netlist } from "../netlist/netlist";

/** What is unusual about a circuit, with its figures. */
export type CircuitDoubt =
  | { readonly code: "splice-joins-nothing"; readonly part: string }
  | { readonly code: "no-wire"; readonly terminals: readonly string[] }
  | { readonly code: "ground-not-wired"; readonly part: string }
  | { readonly code: "no-ground" }
  | {
      readonly code: "fuse-too-large";
      readonly fuse: string;
      readonly ratedAmps: number;
      readonly wire: string;
      readonly mm2: number;
      readonly ableAmps: number;
    }
  | {
      readonly code: "pack-order";
      readonly pack: string;
      readonly low: string;
      readonly lowOhms: number;
      readonly high: string;
      readonly highOhms: number;
    }
  | {
      readonly code: "short";
      readonly wire: string;
      readonly from: string;
      readonly to: string;
      readonly amps: number;
      readonly setting: string;
    }
  | { readonly code: "never-turns"; readonly motor: string }
  | {
      readonly code: "same-speed" | "slower";
      readonly motor: string;
      readonly setting: string;
      readonly before: string;
      readonly rpm: number;
      readonly rpmBefore: number;
    }
  | {
      readonly code: "fuse-too-small";
      readonly fuse: string;
      readonly ratedAmps: number;
      readonly amps: number;
      readonly setting: string;
    }
  | {
      readonly code: "wire-too-thin";
      readonly wire: string;
      readonly mm2: number;
      readonly amps: number;
      readonly ableAmps: number;
      readonly setting: string;
    }
  | {
      readonly code: "wire-drops";
      readonly wire: string;
      readonly mm2: number;
      readonly metres: number;
      readonly amps: number;
      readonly volts: number;
      readonly setting: string;
    };

/** Something about a circuit that parses and solves but is probably wrong. */
export interface CircuitFinding {
  /** Path in the file, written as in problems. */
  readonly path: string;
  readonly what: CircuitDoubt;
  /** `wrong` if no vehicle could be built this way, `doubtful` if one might be. */
  readonly weight: "wrong" | "doubtful";
}

/** Amps a healthy blower circuit never reaches; more means a short across the battery (judgement). */
const shortAmps = 120;
/** Two settings whose motor speeds differ by less than this share count as the same speed (judgement). */
const sameSpeed = 0.01;
/** Largest voltage drop of a healthy wire (common practice, no source: half a volt a side). */
const mostDrop = 0.5;
/** A fuse rated above this many times what the wire behind it can carry protects nothing (judgement). */
const fuseTimes = 2;
/** Largest share of its rating a fuse should carry continuously (common practice, no source). */
const fuseShare = 0.8;

/**
 * Finds what a circuit's own healthy currents show to be wrong: unconnected terminals, a short across the battery, a
 * speed that changes nothing or turns the motor backwards, a fuse or a wire too small for its current.
 * @returns the findings in the order of the file; an empty list if nothing is unusual
 */
export function circuitFindings(netlist: Netlist): CircuitFinding[] {
  const { circuit } = netlist;
  const points = healthyPoints(netlist);
  const short = shortFinding(netlist, points);
  return [
    ...(isGrounded(circuit)
      ? []
      : [{ path: "parts", what: { code: "no-ground" }, weight: "wrong" } satisfies CircuitFinding]),
    ...looseTerminals(circuit),
    ...largeFuses(circuit),
    ...packOrders(circuit, points),
    // With a short across the battery, no other current means anything.
    ...(short
      ? [short]
      : [
          ...speedFindings(netlist, points),
          ...fuseFindings(circuit, points),
          ...wireFindings(circuit, points),
        ]),
  ];
}

/** Whether any wire leads back to the battery: over a ground point, or to its negative post. */
const isGrounded = ({ parts, wires }: Circuit): boolean =>
  wires.some(({ from, to }) =>
    [from, to].some((end) => {
      const [id, terminal] = end.split(".");
      const kind = parts.find((part) => part.id === id)?.kind;
      return kind === "ground" || (kind === "battery" && terminal === "-");
    }),
  );

/** Fuses that would let the wire behind them burn. */
function largeFuses({ parts, wires }: Circuit): CircuitFinding[] {
  return parts.flatMap((part, index): CircuitFinding[] => {
    if (part.kind !== "fuse") return [];
    const behind = wires.filter(({ from, to }) => from === `${part.id}.out` || to === `${part.id}.out`);
    const thickest = behind.reduce<Wire | null>(
      (most, wire) => (wire.mm2 > (most?.mm2 ?? 0) ? wire : most),
      null,
    );
    const able = thickest ? ampacity(thickest.mm2) : Number.POSITIVE_INFINITY;
    if (!thickest || part.amps <= fuseTimes * able) return [];
    return [
      {
        path: `parts.${index}.amps`,
        what: {
          code: "fuse-too-large",
          fuse: part.id,
          ratedAmps: part.amps,
          wire: thickest.id,
          mm2: thickest.mm2,
          ableAmps: able,
        },
        weight: "wrong",
      },
    ];
  });
}

/**
 * Packs whose coils seem to be entered in reverse: usually the coil that only the lowest speed uses has the most ohms,
 * and the one nearest the top speed the fewest (common practice, no source).
 */
function packOrders({ parts }: Circuit, points: readonly HealthyPoint[]): CircuitFinding[] {
  return parts.flatMap((part, index): CircuitFinding[] => {
    if (part.kind !== "resistor") return [];
    const coils = part.elements.flatMap((element) => {
      if (!("ohms" in element) || element.ohms === undefined) return [];
      const name = `${part.id}.${element.id}`;
      const speeds = points.filter(({ point }) => Math.abs(point.amps[name] ?? 0) > 0.1).length;
      return [{ name, ohms: element.ohms, speeds }];
    });
    const ordered = [...coils].sort((a, b) => a.speeds - b.speeds);
    const [low, high] = [ordered[0], ordered.at(-1)];
    const inSeries = ordered.every(({ speeds }, i) => i === 0 || speeds > (ordered[i - 1]?.speeds ?? 0));
    const rising = ordered.every(({ ohms }, i) => i === 0 || ohms > (ordered[i - 1]?.ohms ?? 0));
    if (!low || !high || ordered.length < 2 || !inSeries || !rising) return [];
    return [
      {
        path: `parts.${index}`,
        what: {
          code: "pack-order",
          pack: part.id,
          low: low.name,
          lowOhms: low.ohms,
          high: high.name,
          highOhms: high.ohms,
        },
        weight: "doubtful",
      },
    ];
  });
}

function looseTerminals(circuit: Circuit): CircuitFinding[] {
  const used = new Set(circuit.wires.flatMap(({ from, to }) => [from, to]));
  return circuit.parts.flatMap((part, index): CircuitFinding[] => {
    // Circuits usually leave the battery's own ground, a relay's normally closed contact and an unused pin of an
    // in-line plug open.
    if (part.kind === "inline" || part.kind === "battery") return [];
    if (part.kind === "splice") {
      const ends = circuit.wires.filter(({ from, to }) => [from, to].includes(`${part.id}.s`)).length;
      return ends > 1
        ? []
        : [
            {
              path: `parts.${index}`,
              what: { code: "splice-joins-nothing", part: part.id },
              weight: "doubtful",
            },
          ];
    }
    const loose = terminalsOf(part).filter(
      (terminal) => !used.has(`${part.id}.${terminal}`) && !(part.kind === "relay" && terminal === "87a"),
    );
    if (loose.length === 0) return [];
    if (part.kind === "ground")
      return [{ path: `parts.${index}`, what: { code: "ground-not-wired", part: part.id }, weight: "wrong" }];
    const inner = part.kind === "resistor" ? innerPoints(part.elements) : new Set<string>();
    const outer = loose.filter((terminal) => !inner.has(terminal));
    return outer.length === 0
      ? []
      : [
          {
            path: `parts.${index}`,
            what: { code: "no-wire", terminals: outer.map((terminal) => `${part.id}.${terminal}`) },
            weight: "doubtful",
          },
        ];
  });
}

/** Points inside a pack where two elements meet; often they have no pin. */
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
      what: {
        code: "short",
        wire: worst.wire.id,
        from: worst.wire.from,
        to: worst.wire.to,
        amps: worst.amps,
        setting,
      },
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
        : [{ path, what: { code: "never-turns", motor: part.id }, weight: "wrong" }];
    return circuit.settings.flatMap((setting, index): CircuitFinding[] => {
      const own = speeds[index] as number;
      const before = speeds[index - 1];
      if (before === undefined || own <= 0) return [];
      const isSame = Math.abs(own - before) < sameSpeed * top;
      if (!isSame && own > before) return [];
      return [
        {
          path: `settings.${index}`,
          what: {
            code: isSame ? "same-speed" : "slower",
            motor: part.id,
            setting,
            before: circuit.settings[index - 1] ?? "",
            rpm: own,
            rpmBefore: before,
          },
          weight: "doubtful",
        },
      ];
    });
  });
}

interface Most extends HealthyPoint {
  readonly amps: number;
}

/** The largest current an item carries in any setting, and the setting. */
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
        what: { code: "fuse-too-small", fuse: part.id, ratedAmps: part.amps, amps, setting },
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
          what: { code: "wire-too-thin", wire: wire.id, mm2: wire.mm2, amps, ableAmps: able, setting },
          weight: "doubtful",
        },
      ];
    const [from, to] = [point.volts[wire.from], point.volts[wire.to]];
    const drop = typeof from === "number" && typeof to === "number" ? Math.abs(from - to) : 0;
    if (drop <= mostDrop) return [];
    return [
      {
        path: `wires.${index}`,
        what: {
          code: "wire-drops",
          wire: wire.id,
          mm2: wire.mm2,
          metres: wire.metres,
          amps,
          volts: drop,
          setting,
        },
        weight: "doubtful",
      },
    ];
  });
}
