import { lampAmps } from "../solve/tungstenLamp";
import { curvePoints, done, type Sum } from "./sum";

/** Exponents of an incandescent lamp's re-rating: light as V^3.4, life as V^−13 (lighting handbooks, from memory). */
export const lightExponent = 3.4;
export const lifeExponent = -13;

/** Share of its rated light a lamp gives at a share of its rated volts. */
export const lightShare = (voltsShare: number): number => Math.abs(voltsShare) ** lightExponent;

export const lampAtVolts: Sum = {
  id: "lamp",
  title: "Lamp at another voltage",
  question:
    "How bright a test lamp is and what it draws. At half the voltage it gives far less than half the light.",
  fields: [
    {
      id: "volts",
      title: "Volts at the lamp",
      quantity: "voltage",
      unit: "V",
      start: "9",
      low: 0,
      high: 100,
    },
    {
      id: "ratedVolts",
      title: "Lamp rating, volts",
      quantity: "voltage",
      unit: "V",
      start: "12",
      low: 0.5,
      high: 250,
    },
    {
      id: "ratedWatts",
      title: "Lamp rating, watts",
      quantity: "power",
      unit: "W",
      start: "3",
      low: 0.01,
      high: 2000,
    },
  ],
  formula: "light ∝ V^3.4,  I ∝ V^0.55 (cold: a thirteenth of the hot ohms),  P ∝ V^1.55,  life ∝ V^−13",
  source:
    "Re-rating exponents of incandescent lamps in lighting handbooks (from memory; they hold near the rated volts). Cold filament: common practice, no source.",
  work: ({ figure }) => {
    const lamp = { ratedVolts: figure("ratedVolts"), ratedWatts: figure("ratedWatts") };
    const volts = figure("volts");
    const amps = lampAmps(lamp, volts);
    const share = volts / lamp.ratedVolts;
    return done({
      results: [
        {
          id: "light",
          title: "Light",
          base: 100 * lightShare(share),
          quantity: "share",
          unit: "pct",
          main: true,
        },
        { id: "amps", title: "Draws", base: amps, quantity: "current", unit: "A" },
        { id: "watts", title: "Takes", base: volts * amps, quantity: "power", unit: "W" },
        {
          id: "ohms",
          title: "Filament",
          base: volts > 0 ? volts / amps : lamp.ratedVolts ** 2 / lamp.ratedWatts / 13,
          quantity: "resistance",
          unit: "ohm",
        },
        ...(share > 0.5
          ? ([
              {
                id: "life",
                title: "Life",
                base: 100 * share ** lifeExponent,
                quantity: "share",
                unit: "pct",
              },
            ] as const)
          : []),
      ],
      notes: [
        lightShare(share) < 0.02
          ? "It looks dark, although a meter shows volts. Shade it with your hand to check."
          : lightShare(share) < 0.4
            ? "It looks dim."
            : "It looks bright. You cannot see a loss of a tenth of the voltage on a lamp; use a meter.",
      ],
      curve: {
        title: "Light by volts",
        across: "V",
        up: "% of its rated light",
        points: curvePoints(0, 1.25 * lamp.ratedVolts, (x) => 100 * lightShare(x / lamp.ratedVolts)),
        here: { x: volts, y: 100 * lightShare(share) },
      },
    });
  },
};
