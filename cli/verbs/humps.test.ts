import { describe, expect, test } from "@jest/globals";
import { airway, file } from "../testing/airway";

describe("ripples and route", () => {
  const trace = (delimiter: string, comma: string): string =>
    [
      `time${delimiter}clamp`,
      ...Array.from({ length: 16_000 }, (_, i) => {
        const volts = 0.15 + 0.0134 * Math.abs(Math.sin((Math.PI * i * 600) / 16_000));
        return `${(i / 16_000).toFixed(6)}${delimiter}${volts.toFixed(5)}`.replaceAll(".", comma);
      }),
    ].join("\n");

  // Clamp at 10 mV per A: 13.4 mV between ripples is 1.34 A (common practice, no source).
  test.each([
    [",", "."],
    [";", ","],
  ])("a CSV split by %p with %p for its decimals is read, at the probe's scale", async (delimiter, comma) => {
    const path = file(`trace${comma === "." ? 1 : 2}.csv`, trace(delimiter, comma));
    const { status, stdout } = await airway(["humps", path, "--volts-per-amp", "0.01", "--bars", "12"]);
    expect(status).toBe(0);
    const humps = JSON.parse(stdout);
    expect(humps.peakToPeakAmps).toBeCloseTo(1.34, 1);
    expect(humps.humpHz).toBeCloseTo(600, 0);
    expect(humps.rpm).toBeCloseTo(3000, -1);
    expect(humps.verdict).toBe("even");
    const named = await airway(["ripple", path, "--volts-per-amp", "0.01", "--bars", "12"]);
    expect(named.stdout).toBe(stdout);
  });

  test("a file that is not a recording, or invalid options, are refused by their place", async () => {
    expect((await airway(["humps", file("no.csv", "a,b\nc,d")])).stderr).toMatch(
      /expected two columns of numbers/,
    );
    expect((await airway(["humps", file("gap.csv", "0,1\n1,2\n2,x\n3,1")])).stderr).toMatch(
      /line 3: expected two numbers, got "2 \| x"/,
    );
    expect((await airway(["humps", file("bad.wav", "not sound")])).stderr).toMatch(/not a WAV file/);
    expect((await airway(["humps", file("ok.csv", "0,1\n1,2"), "--bars", "2.5"])).stderr).toMatch(
      /--bars: expected a whole number above 0/,
    );
  });
});
