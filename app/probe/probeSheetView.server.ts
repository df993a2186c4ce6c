import { accessTo } from "@core/predict/reach";
import type { CompiledCircuit } from "@core/predict/tables/compiledCircuit";
import type { Netlist } from "@core/solve/netlist/netlist";
import { seenText } from "@words/seenName";
import { type JobView, sheetStates } from "../job/jobView.server";
import { layoutOf } from "../sheet/layouts.server";
import { restVolts } from "../sheet/plainSheet";

/** An item of the circuit, and the name a technician would use. */
interface Named {
  readonly id: string;
  readonly name: string;
}

/** The choices of the form for a reading that was not suggested. */
function ownChoices(engine: CompiledCircuit) {
  const { circuit, points, battery, motors, relays } = engine.netlist;
  const posts = [`${battery.id}.-`, `${battery.id}.+`];
  /** Circuit items with the names a technician would use, sorted by name. */
  const named = (ids: readonly string[]): Named[] =>
    ids.map((id) => ({ id, name: seenText(circuit, id) })).sort((a, b) => a.name.localeCompare(b.name));
  return {
    settings: circuit.settings,
    points: named(points.names.filter((name) => !posts.includes(name))).flatMap((point) => {
      const access = accessTo(engine.netlist, point.id);
      return access.reach === "never" ? [] : [{ ...point, out: access.reach === "out" ? access.of : null }];
    }),
    posts: named(posts),
    things: named([...circuit.parts, ...circuit.connectors].map(({ id }) => id)),
    motors: named(motors.map(({ part }) => part.id)),
    plugs: named([...circuit.connectors.map(({ id }) => id), ...relays.map(({ part }) => part.id)]),
    relays: named(relays.map(({ part }) => part.id)),
    fuses: named(circuit.parts.filter(({ kind }) => kind === "fuse").map(({ id }) => id)),
    wires: named(circuit.wires.map(({ id }) => id)),
  };
}

/** A circuit's drawing, and the state of a healthy vehicle. */
export function healthyView(netlist: Netlist) {
  const { circuit } = netlist;
  return {
    circuit,
    layout: layoutOf(netlist),
    healthy: sheetStates({ netlist }, ["healthy"]),
    fullVolts: restVolts(circuit),
  };
}

/** The data of the probe page that does not depend on readings: the healthy states, and the form for other readings. */
export const probeSheetView = ({ engine }: Pick<JobView, "engine">) => ({
  ...healthyView(engine.netlist),
  own: ownChoices(engine),
});
