import { QueryTypes, type Sequelize, Transaction } from "sequelize";
import { actingName } from "./acting.server";
import { connect } from "./databaseFile.server";
import { dataFolder } from "./dataFolder.server";
import { defineModels } from "./models/models.server";
import { upgrade } from "./upgrade.server";

const fullSync = 2;

const listeners = new Set<() => void>();

/** Calls a listener after every write that is on disk, whatever it wrote. */
export const onWritten = (listener: () => void): void => void listeners.add(listener);

const replacedListeners = new Set<() => void>();

/** Calls a listener after the process's database was replaced by another one. */
export const onReplaced = (listener: () => void): void => void replacedListeners.add(listener);

/** An open database: its connection and the one queue of all writes. */
export class Database {
  private last: Promise<unknown> = Promise.resolve();
  /** The name in the table `acting`, from which triggers take who did it; undefined if that is not known. */
  private acting: string | null | undefined;

  constructor(readonly sequelize: Sequelize) {}

  /**
   * Runs a write alone, in an IMMEDIATE transaction; resolves once it is on disk. SQLite takes one writer at a time,
   * and writers that read first often fail when they run side by side.
   */
  write<T>(work: (transaction: Transaction) => Promise<T>): Promise<T> {
    const name = actingName();
    return this.inTurn(async () => {
      const before = this.acting;
      this.acting = undefined;
      const done = await this.sequelize.transaction(
        { type: Transaction.TYPES.IMMEDIATE },
        async (transaction) => {
          if (name !== before) await this.act(name, transaction);
          return work(transaction);
        },
      );
      this.acting = name;
      return done;
    });
  }

  /**
   * Runs work alone among the writes, without a transaction of its own: a single statement on the open connection,
   * which takes half the time, or work of another thread. Resolves when the work does.
   */
  alone<T>(work: () => Promise<T>): Promise<T> {
    const name = actingName();
    return this.inTurn(async () => {
      if (name !== this.acting) await this.act(name, null);
      this.acting = name;
      return work();
    });
  }

  private inTurn<T>(work: () => Promise<T>): Promise<T> {
    const turn = this.last.then(work);
    this.last = turn.then(
      () => {
        for (const listener of listeners) listener();
      },
      () => undefined,
    );
    return turn;
  }

  private async act(who: string | null, transaction: Transaction | null): Promise<void> {
    await this.sequelize.query("UPDATE acting SET who = :who", { replacements: { who }, transaction });
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

/**
 * Every transaction has its own connection. Durability is checked on that one, and on the one for single statements.
 */
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

/** Upgrades and opens the database in a folder, and checks that writes are durable. */
export async function openDatabase(folder = dataFolder()): Promise<Database> {
  await upgrade(folder, new Date());
  const sequelize = await connect(folder);
  defineModels(sequelize);
  const database = new Database(sequelize);
  try {
    await checkPragmas(database);
  } catch (thrown) {
    await sequelize.close();
    throw thrown;
  }
  return database;
}

let opened: Promise<Database> | null = null;

/** Sets the process's database. If opening it fails, the next caller tries again. */
function openAs(opening: Promise<Database>): Promise<Database> {
  opened = opening;
  opening.catch(() => {
    if (opened === opening) opened = null;
  });
  return opening;
}

/** The process's one database, opened when first asked for. */
export const database = (): Promise<Database> => opened ?? openAs(openDatabase());

/** Closes the process's database once pending writes are done. */
export async function closeDatabase(): Promise<void> {
  const closing = opened;
  opened = null;
  if (closing) await (await closing).close();
}

/**
 * Replaces the process's database. Pending writes finish first; callers of `database()` wait until it is replaced.
 * @param exchange runs while the database is closed. It returns the new database, opened, or restores the old file and
 *   throws
 */
export async function replaceDatabase(exchange: () => Promise<Database>): Promise<void> {
  const closing = opened;
  const exchanged = (async () => {
    if (closing) await (await closing).close();
    return exchange();
  })();
  await openAs(exchanged.catch(() => openDatabase()));
  await exchanged;
  for (const listener of replacedListeners) listener();
}
