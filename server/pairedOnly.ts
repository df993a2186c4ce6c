import type { NextFunction, Request, Response } from "express";
import { parseCookie } from "../app/network/deviceCookie.server";
import { deviceWith } from "../app/network/devices.server";

/** What a device that is not paired may have: the page that pairs it, the authority to trust, and what they look like. */
const openPaths = [/^\/pair(\.data)?$/, /^\/authority\.crt$/, /^\/assets\//, /^\/favicon\.svg$/];

/** Puts the device of a request through the network's door on its response, and refuses what is not for strangers. */
export async function pairedOnly(request: Request, response: Response, next: NextFunction): Promise<void> {
  const token = await parseCookie(request.headers.cookie);
  const device = token === null ? null : deviceWith(token);
  if (device) response.place = { kind: "device", device };
  if (device || openPaths.some((open) => open.test(request.path))) next();
  else if (request.method === "GET" && request.accepts("html")) response.redirect(303, "/pair");
  else response.status(401).type("text").send("Pair this device with the shop's computer first.\n");
}
