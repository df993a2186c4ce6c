// Opening a job: for a vehicle the shop knows and for a new one, and what is refused.
import { listJobs } from "@db/repositories/jobs.server";
import { listVehicles } from "@db/repositories/vehicles.server";
import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { answer, closeDemoShop, type Fields, openDemoShop } from "../testing/demoShop";
import * as newJob from "./newJob";

beforeAll(openDemoShop);
afterAll(closeDemoShop);

const token = () => crypto.randomUUID();

describe("a new job", () => {
  const fields = (own: Fields): Fields => ({ token: token(), vehicle: "1", words: "", ...own });

  test("for a vehicle the shop knows, and for a new one", async () => {
    expect((await answer(newJob.action as never, fields({ words: " squeals " }))).location).toMatch(
      /^\/jobs\/\d+\/complaint$/,
    );
    expect((await listJobs())[0]).toMatchObject({ words: "squeals", stage: "probing" });
    const own = {
      vehicle: "new",
      label: "net store van",
      model: "Skerry Godwit hatchback",
      circuitId: "godwit-two-relays",
    };
    await answer(newJob.action, fields(own));
    expect((await listVehicles()).map(({ label }) => label)).toContain("net store van");
    expect((await listJobs())[0]?.circuitId).toBe("godwit-two-relays");
  });

  test.each<[string, Fields, string]>([
    ["no vehicle", { vehicle: [] }, "vehicle"],
    ["a vehicle that is none", { vehicle: "77" }, "vehicle"],
    ["one that is not a number", { vehicle: "one" }, "vehicle"],
    ["no name", { vehicle: "new", model: "m", circuitId: "c" }, "label"],
    ["a circuit that is none", { vehicle: "new", label: "l", model: "m", circuitId: "heron" }, "circuitId"],
    ["a name too long", { vehicle: "new", label: "x".repeat(61), model: "m", circuitId: "c" }, "label"],
    ["no token", { token: "" }, "token"],
  ])("%s is refused by its field", async (_, own, field) => {
    const before = [(await listJobs()).length, (await listVehicles()).length];
    const { data } = await answer(newJob.action, fields(own));
    expect(Object.keys(data.problems as object)).toContain(field);
    expect(Object.values(data.problems as object).join()).not.toMatch(/expected string|undefined/);
    expect([(await listJobs()).length, (await listVehicles()).length]).toEqual(before);
  });
});
