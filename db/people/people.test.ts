// Who works in the shop, their PINs and their sessions, all in files of the private folder.
import { readFileSync, statSync } from "node:fs";
import { join } from "node:path";
import { describe, expect, test } from "@jest/globals";
import { useEmptyDataFolder } from "../testing/dataFolder";
import {
  addPerson,
  allPeople,
  checkPin,
  makePin,
  personWith,
  removePerson,
  setPin,
  takePinMadeAt,
} from "./people.server";
import { privateFolder, writePrivate } from "./privateFile.server";
import { desk, endSession, endSessionsOf, idleHours, signedInWith, startSession } from "./sessions.server";

useEmptyDataFolder();

const minutes = (n: number): Date => new Date(Date.UTC(2026, 0, 5, 8, n));

/** An owner and an apprentice; their ids. */
async function twoPeople(): Promise<{ owner: string; apprentice: string }> {
  expect(await addPerson("Front desk", "owner", "123456")).toBeNull();
  expect(await addPerson("Bay two", "apprentice", "1234")).toBeNull();
  const [owner, apprentice] = allPeople();
  return { owner: owner?.id ?? "", apprentice: apprentice?.id ?? "" };
}

describe("the people of the shop", () => {
  test("are named once each, and the first is an owner", async () => {
    expect(await addPerson("Bay two", "technician", "1234")).toBe("first-is-owner");
    await twoPeople();
    expect(await addPerson("BAY TWO", "technician", "5678")).toBe("name-taken");
    expect(allPeople().map(({ name, role }) => [name, role])).toEqual([
      ["Front desk", "owner"],
      ["Bay two", "apprentice"],
    ]);
  });

  test("have PINs long enough for what they open", async () => {
    expect(await addPerson("Front desk", "owner", "12345")).toBe("pin-short");
    const { apprentice } = await twoPeople();
    expect(await setPin(apprentice, "123")).toBe("pin-short");
    expect(await setPin("6f1c0f26-7a0e-4a53-9c3f-0123456789ab", "1234")).toBe("no-such-person");
  });

  test("are known by their PIN, which is nowhere to be read", async () => {
    const { owner, apprentice } = await twoPeople();
    expect(await checkPin(owner, "123456")).toBe(true);
    expect(await checkPin(owner, "1234")).toBe(false);
    expect(await checkPin(apprentice, "123456")).toBe(false);
    expect(await checkPin("nobody", "")).toBe(false);
    await setPin(apprentice, "9876");
    expect(await checkPin(apprentice, "1234")).toBe(false);
    expect(await checkPin(apprentice, "9876")).toBe(true);
    const file = join(privateFolder(), "people.json");
    expect(readFileSync(file, "utf8")).not.toMatch(/123456|9876/);
    expect(statSync(file).mode & 0o777).toBe(0o600);
  });

  test("who forgot their PIN get one made at random", async () => {
    const { owner } = await twoPeople();
    const at = new Date("2026-12-01T08:00:00Z");
    expect(await makePin("nobody", at)).toBeNull();
    const pin = await makePin("front DESK", at);
    expect(pin).toMatch(/^\d{8}$/);
    expect(await checkPin(owner, pin ?? "")).toBe(true);
    expect(await checkPin(owner, "123456")).toBe(false);
    expect(takePinMadeAt(owner)).toEqual(at);
    expect(takePinMadeAt(owner)).toBeNull();
    await makePin("front desk", at);
    await setPin(owner, "654321");
    expect(takePinMadeAt(owner)).toBeNull();
  });

  test("who are added again under their name are who they were, so that what waits under it can be stored", async () => {
    const { apprentice } = await twoPeople();
    const name = personWith(apprentice)?.name ?? "";
    removePerson(apprentice);
    await addPerson("Somebody new", "technician", "1234");
    await addPerson(name.toUpperCase(), "apprentice", "1234");
    expect(allPeople().map(({ id }) => id === apprentice)).toEqual([false, false, true]);
    removePerson(apprentice);
    await addPerson(name, "apprentice", "1234");
    expect(personWith(apprentice)?.name).toBe(name);
  });

  test("keep an owner as long as anybody else is there", async () => {
    const { owner, apprentice } = await twoPeople();
    expect(removePerson(owner)).toBe("last-owner");
    expect(removePerson(apprentice)).toBeNull();
    expect(removePerson(owner)).toBeNull();
    expect(allPeople()).toEqual([]);
  });
});

describe("a session", () => {
  test("holds on its own device, for its own token, until it is ended", async () => {
    const { apprentice } = await twoPeople();
    const token = startSession(apprentice, "tablet", minutes(0));
    expect(signedInWith(token, "tablet", minutes(1))).toEqual(personWith(apprentice));
    expect(signedInWith(token, "another", minutes(1))).toBeNull();
    expect(signedInWith(`${token}x`, "tablet", minutes(1))).toBeNull();
    endSession(token, minutes(2));
    expect(signedInWith(token, "tablet", minutes(2))).toBeNull();
  });

  test("ends four hours after its last use", async () => {
    const { apprentice } = await twoPeople();
    const token = startSession(apprentice, "tablet", minutes(0));
    const idle = idleHours * 60;
    expect(signedInWith(token, "tablet", minutes(idle - 1))).not.toBeNull();
    expect(signedInWith(token, "tablet", minutes(2 * idle - 2))).not.toBeNull();
    expect(signedInWith(token, "tablet", minutes(3 * idle - 2))).toBeNull();
  });

  test("ends when somebody else signs in on the same device, but the shop's computer has several browsers", async () => {
    const { owner, apprentice } = await twoPeople();
    const [first, second] = [startSession(apprentice, "tablet"), startSession(owner, "tablet")];
    expect(signedInWith(first, "tablet")).toBeNull();
    expect(signedInWith(second, "tablet")?.name).toBe("Front desk");
    const [one, other] = [startSession(apprentice, desk), startSession(owner, desk)];
    expect([one, other].map((token) => signedInWith(token, desk)?.name)).toEqual(["Bay two", "Front desk"]);
  });

  test("of a damaged file is over: everybody signs in again", async () => {
    const { apprentice } = await twoPeople();
    const token = startSession(apprentice, "tablet");
    writePrivate("sessions.json", '[{"tokenHash": "');
    expect(signedInWith(token, "tablet")).toBeNull();
    expect(signedInWith(startSession(apprentice, "tablet"), "tablet")).not.toBeNull();
  });

  test("ends with the person, and wherever somebody is signed out", async () => {
    const { owner, apprentice } = await twoPeople();
    const [first, second] = [startSession(apprentice, "tablet"), startSession(apprentice, "phone")];
    const own = startSession(owner, desk);
    endSessionsOf(apprentice);
    expect([signedInWith(first, "tablet"), signedInWith(second, "phone")]).toEqual([null, null]);
    expect(signedInWith(own, desk)).not.toBeNull();
    const third = startSession(apprentice, "phone");
    removePerson(apprentice);
    expect(signedInWith(third, "phone")).toBeNull();
  });
});
