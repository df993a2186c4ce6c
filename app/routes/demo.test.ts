// The demo workshop: removed by one action, loaded again by another, and the empty shop says what to do.
import { database } from "@db/database.server";
import { addPerson, allPeople, removePerson } from "@db/people/people.server";
import { listJobs } from "@db/repositories/jobs.server";
import { demoState } from "@db/repositories/settings.server";
import { afterAll, beforeAll, expect, test } from "@jest/globals";
import { RouterContextProvider } from "react-router";
import { QueryTypes } from "sequelize";
import type { BoardView } from "../board/boardView.server";
import { stopLines } from "../board/jobLine.server";
import { visitorContext } from "../network/visitor.server";
import { visitorAt } from "../people/signedIn.server";
import { answer, closeDemoShop, openDemoShop } from "../testing/demoShop";
import * as board from "./board";
import * as demo from "./demo";

beforeAll(async () => {
  await openDemoShop();
});
afterAll(closeDemoShop);

const page = async () => (await answer(board.loader, null)).data as unknown as BoardView;

test("where people are named, the demo is removed only with the owner's own PIN", async () => {
  await addPerson("Front desk", "owner", "123456");
  const context = new RouterContextProvider();
  context.set(visitorContext, await visitorAt({ kind: "shop-computer" }, null, true));
  for (const pin of ["", "654321"]) {
    const refused = await answer(demo.action, { intent: "remove", pin }, "", context);
    expect(refused).toMatchObject({ status: 422, data: { problem: "This is not the right PIN." } });
  }
  expect(await demoState()).toBe("loaded");
  removePerson(allPeople()[0]?.id ?? "");
});

test("the board names the demo until it is removed; the shop's own job keeps its circuit", async () => {
  expect(await page()).toMatchObject({ demo: "Saltmarsh Bay Garage", emptyShelf: false });
  expect(await answer(demo.action, { intent: "remove" })).toMatchObject({ status: 302, location: "/" });
  expect(await demoState()).toBe("removed");
  // The job that the test itself opened is on a demo vehicle, which therefore stays.
  expect(await page()).toMatchObject({ demo: null, emptyShelf: false });
  expect(await listJobs()).toHaveLength(1);
  expect((await answer(demo.action, { intent: "load" })).status).toBe(409);
  expect((await answer(demo.action, { intent: "sell" })).status).toBe(400);
});

test("a shop without circuits says so, and loads the demo when asked", async () => {
  const { sequelize } = await database();
  await stopLines();
  const [{ id }] = (await sequelize.query("SELECT id FROM jobs", { type: QueryTypes.SELECT })) as [
    { id: number },
  ];
  await sequelize.query("INSERT INTO importing DEFAULT VALUES");
  await sequelize.query(`DELETE FROM jobLines WHERE jobId = ${id}`);
  await sequelize.query(`DELETE FROM jobs WHERE id = ${id}`);
  await sequelize.query("DELETE FROM importing");
  await sequelize.query("DELETE FROM vehicles");
  await sequelize.query("DELETE FROM circuits");
  expect(await page()).toMatchObject({ emptyShelf: true, jobs: [] });
  expect((await answer(demo.action, { intent: "load" })).status).toBe(302);
  expect(await demoState()).toBe("loaded");
});
