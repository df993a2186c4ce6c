import { describe, expect, test } from "@jest/globals";
import { airway, whimbrel } from "../testing/airway";

describe("instrument", () => {
  test("an invalid port or set-up is refused", async () => {
    expect((await airway(["instrument", whimbrel, "--port", "x"])).stderr).toMatch(
      /--port: expected a whole number/,
    );
    expect((await airway(["instrument", whimbrel, "--setting", "9"])).stderr).toMatch(/unknown setting "9"/);
    expect((await airway(["instrument", whimbrel, "--fault", "Q1:open"])).stderr).toMatch(
      /no fault "Q1:open"/,
    );
  });
});
