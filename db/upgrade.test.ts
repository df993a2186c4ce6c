// Upgrades of an older database: completely, or not at all.
import { spawnSync } from "node:child_process";
import { existsSync, mkdtempSync, readdirSync, rmSync } from "node:fs";
import { createRequire } from "node:module";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterEach, beforeEach, describe, expect, test } from "@jest/globals";
import { openDatabase } from "./database.server";
import { databaseFile, migrate } from "./databaseFile.server";
import { PlainSqlite } from "./keeping/plainSqlite.server";
import { migrations } from "./migrations/index";
import { UpgradeRefused, upgrade } from "./upgrade.server";

let folder = "";
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), "airway-upgrade-"));
});
afterEach(() => rmSync(folder, { recursive: true, force: true }));

const now = new Date("2026-11-24T10:00:00Z");

/** A shop of an older version, with a vehicle on a circuit. */
async function olderShop(version: string): Promise<void> {
  await migrate(folder, version);
  const own = await PlainSqlite.open(databaseFile(folder));
  const at = "2026-11-20 08:00:00.000 +00:00";
  const shelf = (await own.all("PRAGMA table_info(circuits)")).some(({ name }) => name === "shelfId");
  await own.run(
    shelf
      ? `INSERT INTO circuits (id, shelfId, version, title, body, about, createdAt) VALUES ('c', 'c', 1, 't', '{}', '', '${at}')`
      : `INSERT INTO circuits (id, title, body, createdAt) VALUES ('c', 't', '{}', '${at}')`,
  );
  await own.run(
    `INSERT INTO vehicles (id, label, model, circuitId, createdAt) VALUES (1, 'l', 'm', 'c', '${at}')`,
  );
  await own.close();
}

/** The shop's version, its vehicles, and what SQLite finds wrong with it. */
async function shop() {
  const own = await PlainSqlite.open(databaseFile(folder));
  try {
    const [version] = await own.all("SELECT MAX(name) AS name FROM SequelizeMeta");
    const [vehicles] = await own.all("SELECT COUNT(*) AS n FROM vehicles");
    return { version: version?.name, vehicles: vehicles?.n, faults: await own.faults() };
  } finally {
    await own.close();
  }
}

const tsx = createRequire(import.meta.url).resolve("tsx/cli");
const upgrader = join(process.cwd(), "db", "testing", "upgrader.ts");
const newest = migrations.at(-1)?.name;

test.each(migrations.slice(0, -1).map(({ name }) => name))(
  "a database of %s is upgraded, and kept as it was among the backups",
  async (version) => {
    await olderShop(version);
    expect(await upgrade(folder, now)).toBe("upgraded");
    expect(await shop()).toEqual({ version: newest, vehicles: 1, faults: [] });
    const [backup] = readdirSync(join(folder, "backups"));
    const own = await PlainSqlite.open(join(folder, "backups", backup ?? ""));
    expect(await own.all("SELECT MAX(name) AS name FROM SequelizeMeta")).toEqual([{ name: version }]);
    await own.close();
    expect(await upgrade(folder, now)).toBe("none");
    expect(existsSync(join(folder, "upgrading"))).toBe(false);
  },
);

test("the remains of an interrupted upgrade are removed, and the shop is complete", async () => {
  await olderShop("009-memory");
  // Half an upgrade beside the shop, as a kill leaves it.
  await migrate(join(folder, "upgrading"), "003-school");
  const store = await openDatabase(folder);
  await store.close();
  expect(await shop()).toEqual({ version: newest, vehicles: 1, faults: [] });
});

test("a database that a later Airway made is refused in words, and nothing changes", async () => {
  await olderShop("009-memory");
  await PlainSqlite.use(databaseFile(folder), (own) =>
    own.run("INSERT INTO SequelizeMeta (name) VALUES ('999-tomorrow')"),
  );
  await expect(upgrade(folder, now)).rejects.toThrow(/made by a later version of Airway \(999-tomorrow\)/);
  expect(await shop()).toEqual({ version: "999-tomorrow", vehicles: 1, faults: [] });
});

test("a database that an older Airway left half upgraded is refused in words, and nothing changes", async () => {
  await olderShop("002-heard-answers");
  // The state of 003 with its column present and its entry in the list missing.
  await PlainSqlite.use(databaseFile(folder), (own) =>
    own.run("ALTER TABLE jobs ADD COLUMN school TEXT NOT NULL DEFAULT 'least-time'"),
  );
  await expect(upgrade(folder, now)).rejects.toThrow(UpgradeRefused);
  await expect(upgrade(folder, now)).rejects.toThrow(
    /duplicate column.*It is unchanged\. Restore the newest backup/,
  );
  expect(await shop()).toEqual({ version: "002-heard-answers", vehicles: 1, faults: [] });
});

// File-size limits stand for a full disk: a write beyond the limit fails in the middle of the work. The program's own
// files are only read, so the limit affects nothing but the data folder.
describe("a disk that fills up during an upgrade", () => {
  test.each([1, 40, 90, 150, 220])(
    "leaves the old database complete where %d kB fit, and says so",
    async (kilobytes) => {
      await olderShop("004-notes");
      const { stdout, status } = spawnSync(
        "bash",
        ["-c", `ulimit -f ${kilobytes}; exec "$0" "$@"`, process.execPath, tsx, upgrader, folder],
        { encoding: "utf8", env: { ...process.env, TSX_DISABLE_CACHE: "1" } },
      );
      const after = await shop();
      expect(after).toMatchObject({ vehicles: 1, faults: [] });
      if (status === 0) expect(after.version).toBe(newest);
      else {
        expect(after.version).toBe("004-notes");
        expect(stdout).toMatch(/^(The disk is full|The disk could not be read or written)|^$/);
      }
      const store = await openDatabase(folder);
      await store.close();
      expect(await shop()).toMatchObject({ version: newest, vehicles: 1, faults: [] });
    },
  );
});
