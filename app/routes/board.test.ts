// The board: its lines, and a job that cannot be read.
import { database } from "@db/database.server";
import { listJobs } from "@db/repositories/jobs.server";
import { addReading } from "@db/repositories/readings.server";
import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import type { BoardView } from "../board/boardView.server";
import { answer, closeDemoShop, openDemoShop } from "../testing/demoShop";
import * as board from "./board";
import * as complaint from "./complaint";

beforeAll(async () => {
  await openDemoShop();
});
afterAll(closeDemoShop);

describe("the board", () => {
  const page = async () => (await answer(board.loader, null)).data as unknown as BoardView;
  /** The board once every line was worked out. */
  const readyBoard = async (): Promise<BoardView> => {
    for (;;) {
      const now = await page();
      if (!now.refreshing) return now;
      await new Promise((resolve) => setTimeout(resolve, 50));
    }
  };
  const groupOf = (data: BoardView, job: number) => data.jobs.find(({ id }) => id === job)?.group;

  test("has a line for every open job, each under what has to be done next, and none is broken", async () => {
    const { jobs } = await readyBoard();
    const open = (await listJobs()).filter(({ stage }) => stage !== "closed");
    expect(jobs.map(({ id }) => id).sort()).toEqual(open.map(({ id }) => id).sort());
    for (const { stage, id } of open) {
      const group = jobs.find((job) => job.id === id)?.group;
      if (stage === "part-awaited") expect(group).toBe("part-awaited");
      else if (stage === "proof-due") expect(group).toBe("to-check");
      else expect(["to-test", "to-repair"]).toContain(group);
    }
    for (const { line } of jobs) {
      expect(line).toMatch(/^[A-Z]/);
      expect(line).not.toMatch(/undefined|something else/);
    }
  });

  test("a job whose parts arrived is to be repaired, and its history says so", async () => {
    const awaited = (await readyBoard()).jobs.find(({ group }) => group === "part-awaited")?.id ?? 0;
    await answer(board.action, { intent: "parts-in", job: String(awaited) });
    const after = await readyBoard();
    expect(groupOf(after, awaited)).toBe("to-repair");
    expect(after.jobs.find(({ id }) => id === awaited)?.line).toMatch(/^Arrived: /);
    const { sequelize } = await database();
    const [rows] = await sequelize.query(`SELECT what FROM events WHERE jobId = ${awaited} ORDER BY id DESC`);
    expect(rows[0]).toEqual({ what: "parts-in" });
  });

  test("a follow-up stands on the board until somebody made it, and comes back by undo", async () => {
    const { sequelize } = await database();
    const due = async () => (await page()).followUps.map(({ jobId }) => jobId);
    const before = await due();
    const [rows] = await sequelize.query("SELECT jobId FROM closures ORDER BY jobId LIMIT 1");
    const { jobId } = rows[0] as { jobId: number };
    await sequelize.query(
      `UPDATE closures SET body = json_set(body, '$.stopgap', 'Bearing oiled', '$.followUpOn', '2020-01-01') WHERE jobId = ${jobId}`,
    );
    expect(await due()).toEqual([jobId, ...before]);
    const { data } = await answer(board.action, { intent: "followed-up", job: String(jobId) });
    expect(data).toMatchObject({ followedUp: { id: jobId } });
    expect(await due()).toEqual(before);
    await answer(board.action, { intent: "not-followed-up", job: String(jobId) });
    expect(await due()).toEqual([jobId, ...before]);
    expect((await answer(board.action, { intent: "followed-up", job: "99999" })).status).toBe(400);
  });

  test("a promise that has passed is late, and one without an hour is refused", async () => {
    const { sequelize } = await database();
    await sequelize.query("UPDATE jobs SET promised = '2020-01-01T16:00' WHERE id = 6");
    expect((await page()).jobs.find(({ id }) => id === 6)).toMatchObject({
      late: true,
      promise: "1 Jan 16:00",
    });
    const refused = await answer(complaint.action, { intent: "words", words: "x", promised: "soon" }, "6");
    expect(refused.status).toBe(422);
    await answer(complaint.action, { intent: "words", words: "x", promised: "" }, "6");
    expect((await page()).jobs.find(({ id }) => id === 6)).toMatchObject({ late: false, promise: null });
  });

  test("shows an outdated line until the new one is ready", async () => {
    const lineOf = (data: BoardView) => data.jobs.find(({ id }) => id === 4)?.line;
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
    expect(jobs.length).toBeGreaterThan(8);
    expect(jobs.map(({ id }) => id)).not.toContain(5);
    await sequelize.query("UPDATE jobs SET createdAt = '2026-11-20 08:00:00.000 +00:00' WHERE id = 5");
  });
});
