// npm run bench:doors: every route of a running server, from outside, as somebody who may not have it. Each request must
// be refused, and nothing in the database may have changed afterwards.
import { createHash } from "node:crypto";
import { mkdtempSync, readFileSync, rmSync } from "node:fs";
import { request as httpRequest } from "node:http";
import { request as httpsRequest } from "node:https";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { databaseFile } from "@db/databaseFile.server";
import { PlainSqlite } from "@db/keeping/plainSqlite.server";
import type { RouteConfigEntry } from "@react-router/dev/routes";
import routes from "../app/routes";
import { ShopServer } from "./load/shopServer";

const port = 4388;
const networkPort = 4389;
process.env.AIRWAY_NETWORK_PORT = String(networkPort);
const folder = mkdtempSync(join(tmpdir(), "airway-doors-"));

/** The addresses of the routes, with what varies filled in, and whether only the shop's own computer may have them. */
function routesOf(entries: readonly RouteConfigEntry[], parent = "", office = false): [string, boolean][] {
  return entries.flatMap(({ path, children, index, file }): [string, boolean][] => {
    const own = path ? `${parent}/${path.replace(/:\w+\??/g, "4").replace("*", "nowhere")}` : parent;
    const inside = office || file.endsWith("shopComputer.tsx");
    return [
      ...(path || index ? ([[own || "/", inside]] as [string, boolean][]) : []),
      ...routesOf(children ?? [], own, inside),
    ];
  });
}
const all = new Map(routesOf(routes));
const openPaths = new Set(["/pair", "/authority.crt"]);

interface Asked {
  readonly method: "GET" | "POST";
  readonly path: string;
  readonly encrypted: boolean;
  readonly headers: Readonly<Record<string, string>>;
}

/** The status of an answer. */
function ask({ method, path, encrypted, headers }: Asked): Promise<number> {
  const body = method === "POST" ? "intent=delete&name=x" : "";
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
      response.resume();
      response.once("end", () => resolve(response.statusCode ?? 0));
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
const own = { encrypted: true, origin: `https://127.0.0.1:${networkPort}` };
await shop.post("/phones", new URLSearchParams({ intent: "open" }));

/** Pairs a device; resolves with its cookie. */
async function pairedCookie(name: string): Promise<string> {
  await shop.post("/phones", new URLSearchParams({ intent: "code" }));
  const page = await (await fetch(shop.address("/phones"))).text();
  const code = /data-pairing-code="(\d{8})"/.exec(page)?.[1] ?? "";
  const body = new URLSearchParams({ code, name }).toString();
  return new Promise((resolve, reject) => {
    const sent = httpsRequest({
      host: "127.0.0.1",
      port: networkPort,
      path: "/pair",
      method: "POST",
      ca: readFileSync(join(folder, "network", "authority.crt")),
      headers: {
        origin: own.origin,
        "content-type": "application/x-www-form-urlencoded",
        "content-length": String(body.length),
      },
    });
    sent.once("response", (response) => {
      response.resume();
      resolve(response.headers["set-cookie"]?.[0]?.split(";")[0] ?? "");
    });
    sent.once("error", reject);
    sent.end(body);
  });
}

const device = await pairedCookie("a device");
const removed = await pairedCookie("a removed device");
const list = readFileSync(join(folder, "network", "devices.json"), "utf8");
const gone = (JSON.parse(list) as { id: string; name: string }[]).find(
  ({ name }) => name === "a removed device",
);
await shop.post("/phones", new URLSearchParams({ intent: "remove", device: gone?.id ?? "" }));

interface Visitor {
  readonly name: string;
  readonly encrypted: boolean;
  readonly headers: Readonly<Record<string, string>>;
  readonly methods: readonly Asked["method"][];
  readonly refusals: readonly number[];
  readonly only?: "shop-computer";
  readonly mayHave?: ReadonlySet<string>;
}
const both = ["GET", "POST"] as const;
const strangers = { encrypted: true, methods: both, refusals: [303, 401], mayHave: openPaths };
const visitors: readonly Visitor[] = [
  { name: "nobody, from the network", ...strangers, headers: { origin: own.origin } },
  { name: "a forged cookie", ...strangers, headers: { origin: own.origin, cookie: `${device}x` } },
  { name: "a removed device", ...strangers, headers: { origin: own.origin, cookie: removed } },
  {
    name: "a device, where only the shop's computer may go",
    encrypted: true,
    methods: both,
    refusals: [403],
    only: "shop-computer",
    headers: { origin: own.origin, cookie: device },
  },
  ...[true, false].flatMap((encrypted): Visitor[] => {
    const door = encrypted ? "the network's door" : "the shop computer's door";
    const headers: Record<string, string> = encrypted ? { cookie: device } : {};
    return [
      {
        name: `a foreign host name, at ${door}`,
        encrypted,
        methods: both,
        refusals: [421],
        headers: { ...headers, host: "rebound.test" },
      },
      {
        name: `a foreign page's form, at ${door}`,
        encrypted,
        methods: ["POST"],
        refusals: [403],
        headers: { ...headers, origin: "https://elsewhere.test" },
      },
      { name: `a form of no page, at ${door}`, encrypted, methods: ["POST"], refusals: [403], headers },
    ];
  }),
];

// What the board works out after the start settles first.
await new Promise((resolve) => setTimeout(resolve, 5000));
const before = await contents();
let wrong = 0;
for (const { name, encrypted, headers, methods, refusals, only, mayHave } of visitors) {
  const answers = new Map<number, number>();
  for (const [path, office] of all) {
    if (mayHave?.has(path) || (only && !office)) continue;
    for (const address of [path, path === "/" ? "/_root.data" : `${path}.data`])
      for (const method of methods) {
        const status = await ask({ method, path: address, encrypted, headers });
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
process.stdout.write(
  `${all.size} routes; ${wrong === 0 ? "everything was refused" : `${wrong} requests were not refused`}; the database is ${changed ? "CHANGED" : "unchanged"}.\n`,
);
await shop.stop();
rmSync(folder, { recursive: true, force: true });
process.exitCode = wrong === 0 && !changed ? 0 : 1;
