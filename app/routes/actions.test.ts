// Every action and loader of a job's pages against a database of its own: what is stored, what is refused, and
// that a refusal changes nothing.

import { faultCounts } from "@db/repositories/closures.server";
import { fittingsOf } from "@db/repositories/fittings.server";
import { findJob } from "@db/repositories/jobs.server";
import { addProof, proofsOf } from "@db/repositories/proofs.server";
import { readingsOf } from "@db/repositories/readings.server";
import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { type ProofStep, proofSteps } from "../../core/proof/proofRun";
import { shippedCircuit } from "../../core/testing/shippedCircuit";
import { diagnosisFrom, diagnosisOf } from "../job/diagnosis.server";
import { activeReadings, jobViewAt } from "../job/jobView.server";
import { answer, asked, closeDemoShop, type Fields, json, openDemoShop } from "../testing/demoShop";
import * as bench from "./bench";
import * as close from "./close";
import * as complaint from "./complaint";
import * as entries from "./entries";
import * as jobStart from "./jobStart";
import * as notes from "./notes";
import * as photo from "./photo";
import * as plan from "./plan";
import * as predict from "./predict";
import * as probe from "./probe";
import * as prove from "./prove";
import * as sheetStates from "./sheetStates";
import * as verdict from "./verdict";

let id = 0;

beforeAll(async () => {
  id = await openDemoShop();
});
afterAll(closeDemoShop);

const token = () => crypto.randomUUID();
const standing = async () => (await readingsOf(id)).filter(({ struckAt }) => !struckAt);

/** A sound vehicle's result of a step, as it is tapped. */
const soundly = (step: ProofStep): Fields =>
  step.kind === "air"
    ? { by: "airflow", seen: step.expected }
    : step.kind === "listen"
      ? { by: "listen", seen: "quiet" }
      : { by: "check", seen: "good" };

describe("a job that is not there", () => {
  test.each(["999", "0", "-1", "1e3", "4'--", "../1", "", "99999999999999"])(
    "%j is 404 on every page",
    async (job) => {
      for (const { loader } of [
        complaint,
        bench,
        probe,
        plan,
        predict,
        sheetStates,
        photo,
        verdict,
        prove,
        close,
        jobStart,
      ])
        expect((await answer(loader as never, null, job)).status).toBe(404);
      for (const { action } of [complaint, probe, entries, notes, verdict, prove, close])
        expect((await answer(action as never, { intent: "school", school: "motor-first" }, job)).status).toBe(
          404,
        );
    },
  );
});

describe("the complaint", () => {
  test("a word on a speed is stored, changed and deleted", async () => {
    const say = (setting: string, seen: string, pattern = "") =>
      answer(complaint.action, { intent: "heard", token: token(), setting, seen, pattern });
    expect((await say("2", "none")).status).toBe(200);
    expect((await say("2", "weak")).status).toBe(200);
    expect((await answer(complaint.loader as never, null)).data.heard).toEqual({
      "2": { seen: "weak", pattern: null },
    });
    expect((await say("2", "weak", "only-hot")).status).toBe(200);
    expect((await answer(complaint.loader as never, null)).data.heard).toEqual({
      "2": { seen: "weak", pattern: "only-hot" },
    });
    expect((await say("2", "weak", "on Sundays")).status).toBe(422);
    await say("2", "");
    expect((await answer(complaint.loader as never, null)).data.heard).toEqual({});
  });

  test.each<[string, Fields]>([
    ["a speed the switch has not", { intent: "heard", token: token(), setting: "9", seen: "none" }],
    ["a word that is none", { intent: "heard", token: token(), setting: "2", seen: "gale" }],
    ["no token", { intent: "heard", setting: "2", seen: "none" }],
    ["a question that is none", { intent: "asked", token: token(), question: "elves", answer: "yes" }],
    ["an answer that is none", { intent: "asked", token: token(), question: "damp", answer: "maybe" }],
    ["too many words", { intent: "words", words: "x".repeat(501) }],
    ["no intent", {}],
  ])("%s is refused and nothing is stored", async (_, fields) => {
    const before = await readingsOf(id);
    expect((await answer(complaint.action as never, fields)).status).toBe(422);
    expect(await readingsOf(id)).toEqual(before);
  });

  test("an answer is a heard reading; another replaces it, and a second tap deletes it", async () => {
    const ask = (question: string, given: string) =>
      answer(complaint.action, { intent: "asked", token: token(), question, answer: given });
    const chosen = async (question: string) => {
      const { questions } = (await answer(complaint.loader, null)).data as {
        questions: { id: string; chosen: string | null }[];
      };
      return questions.find(({ id: own }) => own === question)?.chosen;
    };
    expect(await chosen("noise")).toBeNull();
    await ask("noise", "rumble");
    await ask("noise", "rumble-follows");
    expect(await chosen("noise")).toBe("rumble-follows");
    expect((await standing()).at(-1)?.reading).toMatchObject({
      test: "listen",
      heard: true,
      seen: "rumble",
      followsSpeed: true,
    });
    await ask("damp", "yes");
    expect(await chosen("damp")).toBe("yes");
    const count = (await readingsOf(id)).length;
    await ask("damp", "yes");
    expect((await readingsOf(id)).length).toBe(count);
    for (const question of ["noise", "damp"]) await ask(question, "");
    expect(await chosen("noise")).toBeNull();
    expect(await standing()).toEqual([]);
  });

  test("words are stored as they were typed, and a script as text", async () => {
    const words = "<script>alert(1)</script> & 'quotes'";
    await answer(complaint.action, { intent: "words", words });
    expect(await findJob(id)).toMatchObject({ words });
  });
});

describe("probing", () => {
  test("a reading sent three times is stored once, and its test is not suggested again", async () => {
    for (const [setting, seen] of Object.entries({ "1": "none", "2": "none", "3": "none", "4": "normal" }))
      await answer(complaint.action, { intent: "heard", token: token(), setting, seen });
    const before = (await answer(probe.loader, null)).data as { looks: { look: string }[] };
    const look = before.looks.find(({ look: text }) => text.includes('"test":"volts"'))?.look ?? "";
    expect(look).not.toBe("");
    const fields = { intent: "reading", token: token(), look, value: "11.9" };
    const count = (await standing()).length;
    await Promise.all([1, 2, 3].map(() => answer(probe.action as never, fields)));
    expect((await standing()).length).toBe(count + 1);
    const after = (await answer(probe.loader, null)).data as typeof before;
    expect(after.looks.map((offered) => offered.look)).not.toContain(look);
  });

  test("deleted and restored", async () => {
    const last = (await standing()).at(-1)?.id ?? "";
    await answer(probe.action, { intent: "strike", id: last, struck: "yes" });
    expect((await standing()).map((reading) => reading.id)).not.toContain(last);
    await answer(probe.action, { intent: "strike", id: last, struck: "no" });
    expect((await standing()).at(-1)?.id).toBe(last);
  });

  test("the chosen strategy is stored, and the lookahead says what follows and what each strategy costs", async () => {
    expect((await answer(probe.action, { intent: "school", school: "motor-first" })).status).toBe(200);
    expect((await findJob(id))?.school).toBe("motor-first");
    expect((await answer(probe.action, { intent: "school", school: "guess" })).status).toBe(422);
    expect((await findJob(id))?.school).toBe("motor-first");
    const page = (await json(plan.loader, asked(""))).body as {
      first: { words: string; outcomes: { p: number; repair: string }[] } | null;
      schools: { school: string; minutes: number }[];
    };
    expect(page.schools.map(({ school }) => school)).toContain("motor-first");
    expect(page.first?.words).toMatch(/\w{4}/);
    for (const { repair, p } of page.first?.outcomes ?? []) {
      expect(repair).not.toMatch(/undefined/);
      expect(p).toBeLessThanOrEqual(1);
    }
    await answer(probe.action, { intent: "school", school: "least-time" });
  });

  test("a reading of another job cannot be deleted from here", async () => {
    const other = (await readingsOf(4)).at(-1);
    await answer(probe.action, { intent: "strike", id: other?.id ?? "", struck: "yes" });
    expect((await readingsOf(4)).at(-1)?.struckAt).toBeNull();
  });

  test.each<[string, Fields]>([
    [
      "no such test",
      { intent: "own-reading", token: token(), test: "sniff", key: "run", setting: "1", result: "x" },
    ],
    [
      "no such point",
      {
        intent: "own-reading",
        token: token(),
        test: "light",
        first: "Q1.x",
        second: "G1.-",
        key: "run",
        setting: "1",
        result: "dark",
      },
    ],
    ["a look that is not valid JSON", { intent: "reading", token: token(), look: "{", seen: "dark" }],
    [
      "a look of a thing that is not there",
      { intent: "reading", token: token(), look: '{"test":"look","at":"Q1"}', seen: "clean" },
    ],
    ["an unknown intent", { intent: "drop table" }],
  ])("%s is refused with what to change, and nothing is stored", async (_, fields) => {
    const before = await readingsOf(id);
    const { status, data } = await answer(probe.action, fields);
    expect(status).toBe(422);
    expect(String(data.problem)).toMatch(/\w{4}/);
    expect(await readingsOf(id)).toEqual(before);
  });

  test("the page's probabilities are valid, and its texts are text", async () => {
    const page = (await answer(probe.loader, null)).data as {
      suspects: { p: number; name: string; faults: { words: string; why: string }[] }[];
      looks: { outcomes: { p: number }[]; why: string }[];
      states: unknown[];
    };
    const sum = page.suspects.reduce((total, { p }) => total + p, 0);
    expect(sum).toBeGreaterThan(0.5);
    expect(sum).toBeLessThanOrEqual(1 + 1e-9);
    expect(JSON.stringify([page.suspects, page.looks])).not.toMatch(/undefined|NaN|\[object/);
  });
});

describe("from verdict to proof to the closed card", () => {
  test("a part is ordered, fitted and checked, and only then the job closes", async () => {
    expect((await answer(verdict.action as never, { intent: "await", parts: "R1" })).location).toBe(
      `/jobs/${id}/verdict`,
    );
    expect(await findJob(id)).toMatchObject({ stage: "part-awaited", fitted: ["R1"], fittedAt: null });
    expect((await answer(jobStart.loader as never, null)).location).toBe(`/jobs/${id}/verdict`);
    expect((await answer(close.action as never, { found: "link melted" })).status).toBe(400);
    await answer(verdict.action, { intent: "fitted", parts: "M1+R1" });
    expect(await findJob(id)).toMatchObject({ stage: "proof-due", fitted: ["M1", "R1"] });
    expect((await answer(jobStart.loader as never, null)).location).toBe(`/jobs/${id}/prove`);
    for (const step of proofSteps(shippedCircuit("whimbrel-four-speed")))
      await answer(prove.action, { intent: "proof", token: token(), step: step.id, ...soundly(step) });
    const closing = { intent: "close", "finding-1-M1": "M1:tight+R1.link:open", cause: "none", learn: "yes" };
    expect((await answer(close.action as never, { ...closing, found: "x" })).status).toBe(400);
    expect(
      (await answer(close.action as never, { ...closing, found: "abc", "finding-1-R1": "Q9:open" })).status,
    ).toBe(400);
    const unnamed = { ...closing, found: "link melted", cause: "found" };
    expect((await answer(close.action as never, unnamed)).status).toBe(400);
    const found = { ...closing, found: "link melted, motor tight", advice: "Keep the drain clear." };
    expect((await answer(close.action as never, found)).status).toBe(302);
    expect(await findJob(id)).toMatchObject({ stage: "closed", found: "link melted, motor tight" });
    const { card } = (await answer(close.loader, null)).data as {
      card: { proof: { whole: string }; closure: { faultWords: string; advice: string } };
    };
    expect(card.proof.whole).toBe("proven");
    expect(card.closure.advice).toBe("Keep the drain clear.");
    expect(card.closure.faultWords).toContain("tight");
    expect((await fittingsOf(id)).at(-1)).toMatchObject({ parts: ["M1", "R1"], outcome: "held" });
    const { ofFamily } = await faultCounts("resistor ground");
    // One of the demo's past jobs; this one was closed without proof, so it teaches nothing.
    expect(ofFamily).toContainEqual({ kind: "motor+link", mode: "tight+open", n: 1 });
  });

  test("a failed step returns the job to probing, as measured evidence", async () => {
    const count = (await standing()).length;
    await answer(verdict.action, { intent: "reopen" });
    await answer(verdict.action, { intent: "fitted", parts: "R1" });
    const step = (own: string, seen: string, by = "airflow") =>
      answer(prove.action, { intent: "proof", token: token(), step: own, by, seen });
    expect((await answer(prove.action, { intent: "back", token: token() })).status).toBe(400);
    await step("up-1", "none");
    await step("up-4", "15,5", "amps");
    expect((await step("up-2", "a lot", "amps")).data).toMatchObject({
      problem: expect.stringMatching(/a lot/),
    });
    await step("drain", "good", "check");
    await answer(prove.action, { intent: "back", token: token() });
    expect((await findJob(id))?.stage).toBe("probing");
    const readings = await standing();
    expect(readings).toHaveLength(count + 2);
    const seen = readings.slice(-2).map(({ reading }) => reading);
    expect(seen).toContainEqual({ test: "airflow", key: "run", setting: "1", seen: "none" });
    expect(seen).toContainEqual({ test: "amps", key: "run", setting: "4", around: "M1", amps: 15.5 });
    expect((await fittingsOf(id)).at(-1)).toMatchObject({ parts: ["R1"], outcome: "failed" });
    const view = await jobViewAt(String(id));
    expect(view.repairs.at(-1)).toEqual({ after: count, parts: ["R1"] });
    const sure = diagnosisFrom(view, activeReadings(view), { repairs: [] }).verdict;
    expect(diagnosisOf(view).verdict.p).toBeLessThan(sure.p);
  });

  const finding = { intent: "proof", token: token(), step: "up-1", by: "airflow", seen: "none" };
  test.each<[string, unknown, Fields, number]>([
    ["a part that is none", verdict.action, { intent: "fitted", parts: "Q9" }, 400],
    ["no part", verdict.action, { intent: "await", parts: "" }, 400],
    ["an unknown decision", verdict.action, { intent: "scrap", parts: "R1" }, 400],
    ["a step that is none", prove.action, { ...finding, step: "up-99" }, 422],
    ["a word that is none", prove.action, { ...finding, seen: "gale" }, 422],
  ])("%s is refused and the job stays unchanged", async (_, action, fields, status) => {
    const before = [await findJob(id), await proofsOf(id, null)];
    expect((await answer(action as never, fields)).status).toBe(status);
    expect([await findJob(id), await proofsOf(id, null)]).toEqual(before);
  });

  test("a check step of an earlier repair does not count for a later one", async () => {
    const at = new Date(Date.now() - 3_600_000);
    const found = { by: "airflow", seen: "normal" } as const;
    await answer(verdict.action, { intent: "fitted", parts: "R1" });
    await addProof({ id: token(), jobId: id, step: "up-4", finding: found, judged: "right", takenAt: at });
    const { proof } = (await answer(prove.loader, null)).data as {
      proof: { steps: { id: string; found: string | null }[] };
    };
    expect(proof.steps.find((step) => step.id === "up-4")?.found).toBeNull();
  });
});
