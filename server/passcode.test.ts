import { describe, expect, jest, test } from "@jest/globals";
import type { Request, Response } from "express";
import { askPasscode } from "./passcode";

/** A guard with a clock that the test sets, and its answer: 0 if it lets the request through. */
function guarded(passcode: string) {
  let clock = 0;
  const guard = askPasscode(passcode, () => clock);
  return {
    wait: (milliseconds: number) => {
      clock += milliseconds;
    },
    ask: (given: string | null, address = "192.168.1.30"): number => {
      let status = 0;
      const response = {
        status: (code: number) => {
          status = code;
          return response;
        },
        set: () => response,
        type: () => response,
        send: () => response,
      };
      const next = jest.fn();
      const authorization =
        given === null ? undefined : `Basic ${Buffer.from(`anyone:${given}`).toString("base64")}`;
      const request = { headers: { authorization }, socket: { remoteAddress: address } };
      guard(request as unknown as Request, response as unknown as Response, next);
      expect(next.mock.calls.length === 1).toBe(status === 0);
      return status;
    },
  };
}

describe("the shop's passcode", () => {
  test("lets through whoever brings it, whatever their name", () => {
    expect(guarded("correct: horse").ask("correct: horse")).toBe(0);
  });

  test("is asked for if none is brought, and that costs no wait", () => {
    const { ask } = guarded("correct horse");
    expect(ask(null)).toBe(401);
    expect(ask("correct horse")).toBe(0);
  });

  test("is not looked at for a while after a wrong one, so that guesses sent side by side gain nothing", () => {
    const { ask, wait } = guarded("correct horse");
    expect(ask("wrong")).toBe(401);
    // Even the right passcode is refused, so that a guesser learns nothing.
    expect(ask("correct horse", "192.168.1.31")).toBe(429);
    wait(499);
    expect(ask("correct horse")).toBe(429);
    wait(1);
    expect(ask("correct horse")).toBe(0);
  });

  test("makes everyone wait twice as long after each further wrong one, up to half a minute", () => {
    const { ask, wait } = guarded("correct horse");
    for (const milliseconds of [500, 1000, 2000, 4000, 8000, 16_000, 30_000, 30_000]) {
      expect(ask("wrong")).toBe(401);
      wait(milliseconds - 1);
      expect(ask("correct horse")).toBe(429);
      wait(1);
    }
    expect(ask("correct horse")).toBe(0);
  });

  test("shuts nobody out who has signed in from that address before", () => {
    const { ask } = guarded("correct horse");
    expect(ask("correct horse", "192.168.1.31")).toBe(0);
    expect(ask("wrong", "192.168.1.66")).toBe(401);
    expect(ask("correct horse", "192.168.1.31")).toBe(0);
    expect(ask("correct horse", "192.168.1.66")).toBe(429);
    // A wrong passcode withdraws that.
    expect(ask("wrong", "192.168.1.31")).toBe(401);
    expect(ask("correct horse", "192.168.1.31")).toBe(429);
  });
});
