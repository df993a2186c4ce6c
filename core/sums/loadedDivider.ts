import { curvePoints, done, type Sum } from "./sum";

/** Volts of a divider with a load across its lower half: V · (R2 ∥ L) / (R1 + R2 ∥ L). */
export function dividedVolts(volts: number, upperOhms: number, lowerOhms: number, loadOhms: number): number {
  const lower = (lowerOhms * loadOhms) / (lowerOhms + loadOhms);
  return (volts * lower) / (upperOhms + lower);
}

export const loadedDivider: Sum = {
  id: "divider",
  title: "Voltage divider with a meter or a lamp",
  question:
    "What a meter or lamp shows when the feed comes through a resistance, and why a meter shows volts where a lamp stays dark.",
  fields: [
    { id: "supply", title: "Feed", quantity: "voltage", unit: "V", start: "12.6", low: 0, high: 1000 },
    {
      id: "upper",
      title: "Ohms from the feed to the point",
      quantity: "resistance",
      unit: "kohm",
      start: "22",
      low: 1e-4,
      high: 1e12,
    },
    {
      id: "lower",
      title: "Ohms from the point to ground",
      quantity: "resistance",
      unit: "Mohm",
      start: "10",
      low: 1e-4,
      high: 1e12,
    },
    {
      id: "load",
      title: "Ohms of the meter or lamp",
      quantity: "resistance",
      unit: "Mohm",
      start: "10",
      low: 1e-4,
      high: 1e12,
    },
  ],
  formula: "V = V feed · R2′ / (R1 + R2′),  R2′ = R2 · RL / (R2 + RL)",
  source:
    "The voltage divider with a load across its lower half: any textbook of circuits (Horowitz and Hill, The Art of Electronics, chapter 1).",
  work: ({ figure }) => {
    const [volts, upper, lower, load] = [figure("supply"), figure("upper"), figure("lower"), figure("load")];
    const open = (volts * lower) / (upper + lower);
    const loaded = dividedVolts(volts, upper, lower, load);
    return done({
      results: [
        { id: "loaded", title: "Shown", base: loaded, quantity: "voltage", unit: "V", main: true },
        { id: "open", title: "With nothing on it", base: open, quantity: "voltage", unit: "V" },
        { id: "lost", title: "Lost by the load", base: open - loaded, quantity: "voltage", unit: "V" },
        {
          id: "behind",
          title: "Source resistance at the point",
          base: (upper * lower) / (upper + lower),
          quantity: "resistance",
          unit: "ohm",
        },
      ],
      notes: [
        "A hot 3 W lamp is about 48 Ω, a meter 10 MΩ: volts that hold with the meter but drop with the lamp come through a high resistance.",
      ],
      curve: {
        title: "Shown by the load, logarithmic",
        across: "load, as a power of ten of ohms",
        up: "V",
        points: curvePoints(0, 8, (power) => dividedVolts(volts, upper, lower, 10 ** power)),
        here: load >= 1 && load <= 1e8 ? { x: Math.log10(load), y: loaded } : null,
      },
    });
  },
};
