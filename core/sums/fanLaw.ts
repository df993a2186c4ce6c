import { curvePoints, done, type Sum } from "./sum";

/** A fan at another speed, as shares of its original airflow, pressure and power: fan laws. */
export const fanLaws = (speedShare: number) => ({
  air: speedShare,
  pressure: speedShare ** 2,
  power: speedShare ** 3,
});

export const fanLaw: Sum = {
  id: "motor-watts",
  title: "Motor power and the fan at another speed",
  question: "The power the motor takes now, and the air and power at another speed.",
  fields: [
    {
      id: "volts",
      title: "Volts at the motor",
      quantity: "voltage",
      unit: "V",
      start: "12.8",
      low: 0,
      high: 500,
    },
    { id: "amps", title: "Current", quantity: "current", unit: "A", start: "17.6", low: 0, high: 1000 },
    {
      id: "now",
      title: "Speed now",
      quantity: "turning",
      unit: "rpm",
      start: "3100",
      low: 1,
      high: 100_000,
    },
    {
      id: "other",
      title: "Another speed",
      quantity: "turning",
      unit: "rpm",
      start: "2100",
      low: 0,
      high: 100_000,
    },
  ],
  formula: "P = V · I;  air ∝ n,  pressure ∝ n²,  power at the shaft ∝ n³",
  source:
    "Fan laws for the same fan in the same air (ISO 5801; ASHRAE Handbook, Fans: from memory). The motor's own loss in its winding and brushes does not follow them.",
  work: ({ figure }) => {
    const watts = figure("volts") * figure("amps");
    const share = figure("other") / figure("now");
    const laws = fanLaws(share);
    return done({
      results: [
        { id: "watts", title: "Power now", base: watts, quantity: "power", unit: "W", main: true },
        { id: "air", title: "Air at the other speed", base: 100 * laws.air, quantity: "share", unit: "pct" },
        {
          id: "pressure",
          title: "Pressure there",
          base: 100 * laws.pressure,
          quantity: "share",
          unit: "pct",
        },
        {
          id: "power",
          title: "Power for the air there",
          base: 100 * laws.power,
          quantity: "share",
          unit: "pct",
        },
      ],
      notes: [
        "A fan whose duct is blocked moves less air and so draws less: low amps with weak air mean a blockage or a slipping wheel, not a weak motor.",
      ],
      curve: {
        title: "Power for the air by speed",
        across: "rpm",
        up: "% of now",
        points: curvePoints(
          0,
          Math.max(figure("now"), figure("other")) * 1.1,
          (x) => 100 * fanLaws(x / figure("now")).power,
        ),
        here: { x: figure("other"), y: 100 * laws.power },
      },
    });
  },
};
