// What is made ready after a start, in a shop of its own.
import { readingsOf } from "@db/repositories/readings.server";
import { afterAll, beforeAll, expect, test } from "@jest/globals";
import { diagnosisOf } from "../job/diagnosis.server";
import { jobViewAt } from "../job/jobView.server";
import { closeDemoShop, openDemoShop } from "../testing/demoShop";
import { probeOptions } from "./probeView.server";
import { rehearse, warmUp } from "./warmUp.server";

let id = 0;
beforeAll(async () => {
  id = await openDemoShop();
});
afterAll(closeDemoShop);

test("the look a job offers is gone through as it would be entered, and nothing of it stays", async () => {
  const view = await jobViewAt(String(id));
  const [offered] = (await diagnosisOf(view, probeOptions)).next;
  expect(offered).toBeDefined();
  expect(await rehearse(view)).toMatchObject({ ...offered?.test });
  await warmUp();
  expect(await readingsOf(id)).toEqual([]);
});
