import { describe, expect, test } from "@jest/globals";
import { faultFromId } from "../fault/fault";
import { operatingPoint } from "../solve/operatingPoint";
import { shippedNetlist } from "../testing/shippedCircuit";
import { type ClampedCurrentDraw, motorCurrentDraw } from "./currentDraw";

const netlist = shippedNetlist("whimbrel-four-speed");

/** What a clamp would show on this vehicle with a fault, at every speed. */
function clampedWith(fault: string | null, settings: readonly string[]): ClampedCurrentDraw[] {
  const parsed = fault === null ? null : faultFromId(netlist, fault);
  const changes = parsed?.ok ? parsed.value.changes : [];
  return settings.map((setting) => {
    const setup = { key: "run" as const, setting };
    return { setup, amps: operatingPoint(netlist, setup, changes).amps.M1 ?? 0 };
  });
}

const likeliest = (fault: string | null, settings = ["1", "2", "3", "4"]) =>
  motorCurrentDraw(netlist, "M1", clampedWith(fault, settings)).fits[0];

describe("the current compared with the circuit's prediction", () => {
  test.each<[string | null, string]>([
    [null, "healthy"],
    ["M1:tight@1.6", "tight"],
    ["M1:shorted-turns@0.5", "shorted-turns"],
    ["M1:worn-brushes@0.8", "worn-brushes"],
  ])("%p on every speed is called %s", (fault, condition) => {
    const fit = likeliest(fault);
    expect(fit?.condition).toBe(condition);
    expect(fit?.odds).toBeGreaterThan(0.5);
  });

  test("a blocked filter lowers the current as worn brushes do: the clamp leaves both, and the speed separates them", () => {
    const { fits } = motorCurrentDraw(
      netlist,
      "M1",
      clampedWith("CAR:filter-blocked@0.3", ["1", "2", "3", "4"]),
    );
    const [first, second] = fits;
    expect([first?.condition, second?.condition].sort()).toEqual(["filter-blocked", "worn-brushes"]);
    expect((first?.odds ?? 0) + (second?.odds ?? 0)).toBeGreaterThan(0.8);
    const rpm = (fault: string): number => {
      const parsed = faultFromId(netlist, fault);
      const changes = parsed.ok ? parsed.value.changes : [];
      return operatingPoint(netlist, { key: "run", setting: "4" }, changes).rpm.M1 ?? 0;
    };
    expect(rpm("CAR:filter-blocked@0.3")).toBeGreaterThan(1.1 * rpm("M1:worn-brushes@0.4"));
  });

  test("odds sum to 1, and one speed alone is less certain than four", () => {
    const { fits } = motorCurrentDraw(netlist, "M1", clampedWith("M1:tight@1.6", ["4"]));
    expect(fits.reduce((sum, { odds }) => sum + odds, 0)).toBeCloseTo(1, 9);
    expect(fits[0]?.odds).toBeLessThanOrEqual((likeliest("M1:tight@1.6")?.odds ?? 0) + 1e-9);
  });

  test("the volts across the motor separate worn brushes from a poor feed", () => {
    const setup = { key: "run" as const, setting: "4" };
    const { volts } = operatingPoint(netlist, setup, []);
    const healthyVolts = (volts["M1.+"] ?? 0) - (volts["M1.-"] ?? 0);
    const worn = motorCurrentDraw(netlist, "M1", [{ setup, amps: 11, volts: healthyVolts + 0.4 }]).fits[0];
    expect(worn?.condition === "worn-brushes" || worn?.condition === "filter-blocked").toBe(true);
  });

  test("without a clamp reading there is a prediction and no verdict", () => {
    const draw = motorCurrentDraw(netlist, "M1", []);
    expect(draw.fits).toEqual([]);
    expect(draw.setups.map(({ setup }) => setup.setting)).toEqual(["1", "2", "3", "4"]);
    for (const { healthyAmps, measuredAmps } of draw.setups) {
      expect(healthyAmps.low).toBeLessThanOrEqual(healthyAmps.usual);
      expect(healthyAmps.high).toBeGreaterThanOrEqual(healthyAmps.usual);
      expect(measuredAmps).toBeNull();
    }
    expect(() => motorCurrentDraw(netlist, "M9", [])).toThrow(RangeError);
  });

  test("watts in the pack and the pins go with the square of the measured current", () => {
    const setup = { key: "run" as const, setting: "2" };
    const healthy = motorCurrentDraw(netlist, "M1", []).setups.find((row) => row.setup.setting === "2");
    const amps = (healthy?.healthyAmps.usual ?? 0) * 1.5;
    const hot = motorCurrentDraw(netlist, "M1", [{ setup, amps }]).setups.find(
      (row) => row.setup.setting === "2",
    );
    expect(hot?.warm.some(({ id }) => id === "R1.e2")).toBe(true);
    for (const { id, watts, healthyWatts, hottestWatts } of hot?.warm ?? []) {
      expect(watts / healthyWatts).toBeCloseTo(2.25, 6);
      expect(hottestWatts).toBeGreaterThanOrEqual(healthyWatts);
      expect(id).not.toMatch(/^S/);
    }
    // P = I² R of the element that carries the whole current.
    const element = hot?.warm.find(({ id }) => id === "R1.e2");
    expect(element?.watts).toBeCloseTo(amps ** 2 * 0.65, 3);
  });

  test("closing the duct lowers current and shaft power and raises the speed", () => {
    const { fanCurve } = motorCurrentDraw(netlist, "M1", []);
    for (let i = 1; i < fanCurve.length; i++) {
      const [before, now] = [fanCurve[i - 1], fanCurve[i]];
      expect(now?.airShare).toBeLessThan(before?.airShare ?? 0);
      expect(now?.amps).toBeLessThan(before?.amps ?? 0);
      expect(now?.rpm).toBeGreaterThan(before?.rpm ?? 0);
    }
    expect(fanCurve[0]?.airShare).toBeCloseTo(1, 9);
  });
});
