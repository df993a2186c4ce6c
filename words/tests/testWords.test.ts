import { candidateTests } from "@core/diagnose/tests/candidateTests";
import { allTools } from "@core/predict/observations/tool";
import { probedPoint } from "@core/predict/probedPoint";
import { shippedEngine, shippedIds } from "@core/testing/shippedCircuit";
import { describe, expect, test } from "@jest/globals";
import { faultWords, partName, repairName } from "../partName";
import { setupText } from "./setupText";
import { cardLine, testText, testWords } from "./testText";

describe.each(shippedIds)("words for %s", (id) => {
  const engine = shippedEngine(id);
  const { circuit } = engine.netlist;

  test("every test that can be offered has words that say what, where and in which set-up", () => {
    const looks = candidateTests(engine, allTools, true);
    expect(looks.length).toBeGreaterThan(100);
    const wordless = looks.filter(({ test: look }) => {
      const words = testWords(circuit, look);
      const whole = `${cardLine(words)} ${words.how}`;
      const point = probedPoint(look);
      return (
        words.before.length <= 3 ||
        /undefined|null|\[object|NaN/.test(whole) ||
        testText(circuit, look).length <= 4 ||
        (look.unplugged ?? []).some(
          (plug) => !new RegExp(`${plug} (unplugged|out)`).test(setupText(circuit, look)),
        ) ||
        (point !== null && !engine.netlist.points.ownerOf.has(point))
      );
    });
    expect(wordless).toEqual([]);
  });

  test("a card says how to get to the point: behind a plug that is on, in a relay's socket", () => {
    const points = candidateTests(engine, allTools, true).flatMap(({ test: look }) => {
      const point = probedPoint(look);
      return point === null ? [] : [{ point, look, how: testWords(circuit, look).how }];
    });
    for (const { point, look, how } of points) {
      const plug = point.includes(":") ? point.slice(0, point.indexOf(":")) : null;
      if (plug) expect(how).toMatch(look.unplugged?.includes(plug) ? /loose plug/ : /Back-probe it/);
      else expect(how).not.toMatch(/Back-probe/);
      const relay = circuit.parts.find(
        ({ id: own, kind }) => kind === "relay" && point.startsWith(`${own}.`),
      );
      if (relay) expect(how).toMatch(/Pull the relay and touch its socket/);
    }
  });

  test("every fault has words, and every part a name", () => {
    const wordless = engine.variants.filter(
      ({ id: fault, fault: placed }) =>
        !/^[a-z0-9]/i.test(faultWords(fault)) ||
        /@|undefined/.test(faultWords(fault)) ||
        /something else|undefined/.test(repairName(circuit, placed.parts)),
    );
    expect(wordless.map(({ id: fault }) => fault)).toEqual([]);
    for (const { id: part } of circuit.parts) expect(partName(circuit, part)).not.toBe("something else");
    expect(partName(circuit, "Q99")).toBe("something else");
  });
});
