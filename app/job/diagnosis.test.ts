// A diagnosis that was worked out ahead on the other thread, in a shop of its own, against the same made here.
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { diagnose } from "@core/diagnose/diagnose";
import { afterAll, beforeAll, expect, test } from "@jest/globals";
import { workAheadOn } from "../engine/engine.server";
import { bundledEngineWorker } from "../testing/bundledEngineWorker";
import { closeDemoShop, openDemoShop } from "../testing/demoShop";
import { diagnosisFrom, workOutAhead } from "./diagnosis.server";
import { jobViewAt } from "./jobView.server";

let id = 0;
const folder = mkdtempSync(join(tmpdir(), "airway-diagnosis-"));
beforeAll(async () => {
  workAheadOn(await bundledEngineWorker(folder));
  id = await openDemoShop();
});
afterAll(async () => {
  await closeDemoShop();
  rmSync(folder, { recursive: true, force: true });
});

test("is the same as one made here, and the same object however often it is asked for", async () => {
  const view = await jobViewAt(String(id));
  const readings = [{ test: "amps", around: "M1", key: "run", setting: "4", amps: 11.9 } as const];
  await workOutAhead(view, readings, { asIf: 3 });
  const ahead = await diagnosisFrom(view, readings, { asIf: 3 });
  const { costs, repairs, learnt, job } = view;
  const past = { repairs, counts: learnt.counts, familyCounts: learnt.ofFamily };
  const here = diagnose(view.engine, readings, { school: job.school, costs, ...past, asIf: 3 });
  expect(here).toEqual({ ok: true, value: ahead });
  expect(await diagnosisFrom(view, readings, { asIf: 3 })).toBe(ahead);
  await workOutAhead(view, readings, { asIf: 3 });
  expect(await diagnosisFrom(view, readings, { asIf: 3 })).toBe(ahead);
});
