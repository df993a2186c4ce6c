// The motor page and what it stores, against a database of its own.
import { readingsOf } from "@db/repositories/readings.server";
import { recordingsOf } from "@db/repositories/recordings.server";
import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { readRipple } from "../../core/ripple/readRipple";
import { recordingPicture } from "../../core/signal/recordingPicture";
import { drawnRecording } from "../../core/testing/rippleRecording";
import { rippleWords } from "../../words/rippleWords";
import { detachPractice } from "../motor/instruments.server";
import { answer, closeDemoShop, openDemoShop, posted } from "../testing/demoShop";
import * as instrument from "./instrument";
import * as motor from "./motor";
import * as samples from "./traceSamples";
import * as traces from "./traces";

let id = 0;
beforeAll(async () => {
  id = await openDemoShop();
});
afterAll(async () => {
  detachPractice(id);
  await closeDemoShop();
});

type Page = Awaited<ReturnType<typeof motor.loader>>;
const page = async (): Promise<Page> =>
  await motor.loader({
    params: { id: String(id) },
    request: new Request(`http://x/jobs/${id}/motor`),
  } as never);
const post = (fields: Record<string, string>) => answer(motor.action, fields);
const setup = { key: "run", setting: "4" };

function recording() {
  const trace = drawnRecording({ bars: 12, rpm: 2600, seconds: 1, rateHz: 20_000, noise: 0.02 });
  const figures = rippleWords(readRipple(trace, { bars: 12 }));
  const { picture, kept } = recordingPicture(trace, figures.steadySeconds[0], 3000);
  return {
    record: { kind: "humps", name: "clamp.csv", motor: "M1", source: "file", setup, figures, picture },
    kept,
  };
}

async function send(
  token: string,
  record: unknown,
  kept: Float32Array,
  job: number | string = id,
): Promise<Response> {
  const body = new FormData();
  body.set("id", token);
  body.set("record", typeof record === "string" ? record : JSON.stringify(record));
  body.set("samples", new File([new Uint8Array(kept.slice().buffer)], "samples"));
  return await traces.action({
    params: { id: String(job) },
    request: new Request("http://x", { method: "POST", body }),
  } as never);
}

describe("the draw", () => {
  test("a clamp reading is stored once however often it is sent, and fits its cause", async () => {
    const before = (await readingsOf(id)).length;
    const { draw } = await page();
    const healthy = draw.setups.find((row) => row.setup.setting === "4")?.healthyAmps.usual ?? 0;
    const fields = {
      intent: "reading",
      token: "draw-4",
      reading: JSON.stringify({ test: "amps", around: "M1", ...setup }),
      figure: (healthy * 1.7).toFixed(1).replace(".", ","),
    };
    await post(fields);
    await post(fields);
    expect(await readingsOf(id)).toHaveLength(before + 1);
    const after = await page();
    expect(after.draw.fits[0]?.condition).not.toBe("healthy");
    expect(after.draw.setups.find((row) => row.setup.setting === "4")?.measuredAmps).toBeCloseTo(
      healthy * 1.7,
      1,
    );
  });

  test("a figure or a point that cannot be read is refused and changes nothing", async () => {
    const before = (await readingsOf(id)).length;
    const amps = JSON.stringify({ test: "amps", around: "M1", ...setup });
    expect((await post({ intent: "reading", token: "a", reading: amps, figure: "lots" })).status).toBe(422);
    expect((await post({ intent: "reading", token: "b", reading: "{nearly", figure: "3" })).status).toBe(422);
    const lost = JSON.stringify({ test: "volts", red: "Q1.+", black: "G1.-", ...setup });
    expect((await post({ intent: "reading", token: "c", reading: lost, figure: "0.3" })).status).toBe(422);
    expect((await post({ intent: "nothing" })).status).toBe(400);
    expect(await readingsOf(id)).toHaveLength(before);
  });

  test("a voltage drop is listed with its limit", async () => {
    const drop = JSON.stringify({ test: "volts", red: "X3:1", black: "M1.+", ...setup });
    await post({ intent: "reading", token: "drop", reading: drop, figure: "0.8" });
    const [line] = (await page()).drops;
    expect(line).toMatchObject({ red: "X3:1", drop: { over: "joint", limitVolts: 0.1 } });
    expect(line?.drop.addedOhms).toBeGreaterThan(0.02);
  });
});

describe("recordings", () => {
  test("are stored once with their samples, deleted and restored, and marked as the healthy one", async () => {
    const { record, kept } = recording();
    const token = crypto.randomUUID();
    expect((await send(token, record, kept)).status).toBe(200);
    expect((await send(token, record, kept)).status).toBe(200);
    expect(await recordingsOf(id)).toHaveLength(1);
    const sent = await samples.loader({ params: { trace: token } } as never);
    expect(new Float32Array(await sent.arrayBuffer())).toEqual(kept);
    await post({ intent: "strike", trace: token, struck: "yes" });
    expect((await page()).traces[0]?.struck).toBe(true);
    await post({ intent: "strike", trace: token, struck: "no" });
    await post({ intent: "healthy", trace: token, healthy: "yes", motor: "M1" });
    expect((await page()).traces[0]).toMatchObject({ struck: false, healthy: true, when: "before" });
  });

  test("what does not fit is refused with its place, and nothing is stored", async () => {
    const { record, kept } = recording();
    const before = (await recordingsOf(id)).length;
    const wrong = await send(
      crypto.randomUUID(),
      { ...record, figures: { ...record.figures, verdict: "fine" } },
      kept,
    );
    expect(wrong.status).toBe(422);
    expect(((await wrong.json()) as { problem: string }).problem).toMatch(/figures\.verdict/);
    expect((await send("no-uuid", record, kept)).status).toBe(422);
    expect((await send(crypto.randomUUID(), "{", kept)).status).toBe(422);
    expect((await send(crypto.randomUUID(), { ...record, motor: "M9" }, kept)).status).toBe(422);
    expect((await send(crypto.randomUUID(), record, new Float32Array(400_000))).status).toBe(422);
    expect(await recordingsOf(id)).toHaveLength(before);
    expect((await answer(samples.loader as never, null)).status).toBe(404);
  });
});

describe("instruments", () => {
  const asked = {
    port: "",
    what: "amps",
    red: "M1.+",
    black: "M1.-",
    around: "M1",
    key: "run",
    engine: "no",
    setting: "4",
  };
  const ask = (fields: Record<string, string>): Promise<Response> =>
    instrument.action({
      params: { id: String(id) },
      request: posted({ ...asked, ...fields }),
    } as never);
  const problem = async (response: Promise<Response>) =>
    ((await (await response).json()) as { problem: string }).problem;

  test("without an instrument the page says so; a practice one answers figures and a recording; its reading keeps its source", async () => {
    expect((await ask({})).status).toBe(422);
    await post({ intent: "attach", fault: "M1:tight@1.6" });
    expect((await page()).practice).toBeGreaterThan(1023);
    const { value, source } = (await (await ask({})).json()) as { value: number; source: string };
    expect(value).toBeGreaterThan(10);
    expect(source).toBe("the practice instrument");
    const trace = await ask({ what: "trace", rateHz: "20000", samples: "4000" });
    expect((await trace.arrayBuffer()).byteLength).toBe(16_000);
    await post({
      intent: "reading",
      token: "by-clamp",
      reading: JSON.stringify({ test: "amps", around: "M1", ...setup, amps: value }),
      source,
    });
    expect((await readingsOf(id)).find((reading) => reading.id === "by-clamp")?.source).toBe(source);
    await post({ intent: "detach" });
    expect((await page()).practice).toBeNull();
  });

  test("a port without a listener, an invalid port and an unknown fault are refused in words", async () => {
    expect(await problem(ask({ port: "1" }))).toMatch(/First confirm that your instrument listens on port 1/);
    expect((await ask({ port: "1", what: "confirm" })).status).toBe(200);
    expect(await problem(ask({ port: "1" }))).toMatch(/Nothing is listening on port 1/);
    expect((await ask({ port: "high" })).status).toBe(422);
    expect((await post({ intent: "attach", fault: "Q9:open" })).status).toBe(422);
  });
});

test("a job that is not there is 404", async () => {
  for (const handler of [motor.action, traces.action, instrument.action])
    expect((await answer(handler as never, { intent: "detach" }, "999")).status).toBe(404);
});
