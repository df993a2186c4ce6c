// A database from before a migration, upgraded without losing its content.
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterEach, beforeEach, describe, expect, test } from "@jest/globals";
import { QueryTypes, Sequelize } from "sequelize";
import { openDatabase } from "../database.server";
import { migrations } from "./index";

let folder = "";
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), "airway-migrations-"));
});
afterEach(() => rmSync(folder, { recursive: true, force: true }));

/** A database as the migrations up to one left it, with a job in it. */
async function before(name: string, noticed: string): Promise<void> {
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
      noticed,
      stage: "probing",
      createdAt,
    },
    {
      id: 2,
      vehicleId: 1,
      circuitId: "c",
      formToken: "b",
      words: "Dead.",
      noticed: "[]",
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
