import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { problemText } from "./problem";
import { traceFromCsv, traceFromWav } from "./traceFile";

function taken(parsed: ReturnType<typeof traceFromCsv>) {
  if (!parsed.ok) throw new Error(parsed.problems.map(problemText).join("; "));
  return { amps: [...parsed.value.amps], rateHz: parsed.value.rateHz };
}

const refusal = (parsed: ReturnType<typeof traceFromCsv>): string =>
  parsed.ok ? "" : parsed.problems.map(problemText).join("; ");

describe("a trace from text", () => {
  test.each([
    ["commas, a header", "Time,CH1\ns,V\n0,1.5\n0.001,2.5\n0.002,3.5\n"],
    ["semicolons and decimal commas", "Zeit;Strom\n0;1,5\n0,001;2,5\n0,002;3,5\n"],
    ["tabs, no header", "0\t1.5\n0.001\t2.5\n0.002\t3.5"],
    ["exponents, blank lines, carriage returns", "0,1.5e0\r\n\r\n1e-3,2.5\r\n2e-3,+3.5\r\n"],
    ["a later start, spaces", "s , A\n 5.000 , 1.5\n 5.001 , 2.5\n 5.002 , 3.5\n"],
  ])("with %s", (_, text) => {
    const { amps, rateHz } = taken(traceFromCsv(text));
    expect(amps).toEqual([1.5, 2.5, 3.5]);
    expect(rateHz).toBeCloseTo(1000, 6);
  });

  test("is scaled by the probe: 100 mV an amp", () => {
    expect(taken(traceFromCsv("0,0.5\n0.01,1\n", 0.1)).amps).toEqual([5, 10]);
  });

  test.each([
    ["", /expected two columns of numbers/],
    ["hello\nthere\n", /expected two columns of numbers/],
    ["0,1\n0.1,two\n0.2,3\n", /^line 2: expected two numbers, got/],
    ["0,1\n", /at least two rows/],
    ["1,1\n0,2\n", /time must rise/],
    ["0,1\n0,2\n", /time must rise/],
  ])("%j is refused with its line", (text, message) => expect(refusal(traceFromCsv(text))).toMatch(message));

  test("whatever is fed in, it answers", () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 400 }), (text) => {
        const parsed = traceFromCsv(text);
        if (parsed.ok) expect(parsed.value.amps.every(Number.isFinite)).toBe(true);
      }),
      { numRuns: 300, seed: 11 },
    );
  });
});

/** A PCM file by the RIFF/WAVE layout (IBM and Microsoft, 1991): 44 bytes of header, little-endian samples. */
function wav(samples: readonly number[], rateHz: number, channels = 1): Uint8Array {
  const bytes = new Uint8Array(44 + 2 * samples.length);
  const view = new DataView(bytes.buffer);
  const text = (at: number, word: string) =>
    Array.from(word).forEach((letter, i) => void view.setUint8(at + i, letter.charCodeAt(0)));
  text(0, "RIFF");
  view.setUint32(4, 36 + 2 * samples.length, true);
  text(8, "WAVEfmt ");
  view.setUint32(16, 16, true);
  view.setUint16(20, 1, true);
  view.setUint16(22, channels, true);
  view.setUint32(24, rateHz, true);
  view.setUint32(28, 2 * channels * rateHz, true);
  view.setUint16(32, 2 * channels, true);
  view.setUint16(34, 16, true);
  text(36, "data");
  view.setUint32(40, 2 * samples.length, true);
  samples.forEach((sample, i) => void view.setInt16(44 + 2 * i, sample, true));
  return bytes;
}

describe("a trace from a WAV file", () => {
  test("is read to its sample, full scale one amp", () => {
    const parsed = traceFromWav(wav([0, 16384, -16384, 32767], 8000));
    expect(parsed.ok).toBe(true);
    const { amps, rateHz } = taken(parsed);
    expect(rateHz).toBe(8000);
    for (const [i, value] of [0, 0.5, -0.5, 1].entries()) expect(amps[i]).toBeCloseTo(value, 3);
  });

  test("of two channels gives the first", () => {
    const { amps } = taken(traceFromWav(wav([16384, -32768, 8192, -32768], 44100, 2)));
    expect(amps).toHaveLength(2);
    expect(amps[0]).toBeCloseTo(0.5, 3);
    expect(amps[1]).toBeCloseTo(0.25, 3);
  });

  test("is scaled by the probe", () => {
    expect(taken(traceFromWav(wav([16384, 16384], 8000), 0.01)).amps[0]).toBeCloseTo(50, 1);
  });

  test.each([
    ["nothing", new Uint8Array(0)],
    ["text", new TextEncoder().encode("0,1\n1,2\n".repeat(20))],
    ["a header cut short", wav([1, 2, 3], 8000).slice(0, 20)],
    ["no samples", wav([], 8000)],
  ])("%s is refused", (_, bytes) => expect(refusal(traceFromWav(bytes))).toMatch(/WAV file/));
});
