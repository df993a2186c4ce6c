import { randomBytes } from "node:crypto";
import type { IncomingMessage, ServerResponse } from "node:http";
import { join } from "node:path";
import { closeDatabase, database } from "@db/database.server";
import { loadDemoWorld } from "@db/demoWorld.server";
import { backUp, backupDue, listBackups } from "@db/keeping/backup.server";
import { createRequestHandler } from "@react-router/express";
import compression from "compression";
import express, { type Express } from "express";
import helmet from "helmet";
import { pinoHttp } from "pino-http";
import { RouterContextProvider, type ServerBuild } from "react-router";
import { compileOn } from "../app/engine/compileThread.server";
import { compileHere, compileWith } from "../app/engine/engine.server";
import { warmUp } from "../app/job/warmUp.server";
import { layOutOn } from "../app/sheet/layouts.server";
import { logger, reportTrouble } from "../app/shell/log.server";
import { nonceContext } from "../app/shell/nonce.server";
import { shopZone } from "../app/text/shopZone.server";
import { limitBodies, refuseForeignActions, refuseForeignHosts } from "./requestGuards";

export interface ServerOptions {
  /** Address to listen on; loopback unless told otherwise. */
  readonly host: string;
  /** The checkout: its build and its demo data. */
  readonly root: string;
}

declare module "http" {
  interface ServerResponse {
    nonce?: string;
  }
}

/** Only these are logged of a request: enough to follow it, nothing a customer said. */
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

/** The whole server: guards, static files, then the application's routes. */
export async function createApp({ host, root }: ServerOptions): Promise<Express> {
  const app = express();
  app.disable("x-powered-by");
  app.use(
    pinoHttp({
      logger,
      serializers,
      autoLogging: { ignore: ({ url }) => /^\/assets\/|\/pulse$/.test(url ?? "") },
    }),
  );
  app.use(refuseForeignHosts(host));
  app.use((_request, response, next) => {
    response.nonce = randomBytes(16).toString("base64");
    next();
  });
  app.use(securityHeaders());
  app.use(compression());
  app.use(limitBodies, refuseForeignActions);
  const client = join(root, "build", "client");
  app.use(
    "/assets",
    express.static(join(client, "assets"), { immutable: true, maxAge: "1y", fallthrough: false }),
  );
  app.use(express.static(client, { maxAge: "1h" }));
  app.use(
    createRequestHandler({
      // Not a function that fetches it: the routing would be derived anew at every request.
      build: (await import("virtual:react-router/server-build")) as ServerBuild,
      getLoadContext: (_request, response) => {
        const context = new RouterContextProvider();
        context.set(nonceContext, response.nonce ?? "");
        return context;
      },
    }),
  );
  return app;
}

const hourMilliseconds = 3_600_000;
const soonMilliseconds = 60_000;

/** Backs the shop up where a nightly backup is due; a failure is reported, and tried again the next hour. */
async function backUpAtNight(): Promise<void> {
  const now = new Date();
  try {
    const [newest] = listBackups();
    if (backupDue(newest?.at ?? null, now, shopZone())) await backUp(now);
  } catch (thrown) {
    reportTrouble(
      thrown,
      "The nightly backup failed. It is tried again every hour; look at the backups under Records.",
    );
  }
}

/** Opens the database, loads the demo where there is nothing, and serves until told to stop. */
export async function start({ root }: { root: string }): Promise<void> {
  const host = process.env.AIRWAY_HOST ?? "127.0.0.1";
  const port = Number(process.env.AIRWAY_PORT ?? 4310);
  compileWith(compileOn(join(root, "build", "server", "engineWorker.mjs")) ?? compileHere);
  layOutOn(join(root, "build", "server", "layoutWorker.mjs"));
  const loaded = await loadDemoWorld(await database(), join(root, "demo"), new Date());
  const app = await createApp({ host, root });
  const server = app.listen(port, host, (error) => {
    if (error) {
      process.stderr.write(
        `Airway cannot listen on ${host}:${port} (${error.message}); set AIRWAY_PORT to another\n`,
      );
      process.exit(1);
    }
    const shown = host.includes(":") ? `[${host}]` : host;
    if (loaded) process.stdout.write("The demo workshop was loaded into the empty database.\n");
    process.stdout.write(`Airway is ready: http://${shown}:${port}/\n`);
    warmUp().catch((cause: unknown) =>
      reportTrouble(
        cause,
        "The circuits of the open jobs could not be prepared: the first page of each takes longer.",
      ),
    );
  });
  const nightly = setInterval(() => void backUpAtNight(), hourMilliseconds);
  nightly.unref();
  // A shop that never runs through a night has its backup soon after it opens.
  setTimeout(() => void backUpAtNight(), soonMilliseconds).unref();
  const stop = (): void => {
    clearInterval(nightly);
    server.close(() => void closeDatabase().then(() => process.exit(0)));
    server.closeIdleConnections();
    setTimeout(() => server.closeAllConnections(), 2000).unref();
  };
  process.once("SIGINT", stop);
  process.once("SIGTERM", stop);
}
