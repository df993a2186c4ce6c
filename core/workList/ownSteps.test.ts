// The steps of work on plugs and wires themselves (common practice, no source).
import { expect, test } from "@jest/globals";
import { adaptation } from "../access/adaptation";
import { fittingNeedsBatteryOff, fittingSteps } from "../access/fittingStep";
import { shippedEngine } from "../testing/shippedCircuit";
import { ownSteps } from "./ownSteps";

const { circuit } = shippedEngine("whimbrel-four-speed").netlist;

test("a plug spliced in has a lead for each of its wires, at five minutes each, with the negative off", () => {
  const steps = ownSteps(circuit, [{ part: "X5", done: "spliced" }], []);
  expect(steps).toEqual([
    { id: "fit-X5-splice-leads", part: "X5", adaptation: { work: "splice-leads", minutes: 20, count: 4 } },
  ]);
  expect(fittingNeedsBatteryOff(steps)).toBe(true);
});

test("a wire is mended with the negative off", () => {
  const steps = ownSteps(circuit, [{ part: "W14", done: "repaired" }], []);
  expect(steps.map(({ id }) => id)).toEqual(["fit-W14-mend-wire"]);
  expect(fittingNeedsBatteryOff(steps)).toBe(true);
});

test("a plug that comes with its new part is spliced once, and other work has no step of its own", () => {
  const withPack = fittingSteps("R1", [adaptation("splice-leads", 4)]);
  expect(ownSteps(circuit, [{ part: "X5", done: "spliced" }], withPack)).toEqual([]);
  expect(
    ownSteps(
      circuit,
      [
        { part: "X5", done: "cleaned" },
        { part: "R1", done: "renewed" },
        { part: undefined, done: "renewed" },
        { part: "X3", done: "spliced", adapts: { part: "M1", work: "splice-leads" } },
      ],
      [],
    ),
  ).toEqual([]);
});
