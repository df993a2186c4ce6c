// The trace and changes made in tables: what they take, what they refuse, and what a refusal leaves unchanged.
import type { Circuit } from "@core/circuit/circuit";
import { listCircuits, versionsOf } from "@db/repositories/circuits.server";
import { findDraft, listDrafts } from "@db/repositories/drafts.server";
import { listJobs } from "@db/repositories/jobs.server";
import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { answer, closeDemoShop, type Fields, json, openDemoShop, posted } from "../testing/demoShop";
import * as newJob from "./newJob";
import * as shelfCircuit from "./shelfCircuit";
import * as trace from "./trace";
import * as traceDraft from "./traceDraft";
import * as traceSteps from "./traceSteps";

beforeAll(async () => {
  await openDemoShop();
});
afterAll(closeDemoShop);

async function begun(from: string, title = "Fenmark Siskin wagon, short roof"): Promise<string> {
  const token = crypto.randomUUID();
  const began = await answer(trace.action, { intent: "begin", token, title, steering: "", from });
  expect(began).toMatchObject({ status: 302, location: `/trace/${token}` });
  return token;
}
const send = (id: string, fields: Fields) => answer(traceDraft.action, fields, id);
const shown = async (id: string) => (await answer(traceDraft.loader, null, id)).data;
/** A step as the page's own queue sends it. */
async function step(id: string, fields: Record<string, string>, stepId: string = crypto.randomUUID()) {
  return (await json(traceSteps.action, posted({ ...fields, step: stepId }), { id })).body;
}
const move = (id: string, intent: "undo" | "redo") => step(id, { intent });
const edit = (id: string, change: object) => step(id, { intent: "edit", edit: JSON.stringify(change) });
const partOf = async (id: string, part: string) =>
  ((await shown(id)).circuit as { parts: { id: string }[] }).parts.find((own) => own.id === part);

describe("a trace", () => {
  test("takes answers one by one, undoes and redoes them, and drops undone ones once another is given", async () => {
    const id = await begun("nothing");
    await send(id, { intent: "answer", question: "fuse", id: "F31", amps: "30" });
    await send(id, { intent: "answer", question: "speeds", value: "3" });
    expect(await shown(id)).toMatchObject({
      undo: true,
      redo: false,
      circuit: { settings: ["off", "1", "2", "3"] },
    });
    await move(id, "undo");
    expect(await shown(id)).toMatchObject({ redo: true, circuit: { settings: ["off", "1", "2", "3", "4"] } });
    await move(id, "redo");
    expect(await shown(id)).toMatchObject({ redo: false, circuit: { settings: { length: 4 } } });
    await move(id, "undo");
    await send(id, { intent: "answer", question: "speeds", unknown: "yes" });
    expect(await shown(id)).toMatchObject({
      redo: false,
      answers: { speeds: null, fuse: { id: "F31", amps: 30 } },
    });
    for (let steps = 0; steps < 4; steps++) await move(id, "undo");
    expect(await shown(id)).toMatchObject({ undo: false, answers: {} });
  });

  test("refuses an invalid answer by its place, and stays unchanged", async () => {
    const id = await begun("family:pack-feed");
    const before = await findDraft(id);
    for (const [fields, words] of [
      [{ question: "speeds", value: "many" }, /expected number|Invalid|expected/],
      [{ question: "speeds", value: "99" }, /12|<=|too big|most/i],
      [{ question: "fuse", id: "", amps: "30" }, /^id: /],
      [{ question: "fuse", id: "K1", amps: "30" }, /K1 cannot be the name of two things/],
      [{ question: "command", still: "2", full: "2" }, /differ/],
    ] as const) {
      const refused = await send(id, { intent: "answer", ...fields });
      expect((refused.data as { problems: string[] }).problems.join(" ")).toMatch(words);
    }
    expect((await send(id, { intent: "answer", question: "taste", value: "1" })).data).toHaveProperty(
      "problems",
    );
    expect(await findDraft(id)).toEqual(before);
    expect((await answer(traceDraft.loader, null, crypto.randomUUID())).status).toBe(404);
  });

  test("ohms with a comma, some of them unknown, are accepted", async () => {
    const id = await begun("nothing");
    await send(id, { intent: "answer", question: "ohms", step0: "1,3", step1: "", step2: "0.35" });
    expect(await partOf(id, "R1")).toMatchObject({
      assumed: true,
      elements: [{ ohms: 1.3 }, {}, { ohms: 0.35 }, {}],
    });
  });

  test("a circuit that is certainly wrong is stored only after a yes", async () => {
    const id = await begun("circuit:siskin-five-speed", "Fenmark Siskin wagon, no ground");
    const circuit = (await shown(id)).circuit as Circuit;
    const grounds = circuit.parts.flatMap(({ kind, id: own }) => (kind === "ground" ? [`${own}.31`] : []));
    for (const wire of circuit.wires.filter(({ from, to }) => grounds.includes(from) || grounds.includes(to)))
      await edit(id, { do: "remove", list: "wires", id: wire.id });
    const store = { intent: "store", id: "no-ground", title: "No ground" };
    const refused = await send(id, store);
    expect(refused.data).toMatchObject({
      of: "store",
      problems: expect.arrayContaining([expect.stringContaining("no wire leads to a ground point")]),
    });
    expect((await send(id, { ...store, anyway: "yes" })).location).toBe("/shelf/no-ground");
  });

  test("a refused answer is named, and the answer before stays", async () => {
    const id = await begun("nothing");
    await send(id, { intent: "answer", question: "speeds", value: "5" });
    const refused = await send(id, { intent: "answer", question: "speeds", value: "99" });
    expect(refused.data).toMatchObject({ of: "speeds", problems: [expect.any(String)] });
    expect((await shown(id)).answers).toMatchObject({ speeds: 5 });
  });

  test("changes in a table are steps too; one that fits nothing changes nothing", async () => {
    const id = await begun("circuit:siskin-five-speed", "Fenmark Siskin wagon, long roof");
    expect(await shown(id)).toMatchObject({ answers: null, asked: [] });
    await edit(id, { do: "set", list: "wires", id: "W1", key: "mm2", value: 16 });
    const before = await findDraft(id);
    for (const wrong of [
      { do: "set", list: "wires", id: "W1", key: "colour", value: "plaid" },
      { do: "remove", list: "parts", id: "G1" },
      { do: "fly" },
    ])
      expect(await edit(id, wrong)).toEqual({ problem: expect.any(String) });
    expect(await step(id, { intent: "edit", edit: "{" })).toEqual({ problem: expect.any(String) });
    expect((await send(id, { intent: "wires", text: "wire,from\n1,2" })).data).toMatchObject({
      of: "wires",
      problems: [expect.stringContaining("row 1")],
    });
    expect(await findDraft(id)).toEqual(before);
    await move(id, "undo");
    expect(await shown(id)).toMatchObject({ undo: false, shelf: { version: 1, twins: expect.any(Array) } });
  });

  test("a step sent again because its answer was lost is stored once", async () => {
    const id = await begun("circuit:siskin-five-speed", "Fenmark Siskin wagon, sent twice");
    const change = { do: "add", list: "parts", item: { id: "J77", kind: "splice" } };
    const once = crypto.randomUUID();
    for (let time = 0; time < 2; time++)
      expect(await step(id, { intent: "edit", edit: JSON.stringify(change) }, once)).toEqual({});
    expect(await findDraft(id)).toMatchObject({ position: 1, steps: { length: 1 } });
    await edit(id, { do: "set", list: "wires", id: "W1", key: "mm2", value: 16 });
    const back = crypto.randomUUID();
    for (let time = 0; time < 2; time++) await step(id, { intent: "undo" }, back);
    expect(await findDraft(id)).toMatchObject({ position: 1, steps: { length: 2 } });
  });

  test("goes onto the shelf, is no draft any more, and a job can start on it", async () => {
    const id = await begun("nothing", "Tarnwick Dunlin truck, crew cab");
    expect((await send(id, { intent: "store", id: "not an id", title: "x" })).data).toMatchObject({
      of: "store",
    });
    const stored = await send(id, {
      intent: "store",
      id: "dunlin-crew-cab",
      title: "Tarnwick Dunlin truck, crew cab",
    });
    expect(stored).toMatchObject({ status: 302, location: "/shelf/dunlin-crew-cab" });
    expect(await findDraft(id)).toBeNull();
    expect((await listCircuits()).some(({ shelfId }) => shelfId === "dunlin-crew-cab")).toBe(true);
    const began = await answer(newJob.action, {
      token: crypto.randomUUID(),
      vehicle: "new",
      label: "crew truck 9",
      model: "Tarnwick Dunlin truck",
      circuitId: "dunlin-crew-cab",
      words: "",
    });
    expect(began.location).toMatch(/^\/jobs\/\d+\/complaint$/);
  });

  test("a changed circuit becomes a version, and the next job of its vehicle uses that", async () => {
    const id = crypto.randomUUID();
    const began = await answer(shelfCircuit.action, { intent: "change", id }, "siskin-linear-low");
    expect(began.location).toBe(`/trace/${id}`);
    await edit(id, { do: "set", list: "parts", id: "F4", key: "amps", value: 50 });
    await send(id, { intent: "store", id: "siskin-linear-low", title: "Linear control, larger fuse" });
    expect(await versionsOf("siskin-linear-low")).toHaveLength(2);
    const before = (await listJobs()).find(({ circuitId }) => circuitId === "siskin-linear-low");
    expect(before).toBeDefined();
    await answer(newJob.action, {
      token: crypto.randomUUID(),
      vehicle: String(before?.vehicle.id),
      words: "again",
    });
    expect((await listJobs()).find(({ words }) => words === "again")?.circuitId).toBe("siskin-linear-low@2");
  });

  test("a deleted draft is gone; a vehicle without a name is asked for", async () => {
    const id = await begun("nothing", "To be thrown away");
    expect((await listDrafts()).some((draft) => draft.id === id)).toBe(true);
    await answer(trace.action, { intent: "drop", id });
    expect((await listDrafts()).some((draft) => draft.id === id)).toBe(false);
    const nameless = {
      intent: "begin",
      token: crypto.randomUUID(),
      title: " ",
      steering: "",
      from: "nothing",
    };
    expect((await answer(trace.action, nameless)).data).toMatchObject({
      problem: expect.stringContaining("Vehicle"),
    });
    const gone = { ...nameless, title: "x", from: "circuit:gone" };
    expect((await answer(trace.action, gone)).data).toMatchObject({
      problem: expect.stringContaining("no longer on the shelf"),
    });
  });
});
