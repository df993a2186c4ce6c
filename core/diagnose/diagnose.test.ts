import { describe, expect, test } from "@jest/globals";
import { brokenVehicle } from "../../e2e/brokenVehicle";
import { type Reading, readingSchema } from "../predict/reading";
import { CompiledCircuit } from "../predict/tables/compiledCircuit";
import { problemText } from "../problem/problem";
import { buildNetlist } from "../solve/buildNetlist";
import { heard, shippedCircuit, shippedEngine, shippedIds } from "../testing/shippedCircuit";
import { light } from "../testing/takenReadings";
import { type Diagnosis, diagnose } from "./diagnose";
import { openPlaces, testMinutes } from "./tests/access";

const engine = shippedEngine("whimbrel-four-speed");

function diagnosed(readings: Reading[], id = "whimbrel-four-speed"): Diagnosis {
  const result = diagnose(shippedEngine(id), readings);
  if (!result.ok) throw new Error(result.problems.map(problemText).join("; "));
  return result.value;
}

const partOf = (diagnosis: Diagnosis, part: string): number =>
  diagnosis.parts.find((entry) => entry.part === part)?.p ?? 0;

const onlyTop = heard({ off: "none", "1": "none", "2": "none", "3": "none", "4": "normal" });
const allDead = heard({ "1": "none", "2": "none", "3": "none", "4": "none" });

describe("facts of the trade (common practice, no source)", () => {
  test("only the top speed blows: pack, link or its plug about nine times in ten, but not confirmed", () => {
    const diagnosis = diagnosed(onlyTop);
    const faults = diagnosis.suspects.filter(({ repair }) =>
      repair.parts.some((id) => id === "R1" || id === "X5"),
    );
    expect(faults.reduce((sum, { p }) => sum + p, 0)).toBeGreaterThan(0.85);
    expect(diagnosis.verdict.state).toBe("open");
    expect(diagnosis.verdict.because).toContainEqual(
      expect.objectContaining({ kind: "path", dead: ["1", "2", "3"], working: ["4"] }),
    );
  });

  test("the same on the feed side", () => {
    const speeds = heard({ "1": "none", "2": "none", "3": "none", "4": "normal" });
    const diagnosis = diagnosed(speeds, "godwit-four-speed-feed");
    expect(diagnosis.parts[0]?.part).toBe("R2");
    expect(partOf(diagnosis, "R2") + partOf(diagnosis, "X7")).toBeGreaterThan(0.85);
  });

  test("one lower speed is dead, the others work: that element, tap, wire or contact", () => {
    const diagnosis = diagnosed(heard({ "1": "none", "2": "normal", "3": "normal", "4": "normal" }));
    const own = diagnosis.suspects.filter(({ fault }) => /R1\.e1|X5:1|W13|S2\.L1|X6:2/.test(fault ?? ""));
    // Most of the rest is a tight motor that only stalls on the lowest speed.
    expect(own.reduce((sum, { p }) => sum + p, 0)).toBeGreaterThan(0.85);
  });

  test("dead on every speed, feed and ground measured at the motor plug, motor connected: the motor first", () => {
    const measured = [...allDead, light("X3:1", "G1.-", "4", "bright"), light("X3:2", "G1.+", "4", "bright")];
    const diagnosis = diagnosed(measured);
    expect(diagnosis.parts[0]?.part).toBe("M1");
    expect(partOf(diagnosis, "M1")).toBeGreaterThan(0.75);
  });

  test("a speed at full strength clears everything that carries its current of an open: fuse, relay, motor", () => {
    const diagnosis = diagnosed(heard({ "4": "normal" }));
    for (const fault of ["F7:blown", "K3:coil-open", "K3:stuck-open", "M1:open", "M1:seized", "F19:blown"]) {
      const before = engine.variants.find(({ family }) => family === fault)?.prior ?? 0;
      const after = diagnosis.suspects.find((suspect) => suspect.fault === fault)?.p ?? 1;
      expect({ fault, share: after / before < 0.1 }).toEqual({ fault, share: true });
    }
  });

  test("it does not clear a tight motor", () => {
    const tight = (list: Reading[]): number =>
      diagnosed(list)
        .suspects.filter(({ fault }) => fault?.startsWith("M1:tight"))
        .reduce((sum, { p }) => sum + p, 0);
    expect(tight(heard({ "4": "normal" }))).toBeGreaterThan(0.2 * tight([]));
  });
});

/** Takes every suggested test, answered by a nominal vehicle with the fault, until the verdict. */
function played(
  id: string,
  fault: string,
): { diagnosis: Diagnosis; looks: number; readings: readonly Reading[] } {
  const vehicle = brokenVehicle(id, fault);
  const settings = shippedEngine(id).netlist.circuit.settings.slice(1);
  const readings = heard(Object.fromEntries(settings.map((setting) => [setting, vehicle.airflow(setting)])));
  for (let looks = 0; ; looks++) {
    const diagnosis = diagnosed(readings, id);
    const [next] = diagnosis.next;
    if (diagnosis.verdict.state !== "open" || !next || looks === 14) return { diagnosis, looks, readings };
    const result = vehicle.answer(next.test);
    const key = ["volts", "amps", "ohms"].includes(next.test.test) ? next.test.test : "seen";
    readings.push(readingSchema.parse({ ...next.test, [key]: result }));
  }
}

describe("a whole job", () => {
  test("confirms the pack within four tests after the complaint, the motor's current among them", () => {
    const { diagnosis, looks } = played("whimbrel-four-speed", "R1.link:open");
    expect(diagnosis.verdict).toMatchObject({ state: "settled", replace: ["R1"], alsoCheck: [] });
    expect(looks).toBeLessThanOrEqual(4);
  });

  test("confirms nothing from the same readings if nobody has seen how the circuit is wired, and says why", () => {
    const { readings } = played("whimbrel-four-speed", "R1.link:open");
    const netlist = buildNetlist(
      { ...shippedCircuit("whimbrel-four-speed"), wiring: "assumed" },
      { lumpWires: true },
    );
    if (!netlist.ok) throw new Error("it cannot be solved");
    const found = diagnose(new CompiledCircuit(netlist.value), readings);
    if (!found.ok) throw new Error("it cannot be diagnosed");
    expect(found.value.verdict.replace).toEqual(["R1"]);
    expect(found.value.verdict.state).not.toBe("settled");
    expect(found.value.verdict.because).toContainEqual({ kind: "wiring-assumed" });
  });

  test.each([
    ["whimbrel-four-speed", "M1:open", ["M1"]],
    ["godwit-two-relays", "K6:coil-open", ["K6"]],
    ["siskin-linear-low", "A2:dead", ["A2"]],
    ["whimbrel-pwm-low", "X9:1:open", ["X9"]],
    ["whimbrel-high-relay", "K4.87a:high@20", ["K4"]],
    ["dotterel-linear-high", "W14:open", ["W14"]],
    ["dunlin-rear-blower", "R1.link:open", ["R1"]],
  ])("on %s with %s ends on %p", (id, fault, replace) => {
    const { diagnosis, looks } = played(id, fault);
    expect(diagnosis.verdict.replace).toEqual(replace);
    expect(diagnosis.verdict.state).not.toBe("open");
    // Before the tests are used up; the fleet benchmark covers the mean over vehicles.
    expect(looks).toBeLessThan(14);
  });
});

test("a dead control and a bad pin of its plug are told apart by leads that bypass the plug", () => {
  const { diagnosis } = played("siskin-linear-low", "A1:dead");
  expect(diagnosis.verdict).toMatchObject({ state: "settled", replace: ["A1"] });
  expect(played("siskin-linear-low", "X4:1:open").diagnosis.verdict.replace).toEqual(["X4"]);
});

describe("what comes back", () => {
  test.each(shippedIds)(
    "on %s: probabilities sum to 1, outcomes' odds nearly so, tests are new and ranked",
    (id) => {
      const [, ...speeds] = shippedEngine(id).netlist.circuit.settings;
      const diagnosis = diagnosed(
        heard(Object.fromEntries(speeds.map((speed) => [speed, "weak" as const]))),
        id,
      );
      expect(diagnosis.suspects.reduce((sum, { p }) => sum + p, 0)).toBeCloseTo(1, 9);
      expect(diagnosis.suspects.some(({ fault }) => fault === null)).toBe(true);
      for (const { outcomes, bits, minutes } of diagnosis.next) {
        const sum = outcomes.reduce((total, { p }) => total + p, 0);
        expect(sum).toBeGreaterThan(0.97);
        expect(sum).toBeLessThan(1.0001);
        expect(bits).toBeGreaterThan(0);
        expect(minutes).toBeGreaterThan(0);
      }
    },
  );

  test("access to a place is paid for once, and a battery that has to be disconnected must be reached", () => {
    const spin = { test: "spin", at: "M1" } as const;
    const seen: Reading[] = [{ test: "look", at: "X3", seen: "clean" }];
    expect(testMinutes(engine, spin, openPlaces(engine, onlyTop))).toBe(1.5 + 4);
    expect(testMinutes(engine, spin, openPlaces(engine, seen))).toBe(1.5);
    const ohms = { test: "ohms", red: "R1.T1", black: "R1.T4", unplugged: ["X5"] } as const;
    expect(testMinutes(engine, { ...ohms, unplugged: ["X5"] }, openPlaces(engine, seen))).toBe(1.2 + 0.5 + 2);
  });

  test("the strategies start where they say and then follow the calculation", () => {
    const begins = (school: "supply-first" | "motor-first" | "resistor-first"): string => {
      const result = diagnose(engine, allDead, { school });
      return JSON.stringify(result.ok ? result.value.next[0]?.test : null);
    };
    expect(begins("supply-first")).toMatch(/F7|F1|F19|K3/);
    expect(begins("motor-first")).toMatch(/X3|M1/);
    expect(begins("resistor-first")).toMatch(/X5|R1/);
  });

  test("without tools there are only eyes, ears and hands", () => {
    const result = diagnose(engine, onlyTop, { tools: [] });
    const tests = result.ok ? result.value.next.map(({ test }) => test.test) : [];
    expect(tests.length).toBeGreaterThan(0);
    expect(tests.filter((test) => test === "light" || test === "volts" || test === "ohms")).toEqual([]);
  });

  test("a reading that contradicts all others is pointed out", () => {
    const clean: Reading[] = [
      ...onlyTop,
      light("X5:4", "G1.-", "2", "bright"),
      { test: "ohms", red: "R1.T1", black: "R1.T4", unplugged: ["X5"], ohms: null },
      { test: "ohms", red: "R1.T3", black: "R1.T4", unplugged: ["X5"], ohms: null },
      light("F7.out", "G1.-", "4", "dark"),
    ];
    const [conflict] = diagnosed(clean).conflicts;
    expect(conflict?.reading).toBe(clean.length - 1);
    expect(conflict?.against).toEqual({ kind: "rest", expected: { test: "light", value: "bright" } });
  });

  test("readings of things the circuit does not have are refused by their place", () => {
    const result = diagnose(engine, [
      { test: "light", probe: "X5:9", clip: "G1.+", key: "run", setting: "2", seen: "dark" },
      { test: "airflow", key: "run", setting: "7", seen: "none" },
      { test: "spin", at: "R1", seen: "free" },
      { test: "ohms", red: "R1.T1", black: "R1.T2", key: "run", ohms: 1 },
    ]);
    expect(result.ok ? [] : result.problems.map(problemText)).toEqual([
      'readings.0.probe: no point "X5:9" in this circuit',
      'readings.1.setting: unknown setting "7", expected one of off, 1, 2, 3, 4',
      'readings.2.at: no motor "R1"',
      'readings.3.key: ohms are measured with key "off", got "run"',
    ]);
  });
});
