import { ampacity } from "../units/ampacity";
import { done, refusedAt, type Sum } from "./sum";
import { wireOhms } from "./wireDrop";

/** Cross-sections that are sold, in mm²: ISO 6722-1, preferred sizes (from memory). */
export const wireSizes = [0.35, 0.5, 0.75, 1, 1.5, 2.5, 4, 6, 10, 16, 25, 35] as const;

/** Ratings of blade fuses in amps: ISO 8820-3, types C and E (from memory). */
export const fuseRatings = [1, 2, 3, 5, 7.5, 10, 15, 20, 25, 30, 40, 50, 60, 80] as const;

/** Share of its rating a fuse can carry continuously (common practice, no source: three quarters). */
const longShare = 0.75;

/** Fuse ratings that carry a load continuously and still blow before the wire is damaged; the smallest first. */
export function fusesFor(amps: number, mm2: number): readonly number[] {
  return fuseRatings.filter((rating) => rating * longShare >= amps && rating <= ampacity(mm2));
}

/** Smallest wire on sale that drops no more than allowed, carries the current, and can be fused for it. */
export function wireFor(amps: number, metres: number, celsius: number, volts: number): number | null {
  return (
    wireSizes.find(
      (mm2) =>
        wireOhms(metres, mm2, celsius) * amps <= volts &&
        ampacity(mm2) >= amps &&
        fusesFor(amps, mm2).length > 0,
    ) ?? null
  );
}

export const wireForLoad: Sum = {
  id: "wire-and-fuse",
  title: "Wire and fuse for a load",
  question:
    "The wire size a load needs over a length, and the fuse that protects the wire without blowing in normal use.",
  fields: [
    { id: "watts", title: "Load", quantity: "power", unit: "W", start: "240", low: 0.1, high: 20_000 },
    { id: "supply", title: "Supply", quantity: "voltage", unit: "V", start: "13.5", low: 1, high: 1000 },
    {
      id: "length",
      title: "Length, there and back",
      quantity: "length",
      unit: "m",
      start: "4",
      low: 0.01,
      high: 500,
    },
    { id: "allowed", title: "Allowed loss", quantity: "share", unit: "pct", start: "3", low: 0.1, high: 50 },
    {
      id: "temperature",
      title: "Copper at",
      quantity: "temperature",
      unit: "C",
      start: "50",
      low: -60,
      high: 200,
    },
  ],
  formula:
    "I = P / V;  smallest A with I · R(A) ≤ share · V and I ≤ what A carries;  I / 0.75 ≤ fuse ≤ what A carries",
  source:
    "Resistance: IEC 60028. Sizes: ISO 6722-1; fuses: ISO 8820-3; what a wire carries at 30 °C: automotive handbooks after VDE 0298-4 (all three from memory). The three quarters: common practice, no source.",
  work: ({ figure }) => {
    const [volts, metres, celsius] = [figure("supply"), figure("length"), figure("temperature")];
    const amps = figure("watts") / volts;
    const allowed = (figure("allowed") / 100) * volts;
    const mm2 = wireFor(amps, metres, celsius, allowed);
    if (mm2 === null)
      return refusedAt(
        "watts",
        `No wire up to ${wireSizes.at(-1)} mm² is enough. Use a shorter route or a higher supply voltage, or allow more loss.`,
      );
    const [fuse = 0] = fusesFor(amps, mm2);
    const lost = wireOhms(metres, mm2, celsius) * amps;
    return done({
      results: [
        { id: "area", title: "Smallest wire", base: mm2, quantity: "area", unit: "mm2", main: true },
        { id: "fuse", title: "Fuse", base: fuse, quantity: "current", unit: "A", main: true },
        { id: "amps", title: "Load draws", base: amps, quantity: "current", unit: "A" },
        { id: "lost", title: "Lost in the wire", base: lost, quantity: "voltage", unit: "V" },
        { id: "carries", title: "The wire carries", base: ampacity(mm2), quantity: "current", unit: "A" },
      ],
      notes: [
        "A fuse protects the wire, not the load. Never fit a bigger one because the right one blew.",
        "A motor briefly draws several times its running current when it starts. A blade fuse withstands that.",
        "Bundled, hot or sheathed wires carry less. Follow the maker's tables.",
      ],
      table: {
        head: ["mm²", "carries", "loses", "fuses"],
        body: wireSizes.map((size) => [
          `${size}${size === mm2 ? " ←" : ""}`,
          `${ampacity(size).toFixed(0)} A`,
          `${(wireOhms(metres, size, celsius) * amps).toFixed(2)} V`,
          fusesFor(amps, size)
            .map((rating) => `${rating} A`)
            .join(", ") || "none",
        ]),
      },
    });
  },
};
