// The editor of an access plan, against a database of its own.

import { findPlan } from "@db/repositories/plans.server";
import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { answer, closeDemoShop, openDemoShop } from "../testing/demoShop";
import * as way from "./way";
import * as wayFile from "./wayFile";

beforeAll(openDemoShop);
afterAll(closeDemoShop);

const uuid = () => crypto.randomUUID();

describe("the way's builder", () => {
  const van = "whimbrel-four-speed";
  const page = async () => (await way.loader({ params: { id: van } } as never)).own;
  const send = (fields: Record<string, string>) => answer(way.action, { token: uuid(), ...fields }, van);

  test("a step is added, changed, undone and redone across reloads; the same change sent twice is stored once", async () => {
    const step = {
      intent: "step",
      id: "roof",
      title: "Roof lining down",
      minutes: "12,5",
      fasteners: "2 torx T20 plastic",
    };
    const token = uuid();
    await send({ ...step, token });
    await send({ ...step, token });
    expect((await page())?.plan.steps.at(-1)).toMatchObject({ id: "roof", minutes: 12.5 });
    expect((await page())?.findings.map(({ words }) => words).join()).toMatch(
      /Roof lining down: no other step and no part needs this step/,
    );
    await send({ intent: "undo" });
    expect((await page())?.plan.steps.map((own) => own.id)).not.toContain("roof");
    expect((await page())?.redo).toBe(true);
    await send({ intent: "redo" });
    await send({ intent: "target", part: "S2", ways: "roof + mat" });
    expect((await page())?.findings).toEqual([]);
    await send({ ...step, was: "roof", id: "lining", title: "Lining down" });
    expect((await page())?.plan.targets.S2).toEqual([["lining", "mat"]]);
    await send({ intent: "remove", was: "lining" });
    await send({ intent: "drop-target", part: "S2" });
    await send({ intent: "name", title: "Van", where: "footwell" });
    expect((await page())?.plan).toMatchObject({ title: "Van", where: "footwell" });
  });

  test.each([
    [{ intent: "step", id: "mat2", title: "x", minutes: "soon" }, /minutes: expected number/],
    [{ intent: "step", id: "m", title: "x", minutes: "1", fasteners: "many" }, /fasteners: expected like/],
    [{ intent: "step", id: "m", title: "x", minutes: "1", needs: "nowhere" }, /no step "nowhere"/],
    [{ intent: "step", id: "m", title: "x", minutes: "1", risk: "8" }, /risk: enter percent/],
    [{ intent: "step", id: "m", title: "x", minutes: "1", nextPerson: "8" }, /nextPerson: enter minutes/],
    [{ intent: "bring", text: "{" }, /not valid JSON/],
    [{ intent: "bring", text: '{"format":"airway-plan"}' }, /version/],
    [{ intent: "dance" }, /could not be read/],
  ])("%j is refused with the place, and nothing changes", async (fields, message) => {
    const before = (await findPlan(van))?.plan;
    const refused = await send(fields);
    expect(refused.data.problem).toMatch(message);
    expect((await findPlan(van))?.plan).toEqual(before);
  });

  test("an exported plan imports as the same plan", async () => {
    const out = await (await wayFile.loader({ params: { id: van } } as never)).text();
    await send({ intent: "bring", text: out });
    expect((await findPlan(van))?.plan).toEqual(JSON.parse(out));
  });
});
