// Repair, parts, estimate, the shop's terms and the access plan editor, against a database of their own.

import { estimatesOf } from "@db/repositories/estimates.server";
import { matchesOf } from "@db/repositories/parts.server";
import { findPlan, planNotesOf } from "@db/repositories/plans.server";
import { measuredSteps, ticksOf } from "@db/repositories/repairs.server";
import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import Papa from "papaparse";
import type { EstimateData } from "../estimate/estimateView.server";
import { answer, closeDemoShop, openDemoShop } from "../testing/demoShop";
import * as estimate from "./estimate";
import * as estimateFile from "./estimateFile";
import * as fit from "./fit";
import * as parts from "./parts";
import * as settings from "./settings";
import * as ticks from "./ticks";
import * as way from "./way";
import * as wayFile from "./wayFile";

let id = 0;
const wagon = "16";
beforeAll(async () => {
  id = await openDemoShop();
});
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

describe("the match", () => {
  const hold = (fields: Record<string, string>) =>
    answer(parts.action, { intent: "hold", part: "R1", ...fields });
  const page = async (query = "part=R1") => (await parts.loader(get(String(id), query))).match;

  test("starts with what is listed for the place and what is sold today", async () => {
    const match = await page();
    expect(match?.old?.number).toBe("HW 4410-17");
    expect(match?.fresh?.number).toBe("HW 4410-18");
    expect(match?.chain).toEqual(["HW 4410-17", "HW 4410-18"]);
    expect(match?.leads?.refusals).toEqual([]);
  });

  test("compares two parts, stores an override in words, and drops it with another part", async () => {
    await hold({ old: "HW 4410-17", fresh: "QR 771 420" });
    expect((await page())?.match?.verdict).toBe("wrong");
    const override = {
      intent: "override",
      part: "R1",
      feature: "ohms",
      words: "the owner uses 3 and 4 alone",
    };
    await answer(parts.action, override);
    expect((await page())?.match?.verdict).not.toBe("wrong");
    expect((await page())?.overrides[0]?.words).toBe("the owner uses 3 and 4 alone");
    await answer(parts.action, { intent: "judge-again", part: "R1", feature: "ohms" });
    expect((await page())?.match?.verdict).toBe("wrong");
    await answer(parts.action, override);
    await hold({ old: "HW 4410-17", fresh: "HW 4410-17" });
    expect((await matchesOf(id))[0]?.overrides).toEqual([]);
    expect((await page())?.match?.verdict).toBe("same");
  });

  test("a part that is not listed is described, or refused with the place and with the typed text kept", async () => {
    const refused = await answer(parts.action, { intent: "describe", text: '{"format":"airway-part"}' });
    expect(refused.status).toBe(400);
    expect(refused.data.problem).toMatch(/version: expected 1, got nothing/);
    expect(refused.data.text).toBe('{"format":"airway-part"}');
    const text = JSON.stringify({
      format: "airway-part",
      version: 1,
      number: "ZX 100",
      title: "from a box",
      kind: "resistor",
    });
    await answer(parts.action, { intent: "describe", text });
    expect((await page())?.catalogue.map(({ number }) => number)).toContain("ZX 100");
    const again = await answer(parts.action, { intent: "describe", text });
    expect(again.data.problem).toMatch(/^ZX 100 is already on the list/);
    expect((await answer(parts.action, { intent: "describe", text, again: "yes" })).data.problem).toBeNull();
    expect(
      (await answer(parts.action, { ...{ intent: "hold", part: "Q9", old: "", fresh: "" } })).status,
    ).toBe(400);
    const short = await answer(parts.action, { intent: "override", part: "R1", feature: "tab", words: "" });
    expect(short.data.problem).toMatch(/enter in a few words/);
  });
});

describe("a part typed as it lies in the hand", () => {
  const typed = (more: Record<string, string>) =>
    answer(parts.action, { intent: "typed", part: "R1", old: "HW 4410-17", ...more });
  const box = { number: "zx 200", title: "from a box", kind: "resistor" };

  test("is listed and chosen at once, and compared with the old one in the circuit", async () => {
    await typed({
      ...box,
      "coil T1 T2": "2,4",
      "coil T2 T3": "1.3",
      "coil T3 N": "0.7",
      holes: "52 between",
    });
    const { match } = await parts.loader(get(String(id), "part=R1"));
    expect([match?.old?.number, match?.fresh?.number]).toEqual(["HW 4410-17", "ZX 200"]);
    expect(match?.match?.differences.find(({ feature }) => feature === "ohms")?.judgement).toBe("wrong");
    expect(match?.match?.inCircuit?.speeds.every(({ airflow }) => airflow < 1.01)).toBe(true);
  });

  test("is refused by its field, or if its number is listed, and nothing is stored", async () => {
    expect((await typed({ ...box, number: "zx 201", screws: "a few" })).data.problem).toMatch(
      /^screws: expected number, got "a few"/,
    );
    expect((await typed(box)).data.problem).toMatch(/^ZX 200 is already on the list/);
    expect((await typed({ ...box, title: "another", again: "yes" })).data.problem).toBeNull();
    expect((await typed({ ...box, part: "Q9" })).status).toBe(400);
  });
});

describe("the estimate", () => {
  const page = (job = "6") => estimate.loader(get(job));
  const send = (fields: Record<string, string>) => answer(estimate.action, fields, "6");

  test("an offer becomes version one, once; saved lines the next; the first approval counts", async () => {
    const token = uuid();
    await send({ intent: "offer", token, offer: "part-only" });
    await send({ intent: "offer", token, offer: "part-only" });
    const [first] = (await page()).versions;
    expect((await page()).versions).toHaveLength(1);
    expect(first?.body.lines.map(({ kind }) => kind)).toEqual(["diagnosis", "labour", "part", "consumable"]);
    const body = JSON.stringify({ ...first?.body, lines: first?.body.lines.slice(0, 3) });
    await send({ intent: "store", token: uuid(), kind: "estimate", body });
    expect((await page()).versions.map(({ number }) => number)).toEqual([1, 2]);
    expect((await send({ intent: "approve", id: first?.id ?? "", by: "" })).data.problem).toMatch(
      /how it was approved/,
    );
    await send({ intent: "approve", id: first?.id ?? "", by: "by phone" });
    await send({ intent: "approve", id: first?.id ?? "", by: "at the counter" });
    expect((await estimatesOf(6))[0]).toMatchObject({ approvedBy: "by phone" });
  });

  test("the bill is compared with what was approved", async () => {
    const before = await page();
    expect(before.billFrom?.body.lines).toHaveLength(4);
    const lines = before.billFrom?.body.lines.map((line) =>
      line.kind === "labour" ? { ...line, quantityMilli: line.quantityMilli + 200 } : line,
    );
    const body = JSON.stringify({ ...before.versions[0]?.body, lines });
    await send({ intent: "store", token: uuid(), kind: "bill", body });
    // 0.2 h at 90.00.
    expect((await page()).difference).toMatchObject([{ differenceMinor: 1800 }]);
  });

  test("figures that cannot be read are refused with their place", async () => {
    const [first] = (await page()).versions;
    const spoilt = JSON.stringify({ ...first?.body, lines: [{ ...first?.body.lines[0], eachMinor: 0.5 }] });
    const refused = await send({ intent: "store", token: uuid(), kind: "estimate", body: spoilt });
    expect(refused.data.problem).toMatch(/lines\.0\.eachMinor/);
    const unread = await send({ intent: "store", token: uuid(), kind: "bill", body: "{" });
    expect(unread.status).toBe(400);
  });

  const file = async (kind: string, number = "1") =>
    estimateFile.loader({ params: { id: "6", number, kind } } as never);

  test("as CSV, its lines add up to its totals, by an independent parser", async () => {
    const text = await (await file("csv")).text();
    const { data } = Papa.parse<Record<string, string>>(text, { header: true, skipEmptyLines: true });
    const lines = data.filter(({ kind }) => kind !== "total");
    const hundredths = (own: string | undefined): number => Math.round(100 * Number(own));
    const sum = (key: string): number => lines.reduce((total, line) => total + hundredths(line[key]), 0);
    const total = (title: string) => hundredths(data.find((line) => line.title === title)?.net);
    expect(sum("net")).toBe(total("net"));
    expect(sum("tax")).toBe(total("tax"));
    expect(total("total XXX")).toBe((await page()).versions[0]?.priced.totalMinor);
  });

  test("as PDF it is valid, and an unknown one is not found", async () => {
    const bytes = Buffer.from(await (await file("pdf")).arrayBuffer());
    expect(bytes.subarray(0, 5).toString()).toBe("%PDF-");
    expect(bytes.subarray(-8).toString()).toMatch(/%%EOF/);
    expect(bytes.length).toBeGreaterThan(5000);
    for (const [kind, number] of [
      ["xls", "1"],
      ["pdf", "99"],
    ] as const)
      await expect(file(kind, number)).rejects.toMatchObject({ init: { status: 404 } });
  });
});

describe("where parts come from, and book time", () => {
  const load = async () =>
    answer(estimate.loader, null, wagon).then(({ data }) => data as unknown as EstimateData);
  const send = (fields: Record<string, string>) => answer(estimate.action, fields, wagon);

  test("sources stand side by side, and the chosen one sets the price of the offers", async () => {
    const { part } = (await load()).sources[0] ?? { part: "" };
    const near = { intent: "source", token: uuid(), part, source: "Quay Motor Factors", price: "52.00" };
    const far = { ...near, token: uuid(), source: "Harbour Spares", number: "HS 4", price: "31.50" };
    await send({ ...near, arrivesOn: "2026-12-01" });
    await send({ ...far, arrivesOn: "2026-12-04" });
    await send({ ...far, arrivesOn: "2026-12-04" });
    const { sources } = await load();
    expect(sources[0]?.sources).toMatchObject([
      { source: "Quay Motor Factors", isCheapest: false, isEarliest: true, chosen: false },
      { source: "Harbour Spares", isCheapest: true, isEarliest: false, chosen: false },
    ]);
    await send({ intent: "source-use", id: far.token });
    const chosen = (await load()).sources[0];
    expect(chosen?.priceMinor).toBe(3150);
    expect(chosen?.sources[1]).toMatchObject({ chosen: true });
    await send({ intent: "source-delete", id: far.token });
    expect((await load()).sources[0]?.sources).toHaveLength(1);
  });

  test.each([
    [{ price: "cheap" }, /Price: “cheap” is not an amount/],
    [{ source: "" }, /enter who sells it/],
  ])("%j is refused with what to change", async (change, problem) => {
    const fields = { intent: "source", token: uuid(), part: "R1", source: "Quay", price: "5.00", ...change };
    expect((await send(fields)).data).toMatchObject({ problem: expect.stringMatching(problem) });
  });

  test("a book time is kept with the model until it is emptied", async () => {
    const { part } = (await load()).bookTimes[0] ?? { part: "" };
    const enter = (hours: string) => send({ intent: "book-time", part, hours, source: "labour guide" });
    expect((await enter("soon")).data).toMatchObject({
      problem: expect.stringMatching(/not a number of hours/),
    });
    await enter("0,6");
    expect((await load()).bookTimes[0]).toMatchObject({ part, minutes: 36, source: "labour guide" });
    await enter("");
    expect((await load()).bookTimes[0]).toMatchObject({ part, minutes: null });
  });
});

describe("the shop's terms", () => {
  const terms = {
    shopName: "Saltmarsh Bay Garage",
    currency: "eur",
    hourMinor: "85.50",
    diagnosisMinimumMinutes: "30",
    diagnosisPolicy: "swallowed",
    labourBy: "book",
    markupBasisPoints: "25",
    consumablesBasisPoints: "1.5",
    labourTaxBasisPoints: "20",
    partTaxBasisPoints: "20",
    rule: "half-even",
    at: "total",
    coinMinor: "0.05",
    comebackMinor: "150",
    warrantyMonths: "24",
  };

  test("are stored in whole minor units, and an estimate is made on them", async () => {
    await answer(settings.action, terms);
    expect((await settings.loader()).terms).toMatchObject({
      currency: "EUR",
      hourMinor: 8550,
      markupBasisPoints: 2500,
      consumablesBasisPoints: 150,
      rounding: { rule: "half-even", at: "total", coinMinor: 5 },
      warrantyMonths: 24,
    });
    const page = await estimate.loader(get("6"));
    expect(page.offers[0]?.priced.lines.map(({ kind }) => kind)).not.toContain("diagnosis");
    expect((page.offers[0]?.priced.totalMinor ?? 1) % 5).toBe(0);
  });

  test("impossible ones are refused by name, nothing is stored, and what was typed is kept", async () => {
    const refused = await answer(settings.action, {
      ...terms,
      hourMinor: "ninety",
      warrantyMonths: "",
      currency: "EURO",
    });
    expect(refused.status).toBe(400);
    expect((refused.data.problems as string[]).join("\n")).toMatch(/currency: must be three capitals/);
    expect((refused.data.problems as string[]).join("\n")).toMatch(/warrantyMonths/);
    const amount = await answer(settings.action, { ...terms, hourMinor: "ninety" });
    expect(amount.data.problems).toEqual(['hourMinor: must be an amount in EUR, not "ninety"']);
    expect(amount.data.fields).toMatchObject({ hourMinor: "ninety" });
    expect((await settings.loader()).terms.hourMinor).toBe(8550);
  });
});

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
