import wavefile from "wavefile";
import type { Parsed } from "../problem/problem";
import type { CurrentRecording } from "../signal/currentRecording";
import { mostSamples, type RecordingSketch, wrong } from "./recordingSketch";

interface Wav {
  readonly rateHz: number;
  readonly channels: number;
  readonly bits: number;
  readonly float: boolean;
  readonly data: Uint8Array;
}

const floatFormat = 3;
const extensible = 0xfffe;

function opened(bytes: Uint8Array): Parsed<Wav> {
  try {
    const wav = new wavefile.WaveFile(bytes);
    const { sampleRate, numChannels, bitsPerSample, audioFormat, subformat } = wav.fmt as {
      sampleRate: number;
      numChannels: number;
      bitsPerSample: number;
      audioFormat: number;
      subformat?: number[];
    };
    const format = audioFormat === extensible ? (subformat?.[0] ?? 1) & 0xffff : audioFormat;
    const { samples } = wav.data as unknown as { samples: Uint8Array };
    if (format !== 1 && format !== floatFormat)
      return wrong(
        "unreadable",
        "",
        `not a WAV file Airway can read: packed in format ${format}; save it as plain PCM`,
      );
    if (!(sampleRate > 0) || !(numChannels >= 1) || ![8, 16, 24, 32, 64].includes(bitsPerSample))
      return wrong(
        "unreadable",
        "",
        `not a WAV file Airway can read: ${sampleRate} Hz, ${numChannels} channels, ${bitsPerSample} bits`,
      );
    if (samples.length < (2 * numChannels * bitsPerSample) / 8)
      return wrong("missing", "", "the WAV file holds no samples");
    return {
      ok: true,
      value: {
        rateHz: sampleRate,
        channels: numChannels,
        bits: bitsPerSample,
        float: format === floatFormat,
        data: samples,
      },
    };
  } catch (error) {
    return wrong("unreadable", "", `not a WAV file Airway can read: ${(error as Error).message}`);
  }
}

const countOf = ({ data, channels, bits }: Wav): number => Math.floor(data.length / (channels * (bits / 8)));

/** What a WAV file contains; each channel is a column. */
export function sketchWav(bytes: Uint8Array): Parsed<RecordingSketch> {
  const wav = opened(bytes);
  if (!wav.ok) return wav;
  const read = readerOf(wav.value);
  const columns = Array.from({ length: wav.value.channels }, (_, channel) => ({
    name: wav.value.channels === 1 ? "samples" : `channel ${channel + 1}`,
    unit: "",
    first: Array.from({ length: Math.min(5, countOf(wav.value)) }, (__, i) => read(i, channel)),
  }));
  return {
    ok: true,
    value: {
      kind: "wav",
      delimiter: "",
      decimal: ".",
      headerLines: 0,
      columns,
      timeColumn: null,
      secondsPerFigure: 1,
      valueColumn: 0,
      perFigure: 1,
      inAmps: false,
      rateHz: wav.value.rateHz,
      samples: countOf(wav.value),
    },
  };
}

/** A sample by index and channel, full scale 1. */
function readerOf({ data, channels, bits, float }: Wav): (index: number, channel: number) => number {
  const view = new DataView(data.buffer, data.byteOffset, data.byteLength);
  const size = bits / 8;
  const at = (index: number, channel: number): number => (index * channels + channel) * size;
  if (float)
    return bits === 64
      ? (index, channel) => view.getFloat64(at(index, channel), true)
      : (index, channel) => view.getFloat32(at(index, channel), true);
  switch (bits) {
    case 8:
      return (index, channel) => (view.getUint8(at(index, channel)) - 128) / 128;
    case 24:
      return (index, channel) => {
        const place = at(index, channel);
        return ((view.getInt16(place + 1, true) << 8) | view.getUint8(place)) / 2 ** 23;
      };
    case 32:
      return (index, channel) => view.getInt32(at(index, channel), true) / 2 ** 31;
    default:
      return (index, channel) => view.getInt16(at(index, channel), true) / 2 ** 15;
  }
}

const littleEndian = new Uint8Array(new Uint16Array([1]).buffer)[0] === 1;

/** One channel of a WAV file, scaled. */
export function wavSamples(bytes: Uint8Array, channel: number, times: number): Parsed<CurrentRecording> {
  const wav = opened(bytes);
  if (!wav.ok) return wav;
  const count = countOf(wav.value);
  if (count > mostSamples)
    return wrong("out-of-range", "", `at most ${mostSamples} samples are read, got ${count}`);
  const amps = new Float32Array(count);
  const { data, channels, bits, float } = wav.value;
  // The usual format is read without a call for each sample; most machines store numbers in the file's byte order.
  if (bits === 16 && !float && data.byteOffset % 2 === 0 && littleEndian) {
    const whole = new Int16Array(data.buffer, data.byteOffset, count * channels);
    for (let i = 0; i < count; i++) amps[i] = ((whole[i * channels + channel] as number) / 2 ** 15) * times;
    return { ok: true, value: { amps, rateHz: wav.value.rateHz } };
  }
  const read = readerOf(wav.value);
  for (let i = 0; i < count; i++) {
    const value = read(i, channel) * times;
    if (!Number.isFinite(value)) return wrong("wrong-value", `sample ${i + 1}`, "is not a number");
    amps[i] = value;
  }
  return { ok: true, value: { amps, rateHz: wav.value.rateHz } };
}
