import { describe, expect, test } from "@jest/globals";
import { circuitWith } from "../match/newPart";
import { vehicleSamples } from "../predict/tables/vehicleSample";
import { setupState } from "../solve/netlist/setup";
import { operatingPoint } from "../solve/operatingPoint";
import { PointSolver } from "../solve/pointSolver";
import {
  netlistOf,
  shippedCircuit,
  shippedEngine,
  shippedIds,
  shippedNetlist,
} from "../testing/shippedCircuit";
import { bandOf, proofBands } from "./proofBand";
import {
  instrumentsFor,
  judgeFinding,
  proofFindingSchema,
  proofReading,
  proofState,
  wholeState,
} from "./proofFinding";
import { proofSteps as stepsOf } from "./proofRun";

describe.each(shippedIds)("the final check of %s", (id) => {
  const own = shippedEngine(id);
  const steps = stepsOf(own.netlist.circuit);

  test("goes off, up, down, off and key out, then once more with the panels on; a sound vehicle passes every step", () => {
    const speeds = own.netlist.circuit.settings.length - 1;
    expect(new Set(steps.map((step) => step.id)).size).toBe(steps.length);
    expect(steps.filter(({ id: step }) => /^(off|up|down|key)-/.test(step))).toHaveLength(
      1 + speeds + (speeds - 1) + 2,
    );
    expect(steps.filter(({ phase }) => phase === "closed")).toHaveLength(speeds + 4);
    for (const step of steps) {
      if (step.kind !== "air") continue;
      const point = operatingPoint(own.netlist, step.setup);
      const turning = Object.values(point.rpm).some((rpm) => (rpm ?? 0) > 60);
      expect([step.id, turning ? "normal" : "none"]).toEqual([step.id, step.expected]);
    }
  });

  test("its bands contain a sound vehicle's own amps and volts, and what a hand felt becomes a reading", () => {
    for (const step of steps) {
      if (step.kind !== "air") continue;
      const bands = proofBands(own.netlist, step.setup);
      if (!bands) throw new Error("no motor");
      const point = operatingPoint(own.netlist, step.setup);
      const amps = point.amps[bands.motor] ?? 0;
      const across = (point.volts[`${bands.motor}.+`] ?? 0) - (point.volts[`${bands.motor}.-`] ?? 0);
      expect(judgeFinding(step, { by: "amps", amps }, bands)).toBe("right");
      expect(judgeFinding(step, { by: "volts", volts: across }, bands)).toBe("right");
      expect(proofReading(step, { by: "airflow", seen: "weak" }, bands)).toMatchObject({
        test: "airflow",
        ...step.setup,
        seen: "weak",
      });
    }
  });
});

describe("a band", () => {
  test("is the mean and 2.5 standard deviations, the instrument's added in quadrature: 2, 4, 4, 4, 5, 5, 7, 9", () => {
    // The usual classroom example: mean 5, sum of squares 32; sample variance 32/7.
    const { low, usual, high } = bandOf([2, 4, 4, 4, 5, 5, 7, 9], () => 1.5);
    expect(usual).toBe(5);
    const reach = 2.5 * Math.sqrt(32 / 7 + 2.25);
    expect(high - usual).toBeCloseTo(reach, 12);
    expect(usual - low).toBeCloseTo(reach, 12);
  });

  test("contains all but about one in eighty sound vehicles sampled again, without a clamp's error", () => {
    const netlist = shippedNetlist("whimbrel-four-speed");
    const setup = { key: "run", setting: "4" } as const;
    const bands = proofBands(netlist, setup);
    const solver = new PointSolver(netlist);
    const branch = netlist.motors[0]?.branch ?? 0;
    const fresh = vehicleSamples(netlist, 400, 977).map(
      ({ values }) => solver.solve(values, setupState(netlist, setup), []).amps[branch] ?? 0,
    );
    const outside = fresh.filter((amps) => amps < (bands?.amps.low ?? 0) || amps > (bands?.amps.high ?? 0));
    expect(outside.length).toBeLessThan(400 / 40);
  });
});

describe("a motor whose values nobody knows", () => {
  const circuit = shippedCircuit("whimbrel-four-speed");
  const guessed = {
    ...circuit,
    parts: circuit.parts.map((part) => (part.kind === "motor" ? { ...part, assumed: true as const } : part)),
  };
  const setup = { key: "run", setting: "4" } as const;

  test("has no bands, so that the check is taken by feeling the air", () => {
    expect(proofBands(netlistOf(guessed), setup)).toBeNull();
    const top = stepsOf(guessed).find(({ id }) => id === "up-4");
    expect(top && instrumentsFor(top, null)).toEqual(["airflow"]);
  });

  test("has those of the new one once that is fitted and its plate is known", () => {
    const plate = { ratedVolts: 13.5, ratedAmps: 18, stallAmps: 70, ratedRpm: 3200 };
    const part = {
      format: "airway-part",
      version: 1,
      number: "HW 1",
      title: "blower motor",
      kind: "motor",
    } as const;
    const fitted = circuitWith(guessed, "M1", { ...part, plate });
    expect(fitted && proofBands(netlistOf(fitted), setup)).toEqual(proofBands(netlistOf(circuit), setup));
  });
});

describe("the result of a step", () => {
  const netlist = shippedNetlist("whimbrel-four-speed");
  const steps = stepsOf(netlist.circuit);
  const step = (id: string) => {
    const found = steps.find((own) => own.id === id);
    if (!found) throw new Error(id);
    return found;
  };
  const top = step("up-4");
  const bands = top.kind === "air" ? proofBands(netlist, top.setup) : null;

  test("a tight motor's amps are too high, a bad joint's too low", () => {
    const usual = bands?.amps.usual ?? 0;
    expect(judgeFinding(top, { by: "amps", amps: 1.6 * usual }, bands)).toBe("too-high");
    expect(judgeFinding(top, { by: "amps", amps: 0.4 * usual }, bands)).toBe("too-low");
    expect(judgeFinding(top, { by: "volts", volts: 7 }, bands)).toBe("too-low");
  });

  test("air against what is expected, in either direction; a noise; a check", () => {
    expect(judgeFinding(top, { by: "airflow", seen: "weak" }, bands)).toBe("too-low");
    expect(judgeFinding(top, { by: "airflow", seen: "strong" }, bands)).toBe("too-high");
    expect(judgeFinding(step("key-out"), { by: "airflow", seen: "normal" }, null)).toBe("too-high");
    expect(judgeFinding(step("listen"), { by: "listen", seen: "squeal" }, null)).toBe("wrong");
    expect(judgeFinding(step("drain"), { by: "check", good: true }, null)).toBe("right");
    expect(() => judgeFinding(step("drain"), { by: "airflow", seen: "none" }, null)).toThrow(RangeError);
    expect(() => judgeFinding(top, { by: "listen", seen: "quiet" }, bands)).toThrow(RangeError);
  });

  test("is by a method that suits its step, and only such results are judged", () => {
    const findings = [
      { by: "airflow", seen: "normal" },
      { by: "amps", amps: 10 },
      { by: "volts", volts: 12 },
      { by: "listen", seen: "quiet" },
      { by: "check", good: true },
    ] as const;
    for (const own of [top, step("listen"), step("drain")])
      for (const having of [bands, null])
        for (const finding of findings) {
          const judge = () => judgeFinding(own, finding, having);
          if (instrumentsFor(own, having).includes(finding.by)) expect(judge).not.toThrow();
          else expect(judge).toThrow(RangeError);
        }
  });

  test("becomes a reading for the engine; an inspection says nothing about the circuit", () => {
    expect(proofReading(top, { by: "amps", amps: 21 }, bands)).toEqual({
      test: "amps",
      key: "run",
      setting: "4",
      around: "M1",
      amps: 21,
    });
    expect(proofReading(top, { by: "volts", volts: 11 }, bands)).toMatchObject({
      red: "M1.+",
      black: "M1.-",
    });
    expect(proofReading(step("listen"), { by: "listen", seen: "tick" }, null)).toMatchObject({
      seen: "tick",
    });
    expect(proofReading(step("drain"), { by: "check", good: false }, null)).toBeNull();
  });

  test("one wrong step fails the check, one not done keeps it waiting, and both phases complete it", () => {
    expect(proofState(["right", null, "too-low"])).toBe("failed");
    expect(proofState(["right", null])).toBe("waiting");
    expect(proofState(["right"])).toBe("proven");
    expect(wholeState({ open: "proven", closed: "waiting" })).toBe("waiting");
    expect(wholeState({ open: "proven", closed: "proven" })).toBe("proven");
    expect(wholeState({ open: "proven", closed: "failed" })).toBe("failed");
  });

  test.each([{ by: "amps", amps: "12" }, { by: "airflow", seen: "gale" }, { by: "ear" }, { by: "check" }])(
    "%j is not a finding",
    (finding) => expect(proofFindingSchema.safeParse(finding).success).toBe(false),
  );
});
