// The search over the demo workshop: what each kind of words finds, and what nothing finds.

import { addSeenJob, deleteSeenJob } from "@db/repositories/seenJobs.server";
import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { closeDemoShop, openDemoShop } from "../testing/demoShop";
import { findView } from "./findView.server";
import { mainPages, pagesFor } from "./pages";

beforeAll(async () => {
  await openDemoShop();
});
afterAll(closeDemoShop);

const found = async (query: string) =>
  Object.fromEntries((await findView(query, true)).map((group) => [group.title, group.found]));

describe("the search", () => {
  test("finds a vehicle with its jobs, the newest first", async () => {
    const { Vehicles, Jobs } = await found("bakery");
    expect(Vehicles?.map(({ title }) => title)).toEqual(["bakery hatchback"]);
    expect(Jobs?.length).toBeGreaterThan(1);
    expect(Jobs?.every(({ title }) => title.endsWith("bakery hatchback"))).toBe(true);
  });

  test("finds a job by its number alone, and a closed one at its card", async () => {
    expect((await found("job 18")).Jobs).toEqual([
      expect.objectContaining({ to: "/jobs/18/close", title: expect.stringMatching(/^Job 18: /) }),
    ]);
    expect((await found("4")).Jobs?.map(({ to }) => to)).toEqual(["/jobs/4"]);
    expect((await found("99999")).Jobs).toBeUndefined();
  });

  test("finds an open job without a diagram by its name, its complaint and what is seen, a deleted one no more", async () => {
    const id = await addSeenJob(
      {
        formToken: "no-diagram-search",
        label: "brewery flatbed",
        words: "only full blast",
        seen: { controls: "dial", speeds: 4, speedPart: "pack" },
        complaint: [],
      },
      new Date("2026-11-30T08:00:00Z"),
    );
    for (const query of ["flatbed", "full BLAST", "pack flatbed"])
      expect((await found(query))["Jobs without a diagram"]).toEqual([
        expect.objectContaining({ to: `/no-diagram/${id}`, title: "brewery flatbed" }),
      ]);
    await deleteSeenJob(id, new Date("2026-11-30T09:00:00Z"));
    expect((await found("flatbed"))["Jobs without a diagram"]).toBeUndefined();
  });

  test("finds a job by what was found in it", async () => {
    expect((await found("scorched")).Jobs).toHaveLength(1);
  });

  test("finds circuits, parts and pages by any of their words, in any case", async () => {
    expect((await found("five SPEEDS")).Circuits?.map(({ detail }) => detail)).toEqual(["siskin-five-speed"]);
    expect((await found("HW 4410-18")).Parts?.map(({ title }) => title)).toEqual(["HW 4410-18"]);
    expect((await found("tax")).Pages?.map(({ to }) => to)).toEqual(["/settings"]);
  });

  test("lists at most eight of each kind", async () => {
    for (const group of await findView("e", true)) expect(group.found.length).toBeLessThanOrEqual(8);
  });

  test.each(["", "   ", "no such words anywhere"])("finds nothing for %j", async (query) => {
    expect(await findView(query, true)).toEqual([]);
  });

  test("every page of the navigation is found by its title", () => {
    for (const page of mainPages) expect(pagesFor(page.title, true)).toContainEqual(page);
  });
});
