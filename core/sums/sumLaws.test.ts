// Laws of the bench sums that hold for any input: how a result changes with each figure.
import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { ampacity } from "../units/ampacity";
import { benchSums, startOf, sumNamed, type Typed, typedFigure, workSum } from "./benchSums";
import { lightShare } from "./lampAtVolts";
import { dividedVolts } from "./loadedDivider";
import { packFor, sharesFrom } from "./packForSpeeds";
import { wireOhms } from "./wireDrop";
import { fuseRatings, fusesFor, wireFor, wireSizes } from "./wireForLoad";

const figure = (min: number, max: number) => fc.double({ min, max, noNaN: true });

describe("a wire's ohms", () => {
  test("are proportional to its length and inverse to its cross-section", () => {
    fc.assert(
      fc.property(
        figure(0.1, 100),
        figure(0.2, 50),
        figure(-40, 150),
        figure(1.1, 9),
        (metres, mm2, celsius, times) => {
          const ohms = wireOhms(metres, mm2, celsius);
          expect(wireOhms(times * metres, mm2, celsius) / ohms).toBeCloseTo(times, 9);
          expect(wireOhms(metres, times * mm2, celsius) / ohms).toBeCloseTo(1 / times, 9);
        },
      ),
    );
  });

  // IEC 60028: at 20 °C its coefficient is 0.00393 a kelvin; 27 K more are a tenth and a bit.
  test("increase with temperature", () => {
    expect(wireOhms(1, 1, 47) / wireOhms(1, 1, 20)).toBeCloseTo(1 + 27 * 0.00393, 9);
    expect(wireOhms(1, 1, -30)).toBeLessThan(wireOhms(1, 1, 20));
  });
});

describe("wire and fuse", () => {
  test("the chosen wire drops no more than allowed, carries the amps, and is the smallest that does", () => {
    fc.assert(
      fc.property(figure(0.5, 60), figure(0.5, 20), figure(0.1, 1.5), (amps, metres, allowed) => {
        const mm2 = wireFor(amps, metres, 20, allowed);
        const does = (size: number): boolean =>
          wireOhms(metres, size, 20) * amps <= allowed &&
          ampacity(size) >= amps &&
          fusesFor(amps, size).length > 0;
        if (mm2 === null) expect(wireSizes.some(does)).toBe(false);
        else {
          expect(does(mm2)).toBe(true);
          expect(wireSizes.filter((size) => size < mm2).some(does)).toBe(false);
        }
      }),
    );
  });

  test("a fuse carries the load continuously and blows before its wire is damaged", () => {
    fc.assert(
      fc.property(figure(0.1, 60), fc.constantFrom(...wireSizes), (amps, mm2) => {
        for (const fuse of fusesFor(amps, mm2)) {
          expect(0.75 * fuse).toBeGreaterThanOrEqual(amps);
          expect(fuse).toBeLessThanOrEqual(ampacity(mm2));
          expect(fuseRatings).toContain(fuse);
        }
      }),
    );
  });
});

describe("a pack", () => {
  const motors = fc.record({
    ratedVolts: fc.constant(13.5),
    ratedAmps: figure(5, 25),
    stallAmps: figure(40, 120),
    ratedRpm: figure(1500, 4500),
    supplyVolts: figure(11.5, 14.5),
  });
  /** Shares of full speed at least a thousandth apart, because nobody asks for closer speeds. */
  const wanted = fc
    .uniqueArray(fc.integer({ min: 200, max: 950 }), { minLength: 1, maxLength: 5 })
    .map((thousandths) => thousandths.map((share) => share / 1000));

  test("slower is more ohms and fewer amps; every element has some", () => {
    fc.assert(
      fc.property(motors, wanted, (motor, shares) => {
        const speeds = packFor(motor, shares);
        for (const own of speeds) {
          expect(own.totalOhms).toBeGreaterThan(0);
          expect(own.packWatts).toBeCloseTo(own.amps ** 2 * own.totalOhms, 9);
        }
        speeds.slice(1).forEach((own, i) => {
          expect(own.totalOhms).toBeGreaterThan(speeds[i]?.totalOhms ?? 0);
          expect(own.amps).toBeLessThan(speeds[i]?.amps ?? 0);
          expect(own.elementOhms).toBeCloseTo(own.totalOhms - (speeds[i]?.totalOhms ?? 0), 9);
        });
      }),
    );
  });

  test.each([
    ["25, 50, 75", [0.25, 0.5, 0.75]],
    ["40 %; 60%", [0.4, 0.6]],
    ["33.5", [0.335]],
    ["0", null],
    ["100", null],
    ["-5", null],
    ["half", null],
  ])("speeds written as %j", (text, shares) => expect(sharesFrom(text)).toEqual(shares));
});

describe("a divider", () => {
  test("a load lowers the volts, the more the fewer its ohms, and never reverses them", () => {
    fc.assert(
      fc.property(
        figure(1, 30),
        figure(1, 1e6),
        figure(1, 1e7),
        figure(1, 1e7),
        (volts, upper, lower, load) => {
          const open = (volts * lower) / (upper + lower);
          const loaded = dividedVolts(volts, upper, lower, load);
          expect(loaded).toBeLessThanOrEqual(open);
          expect(loaded).toBeGreaterThan(0);
          expect(dividedVolts(volts, upper, lower, 2 * load)).toBeGreaterThanOrEqual(loaded);
          expect(dividedVolts(volts, upper, lower, 1e15)).toBeCloseTo(open, 6);
        },
      ),
    );
  });
});

test("a lamp's light falls faster than its volts", () => {
  fc.assert(fc.property(figure(0.05, 0.99), (share) => expect(lightShare(share)).toBeLessThan(share)));
  expect(lightShare(1)).toBe(1);
  expect(lightShare(-0.5)).toBe(lightShare(0.5));
});

describe("text typed into a field", () => {
  const length = sumNamed("wire-drop")?.fields.find(({ id }) => id === "length");
  if (!length || !("quantity" in length)) throw new Error("no such field");

  test.each<[string, Typed]>([
    ["3", { text: "3", unit: "m" }],
    ["3 ft", { text: "3", unit: "ft" }],
    ["3ft", { text: "3", unit: "ft" }],
    ["2,5 cm", { text: "2,5", unit: "cm" }],
    [" 1e3 mm ", { text: "1e3", unit: "mm" }],
    ["3 furlongs", { text: "3 furlongs", unit: "m" }],
    ["ft", { text: "ft", unit: "m" }],
    ["", { text: "", unit: "m" }],
  ])("%j", (text, typed) => expect(typedFigure(length, text, "m")).toEqual(typed));

  test("random figures never break a sum: it is worked, or says which field is wrong", () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...benchSums),
        fc.array(fc.oneof(fc.string({ maxLength: 12 }), fc.double().map(String)), {
          minLength: 8,
          maxLength: 8,
        }),
        (sum, texts) => {
          const asked = startOf(sum);
          sum.fields.forEach((field, i) => {
            const text = texts[i] ?? "";
            asked[field.id] = "quantity" in field ? typedFigure(field, text, field.unit) : { text, unit: "" };
          });
          const outcome = workSum(sum, asked);
          if (outcome.ok)
            for (const { base } of outcome.value.results) expect(Number.isNaN(base)).toBe(false);
          else
            for (const { field, message } of outcome.problems) {
              expect(sum.fields.map(({ id }) => id)).toContain(field);
              expect(message.length).toBeGreaterThan(5);
            }
        },
      ),
      { numRuns: 600 },
    );
  });
});
