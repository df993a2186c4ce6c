// What people write in the tables of a circuit, and how it is taken.
import { describe, expect, test } from "@jest/globals";
import { wireColour } from "./wireColour";
import { idFromName } from "./writtenName";
import { gaugeMm2, writtenColour, writtenMetres, writtenMm2 } from "./writtenWire";

describe("a colour", () => {
  test.each([
    ["BK/YE", "BK/YE", undefined],
    ["bk", "BK", undefined],
    ["red", "RD", undefined],
    ["Black/Yellow", "BK/YE", undefined],
    ["blk-yel", "BK/YE", undefined],
    ["black yellow", "BK/YE", undefined],
    ["red with a white stripe", "RD/WH", undefined],
    ["purple", "VT", undefined],
    ["gray", "GY", undefined],
    ["dark blue", "BU", "dark blue"],
    ["lt blue", "BU", "light blue"],
    ["light-green", "GN", "light green"],
    ["tan", "BN", "tan"],
    ["tan/dk green", "BN/GN", "tan/dark green"],
  ])("%s", (text, colour, colourName) => {
    const taken = writtenColour(text);
    expect(taken).toEqual({ colour, ...(colourName ? { colourName } : {}) });
    expect(wireColour.safeParse(taken?.colour).success).toBe(true);
  });

  test.each(["", "plaid", "red/white/blue", "RDX", "dark"])("%j is none", (text) =>
    expect(writtenColour(text)).toBeNull(),
  );
});

describe("a size", () => {
  // The gauge's usual table (ASTM B258, from memory): 10 AWG 5.26, 12 AWG 3.31, 16 AWG 1.31, 18 AWG 0.823, 4 AWG 21.2.
  test.each([
    [4, 21.2],
    [10, 5.26],
    [12, 3.31],
    [16, 1.31],
    [18, 0.823],
  ])("%d AWG is %d mm²", (gauge, mm2) => expect(gaugeMm2(gauge)).toBe(mm2));

  test.each([
    ["2.5", 2.5],
    ["2,5 mm²", 2.5],
    ["0.75mm2", 0.75],
    ["10 AWG", 5.26],
    ["16 ga", 1.31],
  ])("%s", (text, mm2) => expect(writtenMm2(text)).toBe(mm2));

  // An inch is 25.4 mm by definition (ISO 31-1).
  test.each([
    ["0.8", 0.8],
    ["80 cm", 0.8],
    ["12 in", 0.3048],
    ["2 ft", 0.6096],
    ['6"', 0.1524],
    ["1,5 m", 1.5],
  ])("%s", (text, metres) => expect(writtenMetres(text)).toBe(metres));

  test.each(["", "long", "2 miles", "ft"])("%j is no length", (text) =>
    expect(writtenMetres(text)).toBeNaN(),
  );
});

test.each([
  ["F31", "F31"],
  ["blower fuse", "blower-fuse"],
  ["Relay #2 (left)", "Relay-2-left"],
  ["31", "N31"],
  ["relé izquierdo", "rele-izquierdo"],
])("the name %s makes the id %s", (name, id) => expect(idFromName(name)).toBe(id));
