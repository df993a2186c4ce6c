import { expect, test } from "@jest/globals";
import { copperOhms } from "./copper";

// ASTM B258 (standard nominal diameters of AWG wires), ohms per 1000 ft of solid copper at 20 °C, rows
// from memory: 10 AWG 0.9989, 12 AWG 1.588, 14 AWG 2.525, 16 AWG 4.016, 18 AWG 6.385. Diameters in mil: 101.9,
// 80.8, 64.1, 50.8, 40.3.
test.each([
  [10, 101.9, 0.9989],
  [12, 80.8, 1.588],
  [14, 64.1, 2.525],
  [16, 50.8, 4.016],
  [18, 40.3, 6.385],
])("%p AWG solid copper, 1000 ft", (_, mils, ohms) => {
  const millimetres = mils * 0.0254;
  const area = (Math.PI * millimetres * millimetres) / 4;
  expect(Math.abs(copperOhms(304.8, area) / ohms - 1)).toBeLessThan(0.005);
});
