import { describe, expect, test } from "@jest/globals";
import { chanceFrom } from "../chance/chance";
import { faultFromId } from "../fault/fault";
import { SimulatedVehicle } from "../practice/simulatedVehicle";
import { usualWorld } from "../practice/world";
import { operatingPoint } from "../solve/operatingPoint";
import { netlistOf, shippedCircuit, shippedIds } from "../testing/shippedCircuit";
import type { PlaceReading } from "./placeReading";
import { PlaceVehicle } from "./placeVehicle";
import { numberedSettings, seenOf, vehiclePlaces } from "./vehiclePlaces";

const careful = { ...usualWorld, slip: 0, heardSlip: 0 };

function vehicle(circuitId: string, faultName: string, seed = 5): PlaceVehicle {
  const netlist = netlistOf(numberedSettings(shippedCircuit(circuitId)));
  const fault = faultFromId(netlist, faultName);
  if (!fault.ok) throw new Error(faultName);
  const chance = chanceFrom(seed);
  return new PlaceVehicle(
    vehiclePlaces(netlist),
    new SimulatedVehicle(netlist, fault.value, careful, chance),
    chance,
  );
}
/** The words or figures of a reading of a plug, whatever its labels. */
const values = (reading: PlaceReading): unknown[] => {
  const own = Object.values(reading).find((value) => typeof value === "object" && value !== null);
  return Object.values(own ?? {}).sort();
};

describe.each(shippedIds)("%s, as it is found without its diagram", (id) => {
  const circuit = numberedSettings(shippedCircuit(id));
  const netlist = netlistOf(circuit);
  const places = vehiclePlaces(netlist);

  test("has its settings by number, and blows at them as before", () => {
    const { settings } = shippedCircuit(id);
    expect(circuit.settings).toEqual(settings.map((_, at) => String(at)));
    const before = netlistOf(shippedCircuit(id));
    for (const [at, setting] of settings.entries())
      expect(operatingPoint(netlist, { key: "run", setting: String(at) }, []).rpm.M1).toBeCloseTo(
        operatingPoint(before, { key: "run", setting }, []).rpm.M1 ?? Number.NaN,
        6,
      );
  });

  test("has a place for the repair of every part, plug and wire", () => {
    for (const { id: own, kind } of circuit.parts)
      if (kind !== "splice") expect(places.repairPlace.has(own)).toBe(true);
    for (const { id: own } of [...circuit.connectors, ...circuit.wires])
      expect(places.repairPlace.has(own)).toBe(true);
    const [motor = ""] = circuit.parts.filter(({ kind }) => kind === "motor").map(({ id: own }) => own);
    expect(places.repairPlace.get(motor)).toBe("motor");
    expect(
      places.plugs
        .get("motor-plug")
        ?.pins.map(({ terminal }) => terminal)
        .sort(),
    ).toEqual([`${motor}.+`, `${motor}.-`]);
  });

  test("looks like what it has", () => {
    const { controls, speeds, speedPart } = seenOf(circuit);
    const kinds = circuit.parts.map(({ kind }) => kind);
    expect(controls).toBe(kinds.includes("head") ? "buttons" : "dial");
    expect(speedPart).toBe(kinds.includes("resistor") ? "pack" : "module");
    expect(speeds).toBe(circuit.settings.length - 1);
  });
});

describe("a simulated vehicle answers by place", () => {
  const off = { key: "run", setting: "0" } as const;
  const top = { key: "run", setting: "4" } as const;

  // Common practice, no source: the lamp at the motor's plug with the blower off tells the side of the switch.
  test.each([
    ["whimbrel-four-speed", "R1.link:open", ["bright", "bright"]],
    ["godwit-four-speed-feed", "R2.link:open", ["dark", "dark"]],
  ])("%s shows the side of its switch", (id, fault, expected) => {
    const own = vehicle(id, fault);
    const reading = own.answer({ test: "light", at: "motor-plug", clip: "ground", ...off });
    expect(values(reading)).toEqual(expected);
    expect(Object.keys("seen" in reading ? reading.seen : {})).toEqual(own.labelsAt("motor-plug"));
  });

  test("labels are shuffled, and stay the same for the vehicle", () => {
    const test4 = { test: "volts", at: "pack-plug", black: "ground", ...top } as const;
    const orders = [1, 2, 3, 4, 5].map((seed) => {
      const own = vehicle("whimbrel-four-speed", "M1:bearing-dry", seed);
      const [first, again] = [own.answer(test4), own.answer(test4)];
      const rounded = (reading: PlaceReading): string =>
        JSON.stringify(
          Object.values("volts" in reading && typeof reading.volts === "object" ? reading.volts : {}).map(
            (volts) => Math.round(volts),
          ),
        );
      expect(rounded(again)).toBe(rounded(first));
      return rounded(own.answer({ ...test4, setting: "1" }));
    });
    expect(new Set(orders).size).toBeGreaterThan(1);
  });

  test("a blown fuse is fed at one end, and what it feeds is dead", () => {
    const reading = vehicle("whimbrel-four-speed", "F7:blown").answer({
      test: "light",
      at: "fuses",
      clip: "ground",
      ...top,
    });
    expect(values(reading)).toEqual(["blown", "good", "good"]);
  });

  test("an open link shows OL from the motor's pin, and the pack's own ohms between the others", () => {
    const own = vehicle("whimbrel-four-speed", "R1.link:open");
    const readings = own
      .labelsAt("pack-plug")
      .map((from) => own.answer({ test: "ohms", at: "pack-plug", from }));
    const opens = readings.map(
      (reading) =>
        Object.values("ohms" in reading ? reading.ohms : {}).filter((ohms) => ohms === null).length,
    );
    // From the motor's pin all three others are open; from each of those only the motor's.
    expect([...opens].sort()).toEqual([1, 1, 1, 3]);
  });

  test("what the vehicle has not is answered so", () => {
    const own = vehicle("whimbrel-four-speed", "M1:open");
    expect(own.answer({ test: "light", at: "module-plug", clip: "ground", ...top })).toMatchObject({
      absent: true,
    });
    expect(own.answer({ test: "look", at: "panel" })).toMatchObject({ absent: true });
    expect(vehicle("dotterel-switch-feed", "M1:open").answer({ test: "look", at: "module" })).toMatchObject({
      absent: true,
    });
  });

  test("a clamp shows amps without a sign, and none through an open motor", () => {
    const amps = (fault: string): number => {
      const own = vehicle("whimbrel-four-speed", fault);
      const reading = own.answer({ test: "amps", around: "motor-plug:a", ...top });
      return reading.test === "amps" && "amps" in reading ? reading.amps : Number.NaN;
    };
    expect(amps("M1:open")).toBeLessThan(1);
    expect(amps("R1.link:open")).toBeGreaterThan(10);
  });

  test("wires are seen by colour and size", () => {
    const reading = vehicle("whimbrel-four-speed", "M1:open").answer({ test: "wires", at: "motor-plug" });
    expect(values(reading)).toEqual(["OG thick", "VT thick"]);
  });

  test("leads at the motor's plug go past everything else", () => {
    const air = (fault: string) =>
      vehicle("whimbrel-four-speed", fault).answer({ test: "airflow", leads: true });
    expect(air("F7:blown")).toMatchObject({ seen: "normal" });
    expect(air("M1:open")).toMatchObject({ seen: "none" });
  });
});
