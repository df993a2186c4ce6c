import { randomBytes } from "node:crypto";
import { mkdirSync, readFileSync } from "node:fs";
import {
  createServer,
  type IncomingMessage,
  type RequestListener,
  type Server,
  type ServerResponse,
} from "node:http";
import type { AddressInfo } from "node:net";
import { join } from "node:path";
import { createSecureContext } from "node:tls";
import { closeDatabase, database } from "@db/database.server";
import { databaseFile } from "@db/databaseFile.server";
import { dataFolder } from "@db/dataFolder.server";
import { DataFolderInUse, lockDataFolder } from "@db/dataLock.server";
import { loadDemoWorld } from "@db/demoWorld.server";
import { backUp, backupDue, copyToSecondFolder, newestBackup } from "@db/keeping/backup.server";
import { PlainSqlite } from "@db/keeping/plainSqlite.server";
import { dropUnfinishedRestores } from "@db/keeping/restore.server";
import { describeCircuits } from "@db/repositories/circuits.server";
import { storageTrouble } from "@db/storageTrouble";
import { enter } from "@db/turnstile.server";
import { UpgradeRefused } from "@db/upgrade.server";
import { createRequestHandler } from "@react-router/express";
import compression from "compression";
import express, { type Express, type Request, type RequestHandler, type Response } from "express";
import helmet from "helmet";
import { pinoHttp } from "pino-http";
import { RouterContextProvider, type ServerBuild } from "react-router";
import { stopLines } from "../app/board/jobLine.server";
import { workOutOn } from "../app/board/whatIsNext.server";
import { compileOn } from "../app/engine/compileThread.server";
import { compileHere, compileWith } from "../app/engine/engine.server";
import { importOn } from "../app/importing/importProcess.server";
import { resumeRecords } from "../app/importing/recordsImport.server";
import { verifyBackup } from "../app/importing/verifyBackup.server";
import type { KeyedCertificate } from "../app/network/authority.server";
import { makeNetworkDoor, type NetworkDoor } from "../app/network/networkDoor.server";
import { type Place, type Visitor, visitorContext } from "../app/network/visitor.server";
import { pushedPagesContext } from "../app/probe/pushedPages.server";
import { diagnoseSeenOn } from "../app/seen/seenEngine.server";
import { layOutOn } from "../app/sheet/layouts.server";
import { logger, reportTrouble } from "../app/shell/log.server";
import { nonceContext } from "../app/shell/nonce.server";
import { shopZone } from "../app/text/shopZone.server";
import { liveJobs, liveSeenJobs, watchJob } from "./liveJobs";
import { pairedOnly } from "./pairedOnly";
import { askPasscode } from "./passcode";
import {
  limitBodies,
  refuseForeignActions,
  refuseForeignHosts,
  refuseUnreadableAddresses,
} from "./requestGuards";
import { nameVisitor } from "./signIn";
import { isLoopback, type StartSettings, startSettings } from "./startSettings";

/** A way in: the shop's own computer, or its network. */
interface Door {
  /** Names it answers to. */
  readonly hosts: { readonly has: (name: string) => boolean };
  /** Who may pass, and from which place. */
  readonly guards: readonly RequestHandler[];
  /** Whether only this computer reaches it. */
  readonly isLocal: boolean;
}

declare module "http" {
  interface ServerResponse {
    nonce?: string;
    place?: Place;
    visitor?: Visitor;
  }
}

/** The only fields logged of a request: enough to follow it, nothing a customer said. */
const serializers = {
  req: ({ method, url }: { method: string; url: string }) => ({ method, url: url.split("?")[0] }),
  res: ({ statusCode }: { statusCode: number }) => ({ statusCode }),
};

function securityHeaders() {
  const nonce = (_: IncomingMessage, response: ServerResponse): string => `'nonce-${response.nonce}'`;
  return helmet({
    contentSecurityPolicy: {
      useDefaults: false,
      directives: {
        defaultSrc: ["'self'"],
        scriptSrc: ["'self'", nonce],
        styleSrc: ["'self'", "'unsafe-inline'"],
        imgSrc: ["'self'", "data:"],
        fontSrc: ["'self'"],
        connectSrc: ["'self'"],
        workerSrc: ["'self'"],
        objectSrc: ["'none'"],
        baseUri: ["'none'"],
        formAction: ["'self'"],
        frameAncestors: ["'none'"],
      },
    },
    referrerPolicy: { policy: "same-origin" },
    strictTransportSecurity: false,
  });
}

/** The door of the shop's own computer. */
const atShopComputer: RequestHandler = (_request, response, next) => {
  response.place = { kind: "shop-computer" };
  next();
};

/** The application's routes. */
const routesHandler = async (): Promise<RequestHandler> =>
  createRequestHandler({
    // The build itself, not a function that loads it, because the routes would be computed again for every request.
    build: (await import("virtual:react-router/server-build")) as ServerBuild,
    getLoadContext: (_request, response) => {
      const context = new RouterContextProvider();
      context.set(nonceContext, response.nonce ?? "");
      const { visitor } = response;
      if (visitor) context.set(visitorContext, visitor);
      if (visitor?.kind === "signed-in")
        context.set(pushedPagesContext, (jobId) => liveJobs.pushesTo(jobId, visitor));
      return context;
    },
  });

/**
 * The complete server behind one door: guards, static files, then the application's routes.
 * @param root the checkout: its build and its demo data
 */
function createApp(root: string, { hosts, guards, isLocal }: Door, routes: RequestHandler): Express {
  const app = express();
  app.disable("x-powered-by");
  app.use(
    pinoHttp({
      logger,
      serializers,
      autoLogging: { ignore: ({ url }) => /^\/assets\/|^\/health$/.test(url ?? "") },
    }),
  );
  app.use(refuseForeignHosts(hosts));
  app.get("/health", health);
  app.use(...guards);
  app.use((_request, response, next) => {
    response.nonce = randomBytes(16).toString("base64");
    next();
  });
  app.use(securityHeaders());
  // Before everything that would hold its pieces back, or wait for its end.
  app.get("/jobs/:id/live", nameVisitor(isLocal), watchJob(liveJobs));
  app.get("/no-diagram/:id/live", nameVisitor(isLocal), watchJob(liveSeenJobs));
  app.use(compression());
  // A page is sent when it is complete, because flushing each piece only makes zlib complain about slow connections.
  app.use((_request, response, next) => {
    Object.assign(response, { flush: undefined });
    next();
  });
  app.use(refuseUnreadableAddresses, limitBodies, refuseForeignActions);
  const client = join(root, "build", "client");
  app.use(
    "/assets",
    express.static(join(client, "assets"), { immutable: true, maxAge: "1y", fallthrough: false }),
  );
  app.use(express.static(client, { maxAge: "1h" }));
  // While the database is replaced, requests wait instead of failing.
  app.use((_request, response, next) => {
    enter().then((leave) => {
      response.once("close", leave);
      next();
    }, next);
  });
  app.use(nameVisitor(isLocal), routes);
  return app;
}

/** Checks the database for damage after the start; every page shows the result. */
async function checkIntegrity(): Promise<void> {
  const faults = await PlainSqlite.use(databaseFile(dataFolder()), (own) => own.faults());
  if (faults.length > 0)
    reportTrouble(
      new Error(faults.join("; ")),
      "The database is damaged. Restore the newest backup under Records, Backup and restore, before you go on.",
    );
}

const hourMilliseconds = 3_600_000;
const soonMilliseconds = 60_000;

/** Makes a nightly backup if one is due; a failure is reported, and tried again the next hour. */
async function backUpAtNight(): Promise<void> {
  const now = new Date();
  try {
    if (backupDue(newestBackup(now)?.at ?? null, now, shopZone())) {
      const backup = await backUp(now);
      await verifyBackup(backup);
      await copyToSecondFolder(backup);
    } else {
      // Made by hand or by an older Airway, and not verified then.
      const newest = newestBackup(now);
      if (newest && !newest.isVerified) await verifyBackup(newest);
    }
  } catch (thrown) {
    const words = storageTrouble(thrown) ?? (thrown as Error).message;
    reportTrouble(thrown, `The nightly backup failed and is tried again every hour. ${words}`);
  }
}

/** Tells a supervisor whether the server can work: 200 if the database answers, 503 if not. */
async function health(_request: Request, response: Response): Promise<void> {
  try {
    await (await database()).sequelize.query("SELECT name FROM SequelizeMeta LIMIT 1");
    response.json({ status: "ok" });
  } catch (cause) {
    logger.error(cause, "the health check failed");
    response
      .status(503)
      .json({ status: "failing", problem: storageTrouble(cause) ?? "The database does not answer." });
  }
}

/** Prints in one line why the server does not start, and ends the process. */
function refuseToStart(words: string): never {
  process.stderr.write(`Airway did not start. ${words}\n`);
  process.exit(1);
}

/** Locks the data folder for this server and opens its database; failures are reported in words. */
async function openShop(root: string, address: string) {
  const folder = dataFolder();
  try {
    mkdirSync(folder, { recursive: true });
    const release = await lockDataFolder(folder, {
      pid: process.pid,
      address,
      since: new Date().toISOString(),
    });
    dropUnfinishedRestores(folder);
    const loaded = await loadDemoWorld(await database(), join(root, "demo"), new Date());
    return { release, loaded };
  } catch (thrown) {
    if (thrown instanceof DataFolderInUse || thrown instanceof UpgradeRefused) refuseToStart(thrown.message);
    const words = storageTrouble(thrown);
    if (words) refuseToStart(`${words} (data folder: ${folder})`);
    throw thrown;
  }
}

/** The certificate of the shop's own, if it gave one. */
function ownCertificate({ certificateFiles }: StartSettings): KeyedCertificate | null {
  if (!certificateFiles) return null;
  const { cert, key } = certificateFiles;
  try {
    const own = { cert: readFileSync(cert, "utf8"), key: readFileSync(key, "utf8") };
    createSecureContext(own);
    return own;
  } catch (thrown) {
    return refuseToStart(
      `AIRWAY_CERTIFICATE and AIRWAY_CERTIFICATE_KEY cannot be used: ${(thrown as Error).message}.`,
    );
  }
}

/** Makes the door to the shop's network, and opens it if it was open when the server last ran. */
async function openNetwork(root: string, settings: StartSettings, routes: RequestHandler) {
  const certificate = ownCertificate(settings);
  const names = certificate ? [...settings.allowedHosts] : [];
  const app = createApp(
    root,
    { hosts: { has: (name) => door.hosts.includes(name) }, guards: [pairedOnly], isLocal: false },
    routes,
  );
  const door: NetworkDoor = makeNetworkDoor({ port: settings.networkPort, certificate, names }, app);
  try {
    const refused = door.wasOpen() ? await door.open() : null;
    if (refused) reportTrouble(new Error(refused.problem), `Phones cannot connect. ${refused.problem}`);
  } catch (thrown) {
    // A damaged file keeps phones out, not the shop's own computer.
    reportTrouble(
      thrown,
      "Phones cannot connect: a file in the data folder's network folder cannot be read.",
    );
  }
  return door;
}

/** Milliseconds an idle connection stays open. */
const keepAliveMilliseconds = 65_000;

/** Listens before the database is touched, so that a port in use has no side effects; resolves with the server. */
function listen({ host, port }: StartSettings, handler: RequestListener): Promise<Server> {
  const server = createServer(handler);
  // Node's five seconds are too short: a server that was busy for longer would close a connection with a request on it.
  server.keepAliveTimeout = keepAliveMilliseconds;
  return new Promise((resolve) => {
    server.once("error", (error: NodeJS.ErrnoException) =>
      refuseToStart(
        error.code === "EADDRINUSE"
          ? `Port ${port} on ${host} is taken by another program. Set AIRWAY_PORT to another one.`
          : `Airway cannot listen on ${host}:${port} (${error.code ?? error.message}). Set AIRWAY_HOST and AIRWAY_PORT.`,
      ),
    );
    server.listen(port, host, () => resolve(server));
  });
}

/** Opens the database, loads the demo if it is empty, and serves until told to stop. */
export async function start({ root }: { root: string }): Promise<void> {
  const settings = startSettings(process.env);
  if (!settings.ok) refuseToStart(settings.problem);
  const { host, allowedHosts, passcode } = settings.value;
  process.on("unhandledRejection", (cause) =>
    reportTrouble(
      cause,
      "A background task failed. Everything entered is saved, and the server is still running.",
    ),
  );
  let app: RequestListener = (_request, response) =>
    response
      .writeHead(503, { "Retry-After": "1", "Content-Type": "text/plain" })
      .end("Airway is starting.\n");
  const server = await listen(settings.value, (request, response) => app(request, response));
  const { port } = server.address() as AddressInfo;
  const address = `http://${host.includes(":") ? `[${host}]` : host}:${port}/`;
  const engineFile = join(root, "build", "server", "engineWorker.mjs");
  compileWith(compileOn(engineFile) ?? compileHere);
  workOutOn(engineFile);
  diagnoseSeenOn(join(root, "build", "server", "seenWorker.mjs"));
  importOn(join(root, "build", "server", "importWorker.mjs"));
  layOutOn(join(root, "build", "server", "layoutWorker.mjs"));
  const { loaded, release } = await openShop(root, address);
  const routes = await routesHandler();
  app = createApp(
    root,
    {
      hosts: allowedHosts,
      guards: [...(passcode === null ? [] : [askPasscode(passcode)]), atShopComputer],
      isLocal: isLoopback(host),
    },
    routes,
  );
  const door = await openNetwork(root, settings.value, routes);
  if (loaded) process.stdout.write("The demo workshop was loaded into the empty database.\n");
  process.stdout.write(`Airway is ready: ${address}\n`);
  describeCircuits(await database()).catch((cause: unknown) =>
    reportTrouble(cause, "Some circuits on the shelf could not be indexed. A search may miss them."),
  );
  resumeRecords().catch((cause: unknown) =>
    reportTrouble(cause, "An import of records is not finished. Restart Airway to finish it."),
  );
  checkIntegrity().catch((cause: unknown) =>
    reportTrouble(cause, "The check of the database for damage failed."),
  );
  const nightly = setInterval(() => void backUpAtNight(), hourMilliseconds);
  nightly.unref();
  // A shop that never runs overnight gets its backup soon after it opens.
  setTimeout(() => void backUpAtNight(), soonMilliseconds).unref();
  const stop = (): void => {
    clearInterval(nightly);
    door.stop();
    liveJobs.stop();
    liveSeenJobs.stop();
    server.close(
      () =>
        void stopLines()
          .then(closeDatabase)
          .then(release)
          .then(() => process.exit(0)),
    );
    server.closeIdleConnections();
    setTimeout(() => server.closeAllConnections(), 2000).unref();
  };
  process.once("SIGINT", stop);
  process.once("SIGTERM", stop);
}
