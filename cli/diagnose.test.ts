import { describe, expect, test } from "@jest/globals";
import { placeComplaint } from "../core/testing/placeComplaint";
import { fusedLeads } from "../core/testing/takenReadings";
import { airway, onlyTop } from "./testing/airway";

describe("diagnose", () => {
  test("diagnose prints the diagnosis, as JSON or in words", async () => {
    const diagnosis = JSON.parse((await airway(["diagnose", "-"], JSON.stringify(onlyTop))).stdout);
    expect(diagnosis.id).toBe("van-3");
    expect(diagnosis.verdict.state).toBe("open");
    expect(diagnosis.parts[0].part).toBe("R1");
    const { stdout } = await airway(["diagnose", "-", "--text"], JSON.stringify(onlyTop));
    expect(stdout).toMatch(/^open: replace R1, \d+ %$/m);
  });
  test("a case without a circuit is diagnosed by place, alone and among others", async () => {
    // The worked example of docs/formats.
    const seenCase = {
      format: "airway-case",
      version: 1,
      id: "van-9",
      seen: { controls: "dial", speeds: 4, speedPart: "pack", blowers: 1, steering: "left" },
      readings: [
        ...placeComplaint(["none", "none", "none", "normal"]),
        {
          test: "light",
          at: "motor-plug",
          clip: "ground",
          key: "run",
          setting: "0",
          seen: { a: "bright", b: "bright" },
        },
      ],
    };
    const { stdout } = await airway(["diagnose", "-"], JSON.stringify(seenCase));
    const diagnosis = JSON.parse(stdout);
    expect(Object.keys(diagnosis)).toEqual([
      "id",
      "suspects",
      "parts",
      "verdict",
      "next",
      "conflicts",
      "circuits",
    ]);
    const sum = (of: readonly { p: number }[]): number => of.reduce((all, { p }) => all + p, 0);
    expect(sum(diagnosis.suspects)).toBeCloseTo(1, 6);
    expect(sum(diagnosis.circuits)).toBeGreaterThan(0.98);
    expect(diagnosis.circuits[0].facts).toMatchObject({ switchedSide: "ground", drive: "resistor" });
    expect(diagnosis.verdict).toMatchObject({ state: "open", replace: ["pack"] });
    expect(diagnosis.verdict.because.join(" ")).toMatch(/ground side of the motor/);
    expect(diagnosis.next[0].test).not.toHaveProperty("probe");
    const lines = [seenCase, onlyTop, { ...seenCase, seen: { speeds: 99 } }].map((own) =>
      JSON.stringify(own),
    );
    const answers = (await airway(["lines"], `${lines.join("\n")}\n`)).stdout.trim().split("\n");
    expect(JSON.parse(answers[0] ?? "")).toEqual(diagnosis);
    expect(JSON.parse(answers[1] ?? "").id).toBe("van-3");
    expect(JSON.parse(answers[2] ?? "").error).toMatch(/^seen\.speeds: must be at most 12/);
    expect((await airway(["check", "-"], lines[0])).status).toBe(0);
    const { stdout: text } = await airway(["diagnose", "-", "--text"], JSON.stringify(seenCase));
    expect(text).toMatch(/^open: replace pack, \d+ %$/m);
    expect(text).toMatch(/^wiring: resistor pack, ground side/m);
  });

  test("diagnose --plan looks ahead and prices the strategies", async () => {
    const diagnosis = JSON.parse((await airway(["diagnose", "-", "--plan"], JSON.stringify(onlyTop))).stdout);
    expect(diagnosis.plan.first.test).toEqual(diagnosis.next[0].test);
    expect(diagnosis.plan.schools).toHaveLength(4);
    expect(diagnosis.cleared.map(({ part }: { part: string }) => part)).toContain("F7");
  });

  test("a shop's costs, parts and counts are used, and refused if they do not fit", async () => {
    const own = { ...onlyTop, shop: { comebackMinor: 0, counts: [{ kind: "motor", mode: "open", n: 200 }] } };
    const usual = JSON.parse((await airway(["diagnose", "-"], JSON.stringify(onlyTop))).stdout);
    const learned = JSON.parse((await airway(["diagnose", "-"], JSON.stringify(own))).stdout);
    const p = (diagnosis: { parts: { part: string; p: number }[] }) =>
      diagnosis.parts.find(({ part }) => part === "M1")?.p ?? 0;
    expect(p(learned)).toBeGreaterThan(p(usual));
    expect(learned.verdict.fitNowMinor).toBeLessThan(usual.verdict.fitNowMinor);
    const wrong = await airway(["diagnose", "-"], JSON.stringify({ ...onlyTop, shop: { hourMinor: -1 } }));
    expect(wrong.status).toBe(2);
    expect(wrong.stderr).toMatch(/shop\.hourMinor: must be at least 0, got -1/);
  });

  test("every test of the format is accepted, and refused by its place if the circuit has no such thing", async () => {
    const setup = { key: "run", setting: "4" };
    const readings = [
      { test: "amps", around: "W9", ...setup, amps: 17.6 },
      { test: "amps", around: "M1", ...setup, engine: true, amps: 17.6 },
      { test: "listen", ...setup, seen: "rumble", followsSpeed: true },
      { test: "smell", ...setup, seen: "burnt" },
      { test: "history", of: "wet-carpet", seen: "yes" },
      { test: "tap", at: "M1", ...setup, seen: "nothing" },
      { test: "lampload", lampFor: "M1", ...setup, seen: "bright" },
      { test: "swap", at: "K3", seen: "same" },
      { test: "ripple", at: "M1", ...setup, seen: "uneven" },
      { ...fusedLeads, seen: "normal" },
    ];
    const one = async (reading: object) =>
      await airway(["diagnose", "-"], JSON.stringify({ ...onlyTop, readings: [reading] }));
    expect(
      JSON.parse((await airway(["diagnose", "-"], JSON.stringify({ ...onlyTop, readings }))).stdout).parts[0]
        .part,
    ).toBe("M1");
    expect((await one({ test: "amps", around: "W99", amps: 1 })).stderr).toMatch(
      /readings\.0\.around: no wire or motor "W99"/,
    );
    expect((await one({ test: "swap", at: "F7", seen: "same" })).stderr).toMatch(
      /readings\.0\.at: no relay "F7"/,
    );
    expect((await one({ test: "lampload", lampFor: "R1", seen: "dark" })).stderr).toMatch(
      /readings\.0\.lampFor: expected a motor or a fuse/,
    );
    expect((await one({ test: "history", of: "moon", seen: "yes" })).stderr).toMatch(
      /readings\.0\.of: expected "heat" or "bumps"/,
    );
  });
});
