// npm run bench:doors: every route of a running server, from outside, as somebody who may not have it. Each request must
// be refused, and nothing in the database may have changed afterwards. Then 200 wrong PINs from one device.
import { createHash } from "node:crypto";
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { request as httpRequest } from "node:http";
import { request as httpsRequest } from "node:https";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { databaseFile } from "@db/databaseFile.server";
import { PlainSqlite } from "@db/keeping/plainSqlite.server";
import { idleHours } from "@db/people/sessions.server";
import type { RouteConfigEntry } from "@react-router/dev/routes";
import routes from "../app/routes";
import { ShopServer } from "./load/shopServer";

const port = 4388;
const networkPort = 4389;
process.env.AIRWAY_NETWORK_PORT = String(networkPort);
const folder = mkdtempSync(join(tmpdir(), "airway-doors-"));
const networkOrigin = `https://127.0.0.1:${networkPort}`;
const shopOrigin = `http://127.0.0.1:${port}`;

/** Who may have a route, by the file of its group. */
const groups = ["forAnybody", "signedInOnly", "ownerOnly"] as const;
type Group = (typeof groups)[number];

/** The addresses of the routes, with what varies filled in. */
function addressesOf(entries: readonly RouteConfigEntry[], parent = ""): string[] {
  return entries.flatMap(({ path, children, index }) => {
    const own = path ? `${parent}/${path.replace(/:\w+\??/g, "4").replace("*", "nowhere")}` : parent;
    return [...(path || index ? [own || "/"] : []), ...addressesOf(children ?? [], own)];
  });
}
const addresses = (group: Group): string[] => {
  const own = routes.find(({ file }) => file.endsWith(`${group}.tsx`));
  return [...new Set(addressesOf(own?.children ?? []))];
};
/** The streams of a job's changes are no pages of the application: the server answers them itself. */
const streams = ["/jobs/4/live", "/no-diagram/4/live"];
const byGroup: Readonly<Record<Group, readonly string[]>> = {
  forAnybody: addresses("forAnybody"),
  signedInOnly: [...addresses("signedInOnly"), ...streams],
  ownerOnly: addresses("ownerOnly"),
};

interface Asked {
  readonly method: "GET" | "POST";
  readonly path: string;
  readonly encrypted: boolean;
  readonly headers: Readonly<Record<string, string>>;
  readonly fields?: Readonly<Record<string, string>>;
}

/** The status of an answer, and the cookie it gives. */
function ask(asked: Asked): Promise<{ status: number; cookie: string }> {
  const { method, path, encrypted, headers, fields = { intent: "delete", name: "x" } } = asked;
  const body = method === "POST" ? new URLSearchParams(fields).toString() : "";
  const options = {
    host: "127.0.0.1",
    port: encrypted ? networkPort : port,
    path,
    method,
    agent: false as const,
    headers: {
      accept: "text/html",
      ...(body
        ? { "content-type": "application/x-www-form-urlencoded", "content-length": String(body.length) }
        : {}),
      ...headers,
    },
  };
  return new Promise((resolve, reject) => {
    const sent = encrypted
      ? httpsRequest({
          ...options,
          ca: readFileSync(join(folder, "network", "authority.crt")),
          servername: "localhost",
        })
      : httpRequest(options);
    sent.once("response", (response) => {
      // A stream that is let through never ends.
      if (response.headers["content-type"]?.startsWith("text/event-stream")) sent.destroy();
      response.resume();
      const cookie = response.headers["set-cookie"]?.[0]?.split(";")[0] ?? "";
      response.once("close", () => resolve({ status: response.statusCode ?? 0, cookie }));
    });
    sent.once("error", reject);
    sent.end(body);
  });
}

/** A digest of all rows, except what the board works out again by itself. */
const contents = (): Promise<string> =>
  PlainSqlite.use(databaseFile(folder), async (own) => {
    const hash = createHash("sha256");
    const tables = await own.all("SELECT name FROM sqlite_master WHERE type = 'table' ORDER BY name");
    for (const { name } of tables)
      if (name !== "jobLines")
        hash.update(JSON.stringify([name, await own.all(`SELECT * FROM "${String(name)}"`)]));
    return hash.digest("hex");
  });

const shop = new ShopServer(folder, port);
await shop.start();
const atDesk = { encrypted: false, headers: { origin: shopOrigin } };
const onNetwork = { encrypted: true, headers: { origin: networkOrigin } };

/** Posts a form and resolves with the cookie of the answer. */
const cookieFor = async (from: typeof atDesk, path: string, fields: Readonly<Record<string, string>>) =>
  (await ask({ method: "POST", path, ...from, fields })).cookie;

const pins = { owner: "owner 1", technician: "2222", apprentice: "3333" };
const people = (): { id: string; name: string }[] =>
  JSON.parse(readFileSync(join(folder, "network", "people.json"), "utf8")) as { id: string; name: string }[];
const idOf = (name: string): string => people().find((own) => own.name === name)?.id ?? "";

let ownerCookie = "";
for (const [role, pin] of Object.entries(pins)) {
  const headers = { ...atDesk.headers, cookie: ownerCookie };
  const fields = { intent: "add-person", name: role, role, pin };
  ownerCookie = (await cookieFor({ ...atDesk, headers }, "/phones", fields)) || ownerCookie;
}
const asOwner = { encrypted: false, headers: { origin: shopOrigin, cookie: ownerCookie } };
await ask({ method: "POST", path: "/phones", ...asOwner, fields: { intent: "open" } });

/** Pairs a device; resolves with its cookie. */
async function pairedCookie(name: string): Promise<string> {
  await ask({ method: "POST", path: "/phones", ...asOwner, fields: { intent: "code" } });
  const page = await (await fetch(shop.address("/phones"), { headers: { cookie: ownerCookie } })).text();
  const code = /data-pairing-code="(\d{8})"/.exec(page)?.[1] ?? "";
  return cookieFor(onNetwork, "/pair", { code, name });
}

/** Signs somebody in; resolves with all cookies of that browser. */
async function signedIn(name: keyof typeof pins, device: string | null): Promise<string> {
  const from = device === null ? atDesk : { ...onNetwork, headers: { ...onNetwork.headers, cookie: device } };
  const session = await cookieFor(from, "/sign-in", {
    intent: "in",
    person: idOf(name),
    pin: pins[name],
    to: "/",
  });
  return device === null ? session : `${device}; ${session}`;
}

const device = await pairedCookie("a device");
const other = await pairedCookie("another device");
const expiring = await pairedCookie("a device nobody used for long");
const removed = await pairedCookie("a removed device");
const devices = JSON.parse(readFileSync(join(folder, "network", "devices.json"), "utf8")) as {
  id: string;
  name: string;
}[];
const gone = devices.find(({ name }) => name === "a removed device");
await ask({
  method: "POST",
  path: "/phones",
  ...asOwner,
  fields: { intent: "remove", device: gone?.id ?? "" },
});
const technician = await signedIn("technician", device);
const apprentice = await signedIn("apprentice", other);
const expired = await signedIn("technician", expiring);
const deskTechnician = await signedIn("technician", null);

/** Dates the last use of a session back, as if nobody had used it since. */
function expire(): void {
  const file = join(folder, "network", "sessions.json");
  const place = devices.find(({ name }) => name === "a device nobody used for long")?.id;
  const all = JSON.parse(readFileSync(file, "utf8")) as { place: string; usedAt: string }[];
  const usedAt = new Date(Date.now() - (idleHours * 60 + 1) * 60_000).toISOString();
  writeFileSync(file, JSON.stringify(all.map((own) => (own.place === place ? { ...own, usedAt } : own))));
}
expire();

interface Visitor {
  readonly name: string;
  readonly encrypted: boolean;
  readonly headers: Readonly<Record<string, string>>;
  readonly methods: readonly Asked["method"][];
  readonly refusals: readonly number[];
  /** What this visitor may not have. */
  readonly groups: readonly Group[];
}
const both = ["GET", "POST"] as const;
const closed: readonly Group[] = ["signedInOnly", "ownerOnly"];
const network = (name: string, cookie: string, refusals: readonly number[], own = closed): Visitor => ({
  name,
  encrypted: true,
  methods: both,
  refusals,
  groups: own,
  headers: { origin: networkOrigin, ...(cookie ? { cookie } : {}) },
});
const desk = (name: string, cookie: string, refusals: readonly number[], own = closed): Visitor => ({
  ...network(name, cookie, refusals, own),
  encrypted: false,
  headers: { origin: shopOrigin, ...(cookie ? { cookie } : {}) },
});
const toPairing = [303, 401];
/** To the page that asks who is there: a redirect, for data as an answer of 202 that says so. */
const toSignIn = [302, 202, 401];
const sessionOf = (cookies: string): string => cookies.split("; ")[1] ?? "";
const visitors: readonly Visitor[] = [
  network("nobody, from the network", "", toPairing),
  network("a forged device", `${device}x`, toPairing),
  network("a removed device", removed, toPairing),
  network("a device nobody is signed in on", device, toSignIn),
  network("a forged session", `${technician}x`, toSignIn),
  network("a session of another device", `${other}; ${sessionOf(technician)}`, toSignIn),
  network("an expired session", expired, toSignIn),
  network("a technician's device, where only an owner may go", technician, [403], ["ownerOnly"]),
  network("an apprentice's device, where only an owner may go", apprentice, [403], ["ownerOnly"]),
  desk("the shop's computer, nobody signed in", "", toSignIn),
  desk("the shop's computer, a forged session", `${deskTechnician}x`, toSignIn),
  desk(
    "a technician at the shop's computer, where only an owner may go",
    deskTechnician,
    [403],
    ["ownerOnly"],
  ),
  ...[true, false].flatMap((encrypted): Visitor[] => {
    const door = encrypted ? "the network's door" : "the shop computer's door";
    const headers: Record<string, string> = { cookie: encrypted ? technician : ownerCookie };
    const from = { encrypted, groups };
    return [
      {
        ...from,
        name: `a foreign host name, at ${door}`,
        methods: both,
        refusals: [421],
        headers: { ...headers, host: "rebound.test" },
      },
      {
        ...from,
        name: `a foreign page's form, at ${door}`,
        methods: ["POST"],
        refusals: [403],
        headers: { ...headers, origin: "https://elsewhere.test" },
      },
      { ...from, name: `a form of no page, at ${door}`, methods: ["POST"], refusals: [403], headers },
    ];
  }),
];

// What the board works out after the start settles first.
await new Promise((resolve) => setTimeout(resolve, 5000));
const before = await contents();
let wrong = 0;
for (const { name, encrypted, headers, methods, refusals, groups: own } of visitors) {
  const answers = new Map<number, number>();
  for (const path of own.flatMap((group) => byGroup[group])) {
    const data = streams.includes(path) ? [] : [path === "/" ? "/_root.data" : `${path}.data`];
    for (const address of [path, ...data])
      for (const method of methods) {
        const { status } = await ask({ method, path: address, encrypted, headers });
        answers.set(status, (answers.get(status) ?? 0) + 1);
        if (!refusals.includes(status)) {
          wrong += 1;
          process.stdout.write(`  NOT refused: ${method} ${address}: ${status}\n`);
        }
      }
  }
  const told = [...answers].map(([status, count]) => `${count} times ${status}`).join(", ");
  process.stdout.write(`${name}: ${told}\n`);
}
const changed = (await contents()) !== before;
const count = Object.values(byGroup).flat().length;
process.stdout.write(
  `${count} routes; ${wrong === 0 ? "everything was refused" : `${wrong} requests were not refused`}; the database is ${changed ? "CHANGED" : "unchanged"}.\n`,
);

/** Guesses somebody's PIN on a device; resolves with the status. */
const guess = async (cookies: string, pin: string): Promise<number> =>
  (
    await ask({
      method: "POST",
      path: "/sign-in",
      encrypted: true,
      headers: { origin: networkOrigin, cookie: cookies },
      fields: { intent: "in", person: idOf("technician"), pin, to: "/" },
    })
  ).status;
const guesses = [];
for (let made = 0; made < 200; made++) guesses.push(await guess(expiring, `wrong ${made}`));
const looked = guesses.filter((status) => status === 403).length;
const lockedOut = (await guess(expiring, pins.technician)) === 429;
const othersPass = (await guess(device, pins.technician)) === 302;
process.stdout.write(
  `200 wrong PINs from one device: ${looked} were looked at; then the right one is ${lockedOut ? "refused" : "TAKEN"} there, and ${othersPass ? "taken" : "REFUSED"} on another device.\n`,
);
await shop.stop();
rmSync(folder, { recursive: true, force: true });
process.exitCode = wrong === 0 && !changed && lockedOut && othersPass && looked < 12 ? 0 : 1;
