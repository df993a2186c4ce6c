import type { WiringReason } from "@core/wiring/diagnoseWiring";
import { describe, expect, test } from "@jest/globals";
import { placeComplaint } from "../core/testing/placeComplaint";
import { CandidateCache } from "../core/wiring/compiledCandidate";
import { diagnoseWiring } from "../core/wiring/diagnoseWiring";
import { wiringReasonText, wiringReport } from "./wiringWords";

describe("reasons of a verdict without a diagram", () => {
  test.each<[WiringReason, string]>([
    [
      { kind: "complaint-only" },
      "So far there is only the complaint. A complaint alone never confirms a verdict.",
    ],
    [
      { kind: "fact", fact: "switchedSide", value: "ground", p: 0.98 },
      "The readings show that the switch or control is on the ground side of the motor (98 %).",
    ],
    [
      { kind: "fact", fact: "switchedSide", value: "feed", p: 0.98 },
      "The readings show that the switch or control is on the feed side of the motor (98 %).",
    ],
    [
      { kind: "fact", fact: "drive", value: "bus", p: 0.97 },
      "The readings show that the control is on a data bus (97 %).",
    ],
    [
      { kind: "fact", fact: "relay", value: false, p: 0.97 },
      "The readings show that no relay feeds the blower (97 %).",
    ],
    [
      { kind: "fact", fact: "highRelay", value: true, p: 0.97 },
      "The readings show that the top speed has a relay of its own (97 %).",
    ],
    [
      { kind: "fact", fact: "highAtPack", value: false, p: 0.97 },
      "The readings show that the top speed's wire does not pass through the pack's plug (97 %).",
    ],
    [
      { kind: "wiring-open", fact: "relay" },
      "Still open: whether a relay feeds the blower. It changes the repair.",
    ],
    [
      { kind: "holds-under-all", wirings: 3 },
      "The repair is the same under all 3 ways of wiring that are still likely.",
    ],
    [
      { kind: "holds-under-all", wirings: 1 },
      "Only one way of wiring is still likely, and the repair is right under it.",
    ],
    [{ kind: "proof-missing" }, "The proof is not complete yet."],
    [{ kind: "proved" }, "The readings prove it."],
    [
      { kind: "may-be-bus", p: 0.15 },
      "This vehicle may use a data bus (15 %). Prove feeds, grounds and fuses; leave the control to the maker's procedure.",
    ],
  ])("%j", (reason, text) => {
    expect(wiringReasonText(reason)).toBe(text);
  });
});

test("the report says why each suspect is one, and who is left after each outcome", () => {
  const complaint = placeComplaint(["none", "none", "none", "normal"]);
  const diagnosis = diagnoseWiring({ speeds: 4, speedPart: "pack" }, complaint, new CandidateCache());
  const { suspects, next, verdict, id } = wiringReport({ id: "van-9", diagnosis });
  expect(id).toBe("van-9");
  const why = new Map(suspects.map((own) => [own.fault, own.why]));
  expect(why.get("unknown")).toBe("Something outside every way of wiring that is considered.");
  expect(why.get("pack:open")).toMatch(/^It fits \d+ ways of wiring that are still likely\.$/);
  expect(verdict.because[0]).toMatch(/^So far there is only the complaint/);
  for (const { outcomes } of next)
    for (const { leaves } of outcomes)
      for (const [at, { p }] of leaves.entries()) {
        expect(p).toBeLessThanOrEqual(1 + 1e-9);
        if (at > 0) expect(p).toBeLessThanOrEqual(leaves[at - 1]?.p ?? 1);
      }
});
