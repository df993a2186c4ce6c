import type { Groups } from "./connectivity";
import type { Edge } from "./ldl";

/** Sets of a network's groups, joined by the elements on the ports. */
export class GroupSets {
  /** The lowest group of each group's set, which is 0 for all that connect to the reference. */
  roots = new Int32Array(1);
  private groups: Groups = { of: new Int32Array(0), count: 1, pins: [] };

  /** Starts again with each group of a network as a set of its own. */
  begin(groups: Groups): void {
    this.groups = groups;
    if (this.roots.length < groups.count) this.roots = new Int32Array(groups.count);
    for (let group = 0; group < groups.count; group++) this.roots[group] = group;
  }

  join(edge: Edge | null): void {
    if (!edge || this.groups.count === 1) return;
    const { roots } = this;
    const [one, other] = [this.rootOf(edge.a), this.rootOf(edge.b)];
    if (one === other) return;
    const [low, high] = one < other ? [one, other] : [other, one];
    for (let group = 0; group < this.groups.count; group++) if (roots[group] === high) roots[group] = low;
  }

  /** Root of a node's set; 0 for the reference's. */
  rootOf(node: number): number {
    return node < 0 ? 0 : (this.roots[this.groups.of[node] as number] as number);
  }

  /** True if a path leads from a node to the reference. */
  isTied(node: number): boolean {
    return this.rootOf(node) === 0;
  }

  /**
   * Marks the nodes without a path to the reference.
   * @returns whether there are any
   */
  markFloating(floating: Uint8Array): boolean {
    let some = false;
    for (let group = 0; group < this.groups.count; group++) if (this.roots[group] !== 0) some = true;
    if (!some) floating.fill(0);
    else for (let node = 0; node < floating.length; node++) floating[node] = this.isTied(node) ? 0 : 1;
    return some;
  }
}
