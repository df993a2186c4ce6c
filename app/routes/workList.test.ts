// The lines of a work list, through the page's own actions.
import { database } from "@db/database.server";
import { addJob, findJob } from "@db/repositories/jobs.server";
import { activeWorks, worksOf } from "@db/repositories/works.server";
import { afterEach, beforeEach, describe, expect, test } from "@jest/globals";
import { answer, closeDemoShop, type Fields, openDemoShop } from "../testing/demoShop";
import type { WorkData } from "../workList/workView.server";
import * as work from "./work";

let id = 0;
beforeEach(async () => {
  id = await openDemoShop();
});
afterEach(closeDemoShop);

const list = async (): Promise<WorkData> =>
  (await answer(work.loader, null, String(id))).data as unknown as WorkData;
const act = (fields: Fields) => answer(work.action, fields, String(id));
const add = (fields: Fields) => act({ intent: "add", token: crypto.randomUUID(), ...fields });

describe("the list itself", () => {
  test("a line is changed, deleted and restored, and nothing is lost", async () => {
    await add({ part: "M1", done: "renewed" });
    const [line] = activeWorks(await worksOf(id));
    if (!line) throw new Error("no line");
    await act({ intent: "change", id: line.id, part: "M1", done: "cleaned", minutes: "12" });
    expect(activeWorks(await worksOf(id))[0]).toMatchObject({
      done: "cleaned",
      minutes: 12,
      state: "planned",
    });
    await act({ intent: "done", id: line.id });
    expect(activeWorks(await worksOf(id))[0]).toMatchObject({ state: "done", minutes: 12 });
    await act({ intent: "delete", id: line.id });
    expect(activeWorks(await worksOf(id))).toEqual([]);
    expect((await list()).deleted).toHaveLength(1);
    await act({ intent: "restore", id: line.id });
    expect(activeWorks(await worksOf(id))).toHaveLength(1);
  });

  test("sent twice, a line is stored once", async () => {
    const token = crypto.randomUUID();
    await add({ token, part: "M1", done: "renewed" });
    await add({ token, part: "M1", done: "renewed" });
    expect(await worksOf(id)).toHaveLength(1);
  });

  test.each<[string, Fields, number]>([
    ["no name", { intent: "add", what: "", done: "renewed" }, 422],
    ["work that is none", { intent: "add", part: "M1", done: "polished" }, 422],
    ["a part the circuit has not", { intent: "add", part: "Q9", done: "renewed" }, 422],
    ["a line that is none", { intent: "done", id: "nothing" }, 404],
    ["an empty list as done", { intent: "finish" }, 422],
    ["an unknown intent", { intent: "burn" }, 400],
  ])("%s is refused and nothing is stored", async (_, fields, status) => {
    expect((await act(fields)).status).toBe(status);
    expect(await worksOf(id)).toEqual([]);
    expect((await findJob(id))?.stage).toBe("probing");
  });
});

test("another job's list is its own", async () => {
  const store = await database();
  const other = await store.write((transaction) =>
    addJob({ formToken: "u", vehicleId: 1, circuitId: "whimbrel-four-speed", words: "" }, transaction),
  );
  await add({ part: "M1", done: "renewed" });
  expect(await worksOf(other)).toEqual([]);
});
