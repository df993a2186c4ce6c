import { describe, expect, test } from "@jest/globals";
import { type OfferedWork, type OfferInput, recommended, repairLines, repairOffers } from "./repairOffer";
import { defaultShopTerms, tenthsMilli } from "./shopTerms";

const renewed = { done: "renewed", failsAgain: 0 } as const;
const pack: OfferedWork = { id: "R1", name: "resistor pack R1", priceMinor: 3000, ...renewed };
const motor: OfferedWork = { id: "M1", name: "blower motor M1", priceMinor: 9000, ...renewed };
const minutes: Record<string, number> = { R1: 12, M1: 24, "M1,R1": 28, "R1,M1": 28 };
const input = (more: Partial<OfferInput> = {}): OfferInput => ({
  terms: { ...defaultShopTerms, hourMinor: 6000, comebackMinor: 10_000 },
  works: [pack],
  labourTitle: (works) => works.map(({ name }) => name).join(" and "),
  cures: () => 0.95,
  cause: null,
  beside: null,
  guess: null,
  labourMinutes: (ids) => minutes[ids.join()] ?? 0,
  bookMinutes: () => 31,
  diagnosisMinutes: 10,
  ...more,
});

test.each([
  [0, 0],
  [6, 100],
  [6.1, 200],
  [10, 200],
  [12, 200],
  [30, 500],
  [61, 1100],
])("%d minutes are billed as %d thousandths of an hour", (own, milli) =>
  expect(tenthsMilli(own)).toBe(milli),
);

describe("the lines of a repair", () => {
  test("ten minutes of testing are billed as the half-hour minimum; the part with its markup", () => {
    // By hand: 0.5 h × 60.00 = 30.00; 0.2 h × 60.00 = 12.00; 30.00 + 30 % = 39.00; 2 % of 12.00 = 0.24.
    expect(
      repairLines(input(), [pack]).map(({ kind, quantityMilli, eachMinor }) => [
        kind,
        quantityMilli,
        eachMinor,
      ]),
    ).toEqual([
      ["diagnosis", 500, 6000],
      ["labour", 200, 6000],
      ["part", 1000, 3900],
      ["consumable", 1000, 24],
    ]);
  });

  test("a shop that includes the diagnosis charges none; one by the book charges its tenths", () => {
    const swallowed = input({ terms: { ...input().terms, diagnosisPolicy: "swallowed", labourBy: "book" } });
    const lines = repairLines(swallowed, [pack]);
    expect(lines.map(({ kind }) => kind)).not.toContain("diagnosis");
    expect(lines[0]).toMatchObject({ kind: "labour", quantityMilli: 600 });
  });

  test("labour that two parts share is counted once", () => {
    const [, both] = repairLines(input(), [pack, motor]);
    expect(both).toMatchObject({ quantityMilli: 500, title: "resistor pack R1 and blower motor M1" });
  });
});

describe("offers side by side", () => {
  const offers = repairOffers(
    input({
      cause: { ...motor, killsAgain: 0.6 },
      guess: { ...motor, p: 0.3 },
    }),
  );
  const of = (kind: string) => offers.find((offer) => offer.kind === kind);

  test("the part alone carries the comeback risk of the root cause: 1 - 0.95 × (1 - 0.6)", () => {
    expect(of("part-only")?.comebackChance).toBeCloseTo(0.62, 10);
    expect(of("part-only")?.comebackMinor).toBe(6200);
    expect(of("part-and-cause")?.comebackChance).toBeCloseTo(0.05, 10);
  });

  test("part and cause cost more today and less in total", () => {
    const [one, both] = [of("part-only"), of("part-and-cause")];
    // By hand: (30.00 + 12.00 + 39.00 + 0.24) × 1.2 = 97.488; (30.00 + 30.00 + 117.00 + 39.00 + 0.60) × 1.2 = 259.92.
    expect(one?.priced.totalMinor).toBe(9749);
    expect(both?.priced.totalMinor).toBe(25992);
  });

  test("what needs no new part is offered without one, and nothing is handed to the owner", () => {
    const ground: OfferedWork = {
      id: "G2",
      name: "ground G2",
      done: "cleaned",
      priceMinor: null,
      failsAgain: 0,
    };
    const cleaned = repairOffers(input({ works: [ground] }));
    expect(cleaned.map(({ kind }) => kind)).toEqual(["part-only"]);
    expect(cleaned[0]?.priced.lines.map(({ kind }) => kind)).not.toContain("part");
  });

  test("what only buys time comes back half the time, by hand: 1 - 0.95 × 0.5", () => {
    const oiled: OfferedWork = { ...motor, done: "oiled", priceMinor: null, failsAgain: 0.5 };
    expect(repairOffers(input({ works: [oiled] }))[0]?.comebackChance).toBeCloseTo(0.525, 10);
  });

  test("new parts may fail by themselves: 1 - 0.95 × 0.96 × 0.97 by hand", () => {
    const works = [
      { ...motor, failsAgain: 0.04 },
      { ...pack, failsAgain: 0.03 },
    ];
    expect(repairOffers(input({ works }))[0]?.comebackChance).toBeCloseTo(0.11536, 10);
  });

  test("the odds are those of exactly this list", () => {
    const odds = [0.2, 0.95].map((p) => repairOffers(input({ cures: () => p }))[0]?.comebackChance);
    expect(odds.map((own) => Number(own?.toFixed(10)))).toEqual([0.8, 0.05]);
  });

  test("two parts at once cure what either of them would", () => {
    const both = repairOffers(
      input({
        cures: (works) => works.reduce((sum, { id }) => sum + (id === "R1" ? 0.5 : 0.3), 0),
        beside: motor,
      }),
    );
    const odds = Object.fromEntries(
      both.map(({ kind, comebackChance }) => [kind, Number(comebackChance.toFixed(10))]),
    );
    expect(odds).toMatchObject({ "part-only": 0.5, "both-at-once": 0.2 });
  });

  test("one is recommended, by its whole cost; nothing but a test while the verdict is open", () => {
    expect(recommended(offers, input(), true)).toMatchObject({
      advice: "offer",
      kind: "part-only",
      reason: "cheapest",
    });
    const dear = repairOffers(
      input({
        terms: { ...input().terms, comebackMinor: 60_000 },
        cause: { ...motor, killsAgain: 0.6 },
      }),
    );
    expect(recommended(dear, input(), true)).toMatchObject({
      kind: "part-and-cause",
      reason: "cheapest-with-comebacks",
    });
    expect(recommended(offers, input({ cures: () => 0.4 }), false)).toEqual({ advice: "test-first", p: 0.4 });
    expect(recommended([], input(), true)).toBeNull();
  });

  test("a guess saves the diagnosis and costs a comeback seven times in ten", () => {
    const guess = of("guess-first");
    expect(guess?.priced.lines.map(({ kind }) => kind)).not.toContain("diagnosis");
    expect(guess?.comebackMinor).toBe(Math.round(0.7 * (10_000 + 9749)));
    expect(guess?.expectedMinor).toBe((guess?.priced.totalMinor ?? 0) + (guess?.comebackMinor ?? 0));
  });

  test("a right guess is ruined by the root cause as often as a tested repair is", () => {
    const both = repairOffers(
      input({ cures: () => 0.8, cause: { ...motor, killsAgain: 0.5 }, guess: { ...pack, p: 0.8 } }),
    );
    const chance = (kind: string) => both.find((offer) => offer.kind === kind)?.comebackChance;
    // By hand: 1 - 0.8 × 0.5, with a test or without.
    expect(chance("guess-first")).toBeCloseTo(0.6, 10);
    expect(chance("part-only")).toBeCloseTo(0.6, 10);
  });

  test("the owner's own work has no labour of the shop's and no warranty", () => {
    expect(of("owners-own")?.priced.lines.map(({ kind }) => kind)).toEqual(["diagnosis", "part"]);
    expect(of("owners-own")?.comebackMinor).toBe(0);
    expect(repairOffers(input()).map(({ kind }) => kind)).toEqual(["part-only", "owners-own"]);
    expect(repairOffers(input({ beside: motor })).map(({ kind }) => kind)).toContain("both-at-once");
  });
});
