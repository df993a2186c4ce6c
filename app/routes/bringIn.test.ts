// Bundles of a shelf and cases brought in: what they take, what they refuse, and what a refusal leaves unchanged.
import { database } from "@db/database.server";
import { addCircuitNote, circuitNotesOf } from "@db/repositories/circuitNotes.server";
import { addCircuit, findCircuit, listCircuits, versionsOf } from "@db/repositories/circuits.server";
import { fittingsOf } from "@db/repositories/fittings.server";
import { listJobs } from "@db/repositories/jobs.server";
import { readingsOf } from "@db/repositories/readings.server";
import { listVehicles } from "@db/repositories/vehicles.server";
import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { strFromU8, strToU8, unzipSync, zipSync } from "fflate";
import { xoroshiro128plus } from "pure-rand/generator/XoroShiro";
import { jobFactsAt } from "../job/jobView.server";
import { answer, closeDemoShop, type Fields, openDemoShop } from "../testing/demoShop";
import * as caseFile from "./caseFile";
import * as shelfBundle from "./shelfBundle";
import * as shelfImport from "./shelfImport";
import * as shelfImportFile from "./shelfImportFile";

let job = 0;
beforeAll(async () => {
  job = await openDemoShop();
});
afterAll(closeDemoShop);

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

  test("a case with rounds imports its work list and its failed repair, each in its round", async () => {
    const line = (part: string, round: number) => ({
      part,
      what: part,
      done: "renewed",
      state: "done",
      round,
    });
    const text = JSON.stringify({
      format: "airway-case",
      version: 1,
      circuitId: "whimbrel-four-speed",
      readings: ["none", "none"].map((seen, at) => ({
        test: "airflow",
        ...(at === 0 ? { heard: true } : {}),
        key: "run",
        setting: "1",
        seen,
      })),
      repairs: [{ after: 1, parts: ["M1"], found: { M1: "good" } }],
      works: [line("M1", 1), { ...line("R1", 2), number: "P-1", minutes: 20 }],
    });
    expect((await bring(text)).data).toMatchObject({
      answer: { brought: { readings: 2, works: 2, failed: 1, leavesEarlier: false } },
    });
    const { location } = await bring(text, {
      intent: "store",
      label: "quay van 2",
      model: "Harrow Whimbrel",
    });
    const id = Number(/\/jobs\/(\d+)\/probe/.exec(location ?? "")?.[1]);
    const { repairs, works } = await jobFactsAt(String(id));
    expect(repairs).toEqual([{ after: 1, parts: ["M1"], found: { M1: "good" } }]);
    expect(works.map(({ part, round, state, number }) => [part, round, state, number])).toEqual([
      ["M1", 1, "done", undefined],
      ["R1", 2, "done", "P-1"],
    ]);
    expect(works[1]?.minutes).toBe(20);
    expect(await fittingsOf(id)).toMatchObject([{ outcome: "failed", looks: 0 }]);
  });

  test("a case on an older version of a circuit stays on it, and makes no new one", async () => {
    const from = (await listJobs()).find(({ circuitId }) => circuitId === "siskin-linear-low");
    const text = await (await caseFile.loader({ params: { id: String(from?.id) } } as never)).text();
    const circuit = await findCircuit("siskin-linear-low");
    if (!circuit) throw new Error("the demo has no such circuit");
    await (await database()).write((transaction) =>
      addCircuit({ ...circuit, title: "Linear control, larger fuse" }, transaction),
    );
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
