/** Costs that decide between replacing a part now and testing further, in minor units of the shop's currency. */
export interface StoppingCosts {
  /** Cost of one hour of the shop's time. */
  readonly hourMinor: number;
  /** Cost of a comeback: the labour again, the wrong part, and the customer's patience. */
  readonly comebackMinor: number;
  /** Belief below which a verdict is never called confirmed. */
  readonly settledBar: number;
  /** Price and minutes of repairs by part id or kind of part; defaults if absent. */
  readonly repairs?: Readonly<Record<string, RepairCost>> | undefined;
}

/** Cost of a repair: the part's price, and the minutes to fit it. */
export interface RepairCost {
  readonly priceMinor: number;
  readonly minutes: number;
}

/** Defaults a shop may change (judgements, no source). */
export const defaultStoppingCosts: StoppingCosts = {
  hourMinor: 9000,
  comebackMinor: 20000,
  settledBar: 0.95,
};

/** Price of a part and minutes to fit it by kind; for a wire or plug, a repair (judgements, no source). */
export const repairDefaults: Readonly<Record<string, RepairCost>> = {
  battery: { priceMinor: 12000, minutes: 15 },
  ground: { priceMinor: 200, minutes: 15 },
  fuse: { priceMinor: 300, minutes: 3 },
  ignition: { priceMinor: 9000, minutes: 40 },
  relay: { priceMinor: 1800, minutes: 5 },
  selector: { priceMinor: 4500, minutes: 30 },
  resistor: { priceMinor: 3500, minutes: 15 },
  module: { priceMinor: 9000, minutes: 15 },
  head: { priceMinor: 18000, minutes: 25 },
  motor: { priceMinor: 9500, minutes: 30 },
  inline: { priceMinor: 1500, minutes: 25 },
  connector: { priceMinor: 1500, minutes: 25 },
  wire: { priceMinor: 500, minutes: 30 },
  car: { priceMinor: 1800, minutes: 10 },
  unknown: { priceMinor: 0, minutes: 60 },
};

/** Cost of minutes at the shop's hour, rounded to a whole minor unit. */
export function minutesMinor(minutes: number, costs: StoppingCosts): number {
  return Math.round((minutes * costs.hourMinor) / 60);
}
