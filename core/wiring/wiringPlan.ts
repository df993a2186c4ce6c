import type { SeenCar } from "./seenCar";

/** Which side of the motor the speed control switches. */
export type SwitchedSide = "ground" | "feed";

/** How a blower with a resistor pack and a switch may be wired. */
export interface PackPlan {
  readonly drive: "resistor";
  readonly switchedSide: SwitchedSide;
  /** A relay, pulled in by the key, that feeds the circuit. */
  readonly relay: boolean;
  /** A relay of its own for the strongest speed, which goes round the pack. */
  readonly highRelay: boolean;
  /** With it: a relay of its own for each lower speed too, so that the switch carries only the coils' current. */
  readonly lowRelays: boolean;
  /** The switch's strongest output passes through the pack's plug. */
  readonly highAtPack: boolean;
  /** Whether each tap has an element of its own, or uses those of the faster taps too. */
  readonly packShape: "chain" | "star";
  readonly speeds: number;
  readonly blowers: 1 | 2;
}

/** How a panel asks for more air: with more volts up to five, with fewer, or with more up to nine or so. */
export type CommandShape = "rising" | "falling" | "wide";

/** How a blower with an electronic control and a panel may be wired. */
export interface ModulePlan {
  readonly drive: "pwm" | "linear" | "bus";
  readonly command: CommandShape;
  readonly switchedSide: SwitchedSide;
  readonly relay: boolean;
  readonly speeds: number;
  readonly blowers: 1 | 2;
}

/** One way a vehicle may be wired, with how common it is. */
export interface WiringPlan {
  readonly plan: PackPlan | ModulePlan;
  /** Its share among all vehicles that look the same. */
  readonly prior: number;
}

/** The number of speeds where nobody has counted them (common practice, no source). */
const usualSpeeds = { resistor: 4, module: 7 } as const;

/*
 * Shares of the ways to wire a blower. They are judgements from common practice, without a source: packs are switched
 * in the ground more often than in the feed, most have a relay that the key pulls in, and few have one for the
 * strongest speed alone. Controls are usually pulse-width modulated and in the ground.
 */
const packShare = { dial: 0.85, buttons: 0.15, unknown: 0.6 } as const;
const groundSide = 0.6;
const feedRelay = 0.6;
const ownHighRelay = 0.2;
/** Share of vehicles with a relay for the strongest of two speeds that have one for the other as well. */
const ownLowRelay = 0.6;
/** Share of packs in which every tap has an element of its own. */
const starPack = 0.2;
const throughPackPlug = 0.2;
const moduleDrives = { pwm: 0.55, linear: 0.3, bus: 0.15 } as const;
const moduleGroundSide = 0.7;
const moduleRelay = 0.5;
const commandShapes = { rising: 0.65, falling: 0.2, wide: 0.15 } as const;

const share = (is: boolean, p: number): number => (is ? p : 1 - p);
const both = [true, false] as const;
const sides = ["ground", "feed"] as const;

/** How the strongest speed is wired and how the pack is built, with their shares. */
function innerPlans(
  speeds: number,
  switchedSide: SwitchedSide,
  relay: boolean,
): (Pick<PackPlan, "highRelay" | "lowRelays" | "highAtPack" | "packShape"> & { prior: number })[] {
  const usual = { highRelay: false, lowRelays: false, highAtPack: false, packShape: "chain" } as const;
  const direct = 1 - throughPackPlug;
  // With one tap there is nothing to tell the two shapes apart.
  const star = speeds > 2 ? starPack : 0;
  const plain = [
    { ...usual, prior: direct * (1 - star) },
    { ...usual, highAtPack: true, prior: throughPackPlug },
    ...(star > 0 ? [{ ...usual, packShape: "star" as const, prior: direct * star }] : []),
  ];
  if (speeds < 2) return plain;
  // A switch that only pulls relays in needs no relay to feed it.
  const low = speeds === 2 && switchedSide === "feed" && !relay ? ownLowRelay : 0;
  return [
    { ...usual, highRelay: true, prior: ownHighRelay * (1 - low) },
    ...(low > 0 ? [{ ...usual, highRelay: true, lowRelays: true, prior: ownHighRelay * low }] : []),
    ...plain.map((own) => ({ ...own, prior: (1 - ownHighRelay) * own.prior })),
  ];
}

function packPlans(speeds: number, blowers: 1 | 2): WiringPlan[] {
  return sides.flatMap((switchedSide) =>
    both.flatMap((relay) =>
      innerPlans(speeds, switchedSide, relay).map(({ prior, ...inner }) => ({
        plan: { drive: "resistor" as const, switchedSide, relay, ...inner, speeds, blowers },
        prior: share(switchedSide === "ground", groundSide) * share(relay, feedRelay) * prior,
      })),
    ),
  );
}

function modulePlans(speeds: number, blowers: 1 | 2, commandRead: boolean): WiringPlan[] {
  const drives = ["pwm", "linear", "bus"] as const;
  // A command that falls needs a control without feed at key off, because an open command wire asks for full speed.
  const shapes = (
    drive: ModulePlan["drive"],
    relay: boolean,
  ): readonly (readonly [CommandShape, number])[] => {
    if (!commandRead || drive === "bus") return [["rising", 1]];
    const { rising, falling, wide } = commandShapes;
    return relay
      ? [
          ["rising", rising],
          ["falling", falling],
          ["wide", wide],
        ]
      : [
          ["rising", rising + falling],
          ["wide", wide],
        ];
  };
  return drives.flatMap((drive) =>
    (drive === "bus" ? (["ground"] as const) : sides).flatMap((switchedSide) =>
      both.flatMap((relay) =>
        shapes(drive, relay).map(([command, shape]) => ({
          plan: { drive, command, switchedSide, relay, speeds, blowers },
          prior:
            moduleDrives[drive] *
            (drive === "bus" ? 1 : share(switchedSide === "ground", moduleGroundSide)) *
            share(relay, moduleRelay) *
            shape,
        })),
      ),
    ),
  );
}

/**
 * The ways a vehicle may be wired, by what is seen of it; their shares sum to 1.
 * @param settings the highest speed that a reading names, if nobody counted them
 * @param commandRead whether anything was read where the command can be: until then its shape makes no difference
 */
export function wiringPlans(seen: SeenCar, settings = 0, commandRead = false): WiringPlan[] {
  const counted = seen.speeds ?? (settings > 0 ? settings : null);
  const blowers = seen.blowers ?? 1;
  const part = seen.speedPart ?? "unknown";
  const pack = part === "pack" ? 1 : part === "module" ? 0 : packShare[seen.controls ?? "unknown"];
  const plans = [
    ...(pack > 0
      ? packPlans(counted ?? usualSpeeds.resistor, blowers).map((own) => ({
          ...own,
          prior: pack * own.prior,
        }))
      : []),
    ...(pack < 1
      ? modulePlans(counted ?? usualSpeeds.module, blowers, commandRead).map((own) => ({
          ...own,
          prior: (1 - pack) * own.prior,
        }))
      : []),
  ];
  const whole = plans.reduce((sum, { prior }) => sum + prior, 0);
  return plans.map(({ plan, prior }) => ({ plan, prior: prior / whole }));
}
