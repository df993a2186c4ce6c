// The probe page's other requests: entries of the queue, what a test would show, set-ups, notes, photos.
import { findJob } from "@db/repositories/jobs.server";
import { readingsOf } from "@db/repositories/readings.server";
import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import sharp from "sharp";
import { answer, asked, closeDemoShop, json, openDemoShop, posted } from "../testing/demoShop";
import * as entries from "./entries";
import * as notes from "./notes";
import * as photo from "./photo";
import * as predict from "./predict";
import * as probe from "./probe";
import * as sheetStates from "./sheetStates";

let id = 0;

beforeAll(async () => {
  id = await openDemoShop();
});
afterAll(closeDemoShop);

const token = () => crypto.randomUUID();

describe("entries into the queue", () => {
  const look = JSON.stringify({ test: "look", at: "R1" });

  test("an entry that waited is dated back to when it was made, and one sent again is stored once", async () => {
    const one = token();
    const fields = { intent: "reading", token: one, look, seen: "melted", waitedSeconds: "90" };
    const began = Date.now();
    for (let i = 0; i < 2; i++)
      expect(await json(entries.action, posted(fields))).toMatchObject({ status: 200 });
    const stored = (await readingsOf(id)).filter((reading) => reading.id === one);
    expect(stored).toHaveLength(1);
    const age = began - (stored[0]?.takenAt.getTime() ?? 0);
    expect(age).toBeGreaterThan(89_000);
    expect(age).toBeLessThan(91_000);
  });

  test("what is wrong with an entry is returned in words, and nothing is stored", async () => {
    const before = await readingsOf(id);
    const wrong = { intent: "reading", token: token(), look: '{"test":"look","at":"Q1"}', seen: "clean" };
    const answered = await json(entries.action, posted(wrong));
    expect(answered).toMatchObject({ status: 422, body: { problem: expect.stringContaining("Q1") } });
    expect(await readingsOf(id)).toEqual(before);
  });

  test("acknowledged cautions are stored, and not shown again", async () => {
    expect(
      (await json(entries.action, posted({ intent: "cautions", cautions: "wheel airbag" }))).status,
    ).toBe(200);
    expect((await json(entries.action, posted({ intent: "cautions", cautions: "hot-pack" }))).status).toBe(
      200,
    );
    expect((await findJob(id))?.cautionsRead).toEqual(["wheel", "airbag", "hot-pack"]);
    expect((await json(entries.action, posted({ intent: "cautions", cautions: "dragons" }))).status).toBe(
      422,
    );
    const page = (await answer(probe.loader, null)).data as { looks: { cautions: string[] }[] };
    for (const { cautions } of page.looks)
      for (const read of ["wheel", "airbag", "hot-pack"]) expect(cautions).not.toContain(read);
  });
});

describe("what a test would show", () => {
  const light = { test: "light", probe: "X3:1", clip: "G1.-", key: "run", setting: "2" };
  const query = (look: unknown, ...faults: string[]) =>
    asked(
      new URLSearchParams([["look", JSON.stringify(look)], ...faults.map((f) => ["fault", f])]).toString(),
    );

  test("on a healthy vehicle and under each suspect named, with its cautions", async () => {
    const { body } = await json(predict.loader, query(light, "W9:open", "no:such"));
    expect(body.lines).toEqual([
      { fault: "healthy", shows: "bright" },
      { fault: "W9:open", shows: "dark" },
    ]);
    expect(body.cautions).toEqual(["wheel", "airbag"]);
  });

  test.each<[string, unknown]>([
    ["an unknown test", { test: "sniff" }],
    ["an unknown point", { ...light, probe: "Q1.x" }],
    ["an engine without the key", { ...light, key: "off", engine: true }],
    ["no look", null],
  ])("%s is refused", async (_, look) => {
    expect(await json(predict.loader, query(look))).toMatchObject({
      status: 422,
      body: { problem: expect.any(String) },
    });
  });
});

describe("a set-up of one's own", () => {
  test("the engine running raises the feed, and a disconnected plug stops the motor", async () => {
    const volts = async (query: string, point: string) => {
      const { body } = await json(sheetStates.loader, asked(`key=run&setting=2&${query}`));
      const [state] = body.states as {
        under: string;
        point: { volts: Record<string, number>; rpm: Record<string, number> };
      }[];
      expect(state?.under).toBe("healthy");
      return { volts: state?.point.volts[point] ?? Number.NaN, rpm: state?.point.rpm.M1 };
    };
    const resting = await volts("", "F7.in");
    const charging = await volts("engine=true", "F7.in");
    expect(charging.volts).toBeGreaterThan(resting.volts + 1);
    expect(resting.rpm).toBeGreaterThan(100);
    expect((await volts("unplugged=X5", "F7.in")).rpm).toBeLessThan(1);
    // With a test lamp in the motor's place nothing turns, and the feed is still there.
    expect((await volts("lampFor=M1", "X3:1")).volts).toBeGreaterThan(11);
  });

  test.each(["key=run&setting=9", "key=on&setting=2", "key=run&setting=2&unplugged=Q9", ""])(
    "%j is refused",
    async (query) => expect((await json(sheetStates.loader, asked(query))).status).toBe(422),
  );
});

describe("notes and photos", () => {
  const picture = async (format: "png" | "jpeg", width = 40, height = 20) =>
    new Blob([
      new Uint8Array(
        await sharp({ create: { width, height, channels: 3, background: "#a33" } })
          .withMetadata({ orientation: 6 })
          .toFormat(format)
          .toBuffer(),
      ),
    ]);
  const shown = async () =>
    (
      (await answer(probe.loader, null)).data as {
        notes: { id: string; words: string; photo: unknown; struck: boolean }[];
      }
    ).notes;

  test("words alone are stored as typed; sent twice they are stored once", async () => {
    const note = { intent: "note", token: token(), words: "<b>tab</b> broke; see\nthe left ear" };
    for (let i = 0; i < 2; i++) expect((await json(notes.action, posted(note))).status).toBe(200);
    expect(await shown()).toEqual([
      expect.objectContaining({ words: note.words, photo: null, struck: false }),
    ]);
    await json(notes.action, posted({ intent: "strike", id: note.token, struck: "yes" }));
    expect(await shown()).toEqual([expect.objectContaining({ struck: true })]);
    await json(notes.action, posted({ intent: "strike", id: note.token, struck: "no" }));
  });

  test("a photo is encoded again: an upright JPEG with nothing of the file's own data", async () => {
    const note = token();
    const sent = await json(
      notes.action,
      posted({ intent: "note", token: note, words: "", photo: await picture("jpeg", 3000, 1500) }),
    );
    expect(sent.status).toBe(200);
    const response = await photo.loader({ params: { id: String(id), note } } as never);
    expect(response.headers.get("content-type")).toBe("image/jpeg");
    const kept = await sharp(Buffer.from(await response.arrayBuffer())).metadata();
    expect(kept).toMatchObject({ format: "jpeg", width: 800, height: 1600 });
    expect(kept.exif).toBeUndefined();
    expect(kept.orientation).toBeUndefined();
    // Not under another job's address.
    await expect(photo.loader({ params: { id: "4", note } } as never)).rejects.toMatchObject({
      init: { status: 404 },
    });
  });

  type Sent = Record<string, string | Blob>;
  test.each<[string, () => Sent | Promise<Sent>]>([
    ["a text file called a photo", () => ({ words: "", photo: new Blob(["<svg onload=alert(1)>"]) })],
    [
      "an SVG",
      () => ({
        words: "",
        photo: new Blob(['<svg xmlns="http://www.w3.org/2000/svg" width="9" height="9"/>']),
      }),
    ],
    [
      "a picture cut short",
      async () => ({ words: "x", photo: (await picture("png", 400, 400)).slice(0, 200) }),
    ],
    [
      "a picture one pixel wide and longer than any camera's",
      async () => ({ words: "", photo: await picture("png", 1, 20_001) }),
    ],
    ["nothing at all", () => ({ words: "  " })],
    ["words without end", () => ({ words: "x".repeat(1001) })],
    ["a reading of another job", async () => ({ words: "x", reading: (await readingsOf(4))[0]?.id ?? "" })],
  ])("%s is refused in words, and nothing is stored", async (_, fields) => {
    const before = await shown();
    const refused = await json(notes.action, posted({ intent: "note", token: token(), ...(await fields()) }));
    expect(refused).toMatchObject({ status: 422, body: { problem: expect.stringMatching(/\w{4}/) } });
    expect(await shown()).toEqual(before);
  });

  test("a note on a reading is shown with it", async () => {
    const reading = (await readingsOf(id)).at(-1);
    await json(
      notes.action,
      posted({ intent: "note", token: token(), reading: reading?.id ?? "", words: "pin bent" }),
    );
    const page = (await answer(probe.loader, null)).data as {
      evidence: { id: string; notes: { words: string }[] }[];
    };
    const line = page.evidence.find((own) => own.id === reading?.id);
    expect(line?.notes.map(({ words }) => words)).toEqual(["pin bent"]);
  });
});
