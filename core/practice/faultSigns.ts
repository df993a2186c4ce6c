import type { Chance } from "../chance/chance";
import type { Fault } from "../fault/fault";
import { mechanicalModes, type Noise } from "../motor/mechanicalMode";
import type { Netlist } from "../solve/netlist/netlist";
import { type Condition, type FaultBehaviour, plainBehaviour } from "./hiddenFault";
import type { World } from "./world";

/** The question to the customer that a fault's condition answers. */
const toldBy: Readonly<Record<Condition, string>> = {
  heat: "heat",
  time: "heat",
  wet: "damp",
  bumps: "bumps",
};

/**
 * What a hidden fault shows to eye, hand, ear and nose, and what people say about it. Sometimes it shows nothing, or
 * another fault's signs.
 */
export class FaultSigns {
  constructor(
    private readonly netlist: Netlist,
    private readonly fault: Fault,
    private readonly world: World,
    private readonly behaviour: FaultBehaviour = plainBehaviour,
  ) {}

  /** Whether the fault, or a part of it, is one of these. */
  has(...modes: string[]): boolean {
    return this.fault.names.some(({ mode }) => modes.includes(mode));
  }

  /** Whether the fault affects only noise or feel. */
  get mechanical(): boolean {
    return this.fault.names.some(({ mode }) => mode in mechanicalModes);
  }

  /**
   * The noise of a fault.
   * @param turns whether a motor moves any air; a loose wheel is heard in any case
   * @param ventCovered true with a finger over the motor's vent hole
   */
  noise(turns: boolean, chance: Chance, ventCovered = false): Noise {
    const { world } = this;
    const runs = turns || this.has("wheel-loose");
    const heard = chance.uniform() < world.senses;
    if (runs && heard) {
      if (this.has("bearing-dry")) return chance.uniform() < 0.9 ? "squeal" : "whistle";
      if (this.has("bearing-worn")) return chance.pick(["rumble", "rumble", "grind"]);
      if (this.has("unbalanced")) return chance.pick(["rumble", "rumble", "rumble", "buzz"]);
      if (this.has("debris")) return chance.pick(["tick", "tick", "tick", "scrape"]);
      if (this.has("vent-whistle") && !ventCovered) return "whistle";
      if (this.has("scrape")) return chance.pick(["scrape", "scrape", "squeal", "grind"]);
      if (this.has("wheel-loose") && chance.uniform() < 0.5) return "tick";
      if (this.has("tight") && chance.uniform() < 0.2) return "squeal";
    }
    return chance.uniform() < 0.04 && runs ? chance.pick(["squeal", "rumble", "tick"] as const) : "quiet";
  }

  /** What a part, plug or wire looks like. */
  eyes(at: string, chance: Chance): string {
    const { world, fault, netlist } = this;
    const mark = this.behaviour.visible.get(at);
    if (mark) return mark;
    const index = fault.parts.indexOf(at);
    const name = fault.names[Math.max(0, index)];
    const part = netlist.circuit.parts.find(({ id }) => id === at);
    if (index >= 0 && name && chance.uniform() < world.senses) {
      const plug = !part || part.kind === "inline";
      if (plug && name.mode === "high") return chance.pick(["melted", "melted", "corroded"]);
      if (plug && name.mode === "open") return chance.pick(["melted", "corroded", "clean"]);
      if (part?.kind === "fuse" && name.mode === "blown") return "blown";
      if (part?.kind === "ground") return chance.pick(["corroded", "corroded", "clean"]);
      if (part?.kind === "resistor" && name.mode === "open") return chance.pick(["melted", "clean", "clean"]);
      if (part?.kind === "module") return chance.pick(["wet", "melted", "clean", "clean"]);
      if (name.mode === "debris" || name.mode === "filter-blocked") return "debris";
    }
    return chance.uniform() < 0.06 ? chance.pick(["corroded", "wet", "debris", "melted"]) : "clean";
  }

  /** How a motor's wheel turns by hand. */
  hand(at: string, chance: Chance): string {
    const { world } = this;
    if (this.fault.parts.includes(at) && this.has("seized"))
      return chance.uniform() < 0.97 ? "seized" : "stiff";
    if (this.fault.parts.includes(at) && chance.uniform() < 0.25 + 0.75 * world.senses) {
      if (this.has("tight")) return chance.uniform() < 0.85 ? "stiff" : "rough";
      if (this.has("bearing-dry")) return chance.pick(["stiff", "stiff", "rough", "free"]);
      if (this.has("debris", "bearing-worn", "scrape")) return chance.uniform() < 0.8 ? "rough" : "free";
    }
    return chance.uniform() < 0.05 ? "rough" : "free";
  }

  /** What the vents smell of. */
  nose(chance: Chance): string {
    const { world } = this;
    if (this.has("tight", "seized", "shorted-turns") && chance.uniform() < 0.5 * world.senses) return "burnt";
    if (this.has("filter-blocked") && chance.uniform() < 0.4 * world.senses) return "musty";
    return chance.uniform() < 0.08 ? chance.pick(["burnt", "musty"]) : "none";
  }

  /** The customer's answer when asked when it happens, or what work was done recently. */
  told(of: string, chance: Chance): string {
    const { world } = this;
    const { waitsFor } = this.behaviour;
    if (waitsFor && toldBy[waitsFor] === of && chance.uniform() < 0.8) return "yes";
    const loose = this.has("loose", "dead-spot");
    if ((of === "bumps" || of === "heat") && loose && chance.uniform() < 0.6 * world.senses) return "yes";
    if (of === "damp" && this.has("dead", "full-on", "high") && chance.uniform() < 0.3 * world.senses)
      return "yes";
    if (of === "recent-work" && world.recentWork) return "yes";
    if (of === "recent-work" && loose && chance.uniform() < 0.3) return "yes";
    return chance.uniform() < 0.09 ? "yes" : "no";
  }
}
