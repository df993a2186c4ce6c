// Nothing is learned from a fault that was not proved, whatever is chosen at the close.
import { expect, test } from "@jest/globals";
import fc from "fast-check";
import type { ClosureFinding } from "./closure";
import { learnedFaults, noFault } from "./learnedFaults";

const finding = fc.record({
  round: fc.integer({ min: 1, max: 4 }),
  part: fc.constantFrom("M1", "R1", "X5", "F7"),
  fault: fc.constantFrom("M1:open", "M1:bearing-dry", "R1.link:open", "X5:1:open", "F7:blown", ...noFault),
  proved: fc.boolean(),
});
// Only a fault can be proved; the form never says that "sound" is.
const findings = fc
  .array(finding, { maxLength: 8 })
  .map((own) =>
    own.map((one) => ({ ...one, proved: one.proved && !noFault.some((no) => no === one.fault) })),
  );

test("over random closings, whatever teaches was proved, wished for, and no stopgap", () => {
  fc.assert(
    fc.property(findings, fc.boolean(), fc.boolean(), (own, wished, stopgap) => {
      const { main, teaches, further } = learnedFaults(own, wished, stopgap);
      if (teaches) expect([main?.proved, wished, stopgap]).toEqual([true, true, false]);
      for (const one of further) {
        expect(one.proved).toBe(true);
        expect(one.fault).not.toBe(main?.fault);
      }
      const counted = [...(main ? [main.fault] : []), ...further.map(({ fault }) => fault)];
      expect(new Set(counted).size).toBe(counted.length);
      expect(counted.some((fault) => noFault.some((no) => no === fault))).toBe(false);
      // No proved fault is forgotten.
      for (const { fault, proved } of own) if (proved) expect(counted).toContain(fault);
    }),
    { numRuns: 500 },
  );
});

test("a proved fault of an earlier round stands before an unproved one of the last", () => {
  const own: ClosureFinding[] = [
    { round: 1, part: "M1", fault: "M1:open", proved: true },
    { round: 2, part: "X5", fault: "X5:1:open", proved: false },
  ];
  expect(learnedFaults(own, true, false)).toEqual({ main: own[0], teaches: true, further: [] });
});
