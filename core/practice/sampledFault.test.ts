// The harder fleet's vehicles: what they hide, and what a technician with real hands sees of it.
import { describe, expect, test } from "@jest/globals";
import { chanceFrom } from "../chance/chance";
import { catalogue } from "../fault/catalogue";
import { faultFromId } from "../fault/fault";
import { shippedIds, shippedNetlist } from "../testing/shippedCircuit";
import { type HiddenFault, plainBehaviour } from "./hiddenFault";
import { faultSource, sampleFault } from "./sampledFault";
import { SimulatedVehicle } from "./simulatedVehicle";
import { tradeFaults, unlistedFaults } from "./tradeFault";
import { harderWorld, usualWorld, type World } from "./world";

const exactWorld: World = { ...harderWorld, slip: 0, heardSlip: 0, senses: 1, handError: 0 };

function vehicle(id: string, { fault, behaviour }: HiddenFault, world: World = exactWorld): SimulatedVehicle {
  return new SimulatedVehicle(shippedNetlist(id), fault, world, chanceFrom(7), null, behaviour);
}

function made(id: string, mode: string): HiddenFault {
  const found = tradeFaults(shippedNetlist(id)).find((fault) => fault.mode === mode);
  if (!found) throw new Error(`${id} has no ${mode}`);
  return found.make(chanceFrom(3));
}

describe.each(shippedIds)("the harder fleet on %s", (id) => {
  const netlist = shippedNetlist(id);

  test("every fault of the trade can be hidden and tested, and its weight is a share", () => {
    const all = [...tradeFaults(netlist), ...unlistedFaults(netlist)];
    expect(new Set(all.map(({ mode }) => mode)).size).toBeGreaterThan(7);
    const ids = new Set([
      ...netlist.circuit.parts.map((part) => part.id),
      ...netlist.circuit.connectors.map((own) => own.id),
      ...netlist.circuit.wires.map((wire) => wire.id),
      "CAR",
    ]);
    for (const { make, weight } of all) {
      expect(weight).toBeGreaterThan(0);
      const hidden = make(chanceFrom(11));
      expect(hidden.fault.parts.every((part) => ids.has(part))).toBe(true);
      const seen = vehicle(id, hidden).airflow({ key: "run", setting: netlist.circuit.settings.at(-1) });
      expect(["none", "weak", "normal", "strong"]).toContain(seen);
    }
    const sum = tradeFaults(netlist).reduce((total, { weight }) => total + weight, 0);
    expect(sum).toBeLessThan(0.4);
  });

  test("about two in a hundred vehicles have a fault nobody lists, and none in the usual world", () => {
    const source = faultSource(netlist, catalogue(netlist));
    const draw = (world: World): number => {
      const chance = chanceFrom(5);
      const kinds = Array.from(
        { length: 600 },
        () => sampleFault(netlist, source, "prior", world, chance).kind,
      );
      return kinds.filter((kind) => kind === "outside the catalogue").length;
    };
    expect(draw(harderWorld)).toBeGreaterThan(2);
    expect(draw(harderWorld)).toBeLessThan(30);
    expect(draw(usualWorld)).toBe(0);
  });
});

describe("what is seen of them", () => {
  test("a bad common contact stops every speed, a knob that only turns leaves the same speed", () => {
    const open = vehicle("whimbrel-four-speed", made("whimbrel-four-speed", "common open"));
    for (const setting of ["1", "2", "3", "4"]) expect(open.airflow({ key: "run", setting })).toBe("none");
    // Settings count from off, so the third is speed 2.
    const stuck = faultFromId(shippedNetlist("whimbrel-four-speed"), "S2:knob-turns@3");
    if (!stuck.ok) throw new Error("not placed");
    const hidden = { fault: stuck.value, behaviour: plainBehaviour, kind: "switch" };
    const air = (setting: string) => vehicle("whimbrel-four-speed", hidden).airflow({ key: "run", setting });
    expect(air("2")).toBe("normal");
    expect(["weak", "none"]).toContain(air("4"));
    expect(["normal", "strong"]).toContain(air("1"));
  });

  test("a vent's whistle stops with a finger over the hole", () => {
    const whistling = vehicle("whimbrel-four-speed", made("whimbrel-four-speed", "vent whistle"));
    expect(whistling.noise({ key: "run", setting: "4" })).toBe("whistle");
    const covered = Array.from({ length: 20 }, () =>
      whistling.noise({ key: "run", setting: "4", ventCovered: true }),
    );
    expect(covered).not.toContain("whistle");
  });

  test("a control that quits hot is dead in the complaint, and runs in some of the tests", () => {
    const hot = vehicle("whimbrel-pwm-low", made("whimbrel-pwm-low", "thermal"));
    const told = hot.complaint().filter((reading) => reading.test === "airflow" && reading.key === "run");
    expect(told.every((reading) => reading.test === "airflow" && reading.seen === "none")).toBe(true);
    const seen = Array.from({ length: 40 }, () => {
      const reading = hot.take({ test: "airflow", key: "run", setting: "4" });
      return reading.test === "airflow" ? reading.seen : "";
    });
    const dead = seen.filter((word) => word === "none").length;
    expect(dead).toBeGreaterThan(20);
    expect(dead).toBeLessThan(40);
  });

  test("sent to a mated terminal, the hand reads the plug and writes down the terminal", () => {
    const netlist = shippedNetlist("whimbrel-four-speed");
    const entry = catalogue(netlist).find(({ family }) => family === "X3:1:open");
    if (!entry) throw new Error("no such fault");
    const own = { fault: entry.fault, behaviour: plainBehaviour, kind: "plug" };
    const at = (world: World, red: string): number => {
      const reading = vehicle("whimbrel-four-speed", own, world).take({
        test: "volts",
        red,
        black: "G1.-",
        key: "run",
        setting: "4",
      });
      if (reading.test !== "volts") throw new Error(reading.test);
      expect(reading.red).toBe(red);
      return reading.volts;
    };
    expect(at(exactWorld, "M1.+")).toBeGreaterThan(11);
    expect(at({ ...exactWorld, realHands: false }, "M1.+")).toBeLessThan(1);
    expect(at(exactWorld, "X3:1")).toBeGreaterThan(11);
  });
});
