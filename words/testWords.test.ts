import { candidateLooks } from "@core/diagnose/tests/candidateTests";
import { allTools } from "@core/predict/observations/observation";
import { lookText, setupText } from "@core/predict/readingText";
import { shippedEngine, shippedIds } from "@core/testing/shippedCircuit";
import { describe, expect, test } from "@jest/globals";
import { faultWords, partName, repairName } from "./partName";
import { lookWords, probePoint } from "./testWords";

describe.each(shippedIds)("words for %s", (id) => {
  const engine = shippedEngine(id);
  const { circuit } = engine.netlist;

  test("every look that can be offered has words that say what, where and in which set-up", () => {
    const looks = candidateLooks(engine, allTools, true);
    expect(looks.length).toBeGreaterThan(100);
    for (const { look } of looks) {
      const words = lookWords(circuit, look);
      const whole = `${words.before} ${words.points.join(" ")} ${words.after} ${words.how}`;
      expect(words.before.length).toBeGreaterThan(3);
      expect(whole).not.toMatch(/undefined|null|\[object|NaN/);
      expect(lookText(look).length).toBeGreaterThan(4);
      for (const plug of look.unplugged ?? []) expect(setupText(look)).toContain(`${plug} off`);
      const point = probePoint(look);
      if (point) expect(engine.netlist.points.ownerOf.has(point)).toBe(true);
    }
  });

  test("every fault has words, and every part a name", () => {
    for (const { id: fault, fault: placed } of engine.variants) {
      expect(faultWords(fault)).toMatch(/^[a-z0-9]/i);
      expect(faultWords(fault)).not.toMatch(/@|undefined/);
      expect(repairName(circuit, placed.parts)).not.toMatch(/something else|undefined/);
    }
    for (const { id: part } of circuit.parts) expect(partName(circuit, part)).not.toBe("something else");
    expect(partName(circuit, "Q99")).toBe("something else");
  });
});
