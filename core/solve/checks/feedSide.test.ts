import { describe, expect, test } from "@jest/globals";
import { netlistOf, shippedCircuit, shippedIds, shippedNetlist } from "../../testing/shippedCircuit";
import { feedSides } from "./feedSide";

describe("the direction of current on a healthy vehicle", () => {
  const sides = feedSides(shippedNetlist("whimbrel-four-speed"));

  test("it enters a fuse at the feed, a motor at plus and a ground point from its wire", () => {
    expect(sides.enters.get("F7.in")).toBe(true);
    expect(sides.enters.get("F7.out")).toBe(false);
    expect(sides.enters.get("M1.+")).toBe(true);
    expect(sides.enters.get("M1.-")).toBe(false);
    expect(sides.enters.get("E1.31")).toBe(true);
  });

  test("it enters a pack on the ground side where the motor is, and leaves it at the switch's taps", () => {
    expect(sides.enters.get("R1.T4")).toBe(true);
    for (const tap of ["T1", "T2", "T3"]) expect(sides.enters.get(`R1.${tap}`)).toBe(false);
  });

  test("on the feed side it is the reverse", () => {
    const feed = feedSides(shippedNetlist("godwit-four-speed-feed"));
    const circuit = shippedCircuit("godwit-four-speed-feed");
    const pack = circuit.parts.find(({ kind }) => kind === "resistor")?.id ?? "";
    const sidesOf = [...feed.enters].filter(([terminal]) => terminal.startsWith(`${pack}.`));
    expect(sidesOf.filter(([, enters]) => enters).length).toBeGreaterThan(1);
    expect(sidesOf.filter(([, enters]) => !enters)).toHaveLength(1);
  });

  test.each(shippedIds)("on %s current enters and leaves every part", (id) => {
    const netlist = shippedNetlist(id);
    const { enters } = feedSides(netlist);
    for (const { id: part, kind } of netlist.circuit.parts) {
      if (kind === "battery" || kind === "ground") continue;
      const own = [...enters].filter(([terminal]) => terminal.startsWith(`${part}.`));
      if (own.length === 0) continue;
      expect({ part, ins: own.some(([, into]) => into), outs: own.some(([, into]) => !into) }).toEqual({
        part,
        ins: true,
        outs: true,
      });
    }
  });

  test("a wire traced from its far end is known to run backwards", () => {
    const circuit = shippedCircuit("whimbrel-four-speed");
    const turned = {
      ...circuit,
      wires: circuit.wires.map((wire) =>
        wire.id === "W11" ? { ...wire, from: wire.to, to: wire.from } : wire,
      ),
    };
    const before = sides.backwards.has("W11");
    expect(feedSides(netlistOf(turned)).backwards.has("W11")).toBe(!before);
  });
});
