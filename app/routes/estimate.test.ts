// Tests the estimate, the part sources and the shop's terms. Each run has its own database.

import { estimatesOf } from "@db/repositories/estimates.server";
import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import Papa from "papaparse";
import type { EstimateData } from "../estimate/estimateView.server";
import { answer, closeDemoShop, openDemoShop } from "../testing/demoShop";
import * as estimate from "./estimate";
import * as estimateFile from "./estimateFile";
import * as settings from "./settings";

beforeAll(openDemoShop);
afterAll(closeDemoShop);

const wagon = "16";
const uuid = () => crypto.randomUUID();
const get = (job: string, query = "") =>
  ({ params: { id: job }, request: new Request(`http://x/y?${query}`) }) as never;

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
