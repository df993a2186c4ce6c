import { sameParts } from "@core/fault/repair";
// An entry, and the page in its answer, in a shop of its own.
import { NoteRow } from "@db/models/entryModels.server";
import { readingsOf } from "@db/repositories/readings.server";
import { afterAll, beforeAll, describe, expect, jest, test } from "@jest/globals";
import { RouterContextProvider } from "react-router";
import { diagnosisOf } from "../job/diagnosis.server";
import { jobViewAt } from "../job/jobView.server";
import { probeOptions } from "../probe/probeView.server";
import { pushedPagesContext } from "../probe/pushedPages.server";
import { logger } from "../shell/log.server";
import { closeDemoShop, json, openDemoShop, posted } from "../testing/demoShop";
import * as entries from "./entries";

let id = 0;
beforeAll(async () => {
  id = await openDemoShop();
  // Compiled and diagnosed once, so that the entry's answer does not wait for either.
  diagnosisOf(await jobViewAt(String(id)), probeOptions);
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
  suspects: { key: string; p: number; moved: number[] }[];
  evidence: unknown[];
}

describe("an entry", () => {
  test("is answered with the suspects that follow from it", async () => {
    const { body } = await json(entries.action, posted(fields("11.9")));
    const page = body.page as Page;
    expect(page.evidence).toHaveLength(1);
    const { suspects } = diagnosisOf(await jobViewAt(String(id)), probeOptions);
    const pack = suspects.reduce(
      (sum, { repair, p }) => (sameParts(repair.parts, ["R1"]) ? sum + p : sum),
      0,
    );
    expect(pack).toBeGreaterThan(0.1);
    expect(page.suspects.find(({ key }) => key === "R1")?.p).toBeCloseTo(pack, 9);
    for (const { p, moved } of page.suspects) {
      expect(moved).toHaveLength(2);
      expect(moved.at(-1)).toBeCloseTo(p, 9);
    }
  });

  test("is answered at once where its page is pushed to several devices", async () => {
    const context = new RouterContextProvider();
    const asked: number[] = [];
    context.set(pushedPagesContext, (jobId) => asked.push(jobId) > 0);
    const before = (await readingsOf(id)).length;
    const { body } = await json(entries.action, posted(fields("12.0")), {}, context);
    expect(body).toEqual({ isPushed: true });
    expect(asked).toEqual([id]);
    expect(await readingsOf(id)).toHaveLength(before + 1);
  });

  test("is saved even if its page cannot be made; the cause is logged", async () => {
    const logged = jest.spyOn(logger, "error").mockImplementation(() => undefined);
    const failing = jest.spyOn(NoteRow, "findAll").mockRejectedValue(new Error("disk read error"));
    const before = (await readingsOf(id)).length;
    const { status, body } = await json(entries.action, posted(fields("12.4")));
    failing.mockRestore();
    expect(status).toBe(200);
    expect(body).toEqual({ page: null });
    expect(await readingsOf(id)).toHaveLength(before + 1);
    expect(logged).toHaveBeenCalledWith(
      expect.objectContaining({ message: "disk read error" }),
      expect.stringContaining("the entry is saved"),
    );
  });
});
