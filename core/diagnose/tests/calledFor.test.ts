import { expect, test } from "@jest/globals";
import type { Reading, TestOf } from "../../predict/reading";
import { heard, shippedEngine } from "../../testing/shippedCircuit";
import { calledFor } from "./calledFor";

const van = shippedEngine("whimbrel-pwm-low");
const stops = heard({ "0": "none" });
const covered = { test: "listen", key: "run", setting: "4", ventCovered: true } as const;
const pulled: TestOf<"airflow"> = { test: "airflow", key: "run", setting: "0", unplugged: ["X4"] };
const told = (seen: "whistle" | "squeal"): Reading => ({
  test: "listen",
  heard: true,
  key: "run",
  setting: "4",
  seen,
});

test("a finger goes over the vent hole for a whistle only", () => {
  expect(calledFor(van, [...stops, told("whistle")])(covered)).toBe(true);
  expect(calledFor(van, [...stops, told("squeal")])(covered)).toBe(false);
  expect(calledFor(van, stops)({ test: "listen", key: "run", setting: "4" })).toBe(true);
});

test("the control's plug is pulled to see whether it stops only if it will not stop", () => {
  const [off = "off"] = van.netlist.circuit.settings;
  expect(calledFor(van, heard({ [off]: "strong" }))({ ...pulled, setting: off })).toBe(true);
  expect(calledFor(van, heard({ [off]: "none" }))({ ...pulled, setting: off })).toBe(false);
  const bridged = [["X4:1", "A1.30"]] as [string, string][];
  expect(calledFor(van, heard({ [off]: "none" }))({ ...pulled, setting: off, bridged })).toBe(true);
});
