import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import type { MotorConstants } from "../../motor/motorConstants";
import { blowerConstants as motor } from "../../testing/blowerMotor";
import { lampAmps, loadLamp } from "../tungstenLamp";
import { backEmf } from "./backEmf";
import type { Load } from "./load";

const load = (constants: MotorConstants, index: number): Load => ({
  element: { carries: [], senses: [], ohms: constants.ohms, emfVolts: 0 },
  motor: { constants, index },
});
const lamp: Load = { element: { carries: [], senses: [], ohms: 2.6, emfVolts: 0 }, motor: null };

/** Several loads in parallel behind one source of E volts and R ohms, each with its own lead. */
function behind(volts: number, ohms: number, leads: readonly number[], loads: readonly Load[]) {
  // Conductance of each branch with its winding; the common node by Millman's theorem.
  const g = loads.map(({ element }, i) => 1 / (element.ohms + (leads[i] as number)));
  const total = 1 / ohms + g.reduce((sum, own) => sum + own, 0);
  const node = volts / ohms / total;
  return {
    drawn: (i: number) => node * (g[i] as number),
    siemens: (i: number, j: number) => (g[i] as number) * ((i === j ? 1 : 0) - (g[j] as number) / total),
  };
}

describe("back-EMF of motors and lamps", () => {
  test("one motor: its torque balance holds, k I = friction + fan ω², and its volts are I R + k ω", () => {
    fc.assert(
      fc.property(
        fc.double({ min: 1, max: 15, noNaN: true }),
        fc.double({ min: 0.001, max: 3, noNaN: true }),
        (volts, ohms) => {
          const speeds = new Float64Array(1);
          const [emf = 0] = backEmf([load(motor, 0)], speeds, behind(volts, ohms, [0], [load(motor, 0)]));
          const speed = speeds[0] ?? 0;
          const amps = (volts - emf) / (ohms + motor.ohms);
          expect(emf).toBeCloseTo(motor.k * speed, 9);
          if (speed > 0) expect(motor.k * amps).toBeCloseTo(motor.friction + motor.fan * speed * speed, 9);
          else expect(motor.k * amps).toBeLessThanOrEqual(motor.friction + 1e-12);
        },
      ),
      { numRuns: 100, seed: 2 },
    );
  });

  test("locked, or without a path, it makes none", () => {
    const speeds = new Float64Array(1);
    const held = { ...motor, held: true };
    expect(backEmf([load(held, 0)], speeds, behind(12, 0.1, [0], [load(held, 0)]))).toEqual([0]);
    expect(backEmf([load(motor, 0)], speeds, { drawn: () => 0, siemens: () => 0 })).toEqual([0]);
    expect(speeds[0]).toBe(0);
    expect(backEmf([], speeds, { drawn: () => 0, siemens: () => 0 })).toEqual([]);
  });

  test.each([
    ["that share next to nothing", 0.005],
    ["that share a tired feed", 0.5],
    ["behind more ohms than their own", 20],
  ])("two motors %s: both torque balances hold, whichever is tighter", (_, shared) => {
    const tight = { ...motor, friction: 4 * motor.friction, ohms: 2 * motor.ohms };
    for (const pair of [
      [motor, tight],
      [tight, motor],
      [motor, { ...motor, held: true }],
    ]) {
      const loads = pair.map(load);
      for (const volts of [0.5, 3, 9, 14.2]) {
        const speeds = new Float64Array(2);
        const rest = behind(volts, shared, [0.02, 0.05], loads);
        const emf = backEmf(loads, speeds, rest);
        for (const [i, own] of pair.entries()) {
          const amps = emf.reduce((sum, volt, j) => sum - rest.siemens(i, j) * volt, rest.drawn(i));
          const speed = speeds[i] ?? 0;
          expect(emf[i]).toBeCloseTo(own.k * speed, 9);
          if (own.held) expect(speed).toBe(0);
          else if (speed > 0) expect(own.k * amps).toBeCloseTo(own.friction + own.fan * speed * speed, 8);
          else expect(own.k * amps).toBeLessThanOrEqual(own.friction + 1e-9);
        }
      }
    }
  });

  test("two motors and a lamp on one weak feed: every law holds at once", () => {
    const loads = [load(motor, 0), load({ ...motor, friction: 3 * motor.friction }, 1), lamp];
    const leads = [0.05, 0.4, 0.02];
    fc.assert(
      fc.property(
        fc.double({ min: 2, max: 15, noNaN: true }),
        fc.double({ min: 0.005, max: 1, noNaN: true }),
        (volts, ohms) => {
          const speeds = new Float64Array(2);
          const rest = behind(volts, ohms, leads, loads);
          const emf = backEmf(loads, speeds, rest);
          const amps = loads.map((_, i) =>
            emf.reduce((sum, own, j) => sum - rest.siemens(i, j) * own, rest.drawn(i)),
          );
          for (const [i, { element, motor: turning }] of loads.entries()) {
            const across = (amps[i] as number) * element.ohms + (emf[i] as number);
            if (!turning) {
              expect(amps[i]).toBeCloseTo(lampAmps(loadLamp, across), 7);
              continue;
            }
            const speed = speeds[turning.index] ?? 0;
            expect(emf[i]).toBeCloseTo(turning.constants.k * speed, 7);
            const torque = turning.constants.k * (amps[i] as number);
            if (speed > 0)
              expect(torque).toBeCloseTo(
                turning.constants.friction + turning.constants.fan * speed * speed,
                6,
              );
          }
          // Kirchhoff: the source's current equals the sum of the loads' currents.
          const node = volts - ohms * amps.reduce((sum, own) => sum + own, 0);
          for (const [i, { element }] of loads.entries())
            expect(
              (amps[i] as number) * (element.ohms + (leads[i] as number)) + (emf[i] as number),
            ).toBeCloseTo(node, 6);
        },
      ),
      { numRuns: 100, seed: 4 },
    );
  });
});
