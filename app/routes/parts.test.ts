// The comparison of parts, against a database of its own.

import { matchesOf } from "@db/repositories/parts.server";
import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { answer, closeDemoShop, openDemoShop } from "../testing/demoShop";
import * as parts from "./parts";

let id = 0;
beforeAll(async () => {
  id = await openDemoShop();
});
afterAll(closeDemoShop);

const get = (job: string, query = "") =>
  ({ params: { id: job }, request: new Request(`http://x/y?${query}`) }) as never;

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
