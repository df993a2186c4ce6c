import { mkdirSync } from "node:fs";
import { join } from "node:path";
import { Sequelize } from "sequelize";
import { SequelizeStorage, Umzug } from "umzug";
import { migrations } from "./migrations/index";

/** The database file in a data folder. */
export const databaseFile = (folder: string): string => join(folder, "airway.sqlite");

/** Connects to the database in a folder. */
export async function connect(folder: string): Promise<Sequelize> {
  mkdirSync(folder, { recursive: true });
  const sequelize = new Sequelize({ dialect: "sqlite", storage: databaseFile(folder), logging: false });
  await sequelize.query("PRAGMA journal_mode = WAL");
  await sequelize.query("PRAGMA synchronous = FULL");
  return sequelize;
}

/**
 * Creates or changes the tables of the database in a folder, up to a migration, by default the newest. An interrupted
 * run leaves some of it, so this is only for copies nobody works on yet.
 */
export async function migrate(folder: string, upTo?: string): Promise<void> {
  const sequelize = await connect(folder);
  try {
    const umzug = new Umzug({
      migrations,
      context: sequelize.getQueryInterface(),
      storage: new SequelizeStorage({ sequelize }),
      logger: undefined,
    });
    await umzug.up(upTo === undefined ? undefined : { to: upTo });
  } finally {
    await sequelize.close();
  }
}
