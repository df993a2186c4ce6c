import { QueryTypes, type Sequelize } from "sequelize";
import { database } from "../database.server";

/** What was read of a database, and the version of it that was read. */
interface Kept {
  version: number;
  readonly read: Map<string, Promise<unknown>>;
}

const kept = new WeakMap<Sequelize, Kept>();
const mostKept = 200;

/** A number that changes with every transaction committed: each has a connection of its own, other processes too. */
async function versionOf(sequelize: Sequelize): Promise<number> {
  const [row] = await sequelize.query<{ data_version: number }>("PRAGMA data_version", {
    type: QueryTypes.SELECT,
  });
  return row?.data_version ?? Number.NaN;
}

/**
 * What `read` finds, read again only once a transaction has been committed since. Single statements (`Database.statement`)
 * do not count: what they write (readings, ticks, traces) must not be read here.
 */
export async function untilCommit<T>(key: string, read: () => Promise<T>): Promise<T> {
  const { sequelize } = await database();
  const version = await versionOf(sequelize);
  let own = kept.get(sequelize);
  if (own?.version !== version) {
    own = { version, read: new Map() };
    kept.set(sequelize, own);
  }
  const known = own.read.get(key) as Promise<T> | undefined;
  if (known) return known;
  const made = read();
  own.read.set(key, made);
  if (own.read.size > mostKept) own.read.delete(own.read.keys().next().value as string);
  made.catch(() => own.read.delete(key));
  return made;
}
