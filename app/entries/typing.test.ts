import { afterEach, beforeEach, describe, expect, jest, test } from "@jest/globals";
import { pauseMilliseconds, Typing } from "./typing";

beforeEach(() => void jest.useFakeTimers());
afterEach(() => void jest.useRealTimers());

describe("a figure being typed", () => {
  test("is told of once the hand pauses, as it then stands, and once only", () => {
    const told: string[] = [];
    const typing = new Typing(({ value }) => told.push(value ?? ""));
    let field = "";
    for (const digit of "12.4") {
      field += digit;
      typing.key(() => ({ value: field }));
      jest.advanceTimersByTime(pauseMilliseconds - 10);
    }
    expect(told).toEqual([]);
    jest.advanceTimersByTime(10);
    expect(told).toEqual(["12.4"]);
    jest.advanceTimersByTime(10 * pauseMilliseconds);
    expect(told).toEqual(["12.4"]);
  });

  test("is not told of any more once it was entered", () => {
    const tell = jest.fn();
    const typing = new Typing(tell);
    typing.key(() => ({ value: "6" }));
    typing.stop();
    jest.advanceTimersByTime(10 * pauseMilliseconds);
    expect(tell).not.toHaveBeenCalled();
  });
});
