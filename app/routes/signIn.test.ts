// Signing in and out as the page does it.
import { closeDatabase } from "@db/database.server";
import { addPerson, allPeople, makePin } from "@db/people/people.server";
import { lastSignIns } from "@db/repositories/signIns.server";
import { useEmptyDataFolder } from "@db/testing/dataFolder";
import { afterEach, describe, expect, test } from "@jest/globals";
import { RouterContextProvider } from "react-router";
import { type Place, type Visitor, visitorContext } from "../network/visitor.server";
import { visitorAt } from "../people/signedIn.server";
import * as signIn from "./signIn";

useEmptyDataFolder();
afterEach(closeDatabase);

const at = "2026-11-30T08:00:00Z";
const tablet: Place = {
  kind: "device",
  device: { id: "t", name: "bay 2 tablet", pairedAt: at, seenAt: at },
};

/** What the page answers to a form sent from the tablet. */
async function sent(fields: Record<string, string>, cookie = "") {
  const context = new RouterContextProvider();
  context.set(visitorContext, await visitorAt(tablet, cookie, false));
  const request = new Request("https://127.0.0.1/sign-in", {
    method: "POST",
    body: new URLSearchParams(fields),
    headers: { cookie },
  });
  const result = await signIn.action({ request, context, params: {} } as unknown as Parameters<
    typeof signIn.action
  >[0]);
  if (!(result instanceof Response))
    return { status: result.init?.status, problem: result.data.problem, to: null, cookie: "" };
  return {
    status: result.status,
    problem: null,
    to: result.headers.get("location"),
    cookie: result.headers.get("set-cookie")?.split(";")[0] ?? "",
  };
}

/** The names that the page shows to a visitor, or the status it refuses with. */
function shownTo(visitor: Visitor): readonly string[] | number {
  const context = new RouterContextProvider();
  context.set(visitorContext, visitor);
  const request = new Request("https://127.0.0.1/sign-in?to=//elsewhere.test/x");
  try {
    const { people, to } = signIn.loader({ request, context, params: {} } as unknown as Parameters<
      typeof signIn.loader
    >[0]);
    // An address elsewhere is not gone on to.
    expect(to).toBe("/");
    return people.map(({ name }) => name);
  } catch (thrown) {
    return (thrown as { init?: { status?: number } }).init?.status ?? 0;
  }
}

describe("signing in", () => {
  test("takes the right PIN, goes on to the page that was wanted, and stands in the shop's trail", async () => {
    await addPerson("Front desk", "owner", "123456");
    const person = allPeople()[0]?.id ?? "";
    const form = { intent: "in", person, to: "/jobs/4/probe" };
    expect(await sent({ ...form, pin: "654321" })).toMatchObject({
      status: 403,
      problem: "This is not the right PIN.",
    });
    const signedIn = await sent({ ...form, pin: "123456" });
    expect(signedIn).toMatchObject({ status: 302, to: "/jobs/4/probe" });
    expect((await visitorAt(tablet, signedIn.cookie, false)).kind).toBe("signed-in");
    const out = await sent({ intent: "out", to: "/jobs/4/probe" }, signedIn.cookie);
    expect(out).toMatchObject({ status: 302, to: `/sign-in?to=${encodeURIComponent("/jobs/4/probe")}` });
    // The cookie that the browser was told to forget is worth nothing either.
    expect((await visitorAt(tablet, signedIn.cookie, false)).kind).toBe("signed-out");
    expect((await lastSignIns(9)).map(({ who, place, what }) => `${who}, ${place}: ${what}`)).toEqual([
      "Front desk, bay 2 tablet: out",
      "Front desk, bay 2 tablet: in",
      "Front desk, bay 2 tablet: wrong-pin",
    ]);
  });

  test("with a PIN that the command line made puts that into the trail, once", async () => {
    await addPerson("Front desk", "owner", "123456");
    const person = allPeople()[0]?.id ?? "";
    const pin = (await makePin("Front desk", new Date(at))) ?? "";
    for (let i = 0; i < 2; i++)
      expect(await sent({ intent: "in", person, pin, to: "/" })).toMatchObject({ status: 302 });
    expect((await lastSignIns(9)).map((line) => [line.what, line.place, line.at.toISOString()])).toEqual([
      ["in", "bay 2 tablet", expect.any(String)],
      ["in", "bay 2 tablet", expect.any(String)],
      ["new-pin", "the server’s command line", new Date(at).toISOString()],
    ]);
  });

  test.each([
    [{ intent: "in", person: "x", pin: "123456", to: "/" }, 422],
    [{ intent: "in", person: "6f1c0f26-7a0e-4a53-9c3f-0123456789ab", pin: "123456", to: "/" }, 403],
    [{ intent: "all" }, 422],
  ])("refuses %j", async (fields, status) => {
    expect(await sent(fields as Record<string, string>)).toMatchObject({ status, cookie: "" });
  });

  test("shows names to known places only", async () => {
    await addPerson("Front desk", "owner", "123456");
    expect(shownTo({ kind: "stranger" })).toBe(401);
    expect(shownTo({ kind: "signed-out", place: tablet })).toEqual(["Front desk"]);
  });
});
