import { expect, test } from "@jest/globals";
import { heard, shippedCircuit } from "../core/testing/shippedCircuit";
import { complaintSummary } from "./complaintSummary";

const circuit = shippedCircuit("whimbrel-four-speed");

test("speeds that do the same stand together, and a speed switched off that is off is not told", () => {
  const told = heard({ off: "none", "1": "none", "2": "none", "3": "none", "4": "weak" });
  expect(complaintSummary(circuit, told)).toBe("Speeds 1, 2 and 3: nothing. Speed 4: weak.");
  expect(complaintSummary(circuit, heard({ off: "weak", "1": "normal" }))).toBe(
    "Switched off: weak. Speed 1: normal.",
  );
});

test("what comes and goes, a noise and a blower that runs on are told; what was only tested is not", () => {
  expect(
    complaintSummary(circuit, [
      { test: "airflow", key: "run", setting: "2", seen: "none", pattern: "comes-and-goes", heard: true },
      { test: "airflow", key: "off", setting: "4", seen: "normal", heard: true },
      { test: "listen", key: "run", setting: "4", seen: "squeal", heard: true },
      { test: "airflow", key: "run", setting: "3", seen: "weak" },
    ]),
  ).toBe("Speed 2: nothing, comes and goes. It blows with the key out. Noise: squeal.");
  expect(complaintSummary(circuit, [])).toBe("");
});
