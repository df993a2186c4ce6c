import { tenthsMilli } from "../money/shopTerms";
import { done, type Sum } from "./sum";

export const hoursAndTenths: Sum = {
  id: "hours",
  title: "Hours, minutes and tenths",
  question: "Convert minutes to the tenths of an hour that are billed.",
  fields: [
    { id: "time", title: "Time taken", quantity: "time", unit: "min", start: "47", low: 0, high: 100_000 },
    { id: "rate", title: "Rate per hour", quantity: "count", unit: "n", start: "90", low: 0, high: 1e6 },
  ],
  formula: "tenths = minutes / 6, rounded up;  6 min = 0.1 h",
  source: "1 h = 60 min: ISO 80000-3. Rounded up to the tenth begun: common practice, no source.",
  work: ({ figure }) => {
    const minutes = figure("time");
    const tenths = tenthsMilli(minutes) / 1000;
    const hours = Math.floor(minutes / 60);
    const left = minutes - 60 * hours;
    return done({
      results: [
        { id: "tenths", title: "Billed", base: 60 * tenths, quantity: "time", unit: "h", main: true },
        { id: "exact", title: "To the minute", base: minutes, quantity: "time", unit: "h" },
        { id: "price", title: "At that rate", base: tenths * figure("rate"), quantity: "count", unit: "n" },
      ],
      notes: [`${hours} h ${Number(left.toFixed(1))} min on the clock.`],
      table: {
        head: ["minutes", "hours"],
        body: Array.from({ length: 10 }, (_, i) => [
          `${6 * i + 1} to ${6 * i + 6}`,
          ((i + 1) / 10).toFixed(1),
        ]),
      },
    });
  },
};
