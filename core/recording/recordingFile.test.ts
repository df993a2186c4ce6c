import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { type Parsed, problemText } from "../problem/problem";
import { type RecordingChoice, readRecording, sketchRecording, textReader } from "./recordingFile";
import { unitScale } from "./recordingSketch";

const bytesOf = (text: string): Uint8Array => new TextEncoder().encode(text);
const fromText = (text: string, choice?: RecordingChoice) => readRecording(bytesOf(text), choice);

function accepted<T>(parsed: Parsed<T>): T {
  if (!parsed.ok) throw new Error(parsed.problems.map(problemText).join("; "));
  return parsed.value;
}

function taken(parsed: ReturnType<typeof readRecording>) {
  const { amps, rateHz } = accepted(parsed);
  return { amps: [...amps], rateHz };
}

const refusal = (parsed: ReturnType<typeof readRecording>): string =>
  parsed.ok ? "" : parsed.problems.map(problemText).join("; ");

describe("a recording from text", () => {
  test.each([
    ["commas, a header", "Time,CH1\ns,V\n0,1.5\n0.001,2.5\n0.002,3.5\n"],
    ["semicolons and decimal commas", "Zeit;Strom\n0;1,5\n0,001;2,5\n0,002;3,5\n"],
    ["tabs, no header", "0\t1.5\n0.001\t2.5\n0.002\t3.5"],
    ["exponents, blank lines, carriage returns", "0,1.5e0\r\n\r\n1e-3,2.5\r\n2e-3,+3.5\r\n"],
    ["a later start, spaces", "s , A\n 5.000 , 1.5\n 5.001 , 2.5\n 5.002 , 3.5\n"],
    ["milliseconds in brackets", "Time (ms),Clamp (V)\n0,1.5\n1,2.5\n2,3.5\n"],
    ["millivolts in a row of units", "t,probe\nus,mV\n0,1500\n1000,2500\n2000,3500\n"],
    ["quotes and a byte-order mark", '\ufeff"time","amps"\n"0","1.5"\n"0.001","2.5"\n"0.002","3.5"\n'],
    ["spaces between the columns", "# time value\n0.000   1.5\n0.001   2.5\n0.002   3.5\n"],
    ["no times but an interval in the header", "Sample Interval,1 ms\nvalue\n1.5\n2.5\n3.5\n"],
    ["numbered samples and a rate in the header", "Sample rate,1 kHz\nindex,volts\n0,1.5\n1,2.5\n2,3.5\n"],
  ])("with %s", (_, text) => {
    const { amps, rateHz } = taken(fromText(text));
    expect(amps).toEqual([1.5, 2.5, 3.5]);
    expect(rateHz).toBeCloseTo(1000, 6);
  });

  test("what was found is shown before the import, and can be corrected", () => {
    const bytes = bytesOf("made by a scope\nTime [ms];A [mV];B [A]\n0;1500;1,5\n1;2500;2,5\n2;3500;3,5\n");
    const sketch = sketchRecording(bytes);
    expect(sketch).toMatchObject({
      ok: true,
      value: {
        kind: "csv",
        delimiter: ";",
        decimal: ",",
        headerLines: 2,
        timeColumn: 0,
        valueColumn: 2,
        inAmps: true,
        samples: 3,
        columns: [
          { name: "Time", unit: "ms" },
          { name: "A", unit: "mV" },
          { name: "B", unit: "A" },
        ],
      },
    });
    expect(sketch.ok && sketch.value.rateHz).toBeCloseTo(1000, 6);
    expect(taken(readRecording(bytes, { valueColumn: 1 })).amps).toEqual([1.5, 2.5, 3.5]);
    expect(taken(readRecording(bytes, { valueColumn: 1, rateHz: 50 })).rateHz).toBe(50);
    expect(refusal(readRecording(bytes, { valueColumn: 7 }))).toMatch(/there is no column 8/);
  });

  test.each([
    ["s,A", true],
    ["ms,mA", true],
    ["Time,A", false],
    ["s,V", false],
    ["A,B", false],
  ])(
    "headed %s it is in amps: %p, because a bare A is a channel's name unless all cells beside it are units",
    (head, inAmps) =>
      expect(sketchRecording(bytesOf(`${head}\n0,1\n0.5,2\n1.25,3\n`))).toMatchObject({
        ok: true,
        value: { inAmps },
      }),
  );

  // Clamp at 10 mV per A: 13.4 mV is 1.34 A (common practice, no source). Over a shunt by Ohm's law.
  test.each<[string, RecordingChoice["scale"], number]>([
    ["10 mV an amp", { kind: "volts-per-amp", voltsPerAmp: 0.01 }, 1.34],
    ["100 A a volt", { kind: "amps-per-volt", ampsPerVolt: 100 }, 1.34],
    ["a shunt of 10 mΩ", { kind: "shunt", ohms: 0.01 }, 1.34],
    ["amps as they are", { kind: "amps" }, 0.0134],
  ])("13.4 mV with %s", (_, scale, amps) => {
    const read = taken(fromText("t (s),c (mV)\n0,13.4\n0.1,13.4\n0.2,13.4\n", { scale }));
    for (const value of read.amps) expect(value).toBeCloseTo(amps, 6);
  });

  test.each([
    ["", /the file is empty/],
    ["hello\nthere\n", /expected two columns of numbers/],
    ["0,1\n0.1,2\n0.15,two\n0.2,3\n", /^line 3: expected two numbers, got "0.15 \| two"/],
    ["0,1\n0.1,2\n0.2,NaN\n0.3,1\n", /^line 3: expected two numbers/],
    ["0,1\n0.1,2\n0.2\n0.3,1\n", /^line 3: expected two numbers/],
    ["0,1\n", /expected two columns of numbers/],
    ["1,1\n0,2\n", /line 2: time must rise from row to row/],
    ["t,v\n0,1\n0,2\n", /time must rise from the first row to the last/],
    ["value\n1\n2\n3\n4\n", /no column of times: give the samples a second/],
    ["a\0b,1\n0,2\n", /neither text nor a WAV file/],
    [
      `0,1\n${Array.from({ length: 20 }, (_, i) => `${i < 12 ? i + 1 : i + 9},2`).join("\n")}`,
      /^line 14: a gap of 9.00 s/,
    ],
  ])("%j is refused with its line", (text, message) => expect(refusal(fromText(text))).toMatch(message));

  test("times written with few digits repeat and jump, and still count as evenly spaced", () => {
    const rows = Array.from({ length: 200 }, (_, i) => `${(i * 0.00025).toFixed(3)},${i % 7}`).join("\n");
    expect(taken(fromText(rows)).rateHz).toBeCloseTo(4000, -2);
  });

  test("a figure is read as JavaScript reads it", () => {
    const figures = fc.oneof(
      fc.double({ noNaN: true, noDefaultInfinity: true, min: -1e9, max: 1e9 }),
      fc.integer({ min: -1e6, max: 1e6 }),
    );
    fc.assert(
      fc.property(fc.array(figures, { minLength: 3, maxLength: 20 }), (values) => {
        const text = values.map((value, i) => `${i / 100},${value}`).join("\n");
        const { amps } = taken(fromText(text));
        for (const [i, value] of values.entries())
          expect(amps[i]).toBeCloseTo(
            Math.fround(value),
            Math.max(0, 5 - Math.ceil(Math.log10(Math.abs(value) + 1))),
          );
      }),
      { numRuns: 200, seed: 5 },
    );
  });

  test("any input gets an answer", () => {
    const lines = fc
      .array(fc.stringMatching(/^[-+0-9.,;eEnN \t"]{0,20}$/), { maxLength: 30 })
      .map((all) => all.join("\n"));
    fc.assert(
      fc.property(fc.oneof(fc.string({ maxLength: 400 }), lines), (text) => {
        const parsed = fromText(text);
        if (parsed.ok) expect(parsed.value.amps.every(Number.isFinite)).toBe(true);
        else expect(parsed.problems[0]?.message).toBeTruthy();
      }),
      { numRuns: 500, seed: 11 },
    );
  });

  test("read in chunks it is the same as read whole, wherever the chunks end", () => {
    for (const text of [
      "\ufefftime (s),clamp (V)\r\n0,1.5\r\n0.1,2.25\r\n\r\n0.2,-3e-1\r\n0.3,4",
      "0;1,5\n0,1;2,5\n0,2;two\n0,3;4\n",
      "0,1\n0.1,2\n0.05,3\n",
    ]) {
      const bytes = bytesOf(text);
      const sketch = accepted(sketchRecording(bytes));
      const inParts = (lengths: readonly number[]) => {
        const reader = accepted(textReader(sketch));
        let at = 0;
        for (const length of [...lengths, bytes.length]) {
          const refused = reader.push(bytes.subarray(at, at + length));
          if (refused) return refused;
          at += length;
        }
        return reader.end();
      };
      const whole = readRecording(bytes);
      fc.assert(
        fc.property(fc.array(fc.integer({ min: 0, max: 12 }), { maxLength: 30 }), (lengths) =>
          expect(inParts(lengths)).toEqual(whole),
        ),
        { numRuns: 60, seed: 5 },
      );
    }
  });

  test("a long one reports its progress", () => {
    const rows = Array.from({ length: 300_000 }, (_, i) => `${i},${i % 7}`).join("\n");
    const shares: number[] = [];
    readRecording(bytesOf(rows), {}, (share) => shares.push(share) > 0);
    expect(shares[0]).toBeGreaterThan(0.7);
  });

  test("units in the writing of scopes", () => {
    expect(unitScale("mV")).toEqual({ base: "V", per: 1e-3 });
    expect(unitScale("µs")).toEqual({ base: "s", per: 1e-6 });
    expect(unitScale("Seconds")).toEqual({ base: "s", per: 1 });
    expect(unitScale("mA")).toEqual({ base: "A", per: 1e-3 });
    expect(unitScale("rpm").base).toBeNull();
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

describe("a recording from a WAV file", () => {
  test("is read sample by sample, full scale one amp", () => {
    const parsed = readRecording(wav([0, 16384, -16384, 32767], 8000));
    expect(parsed.ok).toBe(true);
    const { amps, rateHz } = taken(parsed);
    expect(rateHz).toBe(8000);
    for (const [i, value] of [0, 0.5, -0.5, 1].entries()) expect(amps[i]).toBeCloseTo(value, 3);
  });

  test("with two channels gives the first", () => {
    const { amps } = taken(readRecording(wav([16384, -32768, 8192, -32768], 44100, 2)));
    expect(amps).toHaveLength(2);
    expect(amps[0]).toBeCloseTo(0.5, 3);
    expect(amps[1]).toBeCloseTo(0.25, 3);
  });

  test("its other channel can be chosen", () => {
    const bytes = wav([16384, -32768, 8192, -32768], 44100, 2);
    expect(taken(readRecording(bytes, { valueColumn: 1 })).amps).toEqual([-1, -1]);
    const sketch = sketchRecording(bytes);
    expect(sketch.ok && sketch.value.columns.map(({ name }) => name)).toEqual(["channel 1", "channel 2"]);
  });

  test("is scaled by the probe", () => {
    expect(
      taken(readRecording(wav([16384, 16384], 8000), { scale: { kind: "volts-per-amp", voltsPerAmp: 0.01 } }))
        .amps[0],
    ).toBeCloseTo(50, 1);
  });

  test.each([
    ["a header cut short", wav([1, 2, 3], 8000).slice(0, 20)],
    ["no samples", wav([], 8000)],
  ])("%s is refused", (_, bytes) => expect(refusal(readRecording(bytes))).toMatch(/WAV file/));
});
