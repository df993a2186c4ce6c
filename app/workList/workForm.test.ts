import { describe, expect, test } from "@jest/globals";
import { readWorkForm } from "./workForm";

const nameOf = (part: string): string | null => (part === "M1" ? "blower motor M1" : null);
const read = (fields: Record<string, string>) => readWorkForm(fields, nameOf, "XXX");

describe("a line of work as typed", () => {
  test("a part of the circuit brings its own name", () => {
    expect(
      read({ part: "M1", done: "renewed", number: " HW-2204 ", minutes: "12,5", price: "45.50" }),
    ).toEqual({
      entry: {
        part: "M1",
        what: "blower motor M1",
        done: "renewed",
        number: "HW-2204",
        minutes: 12.5,
        priceMinor: 4550,
      },
    });
  });

  test("anything else is named in words, and empty fields say nothing", () => {
    expect(read({ part: "", what: "battery terminal", done: "renewed", price: "", minutes: "" })).toEqual({
      entry: { what: "battery terminal", done: "renewed" },
    });
  });

  test.each([
    [{ part: "Q9", done: "renewed" }, "What: there is no Q9 on this circuit"],
    [{ what: "", done: "renewed" }, "What: enter what was worked on"],
    [{ part: "M1", done: "renewed", price: "cheap" }, "Price: “cheap” is not an amount such as 45.00"],
    [{ part: "M1", done: "renewed", minutes: "a while" }, "Minutes taken: is not a figure such as 12.5"],
    [{ part: "M1", done: "renewed", minutes: "-3" }, "Minutes taken: cannot be negative"],
  ])("%j says what to change", (fields, problem) => {
    expect(read(fields as unknown as Record<string, string>)).toEqual({ problem });
  });
});
