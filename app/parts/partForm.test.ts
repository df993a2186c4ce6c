import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import { holesText } from "../../core/match/holeText";
import { type PartDescription, partDescriptionSchema } from "../../core/match/partDescription";
import { problemText } from "../../core/problem/problem";
import { fieldsOf, type PartPlace } from "./partForm";
import { partFrom } from "./readPartForm";

const demoParts: PartDescription[] = partDescriptionSchema
  .array()
  .parse(JSON.parse(readFileSync("demo/parts.json", "utf8")));

const placeOf = ({ elements, leads }: PartDescription): PartPlace => ({
  coils: (elements ?? []).map(({ from, to }) => ({ from, to })),
  pins: (leads ?? []).map(({ pin }) => pin),
});

const boxed = { number: "zx 100", title: "from a box", kind: "resistor" };
const pack: PartPlace = {
  coils: [
    { from: "T1", to: "T2" },
    { from: "T2", to: "N" },
  ],
  pins: ["1", "2"],
};
const refusal = (fields: Record<string, string>): string => {
  const read = partFrom({ ...boxed, ...fields }, pack, "XXX");
  return read.ok ? "" : read.problems.map(problemText).join("; ");
};

test.each(demoParts.map((part) => [part.number, part] as const))(
  "%s: opened in the form and sent back, it is the same part apart from its listing and price",
  (_, part) => {
    const place = placeOf(part);
    const fields = fieldsOf(part, place, holesText(part.holes ?? []));
    const listing = new Set(["fits", "replaces", "replacedBy", "priceMinor"]);
    const seen = Object.fromEntries(Object.entries(part).filter(([key]) => !listing.has(key)));
    const read = partFrom({ ...fields, number: part.number, title: part.title }, place, "XXX");
    expect(read.ok ? read.value : read.problems).toEqual(seen);
  },
);

describe("what is typed of a part", () => {
  test("an empty field is unknown; the number is in capitals; a decimal comma counts as a point", () => {
    const read = partFrom(
      { ...boxed, price: "34,50", holes: "52,5 between", "coil T1 T2": "1,2", "coil T2 N": "0.5" },
      pack,
      "XXX",
    );
    expect(read.ok && read.value).toEqual({
      format: "airway-part",
      version: 1,
      number: "ZX 100",
      title: "from a box",
      kind: "resistor",
      priceMinor: 3450,
      holes: [
        [0, 0],
        [52.5, 0],
      ],
      elements: [
        { from: "T1", to: "T2", ohms: 1.2 },
        { from: "T2", to: "N", ohms: 0.5 },
      ],
    });
  });

  test("a lead's colour may be typed in lower case", () => {
    const read = partFrom({ ...boxed, "leadColour 2": "bk/ye", "leadMm2 2": "2.5" }, pack, "XXX");
    expect(read.ok && read.value.leads).toEqual([{ pin: "2", colour: "BK/YE", mm2: 2.5 }]);
  });

  test.each([
    [{ number: "?" }, /^number: must be capitals/],
    [{ price: "cheap" }, /^price: enter an amount/],
    [{ holes: "two" }, /^holes: expected like/],
    [{ screws: "ten" }, /^screws: expected number, got "ten"/],
    [{ "coil T1 T2": "1.2" }, /^ohms\.coil T2 N: is missing/],
    [{ ratedVolts: "13.5", ratedAmps: "20" }, /^plate\.stallAmps: is missing/],
    [{ "leadColour 1": "BK" }, /^leads\.0\.mm2: /],
    [{ "leadColour 1": "black", "leadMm2 1": "1" }, /^leads\.0\.colour: must be IEC 60757/],
  ])("%j is refused by its field", (fields, message) => {
    expect(refusal(fields as Record<string, string>)).toMatch(message);
  });
});
