// A job on a vehicle without a diagram: opened from what is seen, its entries, what is refused, and how it goes on.
import { findCircuit, listCircuits } from "@db/repositories/circuits.server";
import { findDraft } from "@db/repositories/drafts.server";
import { findJob } from "@db/repositories/jobs.server";
import { readingsOf } from "@db/repositories/readings.server";
import { findSeenJob, openSeenJobs, seenReadingsOf } from "@db/repositories/seenJobs.server";
import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { seenJobView } from "../seen/seenJobView.server";
import { answer, closeDemoShop, type Fields, json, openDemoShop, posted } from "../testing/demoShop";
import { stateOf } from "../trace/draftView.server";
import * as board from "./board";
import * as jobDraft from "./jobDraft";
import { loader as caseFile } from "./seenCaseFile";
import { action as entries } from "./seenEntries";
import * as seenJob from "./seenJob";
import * as seenNew from "./seenNew";

beforeAll(openDemoShop);
afterAll(closeDemoShop);

const token = () => crypto.randomUUID();
const start = (own: Fields = {}): Fields => ({
  token: token(),
  controls: "dial",
  speeds: "3",
  speedPart: "pack",
  blowers: "1",
  label: "grey van",
  words: "only fast",
  "heard.1": "none",
  "heard.2": "none",
  "heard.3": "normal",
  ...own,
});

/** Opens a job; returns its number. */
async function opened(own: Fields = {}): Promise<number> {
  const { location } = await answer(seenNew.action, start(own));
  return Number(/^\/no-diagram\/(\d+)$/.exec(location ?? "")?.[1]);
}

const enter = (id: number, fields: Record<string, string>) =>
  json(entries, posted({ token: token(), ...fields }), { id: String(id) });
const lights = (seen: Record<string, string>, setting = "0"): Record<string, string> => ({
  intent: "reading",
  test: JSON.stringify({ test: "light", at: "motor-plug", clip: "ground", key: "run", setting }),
  ...seen,
});
const active = async (id: number) => (await seenReadingsOf(id)).filter(({ struckAt }) => !struckAt);

describe("a job without a diagram", () => {
  test("opens with what is seen and told, once for each form, and stands on the board", async () => {
    const own = token();
    const id = await opened({ token: own });
    expect(await opened({ token: own })).toBe(id);
    expect(await findSeenJob(id)).toMatchObject({
      label: "grey van",
      words: "only fast",
      seen: { controls: "dial", speeds: 3, speedPart: "pack", blowers: 1 },
    });
    expect((await active(id)).map(({ reading }) => Reflect.get(reading, "seen"))).toEqual([
      "none",
      "none",
      "normal",
    ]);
    expect((await board.loader()).noDiagram.map((line) => line.id)).toContain(id);
  });

  test("opens on almost nothing", async () => {
    const id = await opened({ controls: [], speeds: [], speedPart: [], blowers: [], label: "", words: "" });
    const job = await findSeenJob(id);
    expect(job?.seen).toEqual({});
    expect((await answer(seenNew.action as never, { token: token(), speeds: "40" })).status).toBe(422);
  });

  test("stores readings by place once, and refuses what is none", async () => {
    const id = await opened();
    const sent = { ...lights({ "pin.a": "bright", "pin.b": "bright" }), token: token() };
    expect(await enter(id, sent)).toMatchObject({ status: 200 });
    expect(await enter(id, sent)).toMatchObject({ status: 200 });
    expect(await active(id)).toHaveLength(4);
    expect(await enter(id, lights({ "pin.a": "loud" }))).toEqual({
      status: 422,
      body: { problem: "Choose a result for every pin." },
    });
    expect((await enter(id, { intent: "guess" })).status).toBe(422);
    expect(await active(id)).toHaveLength(4);
  });

  test("a reading deleted and restored keeps its number; a speed told again replaces what was told", async () => {
    const id = await opened();
    const [first] = await active(id);
    await enter(id, { intent: "strike", id: first?.id ?? "", struck: "yes" });
    expect((await active(id)).map(({ number }) => number)).toEqual([2, 3]);
    await enter(id, { intent: "strike", id: first?.id ?? "", struck: "no" });
    expect((await active(id)).map(({ number }) => number)).toEqual([1, 2, 3]);
    await enter(id, { intent: "heard", setting: "3", seen: "weak", pattern: "only-hot" });
    const told = (await active(id)).filter(({ reading }) => reading.setting === "3");
    expect(told.map(({ reading }) => reading)).toEqual([
      expect.objectContaining({ seen: "weak", pattern: "only-hot" }),
    ]);
    await enter(id, { intent: "heard", setting: "3", seen: "" });
    expect(await active(id)).toHaveLength(2);
  });

  test("proposes no test at a place out of reach, and none where the vehicle has no such place", async () => {
    const id = await opened();
    const placesOffered = async (): Promise<(string | null)[]> => {
      const job = await findSeenJob(id);
      if (!job) throw new Error("no job");
      const { offered } = await seenJobView(job).then(({ findings }) => findings);
      return offered.map(({ place }) => place);
    };
    expect(await placesOffered()).toContain("pack-plug");
    await enter(id, { intent: "reach", place: "pack-plug", out: "yes" });
    expect(await placesOffered()).not.toContain("pack-plug");
    await enter(id, { intent: "reach", place: "pack-plug", out: "no" });
    await enter(id, {
      intent: "reading",
      test: JSON.stringify({ test: "look", at: "pack-plug" }),
      absent: "yes",
    });
    expect(await placesOffered()).not.toContain("pack-plug");
  });

  test("deleted, it takes nothing and leaves the board; restored, it is as it was", async () => {
    const id = await opened();
    await answer(seenJob.action, { intent: "delete" }, String(id));
    expect((await openSeenJobs()).map((own) => own.id)).not.toContain(id);
    expect(await enter(id, lights({ "pin.a": "bright" }))).toEqual({
      status: 422,
      body: { problem: "This job was deleted. Restore it, then enter that again." },
    });
    await answer(seenJob.action, { intent: "restore" }, String(id));
    expect((await openSeenJobs()).map((own) => own.id)).toContain(id);
  });

  test("goes on once as a job with the likeliest wiring, its readings with it, off the shelf", async () => {
    const id = await opened();
    await enter(id, lights({ "pin.a": "bright", "pin.b": "bright" }));
    const { location } = await answer(
      seenJob.action,
      { intent: "go-on", token: token(), label: "", model: "Harrow Whimbrel" },
      String(id),
    );
    const jobId = Number(/^\/jobs\/(\d+)\/probe$/.exec(location ?? "")?.[1]);
    const job = await findJob(jobId);
    expect(job).toMatchObject({ words: "only fast", stage: "probing" });
    expect(job?.vehicle).toMatchObject({ label: "grey van", model: "Harrow Whimbrel" });
    const circuit = await findCircuit(job?.circuitId ?? "");
    expect(circuit?.note).toMatch(/^Worked out from readings/);
    expect((await listCircuits()).map(({ rowId }) => rowId)).not.toContain(job?.circuitId);
    const carried = (await readingsOf(jobId)).map(({ reading }) => reading.test);
    expect(carried).toEqual(["airflow", "airflow", "airflow", "light", "light"]);

    // Its circuit can be finished from the diagram: one draft, until the wiring was compared an assumed one.
    const begun = () => answer(jobDraft.action, {}, String(jobId));
    expect([(await begun()).location, (await begun()).location]).toEqual([
      `/trace/no-diagram-${id}`,
      `/trace/no-diagram-${id}`,
    ]);
    const draft = await findDraft(`no-diagram-${id}`);
    if (!draft) throw new Error("there is no draft");
    expect(stateOf(draft).circuit.wiring).toBe("assumed");
    const compared = { step: "edit", edit: { do: "wiring", seen: true } } as const;
    expect(stateOf({ ...draft, steps: [compared], position: 1 }).circuit.wiring).toBeUndefined();

    const again = await answer(seenJob.action, { intent: "go-on", token: token() }, String(id));
    expect(again.location).toBe(`/jobs/${jobId}`);
    expect(await enter(id, lights({ "pin.a": "dark" }))).toEqual({
      status: 422,
      body: { problem: "This job has its circuit now. Enter that on the job's own page." },
    });
  });

  test("goes on with a circuit of the shelf once the diagram was found; what does not fit it is named", async () => {
    const id = await opened({
      speeds: "4",
      "heard.3": "none",
      "heard.4": "normal",
    });
    await enter(id, lights({ "pin.a": "dark", "pin.b": "bright" }, "4"));
    await enter(id, {
      intent: "reading",
      test: JSON.stringify({ test: "look", at: "panel" }),
      seen: "clean",
    });
    const send = (circuitId: string) =>
      answer(
        seenJob.action,
        { intent: "diagram", token: token(), circuitId, label: "", model: "Harrow Whimbrel" },
        String(id),
      );
    expect((await send("heron")).data.problem).toBe("Choose the circuit of this vehicle from the list.");
    expect((await send("whimbrel-four-speed")).location).toBe(`/no-diagram/${id}?left=6`);
    const jobId = (await findSeenJob(id))?.jobId ?? 0;
    expect(await findJob(jobId)).toMatchObject({ circuitId: "whimbrel-four-speed", stage: "probing" });
    const readings = (await readingsOf(jobId)).map(({ reading }) => reading);
    expect(readings.map(({ test: own }) => own)).toEqual([
      "airflow",
      "airflow",
      "airflow",
      "airflow",
      "light",
      "light",
    ]);
    const job = await findSeenJob(id);
    const view = job && (await seenJobView(job, [6]));
    expect(view?.left.map(({ number }) => number)).toEqual([6]);
    // Before and after: the places without the diagram, the circuit's own parts with it.
    const findings = await view?.findings;
    expect(findings?.diagnosis.suspects[0]?.name).toMatch(/^[a-z ]+$/);
    expect(findings?.withDiagram?.map(({ name }) => name)).toContainEqual(
      expect.stringMatching(/ [A-Z]\d+$/),
    );
    const shares = findings?.withDiagram?.map(({ p }) => p) ?? [];
    expect(shares).toEqual([...shares].sort((a, b) => b - a));
    expect(shares.reduce((sum, p) => sum + p, 0)).toBeLessThanOrEqual(1 + 1e-9);
  });

  test("is exported as a case without a circuit", async () => {
    const id = await opened();
    const file = await json(caseFile, new Request("http://127.0.0.1/x"), { id: String(id) });
    expect(file.body).toMatchObject({
      format: "airway-case",
      version: 1,
      seen: { speeds: 3, speedPart: "pack" },
    });
    expect((file.body.readings as unknown[]).length).toBe(3);
  });

  test("a number that is no job is answered with 404", async () => {
    expect((await answer(seenJob.loader as never, null, "9999")).status).toBe(404);
    expect((await answer(seenJob.loader as never, null, "one")).status).toBe(404);
  });
});
