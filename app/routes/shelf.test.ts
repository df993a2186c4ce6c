// The circuit shelf against a database of its own: what is found, what an import would change, what it stores, and
// that a refusal changes nothing.
import { database } from "@db/database.server";
import { CircuitRow } from "@db/models/shelfModels.server";
import { describeCircuits, findCircuit, listCircuits, versionsOf } from "@db/repositories/circuits.server";
import { addJob, findJob } from "@db/repositories/jobs.server";
import { addReading } from "@db/repositories/readings.server";
import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { shippedCircuit, shippedIds, shippedJson } from "../../core/testing/shippedCircuit";
import { circuitFrom, previewImport } from "../shelf/importCircuit.server";
import { closeDemoShop, openDemoShop, posted } from "../testing/demoShop";
import * as probe from "./probe";
import * as shelf from "./shelf";
import * as shelfCircuit from "./shelfCircuit";
import * as shelfFile from "./shelfFile";
import * as shelfImport from "./shelfImport";

beforeAll(async () => void (await openDemoShop()));
afterAll(closeDemoShop);

interface Answer {
  readonly text?: string;
  readonly problems?: readonly string[];
  readonly preview?: {
    readonly version: number;
    readonly changes: readonly { what: string; id: string }[] | null;
  };
}

/** What an action answers, and where it redirects. */
async function act(
  action: (args: never) => Promise<unknown>,
  fields: Record<string, string>,
  id = "",
): Promise<Answer & { readonly to?: string | null }> {
  try {
    const token = crypto.randomUUID();
    const taken = await action({ request: posted({ token, ...fields }), params: { id } } as never);
    const own = (taken as { data?: unknown } | undefined)?.data ?? taken;
    // The page for any file answers texts and bundles separately.
    return ((own as { answer?: Answer } | undefined)?.answer ?? own) as Answer;
  } catch (thrown) {
    if (thrown instanceof Response) return { to: thrown.headers.get("location") };
    throw thrown;
  }
}

const find = async (query: string) => {
  const page = await shelf.loader({
    request: new Request(`http://127.0.0.1/shelf?${query}`),
    params: {},
  } as never);
  return page.lines.map(({ shelfId }) => shelfId).sort();
};

const rows = () => CircuitRow.count();
const van = "whimbrel-four-speed";
/** The shipped van with one fuse changed. */
const changed = (amps: number): string => {
  const circuit = shippedCircuit(van);
  return JSON.stringify({
    ...circuit,
    parts: circuit.parts.map((part) => (part.id === "F7" ? { ...part, amps } : part)),
  });
};

describe("the list", () => {
  test("has every shipped circuit, and a search narrows it by words, control, side and speeds", async () => {
    expect(await find("")).toEqual([...shippedIds].sort());
    expect(await find("q=whimbrel+relay")).toContain("whimbrel-high-relay");
    expect(await find("q=RIGHT-hand")).toContain("godwit-four-speed-rhd");
    expect(await find("control=linear&side=feed")).toEqual(["dotterel-linear-high"]);
    expect(await find("speeds=3&control=resistor")).toContain("dunlin-three-speed");
    expect(await find("q=heron")).toEqual([]);
    expect(await find("control=magic&speeds=lots")).toEqual([...shippedIds].sort());
  });

  test("shows twins under their other names", async () => {
    const page = await shelf.loader({ request: new Request("http://127.0.0.1/shelf"), params: {} } as never);
    const twin = page.lines.find(({ shelfId }) => shelfId === "godwit-four-speed-rhd");
    expect(twin?.twins).toMatchObject([{ shelfId: "godwit-four-speed-feed" }]);
  });

  test("computes the search text of circuits stored before there was a search", async () => {
    await CircuitRow.update({ about: "" }, { where: { id: van } });
    expect((await listCircuits()).find(({ shelfId }) => shelfId === van)?.about).toBeNull();
    await describeCircuits(await database());
    expect((await listCircuits()).find(({ shelfId }) => shelfId === van)?.about?.family.speeds).toBe(4);
  });
});

describe("bringing a circuit in", () => {
  test("shows what would change, stores the next version, and leaves jobs on theirs until they are moved", async () => {
    const before = await rows();
    const preview = await act(shelfCircuit.action, { intent: "preview", text: changed(25) }, van);
    expect(preview.preview).toMatchObject({ version: 2, changes: [{ what: "changed", id: "F7" }] });
    expect(await rows()).toBe(before);

    const job = 6;
    expect((await findJob(job))?.circuitId).toBe(van);
    const stored = await act(shelfCircuit.action, { intent: "store", text: changed(25) }, van);
    expect(stored.to).toBe(`/shelf/${van}`);
    expect((await versionsOf(van)).map(({ version }) => version)).toEqual([2, 1]);
    expect((await findJob(job))?.circuitId).toBe(van);
    const first = await findCircuit(van);
    expect(first?.parts.find(({ id }) => id === "F7")).toMatchObject({ amps: 30 });

    // The same file again makes no version.
    await act(shelfCircuit.action, { intent: "store", text: changed(25) }, van);
    expect((await versionsOf(van)).length).toBe(2);

    const moved = await act(shelfCircuit.action, { intent: "move", job: String(job) }, van);
    expect(moved.to).toBe(`/jobs/${job}/probe`);
    expect((await findJob(job))?.circuitId).toBe(`${van}@2`);
    const page = await probe.loader({
      params: { id: String(job) },
      request: new Request("http://localhost/"),
    } as never);
    expect(page.suspects.length).toBeGreaterThan(1);
    // A job on another circuit is not moved from here.
    const other = await act(shelfCircuit.action, { intent: "move", job: "4" }, van);
    expect(other.problems?.join()).toMatch(/not on this circuit/);
    expect((await findJob(4))?.circuitId).not.toContain(van);
  });

  test("shows how a job's belief would change, and does not move it if a reading's point is gone", async () => {
    const weighed = async (job: number) =>
      (await shelfCircuit.loader({ params: { id: "siskin-five-speed" } } as never)).jobs.find(
        ({ id }) => id === job,
      )?.move;
    const store = await database();
    const job = await store.write((transaction) =>
      addJob({ formToken: "five", vehicleId: 1, circuitId: "siskin-five-speed", words: "" }, transaction),
    );
    const circuit = shippedCircuit("siskin-five-speed");
    const plug = circuit.connectors.find(({ pins }) =>
      Object.values(pins).some((end) => end.startsWith("M")),
    );
    const pin = `${plug?.id}:${Object.keys(plug?.pins ?? {})[0]}`;
    await addReading({
      id: crypto.randomUUID(),
      jobId: job,
      takenAt: new Date(),
      reading: { test: "light", probe: pin, clip: "G1.-", key: "run", setting: "5", seen: "bright" },
    });
    expect(await weighed(job)).toBeNull();
    const longer = {
      ...circuit,
      wires: circuit.wires.map((wire) => ({ ...wire, metres: wire.metres + 0.5 })),
    };
    await act(shelfCircuit.action, { intent: "store", text: JSON.stringify(longer) }, circuit.id);
    expect(await weighed(job)).toMatchObject({
      before: expect.stringMatching(/%/),
      after: expect.stringMatching(/%/),
    });

    const without = {
      ...circuit,
      connectors: circuit.connectors.filter(({ id }) => id !== plug?.id),
      places: circuit.places.map((place) => ({
        ...place,
        parts: place.parts.filter((id) => id !== plug?.id),
      })),
    };
    const gone = await act(
      shelfCircuit.action,
      { intent: "store", text: JSON.stringify(without) },
      circuit.id,
    );
    expect(gone).toEqual({ to: `/shelf/${circuit.id}` });
    expect(await weighed(job)).toMatchObject({ problems: [expect.stringContaining(pin)] });
    const refused = await act(shelfCircuit.action, { intent: "move", job: String(job) }, circuit.id);
    expect(refused.problems?.join()).toContain(pin);
    expect((await findJob(job))?.circuitId).toBe("siskin-five-speed");
  });

  test("a new circuit is added to the shelf, with its twins named", async () => {
    const text = JSON.stringify({
      ...shippedCircuit("siskin-five-speed"),
      id: "copy-of-five",
      title: "A copy",
    });
    const { preview } = await act(shelfImport.action, { intent: "preview", text });
    expect(preview).toMatchObject({ changes: null, twins: [{ shelfId: "siskin-five-speed" }] });
    expect((await act(shelfImport.action, { intent: "store", text })).to).toBe("/shelf/copy-of-five");
    expect(await find("q=copy-of-five")).toEqual(["copy-of-five"]);
  });

  test("a wire list changes the wires of its own circuit", async () => {
    const file = await shelfFile.loader({
      params: { id: "dunlin-three-speed", kind: "csv" },
      request: new Request("http://127.0.0.1/x"),
    } as never);
    const list = await file.text();
    expect(list.split("\r\n")[0]).toBe("wire,from,to,colour,mm2,metres,fromOhms,toOhms,colourName");
    const same = await act(shelfCircuit.action, { intent: "preview", text: list }, "dunlin-three-speed");
    expect(same.preview?.changes).toEqual([]);
    const longer = list.replace(/^(W1,.*,)([\d.]+)(,[^,]*,[^,]*,[^,]*)$/m, "$19.5$3");
    const preview = await act(shelfCircuit.action, { intent: "preview", text: longer }, "dunlin-three-speed");
    expect(preview.preview?.changes).toMatchObject([{ what: "changed", id: "W1" }]);
  });

  test.each<[string, string, RegExp]>([
    ["no JSON", '{"format": "airway-circuit",', /not valid JSON/],
    ["a wire to nowhere", changed(25).replace('"from":"G1.+"', '"from":"Q9.in"'), /wires\.0\.from: .*Q9/],
    ["another format", '{"format":"airway-plan"}', /format/],
    ["plain words", "four speeds, pack on the ground side", /Expected an airway-circuit file/],
    ["a file of another circuit", changed(25), /import it on the shelf page/],
  ])("%s is refused in words, and nothing is stored", async (what, text, said) => {
    const before = await rows();
    const answer =
      what === "a file of another circuit"
        ? await act(shelfCircuit.action, { intent: "store", text }, "siskin-five-speed")
        : await act(shelfImport.action, { intent: "store", text });
    expect(answer.problems?.join(" ")).toMatch(said);
    expect(await rows()).toBe(before);
  });

  test("an unknown address is 404", async () => {
    for (const loader of [shelfCircuit.loader, shelfFile.loader])
      await expect(
        (loader as (args: never) => Promise<unknown>)({
          params: { id: "heron", kind: "json" },
          request: new Request("http://127.0.0.1/x"),
        } as never),
      ).rejects.toMatchObject({ init: { status: 404 } });
  });
});

describe("notes for the next person", () => {
  test("belong to the circuit in every version, and can be deleted", async () => {
    const id = crypto.randomUUID();
    const note = { intent: "note", id, words: "The rear screw is behind the carpet" };
    for (let i = 0; i < 2; i++) await act(shelfCircuit.action, note, van);
    const shown = async () =>
      (await shelfCircuit.loader({ params: { id: van } } as never)).notes.map(({ words, struck }) => ({
        words,
        struck,
      }));
    expect(await shown()).toEqual([{ words: note.words, struck: false }]);
    await act(shelfCircuit.action, { intent: "strike", id, struck: "yes" }, van);
    expect(await shown()).toEqual([{ words: note.words, struck: true }]);
  });
});

/** A random source with the same sequence each time (mulberry32). */
function choices(seed: number): () => number {
  let state = seed;
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    let mixed = Math.imul(state ^ (state >>> 15), 1 | state);
    mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed;
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4294967296;
  };
}

const odd: readonly unknown[] = [
  null,
  "",
  0,
  -1,
  Number.MAX_VALUE,
  "W1",
  [],
  {},
  true,
  "__proto__",
  1e-300,
  "x".repeat(5000),
  12.6,
];

/** A circuit's file with one to three things anywhere in it changed, removed or duplicated. */
function mutated(source: Record<string, unknown>, next: () => number): unknown {
  const copy = structuredClone(source);
  for (let times = 1 + Math.floor(3 * next()); times > 0; times--) {
    let at: Record<string, unknown> = copy;
    for (let depth = 0; depth < 6; depth++) {
      const keys = Object.keys(at);
      const key = keys[Math.floor(next() * keys.length)];
      if (key === undefined) break;
      const value = at[key];
      const deeper = typeof value === "object" && value !== null && next() < 0.8;
      if (deeper) {
        at = value as Record<string, unknown>;
        continue;
      }
      const roll = next();
      if (roll < 0.2) Reflect.deleteProperty(at, key);
      else if (roll < 0.35 && Array.isArray(at)) at.push(structuredClone(value));
      else if (roll < 0.5 && typeof value === "number") at[key] = value * (next() < 0.5 ? 1000 : 0.001);
      else if (roll < 0.65)
        at[key] = structuredClone(source[Object.keys(source)[Math.floor(next() * 9)] ?? ""]);
      else at[key] = odd[Math.floor(next() * odd.length)];
      break;
    }
  }
  return copy;
}

test("5 000 mutated imports: each is accepted or refused with its place, and refusals change nothing", async () => {
  const next = choices(5);
  const before = await rows();
  let taken = 0;
  let named = 0;
  for (let i = 0; i < 5000; i++) {
    const source = shippedJson(shippedIds[i % shippedIds.length] ?? van);
    const read = circuitFrom(JSON.stringify(mutated(source, next)), null);
    if ("problems" in read) {
      expect(read.problems.length).toBeGreaterThan(0);
      if (read.problems.every((problem) => /^[a-zA-Z]+(\.[\w:.-]+)*: ./.test(problem))) named += 1;
      continue;
    }
    taken += 1;
    // Every tenth of the accepted ones is previewed completely.
    if (taken % 10 !== 0) continue;
    const preview = await previewImport(read.value);
    if ("problems" in preview) expect(preview.problems.length).toBeGreaterThan(0);
  }
  expect(taken).toBeGreaterThan(200);
  expect(taken + named).toBe(5000);
  expect(await rows()).toBe(before);
  expect(await find("q=whimbrel")).toHaveLength(3);
});
