import { describe, expect, test } from "@jest/globals";
import { chanceFrom } from "../chance/chance";
import { faultFromId } from "../fault/fault";
import { SimulatedVehicle } from "../practice/simulatedVehicle";
import { usualWorld } from "../practice/world";
import { placeComplaint } from "../testing/placeComplaint";
import { netlistOf, shippedCircuit } from "../testing/shippedCircuit";
import { CandidateCache } from "./compiledCandidate";
import { diagnoseWiring } from "./diagnoseWiring";
import { complaintByPlace, type FollowedWiring, followWiring } from "./followWiring";
import type { PlaceReading } from "./placeReading";
import { PlaceVehicle } from "./placeVehicle";
import { numberedSettings, seenOf, vehiclePlaces } from "./vehiclePlaces";

const cache = new CandidateCache();
/** A technician who makes no mistake, on a vehicle as it comes. */
const careful = { ...usualWorld, slip: 0, heardSlip: 0 };

/** Plays a shipped vehicle with a hidden fault, told only what can be seen of it. */
function played(circuitId: string, faultName: string, seed = 3): FollowedWiring {
  const circuit = numberedSettings(shippedCircuit(circuitId));
  const netlist = netlistOf(circuit);
  const fault = faultFromId(netlist, faultName);
  if (!fault.ok) throw new Error(faultName);
  const chance = chanceFrom(seed);
  const vehicle = new SimulatedVehicle(netlist, fault.value, careful, chance);
  const own = new PlaceVehicle(vehiclePlaces(netlist), vehicle, chance);
  return followWiring(seenOf(circuit), own, complaintByPlace(vehicle.complaint()), cache);
}

describe("a vehicle without a diagram", () => {
  // The circuits are the shipped ones, which the candidates do not contain: fuses, joints and values differ.
  test.each([
    ["godwit-four-speed-feed", "R2.link:open", "pack"],
    ["whimbrel-four-speed", "M1:open", "motor"],
    ["whimbrel-pwm-low", "M1:seized", "motor"],
    ["whimbrel-high-relay", "R1.e1:open", "pack"],
  ])("%s with %s ends on the %s, confirmed", (circuit, fault, place) => {
    const { diagnosis, looks } = played(circuit, fault);
    expect([diagnosis.verdict.state, ...diagnosis.verdict.replace]).toEqual(["settled", place]);
    expect(looks).toBeLessThanOrEqual(9);
  });

  test("nothing is confirmed on the complaint alone, and the first test says what to do at a place", () => {
    const complaint = placeComplaint(["none", "none", "none", "normal"]);
    const { verdict, next, circuits } = diagnoseWiring({ speeds: 4, speedPart: "pack" }, complaint, cache);
    expect(verdict.state).toBe("open");
    expect(verdict.because).toContainEqual({ kind: "complaint-only" });
    expect(next.length).toBeGreaterThan(0);
    expect(circuits.reduce((sum, { p }) => sum + p, 0)).toBeGreaterThan(0.98);
  });

  // Common practice, no source: a battery that falls under load makes every fan slow.
  test("a battery that gives nine volts under load is what to renew, and nothing it feeds", () => {
    const complaint = placeComplaint(["weak", "weak", "weak", "weak"]);
    const measured: PlaceReading = {
      test: "volts",
      red: "feed",
      black: "ground",
      key: "run",
      setting: "4",
      volts: 9.1,
    };
    const [before, after] = [complaint, [...complaint, measured]].map(
      (readings) => diagnoseWiring({ speeds: 4, speedPart: "pack" }, readings, cache).suspects,
    );
    expect(before?.[0]?.fault).not.toBe("battery:low");
    expect(after?.[0]?.fault).toBe("battery:low");
  });

  // Common practice, no source: a switch that is good by itself, beside a dead output, leaves the plug on it.
  test("ohms into the switch tell it from a contact of its plug", () => {
    const { diagnosis, readings } = played("whimbrel-four-speed", "X6:2:open");
    expect(readings.map(({ test: name }) => name)).toContain("ohms");
    expect(diagnosis.verdict.replace).toEqual(["switch-plug"]);
  });

  test("says how it knows the side once a light has shown it", () => {
    const readings: PlaceReading[] = [
      { test: "airflow", heard: true, key: "run", setting: "1", seen: "none" },
      // The top speed blows, so there is feed, and a dark pin is one that the switch has not fed.
      { test: "airflow", heard: true, key: "run", setting: "4", seen: "normal" },
      {
        test: "light",
        at: "motor-plug",
        clip: "ground",
        key: "run",
        setting: "0",
        seen: { a: "dark", b: "dark" },
      },
    ];
    const { verdict } = diagnoseWiring({ speeds: 4, speedPart: "pack" }, readings, cache);
    expect(verdict.because).toContainEqual(
      expect.objectContaining({ kind: "fact", fact: "switchedSide", value: "feed" }),
    );
  });
});

describe("a control that may be on a data bus", () => {
  // Common practice, no source: a healthy control of such a car must never be condemned.
  const dead: PlaceReading[] = [
    ...["1", "4", "7"].map(
      (setting): PlaceReading => ({ test: "airflow", heard: true, key: "run", setting, seen: "none" }),
    ),
    {
      test: "light",
      at: "motor-plug",
      clip: "ground",
      key: "run",
      setting: "7",
      seen: { a: "bright", b: "bright" },
    },
    {
      test: "volts",
      at: "module-plug",
      black: "ground",
      key: "run",
      setting: "7",
      volts: { a: 12.3, b: 0, c: 6.1, d: 12.3, e: 12.3 },
    },
  ];

  test("is not condemned while that is open, and the verdict says so", () => {
    const { verdict } = diagnoseWiring({ controls: "buttons", speeds: 7, speedPart: "module" }, dead, cache);
    const accused = verdict.replace.some((place) => place === "module" || place === "panel");
    if (accused) expect(verdict.state).not.toBe("settled");
    expect(verdict.because).toContainEqual(expect.objectContaining({ kind: "may-be-bus" }));
  });
});

describe("what comes back", () => {
  const seen = { speeds: 4, speedPart: "pack" } as const;
  const onlyTop = placeComplaint(["none", "none", "none", "normal"]);
  const lampOff: PlaceReading = {
    test: "light",
    at: "motor-plug",
    clip: "ground",
    key: "run",
    setting: "0",
    seen: { a: "bright", b: "bright" },
  };
  const sum = (of: readonly { p: number }[]): number => of.reduce((all, { p }) => all + p, 0);

  test("suspects sum to 1 and are named by place; suspects that no test parts share a group", () => {
    const { suspects, parts } = diagnoseWiring(seen, onlyTop, cache);
    expect(sum(suspects)).toBeCloseTo(1, 6);
    expect(suspects.map(({ fault }) => fault)).toContain("unknown");
    expect(parts[0]?.part).toBe("pack");
    for (const { fault } of suspects.slice(0, 20))
      expect(fault).toMatch(/^(unknown|[a-z-]+:[a-z-]+(\+[a-z-]+:[a-z-]+)?)$/);
    const [first] = suspects;
    expect(first?.group).toBe(1);
    expect(first?.wirings).toBeGreaterThan(3);
  });

  test("a cause and its victim are both to be repaired, and the cause is named", () => {
    // A motor that is stiff by hand and a pack with an open element: one burnt the other (common practice, no source).
    const readings: PlaceReading[] = [
      ...onlyTop,
      lampOff,
      { test: "ohms", at: "pack-plug", from: "a", ohms: { b: null, c: null, d: null } },
      { test: "spin", at: "motor", seen: "stiff" },
      { test: "airflow", leads: true, seen: "weak" },
      { test: "amps", around: "motor-plug:a", key: "run", setting: "4", amps: 27 },
    ];
    const { verdict } = diagnoseWiring(seen, readings, cache);
    expect(verdict.replace).toEqual(["motor", "pack"]);
    expect(verdict.killedBy).toBe("motor");
  });

  test("a reading that the leading repair does not explain is named, and keeps the verdict open", () => {
    // The pack is open between all its pins, and yet somebody writes down that a lower speed blows.
    const readings: PlaceReading[] = [
      ...onlyTop,
      lampOff,
      { test: "look", at: "pack", seen: "melted" },
      { test: "ohms", at: "pack-plug", from: "a", ohms: { b: null, c: null, d: null } },
      { test: "airflow", key: "run", setting: "2", seen: "normal" },
    ];
    const { verdict, conflicts } = diagnoseWiring(seen, readings, cache);
    expect(verdict.replace).toContain("pack");
    expect(conflicts).toEqual([readings.length - 1]);
    expect(verdict.state).not.toBe("settled");
    const { conflicts: none } = diagnoseWiring(seen, readings.slice(0, -1), cache);
    expect(none).toEqual([]);
  });

  test("tests need the tools at hand, and what was taken is not asked for again", () => {
    const { next } = diagnoseWiring(seen, [...onlyTop, lampOff], cache, { tools: ["test-light"], looks: 60 });
    const names = new Set(next.map(({ test: own }) => own.test));
    for (const other of ["volts", "ohms", "amps", "lampload"]) expect(names).not.toContain(other);
    expect(next.map(({ test: own }) => JSON.stringify(own))).not.toContain(
      JSON.stringify({ test: "light", at: "motor-plug", clip: "ground", key: "run", setting: "0" }),
    );
  });

  test("a comeback that costs nothing makes testing worth less", () => {
    const costs = { hourMinor: 9000, settledBar: 0.95 };
    const dear = diagnoseWiring(seen, onlyTop, cache, { costs: { ...costs, comebackMinor: 90_000 } }).verdict;
    const cheap = diagnoseWiring(seen, onlyTop, cache, { costs: { ...costs, comebackMinor: 0 } }).verdict;
    expect(dear.fitNowMinor).toBeGreaterThan(cheap.fitNowMinor);
    expect((dear.testMoreMinor ?? 0) < dear.fitNowMinor).toBe(true);
    expect((cheap.testMoreMinor ?? 0) < cheap.fitNowMinor).toBe(false);
  });
});
