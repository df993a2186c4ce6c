// The priors are judgements (common practice, no source). These tests check that the printed ones are the ones used,
// and the order practitioners give.
import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import { shippedIds, shippedNetlist } from "../testing/shippedCircuit";
import { catalogue } from "./catalogue";
import { modeWeights, pairWeights, pinClass } from "./prior";

const printed = readFileSync("docs/engine.md", "utf8");

/** The weights in a row of the documented table: `open 12, high 0.4`. */
function row(kind: string): Record<string, number> {
  const line = printed.split("\n").find((text) => text.startsWith(`| ${kind} |`)) ?? "";
  return Object.fromEntries(
    (line.split("|")[2] ?? "").split(",").map((entry) => {
      const words = entry.trim().split(" ");
      return [words.slice(0, -1).join(" "), Number(words.at(-1))];
    }),
  );
}

describe("the table of priors", () => {
  test.each([
    ["thermal link", modeWeights.link],
    ["pack coil", modeWeights.element],
    ["motor", modeWeights.motor],
    ["control module", modeWeights.module],
    ["climate panel", modeWeights.head],
    ["fuse", modeWeights.fuse],
    ["key and speed switch contact", modeWeights.switchContact],
    ["speed switch common contact", modeWeights.switchCommon],
    ["battery", modeWeights.battery],
    ["the car", modeWeights.car],
    ["pin that carries a motor's current", modeWeights.loadPin],
    ["other pin", modeWeights.otherPin],
    ["wire", modeWeights.wire],
    ["ground", modeWeights.ground],
  ] as const)("prints for %s what the engine uses", (kind, weights) => {
    expect(row(kind)).toEqual({ ...weights });
  });

  test("prints the relay's and the pairs'", () => {
    expect(row("relay")).toEqual({ ...modeWeights.relayCoil, "contact high": modeWeights.relayContact.high });
    const pairs = row("pairs");
    expect(pairs["tight + link"]).toBe(pairWeights.tightAndLink);
    expect(pairs["tight + control module"]).toBe(pairWeights.tightAndModule);
    expect(pairs["pack + plug"]).toBe(pairWeights.packAndPlug);
    expect(pairs["control + plug"]).toBe(pairWeights.controlAndPlug);
    expect(pairs["seized + control module"]).toBe(pairWeights.seizedAndModule);
    expect(printed).toContain(`seized + fuse ${pairWeights.seizedAndFuse}`);
  });
});

describe("before any reading", () => {
  test.each(shippedIds)("on %s the load's parts come first, wires and grounds last", (id) => {
    const netlist = shippedNetlist(id);
    const kinds = new Map(netlist.circuit.parts.map((part) => [part.id, part.kind as string]));
    const sums = new Map<string, number>();
    for (const { fault, prior } of catalogue(netlist)) {
      if (fault.parts.length > 1) continue;
      const part = fault.parts[0] ?? "";
      const kind = kinds.get(part) ?? (part === "CAR" ? "car" : part.startsWith("W") ? "wire" : "plug");
      sums.set(kind, (sums.get(kind) ?? 0) + prior);
    }
    const lead = Math.max(sums.get("motor") ?? 0, sums.get("resistor") ?? 0, sums.get("module") ?? 0);
    for (const trailing of ["wire", "ground", "ignition", "battery"])
      expect(sums.get(trailing) ?? 0).toBeLessThan(lead);
    expect(sums.get("motor")).toBeGreaterThan(0.15);
  });
});

describe("which pins burn", () => {
  const netlist = shippedNetlist("whimbrel-four-speed");
  test.each([
    ["X5:4", "loadPin"],
    ["X3:1", "loadPin"],
    ["X6:2", "otherPin"],
    ["X99:1", "otherPin"],
  ])("%s is a %s", (pin, kind) => expect(pinClass(netlist, pin)).toBe(kind));

  test("a module's command pin carries too little to burn; its feed, ground and motor pins can", () => {
    const pwm = shippedNetlist("whimbrel-pwm-low");
    const classes = pwm.circuit.connectors.flatMap(({ id, pins }) =>
      Object.entries(pins).flatMap(([pin, terminal]) =>
        terminal.startsWith("A1.") ? [[terminal, pinClass(pwm, `${id}:${pin}`)]] : [],
      ),
    );
    expect(classes.length).toBeGreaterThan(3);
    for (const [terminal, kind] of classes) expect(kind).toBe(terminal === "A1.cmd" ? "otherPin" : "loadPin");
  });
});
