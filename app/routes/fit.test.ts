// Removal, refitting and the tray, against a database of its own.

import { planNotesOf } from "@db/repositories/plans.server";
import { measuredSteps, ticksOf } from "@db/repositories/repairs.server";
import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { answer, closeDemoShop, openDemoShop } from "../testing/demoShop";
import * as fit from "./fit";
import * as ticks from "./ticks";

const wagon = "16";
beforeAll(openDemoShop);
afterAll(closeDemoShop);

const uuid = () => crypto.randomUUID();
const get = (job: string, query = "") =>
  ({ params: { id: job }, request: new Request(`http://x/y?${query}`) }) as never;
type FitPage = Awaited<ReturnType<typeof fit.loader>>;
const fitPage = async (job = wagon): Promise<NonNullable<FitPage["fit"]>> => {
  const page = await fit.loader(get(job));
  if (!page.fit) throw new Error("no plan");
  return page.fit;
};
const post = (fields: Record<string, string>, job = wagon) => answer(fit.action, fields, job);
const tick = (step: string, own: "in" | "back", screws: number, token = uuid()) =>
  answer(ticks.action, { intent: "tick", token, step, way: own, screws: String(screws) }, wagon);
const refusal = async (fields: Record<string, string>): Promise<string | undefined> => {
  const body = new URLSearchParams(fields);
  const request = new Request("http://127.0.0.1/x", { method: "POST", body });
  const told = await ticks.action({ request, params: { id: wagon } } as never);
  return ((await told.json()) as { problem?: string }).problem;
};

describe("the fit page", () => {
  test("uses the chosen parts and route, and shows minutes, tools and everything else", async () => {
    await post({ intent: "choose", prefer: "quickest", targets: "R1" });
    const page = await fitPage();
    expect(page.targets).toEqual(["R1"]);
    expect(page.steps.map((step) => step.id)).toContain("motor-screws");
    expect(page.besides.map(({ part }) => part)).toEqual(["M1"]);
    // A squeal that follows the speed comes from the motor: far more doubt than its kind's yearly probability.
    expect(page.besides[0]?.failsWithin).toBeGreaterThan(0.2);
    expect(page.ways.map(({ prefer }) => prefer)).toEqual(["quickest", "book", "kind"]);
    expect(page.opens).toContain("blower motor M1");
  });

  test("every tick is on disk, stored once however often it is sent, and counted in the tray", async () => {
    const token = uuid();
    await tick("flap", "in", 0);
    expect((await tick("glove-box", "in", 7, token)).status).toBe(200);
    await tick("glove-box", "in", 7, token);
    expect(await ticksOf(Number(wagon))).toHaveLength(2);
    expect((await fitPage()).tray).toMatchObject({ lying: 7, out: 7 });
    // Ticked again with another count, the last one counts.
    await tick("glove-box", "in", 6);
    const page = await fitPage();
    expect(page.tray.lying).toBe(6);
    expect(page.tray.calls[0]?.words).toMatch(/6 screws came out, the plan says 7/);
    await tick("glove-box", "in", 7);
  });

  test("several ticks in a row do not count as the minutes of the work", async () => {
    await tick("x3-off", "in", 0);
    expect(await measuredSteps("siskin-five-speed")).toEqual([]);
  });

  test("a left-over screw is reported before the panel over it closes, and a tick can be undone", async () => {
    for (const step of ["tube", "computer"]) await tick(step, "in", step === "computer" ? 2 : 0);
    await tick("motor-screws", "in", 4);
    await tick("motor-screws", "back", 3);
    const called = (await fitPage()).back.find((step) => step.id === "glove-box");
    expect(called?.calls[0]).toMatch(/1 screw left over/);
    const back = (await ticksOf(Number(wagon))).find(
      ({ step, way: own }) => step === "motor-screws" && own === "back",
    );
    await answer(ticks.action, { intent: "untick", id: back?.id ?? "" }, wagon);
    expect((await fitPage()).tray.lying).toBe(13);
  });

  test("a step before its turn is refused by name, and taken with a reason that is kept", async () => {
    const fields = { intent: "tick", token: uuid(), step: "pack-screws", way: "in", screws: "2" };
    expect(await refusal(fields)).toMatch(/another step comes before it/);
    expect((await fitPage()).steps.find(({ id: own }) => own === "pack-screws")?.waits).toMatchObject([
      { id: "x5-off" },
    ]);
    const reason = "its plug comes off afterwards";
    expect((await answer(ticks.action, { ...fields, reason }, wagon)).status).toBe(200);
    const page = await fitPage();
    expect(page.steps.find(({ id: own }) => own === "pack-screws")?.tick).toMatchObject({ reason });
    await answer(ticks.action, { intent: "untick", id: fields.token }, wagon);
  });

  test("screws are counted by sort; what became of a lost one is asked for, kept, and can be deleted", async () => {
    const sort = "5.5 mm screw";
    expect((await fitPage()).tray.sorts.map((own) => [own.sort, own.lying])).toEqual([
      ["PH2 screw", 7],
      ["10 mm screw", 2],
      [sort, 4],
    ]);
    const note = { intent: "tray", token: uuid(), kind: "lost", sort, count: "1" };
    expect(await refusal({ ...note, words: " " })).toMatch(/Say where it fell/);
    await answer(ticks.action, { ...note, words: "behind the carpet" }, wagon);
    await answer(ticks.action, { ...note, words: "behind the carpet" }, wagon);
    const lost = (await fitPage()).tray;
    expect(lost.sorts[2]).toMatchObject({ lying: 3, lost: 1 });
    expect(lost.notes.map(({ text }) => text)).toEqual([`1 × ${sort}, lost in the car: behind the carpet`]);
    await answer(ticks.action, { intent: "tray-delete", id: note.token }, wagon);
    expect((await fitPage()).tray.sorts[2]).toMatchObject({ lying: 4, lost: 0 });
  });

  test("a note stays with the model of vehicle, and can be deleted", async () => {
    const token = uuid();
    const words = "fifth screw behind the drain";
    await post({ intent: "note", token, step: "glove-box", words });
    await post({ intent: "note", token, step: "glove-box", words });
    expect((await planNotesOf("siskin-five-speed")).map((note) => note.words)).toEqual([words]);
    await post({ intent: "strike-note", id: token, struck: "yes" });
    expect((await fitPage()).steps.find((step) => step.id === "glove-box")?.notes).toMatchObject([
      { struck: true },
    ]);
  });

  test("a tick that waited on a phone is dated to when it was made", async () => {
    const token = uuid();
    const fields = { intent: "tick", token, step: "glove-box", way: "in", screws: "7", waitedSeconds: "600" };
    await answer(ticks.action, fields, wagon);
    const stored = (await ticksOf(Number(wagon))).find((own) => own.id === token);
    expect(Date.now() - (stored?.takenAt.getTime() ?? 0)).toBeGreaterThan(590_000);
    await answer(ticks.action, { intent: "untick", id: token }, wagon);
  });

  test("a form that cannot be read, a step that does not exist and a vehicle without a plan are refused", async () => {
    const unread = { intent: "tick", token: "x", step: "flap", way: "in", screws: "1" };
    expect(await refusal(unread)).toMatch(/could not be read/);
    expect(await refusal({ ...unread, token: uuid(), step: "roof" })).toBe("The plan has no such step.");
    expect((await post({ intent: "choose", prefer: "quickest", targets: "" }, "9")).status).toBe(409);
    const page = await fit.loader(get("9", "sign=loud-bonnet&sign=nonsense"));
    expect(page.fit).toBeNull();
    expect(page.where.odds[0]?.id).toBe("under-bonnet");
    expect(page.where.signs).toEqual(["loud-bonnet"]);
  });

  test("a plan starts from a template with the circuit's own parts", async () => {
    const begun = await post({ intent: "begin", template: "lower-panel" }, "9");
    expect(begun.location).toBe("/shelf/godwit-two-relays/way");
    await post({ intent: "choose", prefer: "book", targets: "M1" }, "9");
    expect((await fitPage("9")).reachable.map((part) => part.id)).toEqual(["M1", "R1"]);
    expect((await post({ intent: "begin", template: "toString" }, "10")).status).toBe(400);
  });
});
