import sqlite3 from "sqlite3";

/** A cell in SQLite's types. */
export type Cell = string | number | null | Buffer;

/** SQLite's online backup, as the driver provides it; its types omit it. */
interface OnlineBackup {
  step(pages: number, done: (error: Error | null) => void): void;
  finish(done: (error: Error | null) => void): void;
}

/** A database file other than the shop's own: read, filled or copied statement by statement. */
export class PlainSqlite {
  private constructor(private readonly handle: sqlite3.Database) {}

  /** @param create creates the file if there is none */
  static open(file: string, { create = false } = {}): Promise<PlainSqlite> {
    const mode = sqlite3.OPEN_READWRITE | (create ? sqlite3.OPEN_CREATE : 0);
    return new Promise((done, failed) => {
      const handle = new sqlite3.Database(file, mode, (error) =>
        error ? failed(error) : done(new PlainSqlite(handle)),
      );
    });
  }

  /** Opens a database file for some work and closes it afterwards, whatever happens. */
  static async use<T>(file: string, work: (own: PlainSqlite) => Promise<T>): Promise<T> {
    const own = await PlainSqlite.open(file);
    try {
      return await work(own);
    } finally {
      await own.close();
    }
  }

  all(sql: string, values: readonly Cell[] = []): Promise<Record<string, Cell>[]> {
    return new Promise((done, failed) =>
      this.handle.all<Record<string, Cell>>(sql, values, (error, rows) =>
        error ? failed(error) : done(rows),
      ),
    );
  }

  run(sql: string): Promise<void> {
    return new Promise((done, failed) => this.handle.exec(sql, (error) => (error ? failed(error) : done())));
  }

  /** Runs one statement for each row of values, in order. */
  async each(sql: string, rows: Iterable<readonly Cell[]>): Promise<void> {
    const statement = await new Promise<sqlite3.Statement>((done, failed) => {
      const made = this.handle.prepare(sql, (error: Error | null) => (error ? failed(error) : done(made)));
    });
    try {
      for (const row of rows)
        await new Promise<void>((done, failed) =>
          statement.run([...row], (error: Error | null) => (error ? failed(error) : done())),
        );
    } finally {
      await new Promise<void>((done) => statement.finalize(() => done()));
    }
  }

  /** Copies the database to another file while others work on it (SQLite's own online backup). */
  copyTo(file: string): Promise<void> {
    return new Promise((done, failed) => {
      const { handle } = this;
      const backup = (handle as unknown as { backup(file: string): OnlineBackup }).backup(file);
      backup.step(-1, (error) => {
        backup.finish(() => (error ? failed(error) : done()));
      });
    });
  }

  /** What SQLite finds wrong with the file; empty if it is sound. */
  async faults(): Promise<string[]> {
    const integrity = (await this.all("PRAGMA integrity_check")).map((row) => String(row.integrity_check));
    const keys = (await this.all("PRAGMA foreign_key_check")).map(
      ({ table, rowid, parent }) =>
        `${String(table)} row ${String(rowid)} names a ${String(parent)} that is not there`,
    );
    return [...integrity.filter((line) => line !== "ok"), ...keys].slice(0, 12);
  }

  close(): Promise<void> {
    return new Promise((done, failed) => this.handle.close((error) => (error ? failed(error) : done())));
  }
}
