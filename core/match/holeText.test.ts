import { describe, expect, test } from "@jest/globals";
import { type Hole, layOn } from "./holePattern";
import { holesText, parseHoles } from "./holeText";

const read = (text: string): readonly Hole[] => {
  const holes = parseHoles(text);
  if (!holes.ok) throw new Error(holes.problems.map(({ message }) => message).join());
  return holes.value;
};

describe("holes as they are measured", () => {
  test("none, one, two by their distance, and positions", () => {
    expect(read("")).toEqual([]);
    expect(read("1")).toEqual([[0, 0]]);
    expect(read(" 52,5  between ")).toEqual([
      [0, 0],
      [52.5, 0],
    ]);
    expect(read("0 0 / 96 0 /48 -83,1")).toEqual([
      [0, 0],
      [96, 0],
      [48, -83.1],
    ]);
  });

  test("three by their sides: Euclid's triangle of 3, 4 and 5 has its right angle where 3 and 4 meet", () => {
    expect(read("30 40 50 between")).toEqual([
      [0, 0],
      [30, 0],
      [30, -40],
    ]);
  });

  test("three sides give the positions they were measured from, turned over in the other order", () => {
    const places = read("0 0 / 90 0 / 30 -70");
    const sides = [90, Math.hypot(60, 70), Math.hypot(30, 70)].map((side) => side.toFixed(2));
    const clockwise = layOn(places, read(`${sides.join(" ")} between`));
    expect(clockwise?.mirrored).toBe(false);
    expect(clockwise?.worstMm).toBeLessThan(0.1);
    expect(layOn(places, read(`${sides.toReversed().join(" ")} between`))?.mirrored).toBe(true);
  });

  test("what is written reads back the same", () => {
    const holes: Hole[] = [
      [0, 0],
      [-12.5, 3],
      [40, 41.2],
    ];
    expect(read(holesText(holes))).toEqual(holes);
  });

  test.each(["two", "52", "0 0 / 5", "10 20 between", "0 between", "10 -5 6 between"])(
    "%j is refused with what is expected",
    (text) => {
      const holes = parseHoles(text);
      expect(holes.ok ? "" : holes.problems[0]?.message).toMatch(/^expected like "52 between"/);
    },
  );

  test("sides that do not meet are named", () => {
    const holes = parseHoles("90 20 30 between");
    expect(holes.ok ? "" : holes.problems[0]?.message).toBe(
      "sides of 90, 20 and 30 mm never meet: measure again",
    );
  });
});
