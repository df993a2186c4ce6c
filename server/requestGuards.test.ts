import { describe, expect, jest, test } from "@jest/globals";
import type { Request, Response } from "express";
import {
  limitBodies,
  mostBodyBytes,
  refuseForeignActions,
  refuseForeignHosts,
  refuseUnreadableAddresses,
} from "./requestGuards";

type Guard = (request: Request, response: Response, next: () => void) => void;

/** A guard's status; 0 if it lets the request through. */
function answer(guard: Guard, method: string, headers: Record<string, string>): number {
  let status = 0;
  const response = {
    status: (code: number) => {
      status = code;
      return response;
    },
    type: () => response,
    send: () => response,
  };
  const next = jest.fn();
  guard({ method, headers } as unknown as Request, response as unknown as Response, next);
  expect(next.mock.calls.length === 1).toBe(status === 0);
  return status;
}

describe("actions must come from an Airway page", () => {
  test.each([
    ["GET", {}, 0],
    ["POST", {}, 403],
    ["POST", { "sec-fetch-site": "same-origin" }, 0],
    [
      "POST",
      { "sec-fetch-site": "cross-site", origin: "http://127.0.0.1:4310", host: "127.0.0.1:4310" },
      403,
    ],
    ["POST", { "sec-fetch-site": "none" }, 403],
    ["POST", { origin: "http://127.0.0.1:4310", host: "127.0.0.1:4310" }, 0],
    ["POST", { origin: "http://elsewhere.test", host: "127.0.0.1:4310" }, 403],
    ["POST", { origin: "null", host: "127.0.0.1:4310" }, 403],
    ["DELETE", { origin: "http://127.0.0.1:9", host: "127.0.0.1:4310" }, 403],
  ])("%s %p gives %p", (method, headers, status) => {
    expect(answer(refuseForeignActions, method, headers as unknown as Record<string, string>)).toBe(status);
  });
});

describe("only names that are Airway's own are answered", () => {
  const shop = new Set(["bay-tablet.test", "192.168.1.20"]);
  test.each<[ReadonlySet<string>, string, number]>([
    [new Set(), "127.0.0.1:4310", 0],
    [new Set(), "localhost:4310", 0],
    [new Set(), "[::1]:4310", 0],
    [new Set(), "rebound.test:4310", 421],
    [new Set(), "bay-tablet.test:4310", 421],
    [shop, "bay-tablet.test:4310", 0],
    [shop, "192.168.1.20", 0],
    [shop, "rebound.test:4310", 421],
    [shop, "", 421],
  ])("told %p, asked for %s: %p", (allowed, host, status) => {
    expect(answer(refuseForeignHosts(allowed), "GET", { host })).toBe(status);
  });
});

describe("a note may bring a photo and the shelf a bundle, and nothing else may be that large", () => {
  const notes = { method: "POST", headers: { "content-length": String(5 * 1024 * 1024) } };
  test.each([
    ["/jobs/4/notes", 0],
    ["/jobs/4/entries", 413],
    ["/jobs/4/notes/../entries", 413],
    ["/bring-in", 413],
    ["/bring-in/file", 0],
    ["/records/in/file", 0],
    ["/records/keeping/in", 0],
    ["/bring-in/more", 413],
  ])("%s: %p", (path, status) => {
    const guard: Guard = (request, response, next) =>
      limitBodies(Object.assign(request, { path }), response, next);
    expect(answer(guard, notes.method, notes.headers)).toBe(status);
  });
});

describe("bodies say their length and stay small", () => {
  test.each([
    ["POST", {}, 411],
    ["POST", { "content-length": String(mostBodyBytes) }, 0],
    ["POST", { "content-length": String(mostBodyBytes + 1) }, 413],
    ["GET", {}, 0],
  ])("%s %p gives %p", (method, headers, status) => {
    expect(answer(limitBodies, method, headers as unknown as Record<string, string>)).toBe(status);
  });
});

describe("an address", () => {
  test.each([
    ["/jobs/4/probe", 0],
    ["/shelf?q=50%25%20%C3%A4", 0],
    ["/shelf/%00", 400],
    ["/shelf?q=%00", 400],
    ["/%", 400],
    ["/%ff", 400],
  ])("%s: %p", (originalUrl, status) => {
    const guard: Guard = (request, response, next) =>
      refuseUnreadableAddresses(Object.assign(request, { originalUrl }), response, next);
    expect(answer(guard, "GET", {})).toBe(status);
  });
});
