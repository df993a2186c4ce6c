import { ampsPerFigure } from "../signal/probeScale";
import { curvePoints, done, type Sum } from "./sum";

export const clampAndShunt: Sum = {
  id: "clamp-and-shunt",
  title: "Clamp and shunt scales",
  question: "How many amps the meter's millivolts stand for.",
  fields: [
    {
      id: "volts",
      title: "The meter shows",
      quantity: "voltage",
      unit: "mV",
      start: "13.4",
      low: -1000,
      high: 1000,
    },
    {
      id: "by",
      title: "Measured with",
      start: "clamp",
      choices: [
        { id: "clamp", title: "a clamp" },
        { id: "shunt", title: "a shunt" },
      ],
    },
    { id: "scale", title: "Clamp", quantity: "scale", unit: "mVA", start: "10", low: 0.001, high: 1e6 },
    {
      id: "shuntAmps",
      title: "Shunt rating, amps",
      quantity: "current",
      unit: "A",
      start: "50",
      low: 0.001,
      high: 10_000,
    },
    {
      id: "shuntVolts",
      title: "Shunt rating, volts",
      quantity: "voltage",
      unit: "mV",
      start: "75",
      low: 1e-5,
      high: 10,
    },
  ],
  formula: "clamp: I = U / scale;  shunt: R = U plate / I plate, I = U / R, P = U · I",
  source:
    "Ohm's law. A shunt's plate names its amps and the volts at them (60 mV: IEC 60051-1; 50, 75 and 100 mV are met too; from memory).",
  work: ({ figure, text }) => {
    const volts = figure("volts");
    const byShunt = text("by") === "shunt";
    const ohms = figure("shuntVolts") / figure("shuntAmps");
    const perVolt = byShunt
      ? ampsPerFigure({ kind: "shunt", ohms })
      : ampsPerFigure({ kind: "volts-per-amp", voltsPerAmp: figure("scale") / 1000 });
    const amps = volts * perVolt;
    return done({
      results: [
        { id: "amps", title: "Current", base: amps, quantity: "current", unit: "A", main: true },
        ...(byShunt
          ? ([
              { id: "ohms", title: "Shunt", base: ohms, quantity: "resistance", unit: "mohm" },
              { id: "watts", title: "Heat in it", base: volts * amps, quantity: "power", unit: "W" },
            ] as const)
          : []),
      ],
      notes: [
        ...(byShunt && Math.abs(amps) > figure("shuntAmps")
          ? ["More than the shunt's rating: it gets hot and reads wrong."]
          : []),
        byShunt
          ? "Connect a shunt in series, after a fuse. The motor gets less voltage by the shunt's drop."
          : "Set the clamp to zero before each reading, with nothing in it. Its arrow points from feed to ground.",
      ],
      curve: {
        title: "Amps by millivolts",
        across: "mV",
        up: "A",
        points: curvePoints(0, Math.max(1, 2000 * Math.abs(volts)), (mV) => (mV / 1000) * perVolt, 3),
        here: volts >= 0 ? { x: 1000 * volts, y: amps } : null,
      },
    });
  },
};
