import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import { airway, demoFile, file, whimbrel } from "../testing/airway";

const plan = (name: string): string => demoFile("plans", `${name}.json`);

describe("route, match and price", () => {
  test("route prints the quickest removal, and the refitting", async () => {
    const plan = demoFile("plans", "whimbrel-blower.json");
    const route = JSON.parse((await airway(["route", plan, "--to", "R1,M1"])).stdout);
    expect(route.minutes).toBe(11.5);
    expect(route.steps.map(({ id }: { id: string }) => id)).toContain("pack-screws");
    expect((await airway(["route", plan])).stderr).toMatch(/--to: expected one or more parts/);
    expect((await airway(["route", plan, "--to", "R1", "--text"])).stdout).toMatch(
      /^5 min, with trim lever and 7 mm socket\n1\. Fold/,
    );
  });

  test("route goes by the book if asked, and continues from steps already done", async () => {
    const route = async (...more: string[]) =>
      JSON.parse((await airway(["route", plan("dotterel-ear"), "--to", "M1", ...more])).stdout);
    expect((await route("--prefer", "book")).minutes).toBeGreaterThan(200);
    expect((await route("--done", "glove-box")).minutes).toBeCloseTo((await route()).minutes - 4, 9);
    expect((await airway(["route", plan("dotterel-ear"), "--to", "M1", "--prefer", "fast"])).stderr).toMatch(
      /--prefer: expected quickest, book, kind, got "fast"/,
    );
    expect((await airway(["route", plan("dotterel-ear"), "--to", "M1", "--done", "roof"])).stderr).toMatch(
      /--done: no step "roof"/,
    );
    expect((await airway(["route", plan("dotterel-ear"), "--to", "M1", "--text"])).stdout).toMatch(
      /or 9\/32 in for 7 mm socket: 0\.144 mm, loose\n(.*\n)*extra work for the next person: 5 min/,
    );
  });

  const demoParts = JSON.parse(readFileSync(demoFile("parts.json"), "utf8")) as {
    number: string;
  }[];
  const part = (number: string): string =>
    file(`${number}.json`, JSON.stringify(demoParts.find((own) => own.number === number)));

  test("match compares two parts with each other and with the circuit, with the splice of its leads", async () => {
    const asked = ["--circuit", whimbrel, "--part", "R1", "--against", part("HW 4410-17")];
    const match = JSON.parse((await airway(["match", part("HW 4410-18"), ...asked])).stdout);
    expect(match.verdict).toBe("adaptable");
    expect(match.leads.joints).toHaveLength(4);
    expect((await airway(["match", part("QR 771 420"), ...asked, "--text"])).stdout).toMatch(
      /^wrong, 6 min of work\n(.*\n)*ohms: wrong/,
    );
    expect((await airway(["match", part("HW 4410-18")])).stderr).toMatch(/expected --circuit/);
    expect(
      (await airway(["match", part("HW 4410-18"), ...asked.slice(0, 3), "Q1", ...asked.slice(4)])).stderr,
    ).toMatch(/no part "Q1"/);
  });

  test("price adds lines up in whole minor units; check recognises plans and parts", async () => {
    const line = {
      kind: "part",
      title: "x",
      quantityMilli: 1000,
      unit: "pc",
      eachMinor: 33,
      taxBasisPoints: 2000,
    };
    const rounding = { rule: "half-up", at: "total", coinMinor: 1 };
    const priced = await airway([
      "price",
      file("lines.json", JSON.stringify({ rounding, lines: [line, line, line] })),
    ]);
    expect(JSON.parse(priced.stdout)).toMatchObject({ netMinor: 99, taxMinor: 20, totalMinor: 119 });
    const spoilt = file("spoilt.json", JSON.stringify({ rounding, lines: [{ ...line, eachMinor: 0.5 }] }));
    expect((await airway(["price", spoilt])).stderr).toMatch(/lines\.0\.eachMinor/);
    expect(JSON.parse((await airway(["check", plan("siskin-glove-box")])).stdout)).toMatchObject({
      format: "airway-plan",
    });
    expect(JSON.parse((await airway(["check", part("HW 4402-03")])).stdout)).toMatchObject({
      id: "HW 4402-03",
    });
  });
});
