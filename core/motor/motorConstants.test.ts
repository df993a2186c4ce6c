import { describe, expect, test } from "@jest/globals";
import { blowerConstants, blowerPlate } from "../testing/blowerMotor";
import { changedMotor, motorConstants, rpmOf, steadySpeed } from "./motorConstants";

const plate = blowerPlate;
const healthy = blowerConstants;

const ampsAt = (motor: typeof healthy, volts: number): number =>
  (volts - motor.k * steadySpeed(motor, volts)) / motor.ohms;

describe("a motor from its plate", () => {
  test("gives back its rated and stall points", () => {
    expect(rpmOf(steadySpeed(healthy, 13.5))).toBeCloseTo(3200, 6);
    expect(ampsAt(healthy, 13.5)).toBeCloseTo(18, 9);
    expect(ampsAt({ ...healthy, held: true }, 13.5)).toBeCloseTo(70, 9);
  });

  test("stands still below its break-away torque, with the winding's current", () => {
    const breakAwayVolts = (healthy.friction * healthy.ohms) / healthy.k;
    expect(steadySpeed(healthy, breakAwayVolts * 0.99)).toBe(0);
    expect(steadySpeed(healthy, breakAwayVolts * 1.01)).toBeGreaterThan(0);
    expect(steadySpeed(healthy, -5)).toBe(0);
  });

  test("a fan obeys the fan laws: torque with the square, power with the cube of the speed", () => {
    // Fan laws (affinity laws), any fan handbook: without friction torque k I grows as speed squared.
    const fan = motorConstants({ ...plate, frictionShare: 0 });
    const [slow, fast] = [steadySpeed(fan, 6), steadySpeed(fan, 12)];
    expect((ampsAt(fan, 12) * fan.k) / (ampsAt(fan, 6) * fan.k)).toBeCloseTo((fast / slow) ** 2, 9);
    const power = (volts: number, speed: number): number => ampsAt(fan, volts) * fan.k * speed;
    expect(power(12, fast) / power(6, slow)).toBeCloseTo((fast / slow) ** 3, 9);
  });
});

describe("faulty motors meet the definition of their mode", () => {
  test.each([1.3, 1.5, 2, 3])("tight@%p draws that many times its rated amps at rated volts", (times) => {
    expect(ampsAt(changedMotor(healthy, plate, { mode: "tight", times }), 13.5)).toBeCloseTo(18 * times, 9);
  });

  test("tight beyond stall is locked", () => {
    expect(changedMotor(healthy, plate, { mode: "tight", times: 5 }).held).toBe(true);
  });

  test.each([0.8, 0.6, 0.5])("shorted-turns@%p draws ratedAmps / share at rated volts", (share) => {
    const motor = changedMotor(healthy, plate, { mode: "shorted-turns", share });
    expect(ampsAt(motor, 13.5)).toBeCloseTo(18 / share, 9);
    expect(motor.k).toBe(healthy.k);
  });

  test("a blocked duct lowers the current and raises the speed", () => {
    const blocked = changedMotor(healthy, plate, { mode: "fan", times: 0.5 });
    expect(ampsAt(blocked, 13.5)).toBeLessThan(18);
    expect(steadySpeed(blocked, 13.5)).toBeGreaterThan(steadySpeed(healthy, 13.5));
  });

  test("worn brushes draw less and turn slower", () => {
    const worn = changedMotor(healthy, plate, { mode: "worn-brushes", ohms: 0.6 });
    expect(ampsAt(worn, 13.5)).toBeLessThan(18);
    expect(steadySpeed(worn, 13.5)).toBeLessThan(steadySpeed(healthy, 13.5));
  });
});
