// The board: its lines, and a job that cannot be read.
import { database } from "@db/database.server";
import { listJobs } from "@db/repositories/jobs.server";
import { addReading } from "@db/repositories/readings.server";
import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { answer, closeDemoShop, openDemoShop } from "../testing/demoShop";
import * as board from "./board";

beforeAll(async () => {
  await openDemoShop();
});
afterAll(closeDemoShop);

describe("the board", () => {
  interface BoardData {
    readonly jobs: readonly { readonly id: number; readonly stage: string; readonly line: string | null }[];
    readonly unreadable: readonly number[];
    readonly refreshing: boolean;
  }
  const page = async () => (await answer(board.loader, null)).data as unknown as BoardData;
  /** The board once every line was worked out. */
  const readyBoard = async (): Promise<BoardData> => {
    for (;;) {
      const now = await page();
      if (!now.refreshing) return now;
      await new Promise((resolve) => setTimeout(resolve, 50));
    }
  };

  test("has a line for every open job and the last closed ones, and none is broken", async () => {
    const { jobs } = await readyBoard();
    const stages = (await listJobs()).map(({ stage }) => stage);
    const closed = stages.filter((stage) => stage === "closed").length;
    expect(closed).toBeGreaterThan(12);
    expect(jobs.length).toBe(stages.length - closed + 12);
    for (const { line, stage } of jobs) {
      if (stage === "closed") continue;
      expect(line).toMatch(/^[A-Z]/);
      expect(line).not.toMatch(/undefined|something else/);
    }
  });

  test("shows an outdated line until the new one is ready", async () => {
    const lineOf = (data: BoardData) => data.jobs.find(({ id }) => id === 4)?.line;
    const before = lineOf(await readyBoard());
    await addReading({
      id: "board-1",
      jobId: 4,
      reading: { test: "look", at: "X5", seen: "melted" },
      takenAt: new Date(),
    });
    const stale = await page();
    expect(stale.refreshing).toBe(true);
    expect(lineOf(stale)).toBe(before);
    expect(lineOf(await readyBoard())).toMatch(/^[A-Z]/);
  });

  test("names a job whose row cannot be read, and shows the others", async () => {
    const { sequelize } = await database();
    await sequelize.query("UPDATE jobs SET createdAt = 'last week' WHERE id = 5");
    const { jobs, unreadable } = await page();
    expect(unreadable).toEqual([5]);
    expect(jobs.length).toBeGreaterThan(10);
    expect(jobs.map(({ id }) => id)).not.toContain(5);
    await sequelize.query("UPDATE jobs SET createdAt = '2026-11-20 08:00:00.000 +00:00' WHERE id = 5");
  });
});
