// Pairing as the pages do it: opening, the code, the device that sends it, and what a device in the network may not have.
import { addPerson } from "@db/people/people.server";
import { useEmptyDataFolder } from "@db/testing/dataFolder";
import { afterAll, beforeEach, describe, expect, test } from "@jest/globals";
import { RouterContextProvider } from "react-router";
import { pairedDevices } from "../network/devices.server";
import { makeNetworkDoor, networkDoor } from "../network/networkDoor.server";
import { phonesView } from "../network/phonesView.server";
import { type Place, type Visitor, visitorContext } from "../network/visitor.server";
import { answer, posted } from "../testing/demoShop";
import * as pair from "./pair";
import * as phones from "./phones";

useEmptyDataFolder();
beforeEach(() => {
  makeNetworkDoor({ port: 0, certificate: null, names: [] }, (_request, response) => void response.end());
});
afterAll(() => networkDoor()?.close());

const stranger: Visitor = { kind: "stranger" };
const from = (visitor: Visitor): RouterContextProvider => {
  const context = new RouterContextProvider();
  context.set(visitorContext, visitor);
  return context;
};

/** What the pairing page answers to a form of a visitor. */
async function sent(fields: Record<string, string>, visitor: Visitor = stranger) {
  const result = await pair.action({
    request: posted(fields),
    params: {},
    context: from(visitor),
  } as unknown as Parameters<typeof pair.action>[0]);
  if (result instanceof Response)
    return { status: result.status, cookie: result.headers.get("set-cookie") ?? "", problem: "" };
  return { status: result.init?.status ?? 200, cookie: "", problem: result.data.problem };
}

describe("the page of phones and tablets", () => {
  test("opens the door, makes a code that pairs one device, and removes it again", async () => {
    expect(await phonesView()).toMatchObject({ isOpen: false, code: null, fingerprint: null });
    expect((await answer(phones.action, { intent: "open" })).data.problem).toMatch(/^First add yourself/);
    await addPerson("Front desk", "owner", "123456");
    expect((await answer(phones.action, { intent: "open" })).data.problem).toBeNull();
    await answer(phones.action, { intent: "code" });
    const { code = "" } = (await phonesView()).code ?? {};
    expect(await sent({ code: "1", name: "bay 2 tablet" })).toMatchObject({
      status: 403,
      problem: "This is not the code on the shop’s computer.",
    });
    expect((await sent({ code, name: " " })).problem).toMatch(/^Give this device a name/);
    const paired = await sent({ code, name: "bay 2 tablet" });
    expect(paired.status).toBe(302);
    expect(paired.cookie).toMatch(/^__Host-airway-device=/);
    expect((await sent({ code, name: "another" })).problem).toMatch(/^There is no code/);
    const [device] = pairedDevices();
    expect(device?.name).toBe("bay 2 tablet");
    await answer(phones.action, { intent: "remove", device: device?.id ?? "" });
    expect((await phonesView()).devices).toEqual([]);
    await answer(phones.action, { intent: "close" });
    expect((await phonesView()).isOpen).toBe(false);
  });

  test("closing takes the code back", async () => {
    await addPerson("Front desk", "owner", "123456");
    await answer(phones.action, { intent: "open" });
    await answer(phones.action, { intent: "code" });
    const { code = "" } = (await phonesView()).code ?? {};
    await answer(phones.action, { intent: "close" });
    expect((await sent({ code, name: "late" })).problem).toMatch(/^There is no code/);
    expect(pairedDevices()).toEqual([]);
  });

  test("refuses what it cannot read", async () => {
    expect((await answer(phones.action, { intent: "remove", device: "all" })).status).toBe(422);
  });
});

describe("where a request comes from", () => {
  const device: Place = {
    kind: "device",
    device: {
      id: "d",
      name: "bay 2 tablet",
      pairedAt: "2026-11-30T08:00:00Z",
      seenAt: "2026-11-30T08:00:00Z",
    },
  };

  test("a device that is paired, and the shop's computer, are not paired again", async () => {
    for (const place of [device, { kind: "shop-computer" } as const])
      expect(await sent({ code: "12345678", name: "x" }, { kind: "signed-out", place })).toMatchObject({
        status: 302,
        cookie: "",
      });
  });
});
