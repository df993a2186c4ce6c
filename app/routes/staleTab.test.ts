// What a page sends that is older than its job: the job takes only what fits its stage, and nothing that was sent is
// lost.

import { actAs } from "@db/acting.server";
import { trailOf } from "@db/repositories/events.server";
import { findJob } from "@db/repositories/jobs.server";
import { proofsOf } from "@db/repositories/proofs.server";
import { readingsOf } from "@db/repositories/readings.server";
import { setAsideOf } from "@db/repositories/setAside.server";
import { afterAll, beforeAll, beforeEach, describe, expect, test } from "@jest/globals";
import { answer, closeDemoShop, type Fields, json, openDemoShop, posted } from "../testing/demoShop";
import * as aside from "./aside";
import * as checks from "./checks";
import * as close from "./close";
import * as complaint from "./complaint";
import * as entries from "./entries";
import * as estimate from "./estimate";
import * as job from "./job";
import * as notes from "./notes";
import * as parts from "./parts";
import * as prove from "./prove";
import * as records from "./records";
import * as ticks from "./ticks";
import * as verdict from "./verdict";

let id = 0;
/** Jobs of the demo: closed, waiting for its final check, and being probed. */
const closed = "17";
const proofDue = "2";
const other = "4";

beforeAll(async () => {
  id = await openDemoShop();
});
afterAll(closeDemoShop);

const token = (): string => crypto.randomUUID();
const reading = (own = token()): Record<string, string> => ({
  intent: "own-reading",
  token: own,
  test: "airflow",
  key: "run",
  setting: "1",
  result: "none",
});
/** The entries of a job that wait for a person's decision. */
const kept = async (jobId = String(id)) =>
  (await setAsideOf(Number(jobId))).map(({ words, refusal }) => ({ words, code: refusal.code }));
const enter = (fields: Record<string, string>, jobId = String(id)) =>
  json(entries.action, posted(fields), { id: jobId });

describe("the demo's jobs", () => {
  test("are at the stages these tests need", async () => {
    expect((await findJob(Number(closed)))?.stage).toBe("closed");
    expect((await findJob(Number(proofDue)))?.stage).toBe("proof-due");
    expect((await findJob(Number(other)))?.stage).toBe("probing");
  });
});

describe("a closed job", () => {
  const before = async () => [
    await findJob(Number(closed)),
    await readingsOf(Number(closed)),
    await proofsOf(Number(closed), null),
    (await answer(close.loader, null, closed)).data.card,
  ];
  const page = (own: unknown) => (fields: Fields) => answer(own as never, fields, closed);
  const queue = (own: unknown) => async (fields: Fields) => {
    const { status } = await json(own as never, posted(fields as Record<string, string>), { id: closed });
    return { status, location: null };
  };

  test.each<[string, (fields: Fields) => Promise<{ status: number; location: string | null }>, () => Fields]>(
    [
      ["fitted", page(verdict.action), () => ({ intent: "fitted", parts: "R1" })],
      ["ordered", page(verdict.action), () => ({ intent: "await", parts: "R1" })],
      ["closed again", page(close.action), () => ({ intent: "close", found: "it was something else" })],
      ["sent back to probing", page(prove.action), () => ({ intent: "back", token: token() })],
      ["matched", page(parts.action), () => ({ intent: "hold", part: "R1", old: "", fresh: "" })],
      ["a reading", queue(entries.action), reading],
      ["a strike", queue(entries.action), () => ({ intent: "strike", id: token(), struck: "yes" })],
      [
        "a check",
        queue(checks.action),
        () => ({ intent: "proof", token: token(), step: "up-1", by: "airflow", seen: "none" }),
      ],
      ["a tick deleted", queue(ticks.action), () => ({ intent: "untick", id: token() })],
    ],
  )("does not believe a stale tab that it is %s, and keeps the entry", async (_, send, fields) => {
    const was = await before();
    const count = (await kept(closed)).length;
    const { status, location } = await send(fields());
    expect(location === null ? status : 409).toBe(409);
    expect(await before()).toEqual(was);
    const now = await kept(closed);
    expect(now).toHaveLength(count + 1);
    expect(now.at(-1)).toMatchObject({ code: "other-stage", words: expect.stringMatching(/\w{4}/) });
  });

  test("takes a note, since a note cannot be outdated", async () => {
    const note = { intent: "note", token: token(), words: "the owner's spare key hangs in the office" };
    expect((await json(notes.action, posted(note), { id: closed })).status).toBe(200);
  });
});

describe("what was kept", () => {
  let own = "";
  const fitted = { intent: "fitted", parts: "R1" };

  beforeEach(async () => {
    await answer(verdict.action, fitted);
    own = token();
  });

  test("is shown at the top of the job's pages, with when and why", async () => {
    await answer(verdict.action, { intent: "await", parts: "M1" });
    const { aside: lines } = (await answer(job.loader, null)).data as {
      aside: { words: string; why: string; sent: string; address: string }[];
    };
    expect(lines.at(-1)).toMatchObject({
      words: expect.stringMatching(/ordered$/),
      why: expect.stringMatching(/^The part was fitted on .*, and the check is due\.$/),
      address: `/jobs/${id}/verdict`,
    });
  });

  test("is stored once the job takes it, dated to when it was first sent, and then counts as decided", async () => {
    await answer(records.action, { intent: "delete", job: String(id) }, "");
    const fields = { ...reading(own), waitedSeconds: "600" };
    expect(await enter(fields)).toMatchObject({
      status: 409,
      body: { problem: expect.stringContaining("The job was deleted at") },
    });
    expect((await kept()).map(({ code }) => code)).toContain("job-deleted");
    await answer(records.action, { intent: "put-back", job: String(id) }, "");
    const { aside: lines } = (await answer(job.loader, null)).data as {
      aside: { fields: Record<string, string>; address: string; id: string }[];
    };
    const line = lines.find((one) => one.id === own);
    const count = (await kept()).length;
    expect((await enter(line?.fields ?? {})).status).toBe(200);
    expect(await kept()).toHaveLength(count - 1);
    const stored = (await readingsOf(id)).find((one) => one.id === own);
    const age = Date.now() - (stored?.takenAt.getTime() ?? 0);
    expect(age).toBeGreaterThan(599_000);
    expect(age).toBeLessThan(660_000);
  });

  test("is stored under the name of whoever sent it, and the trail says who decided", async () => {
    await answer(records.action, { intent: "delete", job: String(id) }, "");
    await actAs("Bay two", () => enter(reading(own)));
    const thrown = token();
    await actAs("Bay two", () => enter(reading(thrown)));
    await answer(records.action, { intent: "put-back", job: String(id) }, "");
    const { aside: lines } = (await answer(job.loader, null)).data as {
      aside: { fields: Record<string, string>; sent: string; id: string }[];
    };
    const line = lines.find((one) => one.id === own);
    expect(line?.sent).toMatch(/ by Bay two$/);
    await actAs("Front desk", () => enter(line?.fields ?? {}));
    await actAs("Front desk", () => answer(aside.action, { intent: "throw-away", id: thrown }));
    expect((await readingsOf(id)).find((one) => one.id === own)?.takenBy).toBe("Bay two");
    const trail = (await trailOf(id)).slice(-3);
    expect(trail.map(({ what, who }) => [what, who])).toEqual([
      ["reading", "Bay two"],
      ["aside", "Front desk"],
      ["aside", "Front desk"],
    ]);
    expect(trail.slice(1).map(({ about }) => about)).toEqual([
      expect.objectContaining({ who: "Bay two", stored: 1 }),
      expect.objectContaining({ who: "Bay two", stored: 0 }),
    ]);
  });

  test("is stored under the name of whoever saves it, once it says something else", async () => {
    await answer(records.action, { intent: "delete", job: String(id) }, "");
    await actAs("Bay two", () => enter(reading(own)));
    await answer(records.action, { intent: "put-back", job: String(id) }, "");
    await actAs("Front desk", () => enter({ ...reading(own), aside: own, result: "strong" }));
    expect((await readingsOf(id)).find((one) => one.id === own)?.takenBy).toBe("Front desk");
  });

  test("sent again while it is refused, it is kept once; once deleted it is gone from the pages", async () => {
    await answer(records.action, { intent: "delete", job: String(id) }, "");
    const count = (await kept()).length;
    for (let i = 0; i < 3; i++) await enter(reading(own));
    await answer(records.action, { intent: "put-back", job: String(id) }, "");
    expect(await kept()).toHaveLength(count + 1);
    await answer(aside.action, { intent: "throw-away", id: own });
    expect(await kept()).toHaveLength(count);
    expect((await readingsOf(id)).some((one) => one.id === own)).toBe(false);
  });
});

describe("an id that is taken", () => {
  test("by a reading of another job: nothing is stored, the entry is refused, and its words are kept", async () => {
    const own = token();
    expect((await enter(reading(own), other)).status).toBe(200);
    const refused = await enter(reading(own));
    expect(refused.status).toBe(409);
    expect((await readingsOf(id)).some((one) => one.id === own)).toBe(false);
    expect((await kept()).at(-1)?.code).toBe("id-taken");
  });

  test("by the same entry of the same job: it is answered as before, whatever the job's stage", async () => {
    const own = token();
    const fields = { intent: "proof", token: own, step: "up-1", by: "airflow", seen: "none" };
    const send = () => json(checks.action, posted(fields), { id: proofDue });
    expect((await send()).status).toBe(200);
    await answer(prove.action, { intent: "back", token: token() }, proofDue);
    expect((await findJob(Number(proofDue)))?.stage).toBe("probing");
    expect((await send()).status).toBe(200);
    expect(await kept(proofDue)).toEqual([]);
  });
});

describe("a job that is deleted", () => {
  test("takes no words, estimate or comeback", async () => {
    await answer(records.action, { intent: "delete", job: closed }, "");
    const sent: [unknown, Fields][] = [
      [complaint.action, { intent: "words", words: "loud now" }],
      [estimate.action, { intent: "approve", id: token(), by: "by phone" }],
      [close.action, { intent: "comeback", token: token(), words: "dead again" }],
    ];
    const count = (await kept(closed)).length;
    for (const [action, fields] of sent) await answer(action as never, fields, closed);
    expect((await kept(closed)).slice(count).map(({ code }) => code)).toEqual(Array(3).fill("job-deleted"));
    expect((await findJob(Number(closed)))?.words).not.toBe("loud now");
    const { aside: lines, deleted } = (await answer(job.loader, null, closed)).data;
    expect(deleted).toBe(true);
    expect(lines).toHaveLength(count + 3);
  });
});
