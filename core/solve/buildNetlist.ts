import type { Circuit } from "../circuit/circuit";
import { type Part, type PartOf, terminalsOf } from "../circuit/parts/index";
import { type CircuitPoints, circuitPoints } from "../circuit/points";
import { type Parsed, refused } from "../problem/problem";
import { copperOhms } from "../units/copper";
import { type Netlist, reference } from "./netlist/netlist";
import { NetlistBuilder } from "./netlist/netlistBuilder";
import { solvedParts } from "./parts/index";

/** Nominal contact resistance of a wire's end, in ohms, where the file gives none. */
const wireEndOhms = 0.0005;
/** Nominal contact resistance of a connector's pin, in ohms, where the file gives none. */
const pinOhms = 0.003;

/** How much detail a circuit is laid out with. */
export interface NetlistOptions {
  /**
   * Each wire becomes one branch, and its ends become the terminals they sit on. This halves the number of nodes and
   * moves a few millivolts of end-contact drop. The engine's many predictions use it.
   */
  readonly lumpWires?: boolean;
}

function addWiring(
  builder: NetlistBuilder,
  circuit: Circuit,
  points: CircuitPoints,
  { lumpWires = false }: NetlistOptions,
): void {
  for (const connector of circuit.connectors) {
    for (const [pin, terminal] of Object.entries(connector.pins)) {
      const id = `${connector.id}:${pin}`;
      builder.branch({ id, owner: connector.id }, [id, terminal], connector.pinOhms ?? pinOhms, "contact");
    }
  }
  const harness = (terminal: string): string => points.pinOnTerminal.get(terminal) ?? terminal;
  for (const wire of circuit.wires) {
    const from = `${wire.id}/from`;
    const to = `${wire.id}/to`;
    const owner = wire.id;
    if (lumpWires) {
      builder.join(from, harness(wire.from));
      builder.join(to, harness(wire.to));
      const ends = (wire.fromOhms ?? wireEndOhms) + (wire.toOhms ?? wireEndOhms);
      const whole = builder.branch(
        { id: wire.id, owner, assumed: wire.assumed ?? false },
        [from, to],
        copperOhms(wire.metres, wire.mm2) + ends,
        "wire",
      );
      builder.branchOf.set(from, whole);
      builder.branchOf.set(to, whole);
      continue;
    }
    builder.branch({ id: from, owner }, [harness(wire.from), from], wire.fromOhms ?? wireEndOhms, "contact");
    builder.branch(
      { id: wire.id, owner, assumed: wire.assumed ?? false },
      [from, to],
      copperOhms(wire.metres, wire.mm2),
      "wire",
    );
    builder.branch({ id: to, owner }, [to, harness(wire.to)], wire.toOhms ?? wireEndOhms, "contact");
  }
}

/** Builds the netlist of a checked circuit. */
export function buildNetlist(circuit: Circuit, options: NetlistOptions = {}): Parsed<Netlist> {
  const points = circuitPoints(circuit);
  const builder = new NetlistBuilder();
  const battery = circuit.parts.find((part): part is PartOf<"battery"> => part.kind === "battery");
  if (!battery)
    return refused([{ code: "wrong-value", path: "parts", message: "expected exactly one battery, got 0" }]);
  builder.nodeOf.set(`${battery.id}.-`, reference);
  for (const part of circuit.parts) addPart(builder, circuit, part);
  addWiring(builder, circuit, points, options);
  for (const name of points.names) builder.node(name);
  return {
    ok: true,
    value: {
      circuit,
      points,
      nodeNames: builder.nodeNames,
      nodeOf: builder.nodeOf,
      branches: builder.branches,
      branchOf: builder.branchOf,
      battery: {
        branch: builder.branchOf.get(battery.id) ?? 0,
        positive: builder.node(`${battery.id}.+`),
        id: battery.id,
      },
      relays: builder.relays,
      motors: builder.motors,
      modules: builder.modules,
      heads: builder.heads,
      devices: builder.devices,
    },
  };
}

function addPart(builder: NetlistBuilder, circuit: Circuit, part: Part): void {
  const add = solvedParts[part.kind] as (builder: NetlistBuilder, part: Part, circuit: Circuit) => void;
  add(builder, part, circuit);
  for (const terminal of terminalsOf(part)) {
    if (terminal !== "87a") builder.node(`${part.id}.${terminal}`);
  }
}
