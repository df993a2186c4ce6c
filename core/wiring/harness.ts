import type { Connector, Wire } from "../circuit/circuit";
import type { Part } from "../circuit/parts/index";
import type { PinRole, PlacedCircuit } from "./candidate";
import type { PartPlace, PlugPlace, RepairPlace } from "./place";

/** The side of the motor, or of the control, that a wire belongs to. */
export type Side = "feed" | "ground" | "command";

/** A wire and its side. */
interface SidedWire {
  readonly wire: Wire;
  readonly side: Side;
}

/** Puts a candidate's parts, wires and plugs together, and notes where each is repaired. */
export class Harness {
  readonly parts: Part[] = [];
  readonly connectors: Connector[] = [];
  readonly wires: SidedWire[] = [];
  readonly places = new Map<string, RepairPlace>();
  readonly byPlace = new Map<PartPlace, string>();
  private readonly plugPlaces = new Map<PlugPlace, string>();
  private readonly roles = new Map<string, { readonly role: string; readonly heavy: boolean }>();

  add(part: Part, place: RepairPlace, at?: PartPlace): string {
    this.parts.push(part);
    this.places.set(part.id, place);
    if (at) this.byPlace.set(at, part.id);
    return part.id;
  }

  wire(from: string, to: string, side: Side, heavy = true): void {
    const id = `W${this.wires.length + 1}`;
    const size = heavy ? { mm2: 4, metres: 0.8 } : { mm2: 0.75, metres: 1 };
    this.wires.push({ wire: { id, from, to, colour: "BK", ...size, assumed: true }, side });
    this.places.set(id, side);
  }

  /** A plug over some terminals, each with its role. */
  plug(place: PlugPlace, pins: readonly (readonly [role: string, terminal: string, heavy: boolean])[]): void {
    const id = `X${this.connectors.length + 1}`;
    this.connectors.push({
      id,
      pins: Object.fromEntries(pins.map(([, terminal], index) => [String(index + 1), terminal])),
    });
    this.places.set(id, place);
    this.plugPlaces.set(place, id);
    for (const [index, [role, , heavy]] of pins.entries())
      this.roles.set(`${id}:${index + 1}`, { role, heavy });
  }

  /** The pins of each plug, with the wire that ends on each. */
  plugs(): PlacedCircuit["plugs"] {
    const made = new Map<PlugPlace, { connector: string; pins: PinRole[] }>();
    for (const [place, connector] of this.plugPlaces) {
      const own = this.connectors.find(({ id }) => id === connector);
      const pins = Object.entries(own?.pins ?? {}).map(([pin, terminal]): PinRole => {
        const point = `${connector}:${pin}`;
        const { role = "", heavy = true } = this.roles.get(point) ?? {};
        const wire = this.wires.find(({ wire: { from, to } }) => from === terminal || to === terminal);
        return { role, point, terminal, wire: wire?.wire.id ?? "", heavy };
      });
      made.set(place, { connector, pins });
    }
    return made;
  }
}
