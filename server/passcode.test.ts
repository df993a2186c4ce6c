import { describe, expect, jest, test } from "@jest/globals";
import type { Request, Response } from "express";
import { askPasscode } from "./passcode";

jest.useFakeTimers();

/** Sends one request with a passcode, or none; what it is answered with, and after how long. */
function ask(guard: ReturnType<typeof askPasscode>, passcode: string | null) {
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
    passcode === null ? undefined : `Basic ${Buffer.from(`anyone:${passcode}`).toString("base64")}`;
  guard({ headers: { authorization } } as unknown as Request, response as unknown as Response, next);
  let waited = 0;
  while (next.mock.calls.length === 0 && status === 0 && waited < 120_000) {
    jest.advanceTimersByTime(100);
    waited += 100;
  }
  return { through: next.mock.calls.length === 1, status, waited };
}

describe("the shop's passcode", () => {
  test("lets through whoever brings it, whatever their name", () => {
    const guard = askPasscode("correct: horse");
    expect(ask(guard, "correct: horse")).toEqual({ through: true, status: 0, waited: 0 });
  });

  test("is asked for at once where none is brought", () => {
    expect(ask(askPasscode("correct horse"), null)).toEqual({ through: false, status: 401, waited: 0 });
  });

  test("makes every wrong one wait longer, up to half a minute", () => {
    const guard = askPasscode("correct horse");
    const waits = Array.from({ length: 9 }, () => ask(guard, "wrong").waited);
    expect(waits).toEqual([500, 1000, 2000, 4000, 8000, 16_000, 30_000, 30_000, 30_000]);
    expect(ask(guard, "correct horse").through).toBe(true);
    expect(ask(guard, "wrong").waited).toBe(500);
  });
});
