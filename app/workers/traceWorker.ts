import { problemText } from "@core/formats/problem";
import { readTrace, sketchTrace, type TraceChoice, type TraceSketch } from "@core/formats/traceFile";
import { type Humps, type HumpsOptions, readHumps, Stopped } from "@core/motor/humps";
import { type MotorSound, motorSound, type SoundOptions } from "@core/motor/motorSound";
import { spectrogramOf } from "@core/motor/soundTone";
import {
  type SpectrogramPicture,
  type SpectrumPicture,
  spectrogramPicture,
  spectrumPicture,
  type TracePicture,
  tracePicture,
} from "@core/motor/tracePicture";

/** A sound file with the speed it was recorded at. */
export interface SoundFile {
  readonly name: string;
  readonly bytes: ArrayBuffer;
  readonly setting: string;
  readonly rpm: number | null;
}

export type TraceTask =
  | { readonly do: "sketch"; readonly bytes: ArrayBuffer }
  | {
      readonly do: "read";
      readonly bytes: ArrayBuffer;
      readonly choice: TraceChoice;
      readonly options: HumpsOptions;
    }
  | {
      readonly do: "samples";
      readonly samples: ArrayBuffer;
      readonly rateHz: number;
      readonly options: HumpsOptions;
    }
  | { readonly do: "sound"; readonly files: readonly SoundFile[]; readonly options: SoundOptions };

export interface ReadHumps {
  readonly figures: Humps;
  readonly picture: TracePicture;
  readonly kept: Float32Array;
}

export interface ReadSound {
  readonly figures: MotorSound;
  readonly picture: readonly {
    readonly name: string;
    readonly setting: string;
    readonly rpm: number | null;
    readonly spectrum: SpectrumPicture;
    readonly spectrogram: SpectrogramPicture;
  }[];
}

export type TraceNews =
  | { readonly share: number }
  | { readonly problem: string }
  | { readonly sketch: TraceSketch }
  | { readonly humps: ReadHumps }
  | { readonly sound: ReadSound };

const say = (news: TraceNews, moved: Transferable[] = []): void => postMessage(news, { transfer: moved });

/** Frequencies shown: some five times the humps'. */
const leastTopHz = 2000;
const soundTopHz = 8000;
const [columns, rows] = [220, 96];
const readShare = 0.6;

function humpsFrom(samples: Float32Array, rateHz: number, options: HumpsOptions, from: number): void {
  const trace = { amps: samples, rateHz };
  const figures = readHumps(trace, {
    ...options,
    onProgress: (share) => {
      say({ share: from + (1 - from) * 0.95 * share });
      return true;
    },
  });
  const { picture, kept } = tracePicture(
    trace,
    figures.steadySeconds[0],
    Math.max(leastTopHz, 5 * (figures.humpHz ?? 0)),
  );
  say({ humps: { figures, picture, kept } }, [kept.buffer as ArrayBuffer]);
}

function sound(files: readonly SoundFile[], options: SoundOptions): void {
  const recordings = [];
  for (const [i, { bytes, name, rpm }] of files.entries()) {
    const read = readTrace(new Uint8Array(bytes), { kind: "wav" });
    if (!read.ok) {
      say({ problem: `${name}: ${read.problems.map(problemText).join("; ")}` });
      return;
    }
    recordings.push({ samples: read.value.amps, rateHz: read.value.rateHz, rpm });
    say({ share: (0.3 * (i + 1)) / files.length });
  }
  const figures = motorSound(recordings, options);
  say({ share: 0.7 });
  const picture = recordings.map(({ samples, rateHz, rpm }, i) => {
    const topHz = Math.min(soundTopHz, rateHz / 2);
    return {
      name: files[i]?.name ?? "",
      setting: files[i]?.setting ?? "",
      rpm,
      spectrum: spectrumPicture(samples, rateHz, topHz),
      spectrogram: spectrogramPicture(spectrogramOf(samples, rateHz, columns, rows, topHz)),
    };
  });
  say({ sound: { figures, picture } });
}

function take(task: TraceTask): void {
  switch (task.do) {
    case "sketch": {
      const sketch = sketchTrace(new Uint8Array(task.bytes));
      say(sketch.ok ? { sketch: sketch.value } : { problem: sketch.problems.map(problemText).join("; ") });
      break;
    }
    case "read": {
      const read = readTrace(new Uint8Array(task.bytes), task.choice, (share) => {
        say({ share: readShare * share });
        return true;
      });
      if (read.ok) humpsFrom(read.value.amps, read.value.rateHz, task.options, readShare);
      else say({ problem: read.problems.map(problemText).join("; ") });
      break;
    }
    case "samples":
      humpsFrom(new Float32Array(task.samples), task.rateHz, task.options, 0);
      break;
    case "sound":
      sound(task.files, task.options);
  }
}

addEventListener("message", ({ data }: MessageEvent<TraceTask>) => {
  try {
    take(data);
  } catch (error) {
    say({
      problem: error instanceof Stopped ? "Stopped." : `That could not be read: ${(error as Error).message}`,
    });
  }
});
