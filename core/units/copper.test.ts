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

// IEC 60228, maximum resistance of a class 5 conductor of plain copper at 20 °C, ohms per km, from memory: 0.5 mm²
// 39.0, 0.75 26.0, 1 19.5, 1.5 13.3, 2.5 7.98, 4 4.95, 6 3.30, 10 1.91. A ceiling for a wire of that nominal area.
test.each([
  [0.5, 39.0],
  [0.75, 26.0],
  [1, 19.5],
  [1.5, 13.3],
  [2.5, 7.98],
  [4, 4.95],
  [6, 3.3],
  [10, 1.91],
])("%p mm², 1 km stays below the ceiling of IEC 60228 and within a sixth of it", (mm2, ceiling) => {
  const ohms = copperOhms(1000, mm2);
  expect(ohms).toBeLessThan(ceiling);
  expect(ohms).toBeGreaterThan(ceiling * 0.83);
});
