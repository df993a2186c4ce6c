// The trace, changes made in tables, bundles and cases: what they take, what they refuse, and what a refusal leaves
// unchanged.

import { readFileSync } from "node:fs";
import { join } from "node:path";
import type { Circuit } from "@core/circuit/circuit";
import { addCircuitNote, circuitNotesOf } from "@db/repositories/circuitNotes.server";
import { listCircuits, versionsOf } from "@db/repositories/circuits.server";
import { findDraft, listDrafts } from "@db/repositories/drafts.server";
import { listJobs } from "@db/repositories/jobs.server";
import { readingsOf } from "@db/repositories/readings.server";
import { listVehicles } from "@db/repositories/vehicles.server";
import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { strFromU8, strToU8, unzipSync, zipSync } from "fflate";
import { xoroshiro128plus } from "pure-rand/generator/XoroShiro";
import { answer, closeDemoShop, type Fields, json, openDemoShop, posted } from "../testing/demoShop";
import * as caseFile from "./caseFile";
import * as newJob from "./newJob";
import * as shelfBundle from "./shelfBundle";
import * as shelfCircuit from "./shelfCircuit";
import * as shelfImport from "./shelfImport";
import * as shelfImportFile from "./shelfImportFile";
import * as trace from "./trace";
import * as traceDraft from "./traceDraft";
import * as traceSteps from "./traceSteps";

let job = 0;
beforeAll(async () => {
  job = await openDemoShop();
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

/** A bundle as the page sends it: previewed, then imported if possible. */
async function upload(bytes: Uint8Array, intent: "preview" | "store") {
  const request = new Request("http://127.0.0.1/bring-in/file", {
    method: "POST",
    body: new Uint8Array(bytes),
  });
  const { data } = await shelfImportFile.action({ request } as never);
  if (data.problem !== null) {
    // A refused bundle is not imported either.
    if (intent === "store") {
      const { data: kept } = await answer(shelfImport.action, { intent: "store-bundle" });
      expect((kept.bundle as string[]).join("\n")).toBe(data.problem);
    }
    return { problems: data.problem.split("\n") };
  }
  if (intent === "preview") return { lines: data.lines ?? [] };
  const { location } = await answer(shelfImport.action, { intent: "store-bundle" });
  return { location };
}

const shelf = async () => JSON.stringify(await listCircuits());
const whole = async () => new Uint8Array(await (await shelfBundle.loader()).arrayBuffer());

const without = (files: Record<string, Uint8Array>, name: string): Uint8Array =>
  zipSync(Object.fromEntries(Object.entries(files).filter(([own]) => own !== name)));

describe("a bundle", () => {
  test("exported and imported again it changes nothing; a changed circuit in it becomes a version", async () => {
    await addCircuitNote("siskin-five-speed", {
      id: crypto.randomUUID(),
      words: "Bad screw, left",
      takenAt: new Date(),
    });
    const bytes = await whole();
    const same = await upload(bytes, "preview");
    expect("lines" in same && same.lines?.every(({ version }) => version === null)).toBe(true);
    const files = unzipSync(bytes);
    const name = "circuits/siskin-five-speed.json";
    const circuit = JSON.parse(strFromU8(files[name] as Uint8Array));
    files[name] = strToU8(JSON.stringify({ ...circuit, title: "Five speeds, another title" }));
    const changed = zipSync(files);
    const preview = await upload(changed, "preview");
    expect("lines" in preview && preview.lines?.filter(({ version }) => version !== null)).toEqual([
      expect.objectContaining({ shelfId: "siskin-five-speed", version: 2, differs: 1, newNotes: 0 }),
    ]);
    expect(await upload(changed, "store")).toEqual({ location: "/shelf" });
    expect(await versionsOf("siskin-five-speed")).toHaveLength(2);
    expect(await circuitNotesOf("siskin-five-speed")).toHaveLength(1);
  });

  test.each<[string, (files: Record<string, Uint8Array>) => Uint8Array, RegExp]>([
    ["no zip", () => strToU8("hello"), /not a zip file/],
    ["no list of contents", (files) => without(files, "airway-shelf.json"), /airway-shelf\.json is missing/],
    [
      "a list of another kind",
      (files) => zipSync({ ...files, "airway-shelf.json": strToU8('{"format":"x"}') }),
      /airway-shelf\.json: format/,
    ],
    [
      "a circuit that is missing",
      (files) => without(files, "circuits/godwit-two-relays.json"),
      /godwit-two-relays\.json is missing/,
    ],
    [
      "a circuit that does not parse",
      (files) => zipSync({ ...files, "circuits/godwit-two-relays.json": strToU8("{}") }),
      /godwit-two-relays\.json: format/,
    ],
    [
      "a file too large",
      (files) => zipSync({ ...files, "circuits/godwit-two-relays.json": new Uint8Array(1_200_000) }),
      /larger than/,
    ],
  ])("%s is refused by its file, and changes nothing", async (_, spoilt, words) => {
    const before = await shelf();
    const bytes = spoilt(unzipSync(await whole()));
    for (const intent of ["preview", "store"] as const) {
      const answered = await upload(bytes, intent);
      expect("problems" in answered && answered.problems?.join(" ")).toMatch(words);
    }
    expect(await shelf()).toBe(before);
  });

  test("bytes changed at random are accepted or refused, never thrown, and refusals change nothing", async () => {
    const bytes = await whole();
    const before = await shelf();
    const random = xoroshiro128plus(5);
    const below = (most: number): number => (random.unsafeNext() >>> 0) % most;
    for (let round = 0; round < 60; round++) {
      const spoilt = bytes.slice(0, round % 3 === 0 ? below(bytes.length) : bytes.length);
      for (let hit = 0; hit < 1 + below(20); hit++) spoilt[below(spoilt.length)] = below(256);
      const answered = await upload(spoilt, "preview");
      expect("problems" in answered || "lines" in answered).toBe(true);
    }
    expect(await shelf()).toBe(before);
  });
});

describe("a case", () => {
  const bring = (text: string, more: Fields = {}) =>
    answer(shelfImport.action, { intent: "preview", text, token: crypto.randomUUID(), ...more });

  test("an exported job imports as a job with the same readings, on the same version", async () => {
    const from = (await listJobs()).find(({ words }) => words.startsWith("Blows only on 4"));
    const file = await caseFile.loader({ params: { id: String(from?.id) } } as never);
    expect(file.headers.get("content-disposition")).toContain(`job-${from?.id}.json`);
    const text = await file.text();
    expect((await bring(text)).data).toMatchObject({
      answer: { brought: { readings: 5, circuit: { changes: [] } } },
    });
    expect((await bring(text, { intent: "store" })).data).toMatchObject({
      answer: { problems: [expect.stringContaining("vehicle")] },
    });
    const token = crypto.randomUUID();
    const store = { intent: "store", token, label: "quay van", model: "Harrow Whimbrel van" };
    const { location } = await bring(text, store);
    const id = Number(/\/jobs\/(\d+)\/probe/.exec(location ?? "")?.[1]);
    expect(id).toBeGreaterThan(job);
    const readings = (await readingsOf(id)).map(({ reading }) => reading);
    expect(readings).toEqual((await readingsOf(from?.id ?? 0)).map(({ reading }) => reading));
    expect((await listJobs()).find((one) => one.id === id)?.circuitId).toBe(from?.circuitId);
    // Sent twice, it is one job.
    const vehicles = await listVehicles();
    expect((await bring(text, store)).location).toBe(location);
    expect(await listVehicles()).toEqual(vehicles);
  });

  test("a case on an older version of a circuit stays on it, and makes no new one", async () => {
    const from = (await listJobs()).find(({ circuitId }) => circuitId === "siskin-linear-low");
    const text = await (await caseFile.loader({ params: { id: String(from?.id) } } as never)).text();
    const versions = await versionsOf("siskin-linear-low");
    expect(versions).toHaveLength(2);
    const store = { intent: "store", label: "school wagon 5", model: "Fenmark Siskin wagon" };
    const { location } = await bring(text, store);
    const id = Number(/\/jobs\/(\d+)\/probe/.exec(location ?? "")?.[1]);
    expect((await listJobs()).find((one) => one.id === id)?.circuitId).toBe("siskin-linear-low");
    expect(await versionsOf("siskin-linear-low")).toEqual(versions);
  });

  test.each<[string, object, RegExp]>([
    ["a circuit nobody has", { circuitId: "nowhere", readings: [] }, /circuitId: no circuit "nowhere"/],
    ["no circuit at all", { readings: [] }, /circuit: expected/],
    [
      "a reading that is none",
      { circuitId: "godwit-two-relays", readings: [{ test: "taste" }] },
      /readings\.0/,
    ],
    [
      "a reading at a point the circuit has not",
      {
        circuitId: "godwit-two-relays",
        readings: [{ test: "light", probe: "Q1.x", clip: "G1.-", seen: "dark" }],
      },
      /readings\.0.*Q1/,
    ],
  ])("%s is refused by its place, and changes nothing", async (_, rest, words) => {
    const before = [await shelf(), JSON.stringify(await listJobs())];
    const text = JSON.stringify({ format: "airway-case", version: 1, ...rest });
    const { data } = await bring(text, { intent: "store", label: "a", model: "b" });
    expect((data as { answer: { problems: string[] } }).answer.problems.join(" ")).toMatch(words);
    expect([await shelf(), JSON.stringify(await listJobs())]).toEqual(before);
  });
});

test("every shipped circuit has a demo vehicle with a job to try", () => {
  const world = JSON.parse(readFileSync(join(process.cwd(), "demo", "world.json"), "utf8")) as {
    vehicles: { label: string; circuitId: string }[];
    jobs: { vehicle: string }[];
  };
  const played = new Set(
    world.jobs.map((one) => world.vehicles.find(({ label }) => label === one.vehicle)?.circuitId),
  );
  for (const id of [
    "dotterel-linear-high",
    "dotterel-switch-feed",
    "dunlin-pwm-high",
    "dunlin-rear-blower",
    "dunlin-three-speed",
    "godwit-four-speed-feed",
    "godwit-four-speed-rhd",
    "godwit-two-relays",
    "siskin-five-speed",
    "siskin-linear-low",
    "whimbrel-four-speed",
    "whimbrel-high-relay",
    "whimbrel-pwm-low",
  ])
    expect(played).toContain(id);
});
