/** What can go wrong with the disk or the database file, by the code of an error. */
const troubles: Readonly<Record<string, string>> = {
  SQLITE_FULL: "The disk is full. Make room on it; nothing that was stored is lost.",
  ENOSPC: "The disk is full. Make room on it; nothing that was stored is lost.",
  EDQUOT: "The disk quota is used up. Make room; nothing that was stored is lost.",
  SQLITE_READONLY: "The data folder cannot be written to. Give Airway's user the right to write there.",
  EROFS: "The data folder is on a read-only disk. Set AIRWAY_DATA to a folder that can be written to.",
  EACCES: "The data folder cannot be written to. Give Airway's user the right to write there.",
  EPERM: "The data folder cannot be written to. Give Airway's user the right to write there.",
  ENOTDIR: "The data folder is not a folder. Set AIRWAY_DATA to a folder.",
  EEXIST: "The data folder is not a folder. Set AIRWAY_DATA to a folder.",
  SQLITE_CANTOPEN: "The database's file cannot be opened. Check the rights of the data folder and its files.",
  SQLITE_CORRUPT: "The database's file is damaged. Restore the newest backup: docs/reliability.md says how.",
  SQLITE_NOTADB:
    "The database's file is damaged, or is not a database. Restore the newest backup: docs/reliability.md says how.",
  SQLITE_IOERR: "The disk could not be read or written. Check the disk; nothing that was stored was changed.",
};

/** The driver's own words for errors without a code. */
const driverWords: readonly (readonly [RegExp, string])[] = [
  [/database or disk is full/i, "SQLITE_FULL"],
  [/disk I\/O error/i, "SQLITE_IOERR"],
  [/attempt to write a readonly database/i, "SQLITE_READONLY"],
  [/unable to open database file/i, "SQLITE_CANTOPEN"],
  [/file is not a database/i, "SQLITE_NOTADB"],
  [/database disk image is malformed/i, "SQLITE_CORRUPT"],
];

const codesOf = ({ code, message }: NodeJS.ErrnoException): string[] => [
  code ?? "",
  /\b(SQLITE_[A-Z]+|E[A-Z]{3,})\b/.exec(message)?.[1] ?? "",
  driverWords.find(([words]) => words.test(message))?.[1] ?? "",
];

/** The meaning of a disk or database failure in words; null for any other failure. */
export function storageTrouble(thrown: unknown): string | null {
  for (let error = thrown; error instanceof Error; error = causeOf(error)) {
    const named = codesOf(error).find((code) => code in troubles);
    if (named) return troubles[named] ?? null;
  }
  return null;
}

/** The cause of an error; Sequelize keeps the driver's under `parent`. */
const causeOf = (error: Error): unknown =>
  "parent" in error && error.parent !== error ? error.parent : error.cause;
