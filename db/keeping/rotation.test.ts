import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { type BackupName, backupsToDrop } from "./rotation";

const day = 24 * 3600 * 1000;
const now = Date.parse("2026-11-25T03:00:00Z");
const nightly = (nights: number): BackupName[] =>
  Array.from({ length: nights }, (_, back) => {
    const at = now - back * day;
    return { name: new Date(at).toISOString().slice(0, 10), at };
  });
const keptOf = (backups: readonly BackupName[]): string[] => {
  const drop = new Set(backupsToDrop(backups, now));
  return backups.flatMap(({ name }) => (drop.has(name) ? [] : [name]));
};

describe("which backups are kept", () => {
  test("of two years of nights: seven days, five weeks and twelve months, by hand", () => {
    expect(keptOf(nightly(730))).toEqual([
      // The days.
      ...["2026-11-25", "2026-11-24", "2026-11-23", "2026-11-22", "2026-11-21", "2026-11-20", "2026-11-19"],
      // The last night of each week that is not among them: Sundays.
      ...["2026-11-15", "2026-11-08", "2026-11-01"],
      // The last night of each month that is not among them.
      ...["2026-10-31", "2026-09-30", "2026-08-31", "2026-07-31", "2026-06-30", "2026-05-31"],
      ...["2026-04-30", "2026-03-31", "2026-02-28", "2026-01-31", "2025-12-31"],
    ]);
  });

  test("the newest always stays, however old", () => {
    expect(keptOf([{ name: "old", at: now - 900 * day }])).toEqual(["old"]);
    expect(backupsToDrop([], now)).toEqual([]);
  });

  test("all of the last 24 hours stay; of an earlier day only the newest", () => {
    const ago = (...hours: number[]) =>
      hours.map((back) => ({ name: `${back}`, at: now - back * 3600 * 1000 }));
    expect(keptOf(ago(1, 2, 23))).toEqual(["1", "2", "23"]);
    expect(keptOf(ago(1, 31, 32, 33))).toEqual(["1", "31"]);
  });

  test("applied every night, rotation keeps at each step what it would keep of them all", () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 60 }), (nights) => {
        let have: BackupName[] = [];
        for (let night = nights - 1; night >= 0; night--) {
          const at = now - night * day;
          have.push({ name: new Date(at).toISOString().slice(0, 10), at });
          const drop = new Set(backupsToDrop(have, at));
          have = have.filter(({ name }) => !drop.has(name));
        }
        expect(have.length).toBeLessThanOrEqual(24);
        expect(have.map(({ name }) => name)).toContain("2026-11-25");
      }),
      { numRuns: 20 },
    );
  });
});
