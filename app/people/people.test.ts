// Who may have which page: the groups of the routes, signing in and out, and what only an owner may do.

import { closeDatabase } from "@db/database.server";
import { addPerson, allPeople } from "@db/people/people.server";
import type { Role } from "@db/people/person";
import { startSession } from "@db/people/sessions.server";
import { lastSignIns } from "@db/repositories/signIns.server";
import { useEmptyDataFolder } from "@db/testing/dataFolder";
import { afterEach, describe, expect, test } from "@jest/globals";
import type { RouteConfigEntry } from "@react-router/dev/routes";
import { RouterContextProvider } from "react-router";
import { madeByHeader, nobody } from "../network/madeBy";
import { type Place, placeId, type Visitor, visitorContext } from "../network/visitor.server";
import routes from "../routes";
import { changePeople } from "./changePeople.server";
import { pinRefusal } from "./pinCheck.server";
import { sessionHeader, sessionToken } from "./sessionCookie.server";
import { ownerOnly, signedInOnly, visitorAt } from "./signedIn.server";

useEmptyDataFolder();
afterEach(closeDatabase);

const shopComputer: Place = { kind: "shop-computer" };
const at = "2026-11-30T08:00:00Z";
const device = (id: string): Place => ({
  kind: "device",
  device: { id, name: `device ${id}`, pairedAt: at, seenAt: at },
});
const tablet = device("t");

/** Adds people of some roles, named after them; their ids by role. */
async function people(...all: Role[]): Promise<Partial<Record<Role, string>>> {
  for (const role of all) expect(await addPerson(`The ${role}`, role, "123456")).toBeNull();
  return Object.fromEntries(allPeople().map(({ id, role }) => [role, id]));
}

/** The cookie that signs somebody in at a place. */
async function cookieFor(person: string, place: Place): Promise<string> {
  const header = await sessionHeader(startSession(person, placeId(place)), place.kind);
  return header.split(";")[0] ?? "";
}

const contextOf = (visitor: Visitor): RouterContextProvider => {
  const context = new RouterContextProvider();
  context.set(visitorContext, visitor);
  return context;
};

/** The status of what a guard throws, and where it sends; 200 if it lets through. */
function outcome(guard: () => void): { status: number; to: string | null } {
  try {
    guard();
    return { status: 200, to: null };
  } catch (thrown) {
    if (thrown instanceof Response) return { status: thrown.status, to: thrown.headers.get("location") };
    return { status: (thrown as { init?: { status?: number } }).init?.status ?? 0, to: null };
  }
}

const asked = (visitor: Visitor, init: RequestInit = {}) =>
  outcome(() => signedInOnly(contextOf(visitor), new Request("http://127.0.0.1/jobs/4/probe?x=1", init)));

describe("the routes", () => {
  const groups = ["routes/forAnybody.tsx", "routes/ownerOnly.tsx", "routes/signedInOnly.tsx"];

  test("each says who may have it, by its group", () => {
    for (const { file, path, children } of routes) {
      expect(groups).toContain(file);
      expect(path).toBeUndefined();
      expect(children?.length).toBeGreaterThan(0);
    }
  });

  test("of the groups ask who is there before any loader or action", async () => {
    const { middleware: forSignedIn } = await import("../routes/signedInOnly");
    const { middleware: forOwners } = await import("../routes/ownerOnly");
    const run = ([first]: readonly unknown[], visitor: Visitor) =>
      outcome(() =>
        (first as (args: object) => void)({
          context: contextOf(visitor),
          request: new Request("http://127.0.0.1/settings"),
        }),
      ).status;
    const technician = { kind: "signed-in", place: shopComputer, person: null } as const;
    expect([run(forSignedIn, { kind: "stranger" }), run(forOwners, { kind: "stranger" })]).toEqual([
      401, 401,
    ]);
    expect([run(forSignedIn, technician), run(forOwners, technician)]).toEqual([200, 200]);
  });

  const paths = (entries: readonly RouteConfigEntry[]): string[] =>
    entries.flatMap(({ path, children }) => [...(path ? [path] : []), ...paths(children ?? [])]);

  test("that show money settings, backups, devices and people are an owner's", () => {
    const owners = paths(routes.find(({ file }) => file === "routes/ownerOnly.tsx")?.children ?? []);
    expect(owners.sort()).toEqual(
      [
        ["settings", "phones", "demo"],
        ["records/keeping", "records/keeping/:file", "records/keeping/in"],
        ["records/in", "records/in/file"],
      ]
        .flat()
        .sort(),
    );
    expect(paths(routes.find(({ file }) => file === "routes/forAnybody.tsx")?.children ?? []).sort()).toEqual(
      ["authority.crt", "pair", "sign-in"],
    );
  });
});

describe("who is there", () => {
  test("on the shop's computer: anybody while nobody is named, then the one person, then whoever signs in", async () => {
    expect(await visitorAt(shopComputer, null, true)).toMatchObject({ kind: "signed-in", person: null });
    const { owner = "" } = await people("owner");
    expect(await visitorAt(shopComputer, null, true)).toMatchObject({ person: { id: owner } });
    // Reached from beyond this computer, a shop of one signs in too.
    expect((await visitorAt(shopComputer, null, false)).kind).toBe("signed-out");
    await people("technician");
    expect((await visitorAt(shopComputer, null, true)).kind).toBe("signed-out");
    expect(await visitorAt(shopComputer, await cookieFor(owner, shopComputer), true)).toMatchObject({
      kind: "signed-in",
      person: { name: "The owner" },
    });
  });

  test("on a device: nobody without signing in, not even in a shop of one", async () => {
    expect((await visitorAt(tablet, null, false)).kind).toBe("signed-out");
    const { owner = "" } = await people("owner");
    expect((await visitorAt(tablet, null, false)).kind).toBe("signed-out");
    const cookie = await cookieFor(owner, tablet);
    expect((await visitorAt(tablet, cookie, false)).kind).toBe("signed-in");
    // Copied to another device it is worth nothing, nor when it was changed.
    expect((await visitorAt(device("u"), cookie, false)).kind).toBe("signed-out");
    expect((await visitorAt(tablet, `${cookie}x`, false)).kind).toBe("signed-out");
  });

  // RFC 6265bis, section 4.1.3: the prefix binds a cookie to encryption and to its host.
  test("is kept in a signed cookie that scripts and other sites cannot use", async () => {
    const onDevice = await sessionHeader("token", "device");
    expect(onDevice).toMatch(/^__Host-airway-session=.*; Path=\/; HttpOnly; Secure; SameSite=Strict$/);
    expect(await sessionHeader("token", "shop-computer")).toMatch(
      /^airway-session=.*; Path=\/; HttpOnly; SameSite=Strict$/,
    );
    const [cookie = ""] = onDevice.split(";");
    expect(await sessionToken(cookie, "device")).toBe("token");
    const forged = `__Host-airway-session=${Buffer.from('"token"').toString("base64")}`;
    expect(await sessionToken(forged, "device")).toBeNull();
  });
});

describe("a page for those who are signed in", () => {
  const signedOut: Visitor = { kind: "signed-out", place: tablet };

  test("sends others to sign in and back, and leaves entries of the queue waiting", () => {
    expect(asked(signedOut)).toEqual({
      status: 302,
      to: `/sign-in?to=${encodeURIComponent("/jobs/4/probe?x=1")}`,
    });
    expect(asked(signedOut, { method: "POST", body: "x" })).toEqual({ status: 302, to: "/sign-in?to=%2F" });
    expect(asked(signedOut, { method: "POST", body: "x", headers: { [madeByHeader]: nobody } }).status).toBe(
      401,
    );
    expect(asked({ kind: "stranger" }).status).toBe(401);
  });

  test("takes an entry under the name it was made with, and no other", async () => {
    const { owner = "", technician = "" } = await people("owner", "technician");
    const visitor = await visitorAt(tablet, await cookieFor(technician, tablet), false);
    const entry = (by: string) => asked(visitor, { method: "POST", headers: { [madeByHeader]: by } }).status;
    expect([entry(technician), entry(owner), entry(nobody)]).toEqual([200, 401, 200]);
  });

  test("an owner's needs an owner, at the shop's own computer", async () => {
    const ids = await people("owner", "technician", "apprentice");
    for (const place of [shopComputer, tablet])
      for (const [role, id] of Object.entries(ids)) {
        const visitor = await visitorAt(place, await cookieFor(id, place), true);
        const allowed = role === "owner" && place === shopComputer;
        expect(outcome(() => ownerOnly(contextOf(visitor))).status).toBe(allowed ? 200 : 403);
      }
    expect(outcome(() => ownerOnly(contextOf({ kind: "stranger" }))).status).toBe(403);
    expect(outcome(() => ownerOnly(new RouterContextProvider())).status).toBe(403);
  });
});

describe("changing the shop's people", () => {
  test("is in the shop's trail, and whoever adds the second person stays signed in", async () => {
    const alone: Visitor = { kind: "signed-in", place: shopComputer, person: null };
    const add = (name: string, role: Role, visitor: Visitor) =>
      changePeople({ intent: "add-person", name, role, pin: "123456" }, visitor);
    expect(await add("Front desk", "owner", alone)).toEqual({ problem: null, sessionHeader: null });
    const owner = await visitorAt(shopComputer, null, true);
    const { sessionHeader: header } = await add("Bay two", "technician", owner);
    expect(await visitorAt(shopComputer, header?.split(";")[0] ?? "", true)).toMatchObject({
      person: { name: "Front desk" },
    });
    expect((await add("bay two", "technician", owner)).problem).toMatch(/^Somebody has that name/);
    const bayTwo = allPeople()[1]?.id ?? "";
    const session = await cookieFor(bayTwo, tablet);
    await changePeople({ intent: "new-pin", person: bayTwo, pin: "9876" }, owner);
    expect((await visitorAt(tablet, session, false)).kind).toBe("signed-out");
    await changePeople({ intent: "remove-person", person: bayTwo }, owner);
    expect((await lastSignIns(9)).map(({ who, what }) => [who, what])).toEqual([
      ["Bay two", "removed"],
      ["Bay two", "new-pin"],
      ["Bay two", "added"],
      ["Front desk", "added"],
    ]);
  });

  test("two hundred wrong PINs lock that device out, and no other", async () => {
    const { technician = "" } = await people("owner", "technician");
    expect(await pinRefusal(technician, "123456", tablet)).toBeNull();
    const thief = device("thief");
    const answers = [];
    for (let made = 0; made < 200; made++) answers.push(await pinRefusal(technician, String(made), thief));
    expect(answers.filter((answer) => answer?.isWrong).length).toBeLessThanOrEqual(4);
    expect(await pinRefusal(technician, "123456", thief)).toMatchObject({ isWrong: false });
    expect(await pinRefusal(technician, "123456", tablet)).toBeNull();
  });
});
