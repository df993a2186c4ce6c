import { describe, expect, test } from "@jest/globals";
import { motorConstants, steadySpeed } from "../motor/motorConstants";
import { ampacity } from "../units/ampacity";
import { baseFigure, unitNamed } from "../units/quantity";
import { benchSums, startOf, sumNamed, type Typed, typedFigure, workSum } from "./benchSums";
import { packFor } from "./packForSpeeds";
import type { SumWorked } from "./sum";
import { fusesFor, wireSizes } from "./wireForLoad";

/** Works a sum with some fields as typed: `3 ft`, `20`, `shunt`. */
function worked(id: string, typed: Readonly<Record<string, string>>): SumWorked {
  const sum = sumNamed(id);
  if (!sum) throw new Error(`no sum ${id}`);
  const asked: Record<string, Typed> = startOf(sum);
  for (const [field, text] of Object.entries(typed)) {
    const own = sum.fields.find((candidate) => candidate.id === field);
    if (!own) throw new Error(`${id} has no field ${field}`);
    asked[field] = "quantity" in own ? typedFigure(own, text, own.unit) : { text, unit: "" };
  }
  const outcome = workSum(sum, asked);
  if (!outcome.ok) throw new Error(JSON.stringify(outcome.problems));
  return outcome.value;
}

const resultOf = ({ results }: SumWorked, id: string): number => {
  const found = results.find((result) => result.id === id);
  if (!found) throw new Error(`no result ${id}`);
  return found.base;
};

describe("voltage lost in a wire", () => {
  // ASTM B258 (from memory), solid copper at 20 °C, ohms per 1000 ft: the same rows the wires of the solver are
  // checked against.
  test.each([
    [10, 0.9989],
    [12, 1.588],
    [14, 2.525],
    [16, 4.016],
    [18, 6.385],
    [20, 10.15],
    [22, 16.14],
  ])("1000 ft of AWG %p at 1 A lose %p V", (gauge, volts) => {
    const value = worked("wire-drop", {
      length: "1000 ft",
      area: `${gauge} awg`,
      amps: "1",
      temperature: "68 F",
    });
    expect(Math.abs(resultOf(value, "volts") / volts - 1)).toBeLessThan(0.005);
  });

  // NEC (NFPA 70) chapter 9, table 8, from memory: uncoated copper at 75 °C, solid: AWG 14 3.07, 12 1.93, 10 1.21 ohms per
  // 1000 ft; its own note gives R2 = R1 (1 + 0.00323 (T2 − 75)).
  test.each([
    [14, 3.07],
    [12, 1.93],
    [10, 1.21],
  ])("hot, at 75 °C, 1000 ft of AWG %p have %p Ω", (gauge, ohms) => {
    const value = worked("wire-drop", { length: "1000 ft", area: `${gauge} awg`, temperature: "75" });
    expect(Math.abs(resultOf(value, "ohms") / ohms - 1)).toBeLessThan(0.006);
  });

  test("there and back is twice the way; the heat is volts by amps", () => {
    const one = worked("wire-drop", { length: "2", amps: "20" });
    const both = worked("wire-drop", { length: "2", amps: "20", way: "both" });
    expect(resultOf(both, "volts")).toBeCloseTo(2 * resultOf(one, "volts"), 12);
    expect(resultOf(one, "watts")).toBeCloseTo(20 * resultOf(one, "volts"), 12);
  });
});

describe("wire and fuse for a load", () => {
  // Worked by hand: 240 W at 12 V are 20 A; 4 m of 2.5 mm² copper at 20 °C have 4 · 17.241e-9 / 2.5e-6 = 27.6 mΩ and lose
  // 0.55 V, 4.6 %; 4 mm² lose 0.345 V, 2.9 %, carry 42 A, and 30 A is the first fuse above 20 / 0.75 = 26.7 A.
  test("240 W at 12 V, 4 m, 3 %: 4 mm² and 30 A", () => {
    const value = worked("wire-and-fuse", {
      watts: "240",
      supply: "12",
      length: "4",
      allowed: "3",
      temperature: "20",
    });
    expect(resultOf(value, "area")).toBe(4);
    expect(resultOf(value, "fuse")).toBe(30);
    expect(resultOf(value, "amps")).toBeCloseTo(20, 9);
    expect(resultOf(value, "lost")).toBeCloseTo(0.3448, 4);
  });

  // The formula boat builders size wires by, ABYC E-11 (from memory): circular mils = 10.75 · amps · feet there and back / volts
  // lost, for copper at 30 °C; a circular mil is 5.067e-4 mm². The wire is the next one on sale that also carries the amps.
  test.each([
    [20, 10, 3],
    [20, 20, 3],
    [5, 30, 3],
    [10, 15, 10],
    [30, 25, 3],
  ])("%p A over %p ft for %p %%: the size after the formula's", (amps, feet, share) => {
    const volts = 12 * (share / 100);
    const wanted = ((10.75 * amps * feet) / volts) * 5.067e-4;
    const value = worked("wire-and-fuse", {
      watts: String(12 * amps),
      supply: "12",
      length: `${feet} ft`,
      allowed: String(share),
      temperature: "30",
    });
    expect(resultOf(value, "area")).toBe(
      wireSizes.find((mm2) => mm2 >= wanted && ampacity(mm2) >= amps && fusesFor(amps, mm2).length > 0),
    );
  });

  test("a load that no wire on sale can feed is refused at the load", () => {
    const sum = sumNamed("wire-and-fuse");
    const outcome = sum && workSum(sum, { ...startOf(sum), watts: { text: "9", unit: "kW" } });
    expect(outcome).toMatchObject({ ok: false, problems: [{ field: "watts" }] });
  });
});

describe("elements of a pack", () => {
  const motor = { ratedVolts: 13.5, ratedAmps: 18, stallAmps: 75, ratedRpm: 3200, supplyVolts: 13 };

  // No published table was found for a blower's pack. Checked against the motor's equations in reverse: add the ohms
  // in series and solve the steady speed again.
  test("in series with the motor each gives the speed it was computed for", () => {
    const constants = motorConstants({
      kind: "motor",
      id: "M",
      ratedVolts: 13.5,
      ratedAmps: 18,
      stallAmps: 75,
      ratedRpm: 3200,
    });
    const top = steadySpeed(constants, motor.supplyVolts);
    for (const { share, totalOhms } of packFor(motor, [0.3, 0.5, 0.8])) {
      const slowed = { ...constants, ohms: constants.ohms + totalOhms };
      expect(steadySpeed(slowed, motor.supplyVolts) / top).toBeCloseTo(share, 9);
    }
  });

  // Speed control by armature resistance, worked by hand on a motor without friction: at half speed the fan needs a
  // quarter of the torque, so a quarter of the current; the back-EMF is halved.
  test("half the speed by hand", () => {
    const [half] = packFor({ ...motor, supplyVolts: 13.5 }, [0.5]);
    const amps = 18 * (0.08 + 0.92 / 4);
    const ohms = (13.5 - (13.5 - 18 * (13.5 / 75)) / 2) / amps - 13.5 / 75;
    expect(half?.amps).toBeCloseTo(amps, 9);
    expect(half?.totalOhms).toBeCloseTo(ohms, 9);
    expect(half?.packWatts).toBeCloseTo(amps * amps * ohms, 9);
  });

  test("elements add up to the whole, the slowest speed's last", () => {
    const speeds = packFor(motor, [0.75, 0.35, 0.55]);
    expect(speeds.map(({ share }) => share)).toEqual([0.75, 0.55, 0.35]);
    expect(speeds.reduce((sum, { elementOhms }) => sum + elementOhms, 0)).toBeCloseTo(
      speeds[2]?.totalOhms ?? 0,
      9,
    );
  });

  test.each(["", "0, 50", "100", "fast", "50, , x"])("speeds written as %p are refused", (text) => {
    const sum = sumNamed("pack");
    const outcome = sum && workSum(sum, { ...startOf(sum), speeds: { text, unit: "" } });
    expect(outcome).toMatchObject({ ok: false, problems: [{ field: "speeds" }] });
  });
});

describe("clamp and shunt", () => {
  // Common practice: 13.4 mV on a 10 mV/A clamp are 1.34 A.
  test("13.4 mV on a clamp of 10 mV/A", () =>
    expect(resultOf(worked("clamp-and-shunt", { volts: "13.4 mV", scale: "10" }), "amps")).toBeCloseTo(
      1.34,
      9,
    ));

  // A shunt's plate: 50 A at 75 mV is 1.5 mΩ and turns 3.75 W into heat at its plate (Ohm's law, by hand).
  test("a 50 A, 75 mV shunt at its plate", () => {
    const value = worked("clamp-and-shunt", { by: "shunt", volts: "75 mV" });
    expect(resultOf(value, "amps")).toBeCloseTo(50, 9);
    expect(resultOf(value, "ohms")).toBeCloseTo(0.0015, 12);
    expect(resultOf(value, "watts")).toBeCloseTo(3.75, 9);
  });
});

describe("a lamp at other volts", () => {
  // Re-rating tables of incandescent lamps (from memory): at 90 % of the volts about 70 % of the light and four times the
  // life, at 105 % about 118 % of the light and half the life, at 110 % about 138 %.
  test.each([
    ["10.8", 70, 4],
    ["12.6", 118, 0.53],
    ["13.2", 138, 0.29],
  ])("%s V on a 12 V lamp: %p %% light", (volts, light, life) => {
    const value = worked("lamp", { volts, ratedVolts: "12" });
    expect(Math.abs(resultOf(value, "light") / light - 1)).toBeLessThan(0.015);
    expect(Math.abs(resultOf(value, "life") / 100 / life - 1)).toBeLessThan(0.03);
  });

  test("at its plate it takes its plate's watts", () => {
    const value = worked("lamp", { volts: "12", ratedWatts: "3" });
    expect(resultOf(value, "watts")).toBeCloseTo(3, 9);
    expect(resultOf(value, "ohms")).toBeCloseTo(48, 9);
  });
});

describe("motor and fan", () => {
  // ASHRAE Handbook, fan laws (from memory): twice the speed moves twice the air at four times the pressure for eight times
  // the power.
  test("twice the speed: 2, 4, 8", () => {
    const value = worked("motor-watts", { now: "1000", other: "2000", volts: "12", amps: "10" });
    expect(resultOf(value, "watts")).toBeCloseTo(120, 9);
    expect(["air", "pressure", "power"].map((id) => resultOf(value, id) / 100)).toEqual([2, 4, 8]);
  });
});

describe("a loaded divider", () => {
  // Horowitz and Hill, The Art of Electronics, exercise 1.9 (from memory): 30 V over two 10 kΩ give 15 V open, 10 V with
  // 10 kΩ across the lower one, and look like 15 V behind 5 kΩ.
  test("30 V, 10 kΩ, 10 kΩ, load 10 kΩ", () => {
    const value = worked("divider", { supply: "30", upper: "10 kohm", lower: "10 kohm", load: "10 kohm" });
    expect(resultOf(value, "open")).toBeCloseTo(15, 9);
    expect(resultOf(value, "loaded")).toBeCloseTo(10, 9);
    expect(resultOf(value, "behind")).toBeCloseTo(5000, 6);
  });
});

describe("spanners", () => {
  // 9/32 in is 7.14 mm and 5/16 in 7.94 mm: by the inch's definition; both pairs are in common use.
  test.each([
    ["7 mm", "9/32 in"],
    ["8mm", "5/16 in"],
    ["5.5 mm", "7/32 in"],
  ])("%s: %s goes on", (size, other) => {
    const { table } = worked("spanner", { size });
    expect(table?.body.find(([name]) => name === other)?.[2]).toMatch(/snug|loose/);
  });
  test("10 mm has no substitute in the inch set", () =>
    expect(worked("spanner", { size: "10 mm" }).notes.join()).toContain("No socket of the other system"));
});

describe("hours and tenths", () => {
  // The trade's table of tenths: every six minutes begun is a tenth (common practice); 1 h = 60 min.
  test.each([
    ["6", 0.1],
    ["7", 0.2],
    ["47", 0.8],
    ["48", 0.8],
    ["60", 1],
    ["1.5 h", 1.5],
    ["0", 0],
  ])("%s minutes are billed as %p h", (time, hours) =>
    expect(resultOf(worked("hours", { time }), "tenths")).toBeCloseTo(60 * hours, 9),
  );
});

describe.each(benchSums.map((sum) => [sum.id, sum] as const))("%s", (_, sum) => {
  test("starts with figures it can work, and states its formula and its source", () => {
    const outcome = workSum(sum, startOf(sum));
    expect(outcome.ok).toBe(true);
    if (!outcome.ok) return;
    expect(outcome.value.results.some(({ main }) => main)).toBe(true);
    for (const { base, quantity, unit } of outcome.value.results) {
      expect(Number.isFinite(base)).toBe(true);
      expect(unitNamed(quantity, unit)).not.toBeNull();
    }
    for (const { x, y } of outcome.value.curve?.points ?? [])
      expect(Number.isFinite(x) && Number.isFinite(y)).toBe(true);
    expect(sum.formula.length).toBeGreaterThan(5);
    expect(sum.source.length).toBeGreaterThan(20);
  });

  test("a field that cannot be read is named, and the others keep their values", () => {
    for (const field of sum.fields) {
      if (!("quantity" in field)) continue;
      const outcome = workSum(sum, { ...startOf(sum), [field.id]: { text: "a lot", unit: field.unit } });
      expect(outcome).toMatchObject({ ok: false, problems: [{ field: field.id }] });
      const beyond = workSum(sum, { ...startOf(sum), [field.id]: { text: "1e99", unit: field.unit } });
      expect(beyond).toMatchObject({ ok: false, problems: [{ field: field.id }] });
    }
  });

  test("its defaults lie within its limits", () => {
    for (const field of sum.fields) {
      if (!("quantity" in field)) continue;
      const unit = unitNamed(field.quantity, field.unit);
      const base = unit && baseFigure(field.start, unit);
      expect(base).toBeGreaterThanOrEqual(field.low);
      expect(base).toBeLessThanOrEqual(field.high);
    }
  });
});
