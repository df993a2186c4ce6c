import type { Circuit } from "../../circuit/circuit";
import type { PartKind, PartOf } from "../../circuit/parts/index";
import type {
  Branch,
  Device,
  NetClimatePanel,
  NetControlModule,
  NetModule,
  NetMotor,
  NetRelay,
  Spread,
} from "./netlist";

/** Zero ohms becomes one microohm, so that conductances stay finite. */
const leastOhms = 1e-6;

/** Collects branches while a netlist is built. */
export class NetlistBuilder {
  readonly nodeNames: string[] = [];
  readonly nodeOf = new Map<string, number>();
  readonly branches: Branch[] = [];
  readonly branchOf = new Map<string, number>();
  readonly relays: NetRelay[] = [];
  readonly motors: NetMotor[] = [];
  readonly modules: NetModule[] = [];
  readonly heads: NetClimatePanel[] = [];
  readonly devices: Device[] = [];

  node(name: string): number {
    const known = this.nodeOf.get(name);
    if (known !== undefined) return known;
    const index = this.nodeNames.length;
    this.nodeOf.set(name, index);
    this.nodeNames.push(name);
    return index;
  }

  /** Merges two names into one node, for legs that a part joins inside. */
  join(name: string, other: string): void {
    this.nodeOf.set(name, this.node(other));
  }

  /** Adds a branch between two named nodes and returns its index. */
  branch(
    item: { readonly id: string; readonly owner: string; readonly assumed?: boolean },
    ends: readonly [string, string],
    ohms: number,
    spread: Spread,
    control: NetControlModule | null = null,
  ): number {
    const index = this.branches.length;
    this.branches.push({
      id: item.id,
      a: this.node(ends[0]),
      b: this.node(ends[1]),
      ohms: Math.max(leastOhms, ohms),
      spread,
      assumed: item.assumed ?? false,
      owner: item.owner,
      control,
    });
    this.branchOf.set(item.id, index);
    return index;
  }
}

/** Adds one part kind's branches to a netlist. */
export type AddPart<K extends PartKind> = (
  builder: NetlistBuilder,
  part: PartOf<K>,
  circuit: Circuit,
) => void;
