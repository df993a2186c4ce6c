import { copperOhms } from "../units/copper";
import { curvePoints, done, type Sum } from "./sum";

/** Temperature coefficient of annealed copper's resistance at 20 °C, per kelvin: IEC 60028. */
export const copperPerKelvin = 0.00393;

/**
 * Ohms of a copper wire at a temperature, R = ρ L / A · (1 + α (T − 20 °C)): IEC 60028.
 * @param metres of conductor, there and back if both carry the current
 */
export function wireOhms(metres: number, mm2: number, celsius: number): number {
  return copperOhms(metres, mm2) * (1 + copperPerKelvin * (celsius - 20));
}

/** The usual limit for a load lead (common practice, no source). */
const usualLimitVolts = 0.2;

export const wireDrop: Sum = {
  id: "wire-drop",
  title: "Voltage drop in a wire",
  question: "The voltage drop of a good wire at a given current. If you measure more, there is a bad joint.",
  fields: [
    {
      id: "length",
      title: "Length, one way",
      quantity: "length",
      unit: "m",
      start: "3",
      low: 0.001,
      high: 1000,
    },
    { id: "area", title: "Cross-section", quantity: "area", unit: "mm2", start: "2.5", low: 0.01, high: 500 },
    { id: "amps", title: "Current", quantity: "current", unit: "A", start: "18", low: 0, high: 2000 },
    {
      id: "temperature",
      title: "Copper at",
      quantity: "temperature",
      unit: "C",
      start: "20",
      low: -60,
      high: 250,
    },
    {
      id: "way",
      title: "The wire",
      start: "one",
      choices: [
        { id: "one", title: "one way" },
        { id: "both", title: "there and back" },
      ],
    },
    { id: "supply", title: "Supply", quantity: "voltage", unit: "V", start: "13.5", low: 0.1, high: 1000 },
  ],
  formula: "R = ρ · L / A · (1 + α · (T − 20 °C)),  V = I · R,  P = I² · R",
  source:
    "IEC 60028, annealed copper: ρ = 1.7241·10⁻⁸ Ω m and α = 0.00393 a kelvin at 20 °C. Wire gauge: ASTM B258, solid wire.",
  work: ({ figure, text }) => {
    const metres = figure("length") * (text("way") === "both" ? 2 : 1);
    const ohms = wireOhms(metres, figure("area"), figure("temperature"));
    const amps = figure("amps");
    const volts = amps * ohms;
    return done({
      results: [
        { id: "volts", title: "Lost", base: volts, quantity: "voltage", unit: "V", main: true },
        { id: "ohms", title: "Resistance", base: ohms, quantity: "resistance", unit: "mohm" },
        {
          id: "share",
          title: "Share of the supply",
          base: (100 * volts) / figure("supply"),
          quantity: "share",
          unit: "pct",
        },
        { id: "watts", title: "Heat in the wire", base: amps * volts, quantity: "power", unit: "W" },
      ],
      notes: [
        ...(volts > figure("supply")
          ? ["More than the supply voltage: this current cannot flow through this wire."]
          : []),
        ...(volts > usualLimitVolts && volts <= figure("supply")
          ? [
              "Over 0.2 V, the usual limit for a load wire (common practice). Long or thin wires drop this much even when good.",
            ]
          : []),
        "A stranded wire has up to 2 % more resistance because its strands are twisted (common practice, no source).",
      ],
      curve: {
        title: "Lost by current",
        across: "A",
        up: "V",
        points: curvePoints(0, Math.max(1, 2 * amps), (x) => x * ohms),
        here: { x: amps, y: volts },
      },
    });
  },
};
