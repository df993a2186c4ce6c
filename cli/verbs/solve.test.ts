import { describe, expect, test } from "@jest/globals";
import { airway, demoFile, onlyTop, whimbrel } from "../testing/airway";

const control = demoFile("circuits", "siskin-linear-low.json");

describe("check, faults, solve and spice", () => {
  test("check names what it read", async () => {
    const { status, stdout } = await airway(["check", whimbrel]);
    expect(status).toBe(0);
    expect(JSON.parse(stdout)).toEqual({ ok: true, format: "airway-circuit", id: "whimbrel-four-speed" });
    expect(JSON.parse((await airway(["check", "-"], JSON.stringify(onlyTop))).stdout)).toEqual({
      ok: true,
      format: "airway-case",
      id: "van-3",
    });
  });

  test("solve gives volts, amps, watts and rpm, and names what floats", async () => {
    const { stdout } = await airway([
      "solve",
      whimbrel,
      "--key",
      "run",
      "--setting",
      "2",
      "--unplugged",
      "X5",
    ]);
    const point = JSON.parse(stdout);
    expect(point.rpm).toEqual({ M1: 0 });
    expect(point.floating).toContain("R1.T2");
    expect(point.volts["R1.T2"]).toBeNull();
    const healthy = JSON.parse(
      (await airway(["solve", whimbrel, "--key", "run", "--engine", "--setting", "2"])).stdout,
    );
    expect(healthy.rpm.M1).toBeGreaterThan(1000);
    // All of speed 2's current goes through the pack: from the T2 tap on, its elements carry the motor's amps.
    expect(Math.abs(healthy.amps["R1.e2"])).toBeCloseTo(healthy.amps.M1, 6);
    expect(healthy.watts["R1.e2"]).toBeCloseTo(healthy.amps.M1 ** 2 * 0.65, 6);
  });

  test("solve takes any fault of the catalogue by its id", async () => {
    const faults = JSON.parse((await airway(["faults", whimbrel])).stdout) as {
      fault: string;
      part: string;
      prior: number;
    }[];
    expect(faults.length).toBeGreaterThan(200);
    expect(faults.find(({ fault }) => fault === "R1.link:open")?.part).toBe("R1");
    const dead = await airway([
      "solve",
      whimbrel,
      "--key",
      "run",
      "--setting",
      "3",
      "--fault",
      "M1:tight@1.6+R1.link:open",
    ]);
    expect(JSON.parse(dead.stdout).rpm.M1).toBe(0);
  });

  test("spice writes the same operating point as an ngspice netlist with its nodes named", async () => {
    const { status, stdout } = await airway([
      "spice",
      control,
      "--key",
      "run",
      "--setting",
      "3",
      "--fault",
      "X4:2:high@0.5",
    ]);
    expect(status).toBe(0);
    expect(stdout).toMatch(/^\* siskin-linear-low\n/);
    expect(stdout).toMatch(/^\* node \d+ = X4:2$/m);
    expect(stdout).toMatch(/^BD0 d0 0 V=min\(1,max\(0,/m);
    expect(stdout).toMatch(/^\.op$/m);
    expect((await airway(["spice", control, "--plan"])).status).toBe(2);
  });
});
