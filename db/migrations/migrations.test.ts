// A database from before a migration, upgraded without losing its content.
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterEach, beforeEach, describe, expect, test } from "@jest/globals";
import { QueryTypes, Sequelize } from "sequelize";
import { shippedCircuit } from "../../core/testing/shippedCircuit";
import { actAs } from "../acting.server";
import { openDatabase } from "../database.server";
import { migrations } from "./index";

let folder = "";
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), "airway-migrations-"));
});
afterEach(() => rmSync(folder, { recursive: true, force: true }));

/** A database as the migrations up to one left it, with a job in it. */
async function before(name: string, noticed: string | null): Promise<void> {
  // The second migration moves a complaint's chips into its words, and drops their column.
  const chips = (own: string) => (noticed === null ? {} : { noticed: own });
  const sequelize = new Sequelize({
    dialect: "sqlite",
    storage: join(folder, "airway.sqlite"),
    logging: false,
  });
  const context = sequelize.getQueryInterface();
  const done = migrations.slice(
    0,
    migrations.findIndex((migration) => migration.name === name),
  );
  await context.createTable("SequelizeMeta", { name: { type: "VARCHAR(255)", primaryKey: true } });
  for (const migration of done) {
    await migration.up({ context });
    await context.bulkInsert("SequelizeMeta", [{ name: migration.name }]);
  }
  const createdAt = new Date("2026-11-20T08:00:00Z");
  await context.bulkInsert("circuits", [{ id: "c", title: "t", body: "{}", createdAt }]);
  await context.bulkInsert("vehicles", [{ id: 1, label: "l", model: "m", circuitId: "c", createdAt }]);
  await context.bulkInsert("jobs", [
    {
      id: 1,
      vehicleId: 1,
      circuitId: "c",
      formToken: "a",
      words: "Weak.",
      ...chips(noticed ?? ""),
      stage: "probing",
      createdAt,
    },
    {
      id: 2,
      vehicleId: 1,
      circuitId: "c",
      formToken: "b",
      words: "Dead.",
      ...chips("[]"),
      stage: "probing",
      createdAt,
    },
  ]);
  await sequelize.close();
}

describe("002-heard-answers", () => {
  test("keeps the chips of older jobs in their words, and leaves the others unchanged", async () => {
    await before("002-heard-answers", '["noise","comes-and-goes"]');
    const store = await openDatabase(folder);
    const rows = await store.sequelize.query<Record<string, unknown>>("SELECT * FROM jobs ORDER BY id", {
      type: QueryTypes.SELECT,
    });
    expect(rows.map(({ words }) => words)).toEqual(["Weak. Noticed: noise, comes and goes.", "Dead."]);
    expect(Object.keys(rows[0] ?? {})).not.toContain("noticed");
    expect(rows.map(({ cautionsRead }) => cautionsRead)).toEqual(["[]", "[]"]);
    await store.close();
    // Opened again, nothing is done twice.
    const again = await openDatabase(folder);
    const [first] = await again.sequelize.query<{ words: string }>("SELECT words FROM jobs", {
      type: QueryTypes.SELECT,
    });
    expect(first?.words).toBe("Weak. Noticed: noise, comes and goes.");
    await again.close();
  });
});

describe("016-works", () => {
  test("makes a line of every part fitted or ordered, by rounds, and changes nothing else", async () => {
    await before("016-works", null);
    const sequelize = new Sequelize({
      dialect: "sqlite",
      storage: join(folder, "airway.sqlite"),
      logging: false,
    });
    const context = sequelize.getQueryInterface();
    await context.bulkUpdate(
      "circuits",
      { body: JSON.stringify(shippedCircuit("whimbrel-four-speed")) },
      { id: "c" },
    );
    await context.bulkUpdate("jobs", { stage: "part-awaited", fitted: '["R1"]' }, { id: 2 });
    const fitting = { jobId: 1, p: 0.9, state: "settled", looks: 3, minutes: 8 };
    const at = (minutes: number) => new Date(Date.UTC(2026, 10, 20, 9, minutes));
    await context.bulkInsert("fittings", [
      { ...fitting, parts: '["M1"]', fittedAt: at(0), outcome: "failed" },
      { ...fitting, parts: '["F7"]', fittedAt: at(1), outcome: "withdrawn" },
      { ...fitting, parts: '["X5","R1"]', fittedAt: at(2), outcome: "pending" },
    ]);
    await sequelize.close();
    const store = await openDatabase(folder);
    const rows = await store.sequelize.query<Record<string, unknown>>(
      "SELECT jobId, round, part, kind, done, state FROM works ORDER BY jobId, round, part",
      { type: QueryTypes.SELECT },
    );
    expect(rows.map((row) => Object.values(row))).toEqual([
      [1, 1, "M1", "motor", "renewed", "done"],
      [1, 2, "R1", "resistor", "renewed", "done"],
      [1, 2, "X5", "connector", "spliced", "done"],
      [2, 1, "R1", "resistor", "renewed", "planned"],
    ]);
    const fitted = await store.sequelize.query<{ parts: string }>("SELECT parts FROM fittings ORDER BY id", {
      type: QueryTypes.SELECT,
    });
    expect(fitted.map(({ parts }) => parts)).toEqual(['["M1"]', '["F7"]', '["X5","R1"]']);
    const found = await store.sequelize.query<{ rowid: number }>(
      "SELECT rowid FROM jobSearch WHERE jobSearch MATCH 'motor'",
      { type: QueryTypes.SELECT },
    );
    expect(found.map(({ rowid }) => rowid)).toEqual([1]);
    await store.close();
  });
});

describe("021-who", () => {
  test("leaves what older jobs hold without a name, and names what is written from then on", async () => {
    await before("021-who", null);
    const sequelize = new Sequelize({
      dialect: "sqlite",
      storage: join(folder, "airway.sqlite"),
      logging: false,
    });
    const insert = (own: Sequelize, id: string, number: number) =>
      own.query(
        `INSERT INTO readings (id, jobId, number, body, takenAt) VALUES ('${id}', 1, ${number}, '{}', '2026-11-20 08:00:00')`,
      );
    await insert(sequelize, "old", 1);
    await sequelize.close();
    const store = await openDatabase(folder);
    await actAs("Bay two", () => store.alone(() => insert(store.sequelize, "new", 2)));
    const ask = (sql: string) => store.sequelize.query(sql, { type: QueryTypes.SELECT });
    expect(await ask("SELECT id, takenBy FROM readings ORDER BY number")).toEqual([
      { id: "old", takenBy: null },
      { id: "new", takenBy: "Bay two" },
    ]);
    expect(
      await ask(
        "SELECT who FROM events e LEFT JOIN eventPeople p ON p.eventId = e.id WHERE what = 'reading'",
      ),
    ).toEqual([{ who: null }, { who: "Bay two" }]);
    await store.close();
  });
});
