import { mkdirSync } from "node:fs";
import { join, resolve } from "node:path";
import { QueryTypes, Sequelize, Transaction } from "sequelize";
import { SequelizeStorage, Umzug } from "umzug";
import { migrations } from "./migrations/index";
import { defineModels } from "./models.server";

/** The folder that holds the database: set AIRWAY_DATA to move it, copy it to back it up. */
export const dataFolder = (): string => resolve(process.env.AIRWAY_DATA ?? "data");

const fullSync = 2;

/** An open database: its connection and the one queue all writes go through. */
export class Database {
  private last: Promise<unknown> = Promise.resolve();

  constructor(readonly sequelize: Sequelize) {}

  /**
   * Runs a write alone, in an IMMEDIATE transaction; resolves once it is on disk. SQLite takes one
   * writer at a time, and writers that read first fail in numbers when they run side by side.
   */
  write<T>(work: (transaction: Transaction) => Promise<T>): Promise<T> {
    const turn = this.last.then(() =>
      this.sequelize.transaction({ type: Transaction.TYPES.IMMEDIATE }, work),
    );
    this.last = turn.catch(() => undefined);
    return turn;
  }

  /**
   * Runs one statement alone, which is a transaction by itself on the connection that is open already: half the
   * time of one with a connection of its own. Resolves once it is on disk.
   */
  statement<T>(work: () => Promise<T>): Promise<T> {
    const turn = this.last.then(work);
    this.last = turn.catch(() => undefined);
    return turn;
  }

  async close(): Promise<void> {
    await this.last;
    await this.sequelize.close();
  }
}

async function pragma(sequelize: Sequelize, name: string, transaction?: Transaction): Promise<unknown> {
  const [row] = await sequelize.query<Record<string, unknown>>(`PRAGMA ${name}`, {
    type: QueryTypes.SELECT,
    ...(transaction ? { transaction } : {}),
  });
  return row ? Object.values(row)[0] : undefined;
}

/** Every transaction has its own connection; what must hold is checked there, and where single statements run. */
async function checkPragmas(database: Database): Promise<void> {
  const { sequelize } = database;
  const pragmas = async (transaction?: Transaction) => ({
    journal: await pragma(sequelize, "journal_mode", transaction),
    sync: await pragma(sequelize, "synchronous", transaction),
    keys: await pragma(sequelize, "foreign_keys", transaction),
  });
  for (const found of [await database.write(pragmas), await pragmas()])
    if (found.journal !== "wal" || found.sync !== fullSync || found.keys !== 1)
      throw new Error(`the database is not safe to write to: ${JSON.stringify(found)}`);
}

export const databaseFile = (folder: string): string => join(folder, "airway.sqlite");

/** Connects to the database in a folder and brings its tables up to date, or up to one migration. */
export async function migrated(folder: string, upTo?: string): Promise<Sequelize> {
  mkdirSync(folder, { recursive: true });
  const sequelize = new Sequelize({ dialect: "sqlite", storage: databaseFile(folder), logging: false });
  await sequelize.query("PRAGMA journal_mode = WAL");
  await sequelize.query("PRAGMA synchronous = FULL");
  const umzug = new Umzug({
    migrations,
    context: sequelize.getQueryInterface(),
    storage: new SequelizeStorage({ sequelize }),
    logger: undefined,
  });
  await umzug.up(upTo === undefined ? undefined : { to: upTo });
  return sequelize;
}

/** Opens the database in a folder, brings its tables up to date and checks that writes are durable. */
export async function openDatabase(folder = dataFolder()): Promise<Database> {
  const sequelize = await migrated(folder);
  defineModels(sequelize);
  const database = new Database(sequelize);
  await checkPragmas(database);
  return database;
}

let opened: Promise<Database> | null = null;

/** The process's one database, opened when first asked for. */
export function database(): Promise<Database> {
  opened ??= openDatabase();
  return opened;
}

/** Closes the process's database, once writes in flight are done. */
export async function closeDatabase(): Promise<void> {
  const closing = opened;
  opened = null;
  if (closing) await (await closing).close();
}

/**
 * Puts another database in the place of the process's: writes in flight are done first, and whoever asks meanwhile waits for
 * the new one. Where the exchange fails the old one is opened again.
 */
export async function replaceDatabase(exchange: () => Promise<void>): Promise<void> {
  const closing = opened;
  let failed: unknown = null;
  opened = (async () => {
    if (closing) await (await closing).close();
    await exchange().catch((thrown: unknown) => {
      failed = thrown;
    });
    return openDatabase();
  })();
  await opened;
  if (failed) throw failed;
}
