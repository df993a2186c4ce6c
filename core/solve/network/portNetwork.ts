import { backEmf } from "./backEmf";
import type { Groups } from "./connectivity";
import { gaussJordan } from "./gaussJordan";
import { backSolve, type Edge, type LdlPattern } from "./ldl";
import type { LinearElement, Load, Tap } from "./load";

/**
 * The linear network seen from its ports, where the switching, turning and glowing elements connect. It needs one
 * factorisation, one column of node volts for one amp through each port, and small dense systems. A group of nodes
 * connected only by ports has its own potential as an unknown, on which its currents sum to zero.
 */
export class PortNetwork {
  /** Volts by elimination step with nothing connected to the ports. */
  private readonly open: Float64Array;
  private readonly byStep: Float64Array;
  private readonly columns: Float64Array[];
  private readonly known: Uint8Array;
  /** Amps through each port after the last `solve`. */
  readonly amps: Float64Array;
  /** Volts across each port with nothing connected, and for one amp through each other port: by row, column. */
  private readonly openAcross: Float64Array;
  private readonly transfers: Float64Array;
  private readonly ends: Edge[];
  private values: Float64Array = new Float64Array(0);
  private matrix: Float64Array = new Float64Array(0);
  private result: Float64Array = new Float64Array(0);
  private groups: Groups = { of: new Int32Array(0), count: 1, pins: [] };
  /** Potential of each group after the last `solve`; 0 for groups without one of their own. */
  private potential = new Float64Array(1);
  /** Index of each group's potential among the unknowns, -1 for groups without one. */
  private free = new Int32Array(1).fill(-1);

  constructor(
    private readonly pattern: LdlPattern,
    ports: number,
  ) {
    this.open = new Float64Array(pattern.size);
    this.byStep = new Float64Array(pattern.size);
    const { size } = pattern;
    const columns = new Float64Array(ports * size);
    this.columns = Array.from({ length: ports }, (_, port) =>
      columns.subarray(port * size, (port + 1) * size),
    );
    this.known = new Uint8Array(ports);
    this.amps = new Float64Array(ports);
    this.openAcross = new Float64Array(ports);
    this.transfers = new Float64Array(ports * ports);
    this.ends = Array.from({ length: ports }, () => ({ a: -1, b: -1 }));
  }

  setEnds(port: number, ends: Edge): void {
    this.ends[port] = ends;
    this.known.fill(0);
  }

  /** Moves one port of a network in use; columns of the other ports stay valid. */
  movePort(port: number, ends: Edge): void {
    const before = this.ends[port] as Edge;
    if (before.a === ends.a && before.b === ends.b) return;
    this.ends[port] = ends;
    this.known[port] = 0;
    this.openAcross[port] = this.across(this.open, port);
    const count = this.known.length;
    for (let other = 0; other < count; other++) {
      if (this.known[other] === 1)
        this.transfers[port * count + other] = this.across(this.columns[other] as Float64Array, port);
    }
  }

  /**
   * Takes a newly factorised network.
   * @param values the factors, with each floating group pinned
   * @param sources amps fed into node `a` and out of node `b`
   */
  begin(
    values: Float64Array,
    groups: Groups,
    sources: readonly { readonly a: number; readonly b: number; readonly amps: number }[],
  ): void {
    this.values = values;
    this.regroup(groups);
    this.known.fill(0);
    this.amps.fill(0);
    this.open.fill(0);
    for (const { a, b, amps } of sources) {
      this.feed(a, amps);
      this.feed(b, -amps);
    }
    if (sources.length > 0) backSolve(this.pattern, values, this.open);
    this.readOpen();
  }

  private feed(node: number, amps: number): void {
    if (node < 0) return;
    const step = this.pattern.stepOf[node] as number;
    this.open[step] = (this.open[step] as number) + amps;
  }

  /**
   * Takes finer groups of the same network, after opening a branch that was the only connection of some nodes and now
   * only pins them.
   */
  regroup(groups: Groups): void {
    this.groups = groups;
    if (this.potential.length < groups.count) {
      this.potential = new Float64Array(groups.count);
      this.free = new Int32Array(groups.count);
    }
    this.potential.fill(0);
    this.free.fill(-1);
  }

  private readOpen(): void {
    for (let port = 0; port < this.known.length; port++) this.openAcross[port] = this.across(this.open, port);
  }

  /** Node volts for one amp into `a` and out of `b`. */
  private column(port: number): Float64Array {
    const column = this.columns[port] as Float64Array;
    if (this.known[port] === 1) return column;
    const { a, b } = this.ends[port] as Edge;
    column.fill(0);
    const { stepOf } = this.pattern;
    if (a >= 0) column[stepOf[a] as number] = 1;
    if (b >= 0) column[stepOf[b] as number] = (column[stepOf[b] as number] as number) - 1;
    backSolve(this.pattern, this.values, column);
    this.known[port] = 1;
    const count = this.known.length;
    for (let row = 0; row < count; row++) this.transfers[row * count + port] = this.across(column, row);
    return column;
  }

  private across(x: Float64Array, port: number): number {
    const { a, b } = this.ends[port] as Edge;
    const { stepOf } = this.pattern;
    return (
      (a < 0 ? 0 : (x[stepOf[a] as number] as number)) - (b < 0 ? 0 : (x[stepOf[b] as number] as number))
    );
  }

  private openSensed(taps: readonly Tap[]): number {
    let sum = 0;
    for (let i = 0; i < taps.length; i++) {
      const { port, share } = taps[i] as Tap;
      sum += share * (this.openAcross[port] as number);
    }
    return sum;
  }

  /** Volts one element senses for one amp through another. */
  private transfer(senses: readonly Tap[], carries: readonly Tap[]): number {
    const count = this.known.length;
    if (carries.length === 1 && senses.length === 1) {
      const [carry, sense] = [carries[0] as Tap, senses[0] as Tap];
      if (this.known[carry.port] === 0) this.column(carry.port);
      return carry.share * sense.share * (this.transfers[sense.port * count + carry.port] as number);
    }
    let sum = 0;
    for (let i = 0; i < carries.length; i++) {
      const carry = carries[i] as Tap;
      if (this.known[carry.port] === 0) this.column(carry.port);
      for (let j = 0; j < senses.length; j++) {
        const sense = senses[j] as Tap;
        sum += carry.share * sense.share * (this.transfers[sense.port * count + carry.port] as number);
      }
    }
    return sum;
  }

  private groupAt(node: number): number {
    return node < 0 ? 0 : (this.groups.of[node] as number);
  }

  /**
   * Decides which groups have a potential of their own: in every set of groups joined by ports, all but the
   * reference's, or all but the first.
   * @param parent root of each group's set, which is the lowest group in it
   * @returns their number
   */
  freeGroups(parent: Int32Array): number {
    let count = 0;
    for (let group = 0; group < this.groups.count; group++)
      this.free[group] = parent[group] === group ? -1 : count++;
    return count;
  }

  /**
   * Adds the shares of taps at each free group to a row or a column of the matrix.
   * @param sign factor on the shares
   * @param start cell of the first free group
   * @param stride cells from one group to the next
   */
  private addGroups(taps: readonly Tap[], sign: number, start: number, stride: number): void {
    const { matrix, free } = this;
    for (let i = 0; i < taps.length; i++) {
      const { port, share } = taps[i] as Tap;
      const { a, b } = this.ends[port] as Edge;
      const from = free[this.groupAt(a)] as number;
      const to = free[this.groupAt(b)] as number;
      if (from === to) continue;
      if (from >= 0) {
        const at = start + stride * from;
        matrix[at] = (matrix[at] as number) + sign * share;
      }
      if (to >= 0) {
        const at = start + stride * to;
        matrix[at] = (matrix[at] as number) - sign * share;
      }
    }
  }

  /**
   * Left side of the system: elements' currents and groups' potentials.
   * @param columns extra columns left zero at the end of each row
   */
  private fill(
    elements: readonly LinearElement[],
    freeCount: number,
    columns: number,
  ): { unknowns: number; width: number } {
    const linear = elements.length;
    const unknowns = linear + freeCount;
    const width = unknowns + columns;
    if (this.matrix.length < unknowns * width) this.matrix = new Float64Array(2 * unknowns * width);
    const { matrix } = this;
    matrix.fill(0, 0, unknowns * width);
    for (let row = 0; row < linear; row++) {
      const { senses, carries, ohms } = elements[row] as LinearElement;
      const start = row * width;
      for (let col = 0; col < linear; col++)
        matrix[start + col] = this.transfer(senses, (elements[col] as LinearElement).carries);
      matrix[start + row] = (matrix[start + row] as number) + ohms;
      if (freeCount === 0) continue;
      this.addGroups(senses, -1, start + linear, 1);
      this.addGroups(carries, 1, linear * width + row, width);
    }
    return { unknowns, width };
  }

  /**
   * Solves the currents of all elements, including the loads' back-EMFs.
   * @param elements everything that conducts, with the loads' own elements last and in order
   * @param parent root of each group's set after the elements join them
   * @param speeds receives the motors' speeds in radians a second
   * @returns amps by element, in order; valid until the next call
   */
  solve(
    elements: readonly LinearElement[],
    loads: readonly Load[],
    parent: Int32Array,
    speeds: Float64Array,
  ): Float64Array {
    const linear = elements.length;
    const freeCount = this.freeGroups(parent);
    const { unknowns, width } = this.fill(elements, freeCount, loads.length + 1);
    const { matrix } = this;
    for (let row = 0; row < linear; row++) {
      const { senses, emfVolts } = elements[row] as LinearElement;
      matrix[row * width + width - 1] = this.openSensed(senses) - emfVolts;
    }
    // One column for each load, for one volt of back-EMF in it.
    const firstLoad = linear - loads.length;
    for (let load = 0; load < loads.length; load++) matrix[(firstLoad + load) * width + unknowns + load] = -1;
    gaussJordan(matrix, unknowns, width);
    const emf = backEmf(loads, speeds, {
      drawn: (load) => matrix[(firstLoad + load) * width + width - 1] as number,
      siemens: (load, other) => -(matrix[(firstLoad + load) * width + unknowns + other] as number),
    });
    if (this.result.length < unknowns) this.result = new Float64Array(2 * unknowns);
    const { result } = this;
    for (let row = 0; row < unknowns; row++) {
      let own = matrix[row * width + width - 1] as number;
      for (let load = 0; load < loads.length; load++)
        own += (matrix[row * width + unknowns + load] as number) * (emf[load] as number);
      result[row] = own;
    }
    this.keep(elements, result);
    return result;
  }

  private keep(elements: readonly LinearElement[], result: Float64Array): void {
    this.amps.fill(0);
    for (let row = 0; row < elements.length; row++) {
      const { carries } = elements[row] as LinearElement;
      for (let i = 0; i < carries.length; i++) {
        const { port, share } = carries[i] as Tap;
        this.amps[port] = (this.amps[port] as number) + share * (result[row] as number);
      }
    }
    for (let group = 0; group < this.groups.count; group++) {
      const free = this.free[group] as number;
      this.potential[group] = free < 0 ? 0 : (result[elements.length + free] as number);
    }
  }

  /** Volts of a node with all elements connected. */
  volts(node: number): number {
    if (node < 0) return 0;
    const step = this.pattern.stepOf[node] as number;
    let sum = (this.open[step] as number) + (this.potential[this.groupAt(node)] as number);
    for (let port = 0; port < this.amps.length; port++) {
      const amps = this.amps[port] as number;
      if (amps !== 0) sum -= amps * (this.columns[port]?.[step] as number);
    }
    return sum;
  }

  /** Volts of every node, written to `out` by node. */
  readVolts(out: Float64Array): void {
    const { byStep, potential, amps } = this;
    const { stepOf } = this.pattern;
    const { of } = this.groups;
    byStep.set(this.open);
    for (let port = 0; port < amps.length; port++) {
      const own = amps[port] as number;
      if (own === 0) continue;
      const column = this.columns[port] as Float64Array;
      for (let step = 0; step < byStep.length; step++)
        byStep[step] = (byStep[step] as number) - own * (column[step] as number);
    }
    for (let node = 0; node < out.length; node++)
      out[node] = (byStep[stepOf[node] as number] as number) + (potential[of[node] as number] as number);
  }

  /**
   * The ohms that linear elements take off the resistance between two nodes of the bare network.
   * @param parent root of each group's set after these elements join them
   * @returns the reduction in ohms between the two nodes (-1 for the reference)
   */
  relief(elements: readonly LinearElement[], parent: Int32Array): (at: Edge) => number {
    const linear = elements.length;
    const { unknowns, width } = this.invert(elements, parent);
    const { matrix } = this;
    const right = new Float64Array(unknowns);
    const left = new Float64Array(unknowns);
    return (at) => {
      right.fill(0);
      left.fill(0);
      for (let row = 0; row < linear; row++) {
        right[row] = this.between((elements[row] as LinearElement).senses, at);
        left[row] = this.between((elements[row] as LinearElement).carries, at);
      }
      const add = (node: number, share: number): void => {
        const free = this.free[this.groupAt(node)] as number;
        if (free < 0) return;
        right[linear + free] = (right[linear + free] as number) + share;
        left[linear + free] = (left[linear + free] as number) - share;
      };
      add(at.a, 1);
      add(at.b, -1);
      let sum = 0;
      for (let row = 0; row < unknowns; row++) {
        if (left[row] === 0) continue;
        for (let col = 0; col < unknowns; col++)
          sum +=
            (left[row] as number) * (matrix[row * width + unknowns + col] as number) * (right[col] as number);
      }
      return sum;
    };
  }

  /**
   * The ohms that linear elements take off the resistance from every node of the bare network to the reference.
   * @param parent root of each group's set after these elements join them
   * @param out receives the reduction by node
   */
  reliefOfAll(elements: readonly LinearElement[], parent: Int32Array, out: Float64Array): void {
    const linear = elements.length;
    const { unknowns, width } = this.invert(elements, parent);
    const { matrix, byStep } = this;
    const inverse = (row: number, col: number): number => matrix[row * width + unknowns + col] as number;
    const left = elements.map(({ carries }) => this.mixed(carries));
    const right = elements.map(({ carries, senses }, i) =>
      carries === senses ? (left[i] as Float64Array) : this.mixed(senses),
    );
    byStep.fill(0);
    for (let row = 0; row < linear; row++) {
      const own = left[row] as Float64Array;
      for (let col = 0; col < linear; col++) {
        const factor = inverse(row, col);
        if (factor === 0) continue;
        const other = right[col] as Float64Array;
        for (let step = 0; step < byStep.length; step++)
          byStep[step] = (byStep[step] as number) + factor * (own[step] as number) * (other[step] as number);
      }
    }
    const { stepOf } = this.pattern;
    for (let node = 0; node < out.length; node++) {
      const step = stepOf[node] as number;
      out[node] = byStep[step] as number;
      const free = this.free[this.groups.of[node] as number] as number;
      if (free < 0) continue;
      const group = linear + free;
      let sum = -inverse(group, group);
      for (let i = 0; i < linear; i++)
        sum +=
          (left[i]?.[step] as number) * inverse(i, group) - inverse(group, i) * (right[i]?.[step] as number);
      out[node] = (out[node] as number) + sum;
    }
  }

  /** Node volts by step for one amp through taps. */
  private mixed(taps: readonly Tap[]): Float64Array {
    const [only] = taps;
    if (taps.length === 1 && only?.share === 1) return this.column(only.port);
    const sum = new Float64Array(this.pattern.size);
    for (const { port, share } of taps) {
      const column = this.column(port);
      for (let step = 0; step < sum.length; step++)
        sum[step] = (sum[step] as number) + share * (column[step] as number);
    }
    return sum;
  }

  /** Fills the system's left side and inverts it into the columns on its right. */
  private invert(
    elements: readonly LinearElement[],
    parent: Int32Array,
  ): { unknowns: number; width: number } {
    const freeCount = this.freeGroups(parent);
    const { unknowns, width } = this.fill(elements, freeCount, elements.length + freeCount);
    for (let row = 0; row < unknowns; row++) this.matrix[row * width + unknowns + row] = 1;
    gaussJordan(this.matrix, unknowns, width);
    return { unknowns, width };
  }

  /** Volts between two nodes for one amp through taps. */
  private between(taps: readonly Tap[], { a, b }: Edge): number {
    const { stepOf } = this.pattern;
    let sum = 0;
    for (const { port, share } of taps) {
      const column = this.column(port);
      const high = a < 0 ? 0 : (column[stepOf[a] as number] as number);
      const low = b < 0 ? 0 : (column[stepOf[b] as number] as number);
      sum += share * (high - low);
    }
    return sum;
  }
}
