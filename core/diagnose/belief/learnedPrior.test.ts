import { describe, expect, test } from "@jest/globals";
import { repairIn, shippedEngine } from "../../testing/shippedCircuit";
import { believe, repairBelief } from "./belief";
import { learnedPriors } from "./learnedPrior";

const engine = shippedEngine("whimbrel-four-speed");
const sum = (values: ArrayLike<number>): number =>
  Array.from(values).reduce((total, value) => total + value, 0);

describe("priors updated by a shop's own counts", () => {
  test("without counts the table is unchanged", () => {
    const learned = learnedPriors(engine, []);
    for (const [variant, { prior }] of engine.variants.entries())
      expect(learned[variant]).toBeCloseTo(prior, 12);
  });

  test("are the Dirichlet mean: (table share × its weight + count) / (weight + all counts)", () => {
    // By hand: the table counts as 60 jobs; with 30 more jobs, all of them open links.
    const open = engine.variants.flatMap(({ family, prior }) => (family === "R1.link:open" ? [prior] : []));
    const listed = sum(engine.variants.map(({ prior }) => prior));
    const share = sum(open) / listed;
    const learned = learnedPriors(engine, [{ kind: "link", mode: "open", n: 30 }]);
    const after = sum(
      engine.variants.flatMap(({ family }, variant) =>
        family === "R1.link:open" ? [learned[variant] ?? 0] : [],
      ),
    );
    expect(after / listed).toBeCloseTo((60 * share + 30) / 90, 9);
    expect(sum(learned)).toBeCloseTo(listed, 9);
  });

  test("counts of things this circuit does not have are ignored", () => {
    const learned = learnedPriors(engine, [{ kind: "module", mode: "dead", n: 500 }]);
    for (const [variant, { prior }] of engine.variants.entries())
      expect(learned[variant]).toBeCloseTo(prior, 12);
  });

  test("move the belief in their direction", () => {
    const motors = [{ kind: "motor", mode: "open", n: 40 }];
    const before = repairBelief(engine, believe(engine, [])).get(repairIn(engine, "M1")) ?? 0;
    const after =
      repairBelief(engine, believe(engine, [], undefined, learnedPriors(engine, motors))).get(
        repairIn(engine, "M1"),
      ) ?? 0;
    expect(after).toBeGreaterThan(1.5 * before);
  });
});
