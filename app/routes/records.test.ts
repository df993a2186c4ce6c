// The pages of the shop's records against a database of their own: what they answer, store and refuse.
import { database } from "@db/database.server";
import { addPerson, allPeople, removePerson } from "@db/people/people.server";
import { closureOf, faultCounts } from "@db/repositories/closures.server";
import { findJob } from "@db/repositories/jobs.server";
import { addNote } from "@db/repositories/notes.server";
import { addProof } from "@db/repositories/proofs.server";
import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { parse } from "csv-parse/sync";
import { createElement } from "react";
import { renderToStaticMarkup } from "react-dom/server";
import { RouterContextProvider } from "react-router";
import sharp from "sharp";
import { parseCase } from "../../core/formats/case";
import { CurrentDrawSketch } from "../close/CurrentDrawSketch";
import { visitorContext } from "../network/visitor.server";
import { visitorAt } from "../people/signedIn.server";
import { standAlone } from "../sheet/saveSvg";
import { answer, closeDemoShop, openDemoShop } from "../testing/demoShop";
import * as cardFile from "./cardFile";
import * as caseFile from "./caseFile";
import * as close from "./close";
import * as figures from "./figures";
import * as keeping from "./keeping";
import * as keepingFile from "./keepingFile";
import * as learnt from "./learnt";
import * as prove from "./prove";
import * as records from "./records";
import * as recordsFile from "./recordsFile";
import * as recordsIn from "./recordsIn";
import * as trail from "./trail";
import * as vehicle from "./vehicle";
import * as verdict from "./verdict";

beforeAll(async () => {
  await openDemoShop();
});
afterAll(closeDemoShop);

const get = (params: Record<string, string>, query = "") =>
  ({ params, request: new Request(`http://127.0.0.1/x?${query}`) }) as never;
const status = async (work: () => Promise<unknown>): Promise<number> => {
  try {
    const made = await work();
    return made instanceof Response ? made.status : 200;
  } catch (thrown) {
    return (thrown as { init?: { status?: number } }).init?.status ?? 500;
  }
};

describe("the records", () => {
  test("answer any malformed address", async () => {
    const page = await records.loader(
      get({}, "page=-3&order=drop&down=perhaps&vehicle=x&outcome=all&words=%00"),
    );
    expect(page.count).toBe(31);
    expect(page.rows).toHaveLength(31);
    expect(page.query).toMatchObject({ order: "came", down: true, outcome: "", from: 0 });
    const none = await records.loader(get({}, "words=zzzz"));
    expect([none.count, none.rows]).toEqual([0, []]);
  });

  test("remove a job, say so, and restore it; an unknown one is 404", async () => {
    const away = await answer(records.action, { intent: "delete", job: "20" });
    expect(away.location).toBe("/records?deleted=20");
    expect((await records.loader(get({}, "deleted=20"))).deleted).toBe(20);
    expect((await findJob(20))?.deletedAt).not.toBeNull();
    expect((await answer(records.action, { intent: "put-back", job: "20" })).location).toBe("/jobs/20/close");
    expect((await findJob(20))?.deletedAt).toBeNull();
    expect((await answer(records.action, { intent: "delete", job: "999" })).status).toBe(404);
    expect((await answer(records.action, { intent: "burn", job: "20" })).status).toBe(404);
  });

  test("are exported as CSV and JSON, and importing them again adds nothing", async () => {
    const csv = await (await recordsFile.loader(get({ kind: "csv" }))).text();
    const rows: string[][] = parse(csv);
    expect(rows).toHaveLength(15);
    const json = await (await recordsFile.loader(get({ kind: "json" }))).text();
    expect(await status(() => recordsFile.loader(get({ kind: "xls" })))).toBe(404);
    for (const text of [csv, json]) {
      await answer(recordsIn.action, { intent: "try", text });
      expect(recordsIn.loader().state).toEqual({
        phase: "tried",
        outcome: { brought: 0, known: 14, strange: [] },
      });
    }
    expect((await answer(recordsIn.action, { intent: "bring", text: "{" })).status).toBe(422);
    expect(recordsIn.loader().state.phase).toBe("refused");
    expect((await answer(recordsIn.action, { intent: "bring", text: "" })).data.problem).toBe(
      "Paste the text of a file, or choose a file.",
    );
  });

  test("contain a vehicle's whole history", async () => {
    const page = await vehicle.loader(get({ id: "4" }));
    expect(page.vehicle).toBe("Harrow Whimbrel van, ferry crew van 5");
    expect(page.rows.map(({ outcome }) => outcome)).toEqual(["part awaited", "held", "came back"]);
    for (const id of ["0", "99", "x"]) expect(await status(() => vehicle.loader(get({ id })))).toBe(404);
  });
});

describe("the figures and what was learnt", () => {
  test("are of all families or of one; an unknown family means all", async () => {
    const all = (await figures.loader(get({}))).figures;
    expect(all.jobs).toBe(14);
    expect(all.faults.reduce((sum, { counts }) => sum + counts.reduce((a, b) => a + b, 0), 0)).toBe(14);
    expect(all.odds.trials).toBe(14);
    expect(all.causes.find(({ cause }) => cause === "not-found")?.comebacks).toBe(1);
    const one = (await figures.loader(get({}, "family=resistor+ground"))).figures;
    expect(one.family).toBe("resistor ground");
    expect((await figures.loader(get({}, "family=steam"))).figures.family).toBeNull();
  });

  test("show the table next to the shop's own counts, which can be excluded and switched off", async () => {
    const page = () => learnt.loader(get({}, "circuit=whimbrel-four-speed"));
    const link = async () =>
      (await page()).changed.find(({ kind, mode }) => kind === "link" && mode === "open");
    const before = await link();
    expect(before?.share).toBeGreaterThan(before?.before ?? 1);
    const lesson = (await page()).lessons.find(({ words }) => words === "thermal link open");
    const job = String(lesson?.jobId);
    await answer(learnt.action, { intent: "count", job, counted: "no" });
    expect((await link())?.n).toBe((before?.n ?? 0) - 1);
    expect((await closureOf(Number(job)))?.counted).toBe(false);
    await answer(learnt.action, { intent: "count", job, counted: "yes" });
    expect((await link())?.share).toBeCloseTo(before?.share ?? 0, 12);
    await answer(learnt.action, { intent: "learning", on: "no" });
    expect((await page()).on).toBe(false);
    await answer(learnt.action, { intent: "learning", on: "yes" });
    expect((await answer(learnt.action, { intent: "count", job: "6", counted: "no" })).status).toBe(404);
    expect((await answer(learnt.action, { intent: "forget" })).status).toBe(400);
  });

  test("older closings are looked at once: an oiled bearing stops counting, and that can be undone", async () => {
    const page = async () => (await learnt.loader(get({}, "circuit=whimbrel-four-speed"))).looks;
    const dry = async () =>
      (await faultCounts("")).counts.find(({ kind, mode }) => kind === "motor" && mode === "bearing-dry")
        ?.n ?? 0;
    const before = await dry();
    expect((await page()).left).toBe(14);
    await answer(learnt.action, { intent: "look-again" });
    const looked = await page();
    expect(looked.left).toBe(0);
    // The other thirteen are proved, or hold no proof either way: they count as they did.
    expect(looked.changed).toEqual([
      { jobId: 25, undone: false, before: "blower motor dry bearing", after: "Now it does not count." },
    ]);
    expect(await dry()).toBe(before - 1);
    await answer(learnt.action, { intent: "undo-look", job: "25", undone: "yes" });
    expect((await page()).changed[0]?.undone).toBe(true);
    expect(await dry()).toBe(before);
    await answer(learnt.action, { intent: "undo-look", job: "25", undone: "no" });
    expect(await dry()).toBe(before - 1);
    expect((await closureOf(25))?.closure.learn).toBe(false);
  });
});

describe("the card of a job", () => {
  test("is a PDF with the drawing, the photos and the ripple, and a calendar file if there is a date", async () => {
    const jpeg = await sharp({ create: { width: 8, height: 6, channels: 3, background: "#a85a08" } })
      .jpeg()
      .toBuffer();
    await addNote(
      { id: "photo-1", jobId: 25, readingId: null, words: "the bearing", takenAt: new Date() },
      { width: 8, height: 6, jpeg },
    );
    const pdf = Buffer.from(await (await cardFile.loader(get({ id: "25", kind: "pdf" }))).arrayBuffer());
    expect(pdf.subarray(0, 5).toString()).toBe("%PDF-");
    expect(pdf.toString("latin1").match(/\/Type \/Page\b/g)?.length).toBe(3);
    expect(pdf.includes("/Subtype /Image")).toBe(true);
    const ics = await (await cardFile.loader(get({ id: "25", kind: "ics" }))).text();
    expect(ics).toMatch(/^BEGIN:VCALENDAR/);
    expect(await status(() => cardFile.loader(get({ id: "17", kind: "ics" })))).toBe(404);
    expect(await status(() => cardFile.loader(get({ id: "17", kind: "doc" })))).toBe(404);
  });

  test("shows the clamp readings in their band once the final check was measured", async () => {
    expect((await close.loader(get({ id: "2" }))).card.draw).toEqual([]);
    for (const [step, seen] of [
      ["up-1", "3.1"],
      ["up-2", "5.3"],
      ["up-4", "31"],
    ] as const)
      await answer(
        prove.action,
        { intent: "proof", token: crypto.randomUUID(), step, by: "amps", seen },
        "2",
      );
    const { draw } = (await close.loader(get({ id: "2" }))).card;
    expect(draw.map(({ setting, amps, right }) => [setting, amps, right])).toEqual([
      ["1", 3.1, true],
      ["2", 5.3, true],
      ["4", 31, false],
    ]);
    for (const { low, high } of draw) expect(high).toBeGreaterThan(low);
    const drawn = renderToStaticMarkup(createElement(CurrentDrawSketch, { draw }));
    expect(drawn.match(/<circle/g)?.length).toBe(3);
    expect(drawn).toContain("4: 31.0 A, expected");
    // The PDF's SVG reader is strict: with a repeated size attribute it paints nothing.
    const alone = standAlone(
      drawn,
      { x: 0, y: 0, width: 360, height: 150 },
      () => "#000",
      () => "sans",
      "draw",
    );
    for (const size of ["width", "height"])
      expect(/^<svg[^>]*>/.exec(alone)?.[0].match(new RegExp(`\\s${size}=`, "g"))).toHaveLength(1);
    const pdf = Buffer.from(await (await cardFile.loader(get({ id: "2", kind: "pdf" }))).arrayBuffer());
    expect(pdf.subarray(0, 5).toString()).toBe("%PDF-");
  });

  test("of an open job is a PDF too, and says what is not checked", async () => {
    const pdf = Buffer.from(await (await cardFile.loader(get({ id: "6", kind: "pdf" }))).arrayBuffer());
    expect(pdf.subarray(0, 5).toString()).toBe("%PDF-");
    const { card } = await close.loader(get({ id: "6" }));
    expect(card.proof.whole).toBe("waiting");
    expect(card.closure).toBeNull();
  });

  test("shows which job came back from which, in both directions", async () => {
    const first = (await close.loader(get({ id: "17" }))).card;
    const back = (await close.loader(get({ id: "18" }))).card;
    expect(first.comebacks).toEqual([18]);
    expect(back.comebackOf).toBe(17);
    expect(back.closure?.causeText).toBe("found: a stiff motor");
    const open = await answer(close.action, { intent: "comeback", token: crypto.randomUUID() }, "6");
    expect([open.status, open.location]).toEqual([302, "/jobs/6/close"]);
  });

  test("as a case file carries its work list, and a comeback the visit before it", async () => {
    const fileOf = async (id: string) =>
      JSON.parse(await (await caseFile.loader(get({ id }))).text()) as unknown;
    expect(await fileOf("17")).toMatchObject({
      works: [{ part: "R1", done: "renewed", round: 1, state: "done" }],
    });
    const back = await fileOf("18");
    expect(back).toMatchObject({ earlier: { parts: ["R1"] } });
    const read = parseCase(back, () => null);
    expect(read.ok ? read.value.works.map(({ part }) => part).sort() : read.problems).toEqual(["M1", "R1"]);
  });

  test("has a trail in words", async () => {
    const { lines } = await trail.loader(get({ id: "18" }));
    expect(
      lines.some(({ words }) =>
        words.startsWith(
          "Closed: blower motor M1 tight, draws too much, then resistor pack R1 thermal link open",
        ),
      ),
    ).toBe(true);
    expect(lines.every(({ words }) => !/undefined|\[object/.test(words))).toBe(true);
  });
});

describe("a repair that failed", () => {
  test("is exported with the case, so that the command line weighs it as the page does", async () => {
    await answer(verdict.action, { intent: "fitted", parts: "R1" });
    await answer(prove.action, {
      intent: "proof",
      token: crypto.randomUUID(),
      step: "up-2",
      by: "airflow",
      seen: "none",
    });
    await answer(prove.action, { intent: "back", token: crypto.randomUUID() });
    const { id } = (await trail.loader(get({ id: "31" }))) ?? { id: 31 };
    const file = (await (await caseFile.loader(get({ id: String(id) }))).json()) as {
      repairs: unknown;
      readings: unknown[];
    };
    expect(file.repairs).toEqual([{ after: 0, parts: ["R1"] }]);
    expect(file.readings).toHaveLength(1);
  });

  test("a step checked by an unsuitable method is refused", async () => {
    const wrong = { intent: "proof", token: crypto.randomUUID(), step: "drain", by: "airflow", seen: "none" };
    expect((await answer(prove.action, wrong, "2")).status).toBe(422);
    expect(
      (await answer(prove.action, { ...wrong, step: "listen", by: "amps", seen: "3" }, "2")).status,
    ).toBe(422);
  });

  test("a finding before anything is fitted is refused", async () => {
    const early = { intent: "proof", token: crypto.randomUUID(), step: "up-2", by: "airflow", seen: "none" };
    expect((await answer(prove.action, early, "7")).status).toBe(409);
    expect((await answer(prove.action, { intent: "back", token: crypto.randomUUID() }, "7")).location).toBe(
      "/jobs/7/prove",
    );
    expect((await findJob(7))?.stage).toBe("probing");
  });
});

describe("keeping", () => {
  /** The name of the demo workshop. */
  const shop = "Saltmarsh Bay Garage";

  test("makes a backup, inspects it, downloads it; an unknown name is refused", async () => {
    const done = await answer(keeping.action, { intent: "back-up" });
    const name = /airway-[^ ]+\.sqlite/.exec(String(done.data.done))?.[0] ?? "";
    const [backup] = (await keeping.loader()).backups;
    expect(backup?.name).toBe(name);
    const tried = await answer(keeping.action, { intent: "try", name });
    expect(tried.data.tried).toMatchObject({ finding: { faults: [], jobs: 31 } });
    const file = await keepingFile.loader(get({ file: name }));
    expect(
      Buffer.from(await file.arrayBuffer())
        .subarray(0, 15)
        .toString(),
    ).toBe("SQLite format 3");
    for (const wrong of ["../airway.sqlite", "airway.sqlite", ""]) {
      expect((await answer(keeping.action, { intent: "restore", name: wrong, shop: shop })).status).toBe(400);
      expect(await status(() => keepingFile.loader(get({ file: wrong })))).toBe(404);
    }
    expect((await answer(keeping.action, { intent: "take", shop: shop })).status).toBe(400);
  });

  test("restores, and the page works again", async () => {
    const [backup] = (await keeping.loader()).backups;
    const finding = { by: "airflow", seen: "none" } as const;
    await addProof({ id: "late", jobId: 2, step: "up-1", finding, judged: "too-low", takenAt: new Date() });
    const restore = (typed: string) =>
      answer(keeping.action, { intent: "restore", name: backup?.name ?? "", shop: typed });
    expect((await restore("someone else's")).data.problems).toEqual([
      `to confirm, type the name of the shop: ${shop}`,
    ]);
    const done = await restore(` ${shop.toUpperCase()}`);
    expect(done.data.done).toMatch(/^Restored/);
    const { sequelize } = await database();
    const [rows] = await sequelize.query("SELECT id FROM proofs WHERE id = 'late'");
    expect(rows).toEqual([]);
    expect((await keeping.loader()).backups.length).toBeGreaterThan(1);
  });

  test("asks whoever is signed in for their PIN before it replaces the shop", async () => {
    await addPerson("Front desk", "owner", "123456");
    const context = new RouterContextProvider();
    context.set(visitorContext, await visitorAt({ kind: "shop-computer" }, null, true));
    const name = (await keeping.loader()).backups[0]?.name ?? "";
    const restore = async (pin: Record<string, string>) =>
      (await answer(keeping.action, { intent: "restore", name, shop, ...pin }, "", context)).data;
    for (const pin of [{}, { pin: "654321" }])
      expect((await restore(pin)).problems).toEqual(["This is not the right PIN"]);
    expect((await restore({ pin: "123456" })).done).toMatch(/^Restored/);
    removePerson(allPeople()[0]?.id ?? "");
  });

  test("the bundle is downloaded under its name", async () => {
    const bundle = await keepingFile.loader(get({ file: "airway-shop.zip" }));
    expect(bundle.headers.get("Content-Type")).toBe("application/zip");
    expect(
      Buffer.from(await bundle.arrayBuffer())
        .subarray(0, 2)
        .toString(),
    ).toBe("PK");
  });
});
