// Records exported and imported, parsed back by an independent package.
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, describe, expect, test } from "@jest/globals";
import { parse } from "csv-parse/sync";
import fc from "fast-check";
import {
  guardedCell,
  type JobRecord,
  parseRecords,
  recordColumns,
  unguardedCell,
} from "../../core/formats/recordFile";
import { type Parsed, problemText } from "../../core/problem/problem";
import { readRecordsFile } from "../importing/recordsFile.server";
import { recordsCsv } from "./recordsCsv";

const folder = mkdtempSync(join(tmpdir(), "airway-csv-"));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

/** Text read back as a file of records. */
async function readBack(text: string): Promise<Parsed<JobRecord[]>> {
  const file = join(folder, "records.csv");
  writeFileSync(file, text);
  const records: JobRecord[] = [];
  const read = await readRecordsFile(file, (some) => {
    records.push(...some);
    return Promise.resolve();
  });
  return read.ok ? { ok: true, value: records } : read;
}

const record: JobRecord = {
  key: "form-1",
  vehicle: "ferry crew van 3",
  model: "Harrow Whimbrel",
  circuit: "whimbrel-four-speed",
  came: "2026-11-20T08:00:00Z",
  closed: "2026-11-20T10:30:00Z",
  words: 'Only on "4",\nthen nothing; weak',
  found: "=link open, melted",
  fault: "R1.link:open",
  kind: "link",
  mode: "open",
  family: "resistor ground",
  symptom: "some-speeds",
  cause: "not-found",
  parts: "R1",
  looks: 3,
  minutes: 7.5,
  totalMinor: 12_300,
  cameBack: false,
};

const signs = ["=", "+", "-", "@", "'", '"', "\t", "\r", "\n", ",", ";", "a", "é", "€", " ", "1"];

describe("records as comma-separated text", () => {
  test("carry the work list in one cell, and tables from before there was one are read", async () => {
    const works = [
      {
        part: "M1",
        what: "blower motor M1",
        done: "renewed",
        number: 'A"1',
        minutes: 12.5,
        round: 1,
        state: "done",
      },
      { what: "-clip", done: "carried-over", round: 2, state: "planned" },
    ] as const;
    const records: JobRecord[] = [{ ...record, works: [...works] }];
    const read = await readBack(recordsCsv(records));
    expect(read.ok && read.value).toEqual(records);
    const before = recordsCsv([record]).replace(",works\r\n", "\r\n").replace(",false,\r\n", ",false\r\n");
    expect(before).not.toContain("works");
    const old = await readBack(before);
    expect(old.ok && old.value).toEqual([record]);
    const broken = await readBack(recordsCsv(records).replace("renewed", "replaced"));
    expect(broken.ok ? "" : broken.problems.map(problemText).join()).toMatch(/^row 2, works\.0\.done: /);
  });

  test("can be read by an independent package, and no cell is a formula", () => {
    const rows: string[][] = parse(recordsCsv([record, { ...record, totalMinor: null }]));
    expect(rows[0]).toEqual(recordColumns);
    expect(rows[1]?.[recordColumns.indexOf("words")]).toBe(record.words);
    expect(rows[1]?.[recordColumns.indexOf("found")]).toBe("'=link open, melted");
    expect(rows[2]?.[recordColumns.indexOf("totalMinor")]).toBe("");
    for (const row of rows) for (const cell of row) expect(cell).not.toMatch(/^[=+\-@\t\r]/);
  });

  test("end every row with CR LF and read back the same, whatever was written in them", () => {
    return fc.assert(
      fc.asyncProperty(
        fc.array(fc.string({ maxLength: 80, unit: fc.constantFrom(...signs) }), {
          maxLength: 5,
        }),
        async (texts) => {
          const records = texts.map((words, i) => ({ ...record, key: `k${i}`, words, found: `xyz${words}` }));
          const text = recordsCsv(records);
          expect(text.endsWith("\r\n")).toBe(true);
          const read = await readBack(text);
          expect(read.ok ? read.value : read.problems).toEqual(records);
        },
      ),
    );
  });

  test("an added apostrophe is removed again", () => {
    for (const cell of ["=1", "'=1", "''+", "plain", "'quoted'", "-5", "@x", ""]) {
      expect(guardedCell(cell)).not.toMatch(/^[=+\-@\t\r]/);
      expect(unguardedCell(guardedCell(cell))).toBe(cell);
    }
  });

  test.each<[string, string, RegExp]>([
    ["nothing", "", /^row 1: the header row is missing/],
    ["another table", "a,b\r\n1,2\r\n", /^row 1: missing columns: key, vehicle/],
    [
      "a figure that is none",
      recordsCsv([record]).replace(",7.5,", ",long,"),
      /^row 2, minutes: expected number, got "long"/,
    ],
    [
      "a day for a moment",
      recordsCsv([record]).replace("2026-11-20T08:00:00Z", "20.11.2026"),
      /^row 2, came: /,
    ],
    ["an open quote", `${recordColumns.join(",")}\r\n"never closed`, /^row 2: Quoted field/],
  ])("%s is refused with its place", async (_, text, message) => {
    const read = await readBack(text);
    expect(read.ok ? "" : read.problems.map(problemText).join("; ")).toMatch(message);
  });
});

test("records as JSON are read, or refused with the place", () => {
  const file = { format: "airway-records", version: 1, records: [record] };
  const read = parseRecords(file);
  expect(read.ok && read.value).toEqual([record]);
  const wrong = parseRecords({ ...file, records: [record, { ...record, cause: "perhaps" }] });
  expect(wrong.ok ? "" : wrong.problems.map(problemText).join()).toMatch(
    /^records\.1\.cause: expected "found"/,
  );
});
