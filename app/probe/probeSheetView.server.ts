import type { CompiledCircuit } from "@core/predict/tables/compiledCircuit";
import type { Netlist } from "@core/solve/netlist/netlist";
import { partName } from "@words/partName";
import { type JobView, sheetStates } from "../job/jobView.server";
import { layoutOf } from "../sheet/layouts.server";
import { restVolts } from "../sheet/plainSheet";

/** The choices of the form for a reading that was not suggested. */
function ownChoices(engine: CompiledCircuit) {
  const { circuit, points, battery, motors, relays } = engine.netlist;
  const posts = [`${battery.id}.-`, `${battery.id}.+`];
  return {
    settings: circuit.settings,
    points: points.names.filter((name) => !posts.includes(name)),
    posts,
    things: [...circuit.parts, ...circuit.connectors].map(({ id }) => ({
      id,
      name: `${id}, ${partName(circuit, id)}`,
    })),
    motors: motors.map(({ part }) => part.id),
    plugs: circuit.connectors.map(({ id }) => id),
    relays: relays.map(({ part }) => part.id),
    fuses: circuit.parts.filter(({ kind }) => kind === "fuse").map(({ id }) => id),
    wires: circuit.wires.map(({ id }) => id),
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
