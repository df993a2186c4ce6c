import { expect, test } from "@jest/globals";
import { storageTrouble } from "./storageTrouble";

test.each<[unknown, RegExp]>([
  [
    Object.assign(new Error("SQLITE_FULL: database or disk is full"), { code: "SQLITE_FULL" }),
    /^The disk is full/,
  ],
  [Object.assign(new Error("no space left on device, write"), { code: "ENOSPC" }), /^The disk is full/],
  [
    new Error("query failed", { cause: new Error("SQLITE_READONLY: attempt to write") }),
    /cannot be written to/,
  ],
  [
    Object.assign(new Error("query"), { parent: new Error("SQLITE_NOTADB: file is not a database") }),
    /damaged/,
  ],
  [new Error("UNKNOWN: disk I/O error"), /could not be read or written/],
  [Object.assign(new Error("x"), { code: "EACCES" }), /right to write/],
])("%s is reported in words", (thrown, words) => expect(storageTrouble(thrown)).toMatch(words));

test.each([new Error("the circuit cannot be solved"), "SQLITE_FULL", null])("%s is not one", (thrown) =>
  expect(storageTrouble(thrown)).toBeNull(),
);
