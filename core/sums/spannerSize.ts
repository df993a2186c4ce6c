import { millimetresPerInch, socketSize, sockets, substitutesFor } from "../units/spanner";
import { done, refusedAt, type Sum } from "./sum";

export const spannerSize: Sum = {
  id: "spanner",
  title: "Metric and inch sockets",
  question: "Which socket of the other system fits.",
  fields: [{ id: "size", title: "Size", text: true, start: "7 mm", hint: "such as 7 mm or 9/32 in" }],
  formula: "1 in = 25.4 mm;  it fits if it is at most 0.07 mm too small or 0.15 mm too big",
  source:
    "The inch: international agreement of 1959. What still turns a small screw: common practice, no source.",
  work: ({ text }) => {
    const typed = text("size")
      .trim()
      .replace(/(\d)(mm|in)$/, "$1 $2")
      .replace(/["”]$/, " in");
    const size = socketSize(typed);
    if (!size) return refusedAt("size", "Enter a size across flats, such as 7 mm or 9/32 in.");
    const all = sockets
      .filter(({ text: own }) => own.endsWith("in") !== size.text.endsWith("in"))
      .map((own) => ({ ...own, off: own.millimetres - size.millimetres }))
      .sort((a, b) => Math.abs(a.off) - Math.abs(b.off))
      .slice(0, 4);
    const good = substitutesFor(size.text);
    return done({
      results: [
        {
          id: "mm",
          title: "Across flats",
          base: size.millimetres / 1000,
          quantity: "length",
          unit: "mm",
          main: true,
        },
        { id: "in", title: "converted", base: size.millimetres / 1000, quantity: "length", unit: "in" },
      ],
      notes: [
        good.length === 0
          ? "No socket of the other system fits well enough. Get the right one; a rounded head costs hours."
          : "A loose socket can round a tight head. Use the right size to break it loose if you can.",
      ],
      table: {
        head: ["socket", "off by", "fits"],
        body: all.map((own) => [
          own.text,
          `${own.off > 0 ? "+" : ""}${own.off.toFixed(2)} mm (${(own.off / millimetresPerInch).toFixed(3)} in)`,
          good.find(({ text: name }) => name === own.text)?.fit ??
            (own.off < 0 ? "no, too small" : "no, too big"),
        ]),
      },
    });
  },
};
