import { shippedEngine, shippedIds } from "@core/testing/shippedCircuit";
import { describe, expect, test } from "@jest/globals";
import { placeOf, seenName, seenText } from "./seenName";

const { circuit } = shippedEngine("whimbrel-four-speed").netlist;

test.each([
  ["a pin by its plug, its wire and its id", "X5:2", "resistor plug, pin 2, black/yellow wire (X5:2)"],
  ["a terminal by its part", "R1.T4", /^resistor pack, terminal T4, .* wire \(R1\.T4\)$/],
  ["a thermal link as what it is", "R1.link", "resistor pack, thermal link (R1.link)"],
  ["the motor's own terminals by their sign", "M1.-", /^blower motor, negative terminal, .* wire \(M1\.-\)$/],
  ["a coil", "R1.e1", "resistor pack, coil e1 (R1.e1)"],
  ["a wire by its colour", "W14", "black/yellow wire (W14)"],
  ["a part", "M1", "blower motor (M1)"],
  ["a fuse by its rating", "F7", "30 A fuse (F7)"],
  ["a battery post without an id", "G1.+", "battery positive"],
  ["the other post", "G1.-", "battery negative"],
  ["what the circuit does not have by its id", "Q99.x", "Q99.x"],
] as const)("%s: %s", (_, id, text) => {
  if (typeof text === "string") expect(seenText(circuit, id)).toBe(text);
  else expect(seenText(circuit, id)).toMatch(text);
});

test("where a part is, as its circuit says it; null where it says nothing", () => {
  expect(placeOf(circuit, "F7.in")).toBe(circuit.parts.find(({ id }) => id === "F7")?.place);
  expect(placeOf(circuit, "Q99.x")).toBeNull();
});

describe.each(shippedIds)("names of %s", (id) => {
  const engine = shippedEngine(id);

  test("every point, part, plug and wire has a name that is more than its id", () => {
    const own = engine.netlist.circuit;
    const ids = [...engine.netlist.points.ownerOf.keys(), ...own.parts, ...own.connectors, ...own.wires].map(
      (item) => (typeof item === "string" ? item : item.id),
    );
    const bare = ids.filter(
      (item) => seenName(own, item).name === item || seenText(own, item).includes("undefined"),
    );
    expect(bare).toEqual([]);
  });
});
