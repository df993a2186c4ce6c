import type { NextFunction, Request, Response } from "express";
import { type IncomingKind, mostBytes } from "../app/importing/incomingFile.server";

/** Bodies larger than this are refused before they are read. */
export const mostBodyBytes = 256 * 1024;
/** A recording comes with its stored samples and its picture. */
export const mostRecordingBytes = 4 * 1024 * 1024;
/** A note may have a photo, whose own limit is checked again where it is decoded. */
export const mostNoteBytes = 13 * 1024 * 1024;
/** Files written to disk as they arrive, each with a limit of its own. */
const filePaths: readonly (readonly [path: string, kind: IncomingKind])[] = [
  ["/records/in/file", "records"],
  ["/records/keeping/in", "shop"],
  ["/bring-in/file", "shelf"],
];
const tracePath = /^\/jobs\/\d{1,9}\/traces(\.data)?$/;
const notePath = /^\/jobs\/\d{1,9}\/notes(\.data)?$/;

const safeMethods = new Set(["GET", "HEAD", "OPTIONS"]);
const loopbackNames = new Set(["localhost", "127.0.0.1", "[::1]"]);

function hostName(host: string): string {
  return host.replace(/:\d+$/, "").toLowerCase();
}

/**
 * Answers only to Airway's own names: loopback names, and those it is called by when it listens beyond this computer. A
 * foreign name that resolves to this machine (DNS rebinding) is refused.
 */
export function refuseForeignHosts(allowed: { readonly has: (name: string) => boolean }) {
  return (request: Request, response: Response, next: NextFunction): void => {
    const name = hostName(request.headers.host ?? "");
    if (loopbackNames.has(name) || allowed.has(name)) next();
    else response.status(421).type("text").send("Airway does not accept requests for this host name.\n");
  };
}

/** Refuses addresses that cannot be decoded, or that contain a null character, which no file or table has. */
export function refuseUnreadableAddresses(request: Request, response: Response, next: NextFunction): void {
  try {
    if (!decodeURIComponent(request.originalUrl).includes("\0")) {
      next();
      return;
    }
  } catch {
    // Not UTF-8, or an invalid percent escape.
  }
  response.status(400).type("text").send("This address is not valid.\n");
}

/** Actions must come from Airway's own pages, by the browser's origin headers. */
export function refuseForeignActions(request: Request, response: Response, next: NextFunction): void {
  if (safeMethods.has(request.method) || isSameOrigin(request)) next();
  else response.status(403).type("text").send("This request did not come from an Airway page.\n");
}

function isSameOrigin(request: Request): boolean {
  const site = request.headers["sec-fetch-site"];
  if (site !== undefined) return site === "same-origin";
  const { origin, host } = request.headers;
  if (!origin || !host) return false;
  try {
    return new URL(origin).host === host;
  } catch {
    return false;
  }
}

/** The largest body an address takes, in bytes. */
function mostOf(path: string): number {
  const file = filePaths.find(([own]) => own === path);
  if (file) return mostBytes[file[1]];
  if (notePath.test(path)) return mostNoteBytes;
  return tracePath.test(path) ? mostRecordingBytes : mostBodyBytes;
}

/** Refuses bodies that are too large, or without a stated length. */
export function limitBodies(request: Request, response: Response, next: NextFunction): void {
  if (safeMethods.has(request.method)) {
    next();
    return;
  }
  const length = request.headers["content-length"];
  if (length === undefined) {
    response.status(411).type("text").send("The request must state its length.\n");
    return;
  }
  const most = mostOf(request.path);
  if (Number(length) > most) {
    response.status(413).type("text").send(`At most ${most} bytes are read.\n`);
    return;
  }
  next();
}
