// A figure told of while it is typed, and the page that answers it once it is entered, in a shop of their own.
import { readingsOf } from "@db/repositories/readings.server";
import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { diagnosisOf } from "../job/diagnosis.server";
import { jobViewAt } from "../job/jobView.server";
import { probeOptions } from "../probe/probeView.server";
import { answer, closeDemoShop, json, openDemoShop, posted } from "../testing/demoShop";
import * as entries from "./entries";
import * as probe from "./probe";
import * as typing from "./typing";

let id = 0;
beforeAll(async () => {
  id = await openDemoShop();
});
afterAll(closeDemoShop);

const look = JSON.stringify({ test: "amps", around: "M1", key: "run", setting: "4" });
const fields = (value: string) => ({
  intent: "reading",
  token: crypto.randomUUID(),
  form: "next",
  look,
  value,
});
interface Page {
  suspects: { part: string; p: number; moved: number[] }[];
  evidence: unknown[];
}

describe("a figure while it is typed", () => {
  test("stores nothing, whatever it is, and is answered without a page", async () => {
    await answer(probe.loader, null);
    for (const typed of ["12.", "11,9", "", "a lot", "1e99"])
      expect((await answer(typing.action as never, fields(typed))).status).toBe(204);
    expect((await answer(typing.action as never, { intent: "strike", id: "x", struck: "yes" })).status).toBe(
      204,
    );
    expect((await answer(typing.action as never, { intent: "reading" })).status).toBe(204);
    expect(await readingsOf(id)).toEqual([]);
  });

  test("a job that is not there is 404", async () => {
    expect((await answer(typing.action as never, fields("12"), "999")).status).toBe(404);
  });

  test("entered, it answers with the suspects that follow from it, told of before or not", async () => {
    await answer(probe.loader, null);
    await answer(typing.action, fields("11.9"));
    const { body } = await json(entries.action, posted(fields("11.9")));
    const page = body.page as Page;
    expect(page.evidence).toHaveLength(1);
    const view = await jobViewAt(String(id));
    const { suspects } = await diagnosisOf(view, probeOptions);
    const pack = suspects.reduce((sum, { part, p }) => (part === "R1" ? sum + p : sum), 0);
    expect(pack).toBeGreaterThan(0.1);
    expect(page.suspects.find(({ part }) => part === "R1")?.p).toBeCloseTo(pack, 9);
    for (const { p, moved } of page.suspects) {
      expect(moved).toHaveLength(2);
      expect(moved.at(-1)).toBeCloseTo(p, 9);
    }
  });
});
