import { type Parsed, problemText } from "@core/problem/problem";
import {
  isWav,
  partBytes,
  type RecordingChoice,
  readRecording,
  sketchRecording,
  textReader,
} from "@core/recording/recordingFile";
import type { RecordingSketch } from "@core/recording/recordingSketch";
import { readRipple } from "@core/ripple/readRipple";
import type { RippleOptions } from "@core/ripple/rippleOptions";
import type { CurrentRecording } from "@core/signal/currentRecording";
import {
  type RecordingPicture,
  recordingPicture,
  type SpectrogramPicture,
  type SpectrumPicture,
  spectrogramPicture,
  spectrumPicture,
} from "@core/signal/recordingPicture";
import { spectrogramOf } from "@core/signal/soundTone";
import { motorSound, type SoundOptions } from "@core/sound/motorSound";
import { type RippleInWords, rippleWords } from "@words/rippleWords";
import { soundWords } from "@words/soundWords";

/** A sound file with the speed at which it was recorded. */
export interface SoundFile {
  readonly file: File;
  readonly setting: string;
  readonly rpm: number | null;
}

export type RecordingTask =
  | { readonly do: "sketch"; readonly file: File }
  | {
      readonly do: "read";
      readonly file: File;
      readonly choice: RecordingChoice;
      readonly options: RippleOptions;
    }
  | {
      readonly do: "samples";
      readonly samples: ArrayBuffer;
      readonly rateHz: number;
      readonly options: RippleOptions;
    }
  | { readonly do: "sound"; readonly files: readonly SoundFile[]; readonly options: SoundOptions };

export interface RippleRead {
  readonly figures: RippleInWords;
  readonly picture: RecordingPicture;
  readonly kept: Float32Array;
  /** Time of the analysis, without reading the file. */
  readonly milliseconds: number;
}

export interface ReadSound {
  readonly figures: ReturnType<typeof soundWords>;
  readonly picture: readonly {
    readonly name: string;
    readonly setting: string;
    readonly rpm: number | null;
    readonly spectrum: SpectrumPicture;
    readonly spectrogram: SpectrogramPicture;
  }[];
}

export type RecordingNews =
  | { readonly share: number }
  | { readonly problem: string }
  | { readonly sketch: RecordingSketch }
  | { readonly humps: RippleRead }
  | { readonly sound: ReadSound };

const bytesOf = async (file: Blob): Promise<Uint8Array> => new Uint8Array(await file.arrayBuffer());

const say = (news: RecordingNews, moved: Transferable[] = []): void => postMessage(news, { transfer: moved });

/** Highest frequency shown; some five times the ripple's. */
const leastTopHz = 2000;
const soundTopHz = 8000;
const [columns, rows] = [220, 96];
const readShare = 0.6;

function humpsFrom(samples: Float32Array, rateHz: number, options: RippleOptions, from: number): void {
  const trace = { amps: samples, rateHz };
  const began = performance.now();
  const figures = readRipple(trace, {
    ...options,
    onProgress: (share) => {
      say({ share: from + (1 - from) * 0.95 * share });
    },
  });
  const { picture, kept } = recordingPicture(
    trace,
    figures.steadySeconds[0],
    Math.max(leastTopHz, 5 * (figures.humpHz ?? 0)),
  );
  say({ humps: { figures: rippleWords(figures), picture, kept, milliseconds: performance.now() - began } }, [
    kept.buffer as ArrayBuffer,
  ]);
}

async function sound(files: readonly SoundFile[], options: SoundOptions): Promise<void> {
  const recordings = [];
  for (const [i, { file, rpm }] of files.entries()) {
    const read = readRecording(await bytesOf(file), { kind: "wav" });
    if (!read.ok) {
      say({ problem: `${file.name}: ${read.problems.map(problemText).join("; ")}` });
      return;
    }
    recordings.push({ samples: read.value.amps, rateHz: read.value.rateHz, rpm });
    say({ share: (0.3 * (i + 1)) / files.length });
  }
  const figures = soundWords(motorSound(recordings, options));
  say({ share: 0.7 });
  const picture = recordings.map(({ samples, rateHz, rpm }, i) => {
    const topHz = Math.min(soundTopHz, rateHz / 2);
    return {
      name: files[i]?.file.name.slice(0, 120) ?? "",
      setting: files[i]?.setting ?? "",
      rpm,
      spectrum: spectrumPicture(samples, rateHz, topHz),
      spectrogram: spectrogramPicture(spectrogramOf(samples, rateHz, columns, rows, topHz)),
    };
  });
  say({ sound: { figures, picture } });
}

/** A text's first chunk shows its structure; a WAV file's parts may be anywhere in it. */
const headBytes = 80 * 1024;

const headOf = (file: File): Promise<Uint8Array> => bytesOf(file.slice(0, headBytes));

async function sketch(file: File): Promise<void> {
  const head = await headOf(file);
  const found = isWav(head) ? sketchRecording(await bytesOf(file)) : sketchRecording(head, "csv", file.size);
  say(found.ok ? { sketch: found.value } : { problem: found.problems.map(problemText).join("; ") });
}

/** A recording's samples; a text is read in chunks, so that its some 200 MB are never in memory at once. */
async function readFile(file: File, choice: RecordingChoice): Promise<Parsed<CurrentRecording>> {
  const head = await headOf(file);
  if (isWav(head)) return readRecording(await bytesOf(file), choice);
  const found = sketchRecording(head, "csv", file.size);
  const reader = found.ok ? textReader(found.value, choice) : found;
  if (!reader.ok) return reader;
  const part = (at: number): Promise<Uint8Array> => bytesOf(file.slice(at, at + partBytes));
  let coming = part(0);
  for (let at = 0; at < file.size; at += partBytes) {
    const here = await coming;
    // The next chunk is loaded while this one is read.
    coming = part(at + partBytes);
    const refused = reader.value.push(here);
    if (refused) return refused;
    say({ share: readShare * Math.min(1, (at + partBytes) / file.size) });
  }
  return reader.value.end();
}

async function take(task: RecordingTask): Promise<void> {
  switch (task.do) {
    case "sketch":
      return sketch(task.file);
    case "read": {
      const read = await readFile(task.file, task.choice);
      if (read.ok) humpsFrom(read.value.amps, read.value.rateHz, task.options, readShare);
      else say({ problem: read.problems.map(problemText).join("; ") });
      return;
    }
    case "samples":
      return humpsFrom(new Float32Array(task.samples), task.rateHz, task.options, 0);
    case "sound":
      return sound(task.files, task.options);
  }
}

addEventListener("message", ({ data }: MessageEvent<RecordingTask>) => {
  take(data).catch((error: unknown) => {
    say({ problem: `The file could not be read: ${(error as Error).message}` });
  });
});
