import { noises } from "@core/motor/mechanicalMode";
import type { SoundRecord } from "@core/recording/storedRecording";
import type { ToneSource } from "@core/sound/motorSound";
import type { Dispatch, SetStateAction } from "react";
import { useRef, useState } from "react";
import { useRevalidator } from "react-router";
import { Picture, zoomX } from "../ui/Picture";
import { SmallField } from "../ui/SmallField";
import { EnterEvidence } from "./EnterEvidence";
import { hertz, percentOf } from "./figureText";
import type { MotorPageData } from "./motorPageView.server";
import type { RecordingLine } from "./motorView.server";
import { RecordingActions } from "./RecordingActions";
import type { ReadSound } from "./recordingWorker";
import { SpectrogramPicture } from "./SpectrogramPicture";
import { SpeedChoice } from "./SpeedChoice";
import { storeRecording, useRecordingWorker } from "./useRecordingWorker";
import { WorkingBar } from "./WorkingBar";

const sourceWords: Readonly<Record<ToneSource, string>> = {
  balance: "once a turn: the wheel's balance",
  "low-order": "a few times a turn: wheel or bearing",
  bearing: "between whole turns: a bearing, most likely",
  blades: "blade by blade",
  commutation: "the commutator",
  fixed: "stays where it is: duct or whistle",
  unknown: "of no order known",
};

const noiseAdvice = {
  quiet: "Only the rush of air.",
  squeal: "A dry bearing squeals with the speed. Oil is a stopgap; the motor is due.",
  rumble: "A wheel out of balance or a worn bearing: look into the wheel before the motor is bought.",
  tick: "Something in the wheel, or a wheel that touches: look for a leaf, a twig, a screw.",
  whistle:
    "It does not follow the speed: look at the duct, a gasket, the vent hole. If a finger over the motor's vent hole stops it, the motor will fail.",
} as const;

type SoundLine = RecordingLine & { readonly record: SoundRecord };

interface Chosen {
  readonly file: File;
  readonly setting: string;
  readonly rpm: string;
}

const mostFiles = 3;
const mostFileBytes = 100 * 1024 * 1024;

/** What the engine reads of the recordings. */
const soundTask = (page: MotorPageData, files: readonly Chosen[], blades: string) => ({
  do: "sound" as const,
  files: files.map(({ file, setting, rpm }) => ({
    file,
    setting,
    rpm: Number(rpm) > 0 ? Number(rpm) : null,
  })),
  options: {
    bars: page.motor.bars ?? undefined,
    poles: page.motor.poles,
    blades: Number(blades) > 0 ? Number(blades) : undefined,
  },
});

/** What is stored of recordings that were read. */
const soundRecord = (page: MotorPageData, files: readonly Chosen[], made: ReadSound) => ({
  kind: "sound" as const,
  name: files
    .map(({ file }) => file.name)
    .join(", ")
    .slice(0, 190),
  motor: page.motor.id,
  source: "file",
  setup: { key: "run" as const, setting: files[0]?.setting ?? "" },
  ...made,
});

/** Files added, the first at the highest speed, as many as are compared. */
const withMore = (before: readonly Chosen[], more: readonly File[], speeds: readonly string[]): Chosen[] =>
  [
    ...before,
    ...more.map((file, i): Chosen => {
      const setting = speeds[Math.max(0, speeds.length - 1 - (before.length + i))] ?? speeds[0] ?? "";
      return { file, setting, rpm: "" };
    }),
  ].slice(0, mostFiles);

/** Recordings chosen, read on a thread of their own, and stored. */
function useBringSound(page: MotorPageData, onStored: () => void) {
  const { ask, stop, working } = useRecordingWorker();
  const { revalidate } = useRevalidator();
  const [files, setFiles] = useState<readonly Chosen[]>([]);
  const [blades, setBlades] = useState("");
  const [problem, setProblem] = useState("");
  const input = useRef<HTMLInputElement>(null);
  const predicted = (setting: string): string =>
    String(
      Math.round(page.draw.setups.find(({ setup }) => setup.setting === setting)?.healthyRpm ?? 0) || "",
    );
  const add = (list: FileList | null): void => {
    setProblem("");
    const more = [...(list ?? [])];
    if (more.some(({ size }) => size > mostFileBytes))
      setProblem("A recording of some ten seconds is enough; that file is too large.");
    else setFiles((before) => withMore(before, more, page.settings.slice(1)));
  };
  const change = (at: number, part: Partial<Chosen>): void =>
    setFiles(files.map((own, i) => (i === at ? { ...own, ...part } : own)));
  const read = async (): Promise<void> => {
    setProblem("");
    try {
      const { sound: made } = await ask<{ sound: ReadSound }>(soundTask(page, files, blades));
      await storeRecording(page.id, soundRecord(page, files, made), null);
      setFiles([]);
      onStored();
      void revalidate();
    } catch (error) {
      setProblem((error as Error).message);
    }
  };
  return { blades, setBlades, input, add, working, files, change, predicted, setFiles, read, stop, problem };
}

/** The blower's sound at two or three speeds: what follows the rpm and what does not. */
export function SoundView({ page }: { page: MotorPageData }) {
  const [chosen, setChosen] = useState<string | null>(null);
  const sounds = page.traces.flatMap((line) =>
    line.record.kind === "sound" ? [{ ...line, record: line.record }] : [],
  );
  const sound = sounds.find(({ id }) => id === chosen) ?? sounds.filter(({ struck }) => !struck).at(-1);
  const bring = useBringSound(page, () => setChosen(null));
  return (
    <div className="grid min-w-0 gap-4">
      <BringSound page={page} {...bring} />
      {!sound && <p className="text-base text-soft">Nothing recorded yet.</p>}
      {sound && (
        <>
          <SoundChoice sound={sound} setChosen={setChosen} sounds={sounds} page={page} />
          <Heard page={page} sound={sound} />
        </>
      )}
    </div>
  );
}

function Heard({ page, sound }: { page: MotorPageData; sound: SoundLine }) {
  const { figures, picture, setup, source } = sound.record;
  const ordered = [...noises].sort((a, b) => (figures.odds[b] ?? 0) - (figures.odds[a] ?? 0));
  const follows = figures.followsSpeed === null ? {} : { followsSpeed: figures.followsSpeed };
  return (
    <div className="grid items-start gap-4 lg:grid-cols-[minmax(0,2fr)_minmax(0,3fr)]">
      <div className="grid gap-3">
        <HeardNoise figures={figures} ordered={ordered} />
        <EnterEvidence
          token={`listen-${sound.id}`}
          source={source}
          reading={{ test: "listen", ...setup, seen: figures.likeliest, ...follows }}
        >
          Enter as evidence: {figures.likeliest}
        </EnterEvidence>
        <Tones figures={figures} />
      </div>
      <div className="grid min-w-0 gap-3">
        <SpectraPicture figures={figures} page={page} sound={sound} picture={picture} />
        {picture.map(({ name, setting, spectrogram }) => (
          <SpectrogramPicture
            key={`${name} ${setting}`}
            title={`Speed ${setting}, ${name}`}
            picture={spectrogram}
          />
        ))}
      </div>
    </div>
  );
}

interface BringSoundProps extends ReturnType<typeof useBringSound> {
  readonly page: MotorPageData;
}

/** Recordings to be listened to, from the microphone or from files. */
function BringSound({
  blades,
  setBlades,
  input,
  add,
  working,
  files,
  page,
  change,
  predicted,
  setFiles,
  read,
  stop,
  problem,
}: BringSoundProps) {
  return (
    <section aria-labelledby="bring-sound" className="sheet-card grid gap-2 p-3 text-base">
      <SoundSource
        blades={blades}
        setBlades={setBlades}
        input={input}
        add={add}
        working={working}
        files={files}
      />
      <p className="text-soft">
        Ten seconds each at two or three speeds, the phone held at the same place by the duct, doors shut.
      </p>
      {files.map(({ file, setting, rpm }, i) => (
        <SoundFileLine
          key={i}
          i={i}
          file={file}
          page={page}
          setting={setting}
          change={change}
          rpm={rpm}
          predicted={predicted}
          setFiles={setFiles}
          files={files}
        />
      ))}
      {files.length > 0 && (
        <button
          type="button"
          className="btn btn-main justify-self-start"
          disabled={working !== null}
          onClick={() => void read()}
        >
          Hear {files.length === 1 ? "it" : "them"}
        </button>
      )}
      <WorkingBar working={working} onStop={stop} problem={problem} />
    </section>
  );
}

interface SoundChoiceProps {
  readonly sound: SoundLine;
  readonly setChosen: Dispatch<SetStateAction<string | null>>;
  readonly sounds: readonly SoundLine[];
  readonly page: MotorPageData;
}

/** Which recording is shown. */
function SoundChoice({ sound, setChosen, sounds, page }: SoundChoiceProps) {
  return (
    <div className="flex flex-wrap items-end gap-3 text-base">
      <label className="grid min-w-0 text-soft">
        recordings
        <select
          className="field max-w-full text-ink"
          value={sound.id}
          onChange={(event) => setChosen(event.target.value)}
        >
          {sounds.map((line) => (
            <option key={line.id} value={line.id}>
              {line.record.name}, {line.when} {line.time}
              {line.struck ? ", struck out" : ""}
            </option>
          ))}
        </select>
      </label>
      <RecordingActions page={page} trace={sound} />
    </div>
  );
}

interface HeardNoiseProps {
  readonly figures: SoundRecord["figures"];
  readonly ordered: readonly (typeof noises)[number][];
}

/** What the noise most likely is. */
function HeardNoise({ figures, ordered }: HeardNoiseProps) {
  return (
    <section className="tag-card" aria-labelledby="heard-noise">
      <div className="tag-face text-base">
        <h2 id="heard-noise" className="pr-6 text-xl font-bold capitalize">
          {figures.likeliest}
        </h2>
        <p>{noiseAdvice[figures.likeliest]}</p>
        <p>
          {figures.followsSpeed === null
            ? ""
            : figures.followsSpeed
              ? "It follows the speed."
              : "It does not follow the speed."}
        </p>
        <ul className="mt-2 grid gap-1">
          {ordered.map((noise) => (
            <li key={noise}>
              <span className="flex justify-between">
                {noise} <span className="figures">{percentOf(figures.odds[noise] ?? 0)}</span>
              </span>
              <span
                className="doubt-bar block"
                style={{ width: `${Math.max(0.5, 100 * (figures.odds[noise] ?? 0))}%` }}
              />
            </li>
          ))}
        </ul>
        {figures.cannot.length > 0 && (
          <ul className="mt-2 list-disc pl-5 text-soft">
            {figures.cannot.map((reason) => (
              <li key={reason}>{reason}</li>
            ))}
          </ul>
        )}
      </div>
    </section>
  );
}

interface TonesProps {
  readonly figures: SoundRecord["figures"];
}

/** The strongest tones and where they come from. */
function Tones({ figures }: TonesProps) {
  return (
    <section aria-labelledby="tones" className="sheet-card p-3 text-base">
      <h2 id="tones" className="font-bold">
        Tones
      </h2>
      {figures.tones.length === 0 && <p className="text-soft">None stands out.</p>}
      <ul>
        {figures.tones.map((tone) => (
          <li key={tone.hz.join()} className="border-t border-rule py-1">
            <span className="figures">
              {tone.hz.map((hz) => (hz === null ? "–" : hertz(hz))).join(" · ")}
            </span>
            {tone.order !== null && <span className="figures"> · order {tone.order.toFixed(2)}</span>}
            <span className="text-soft"> · {Math.round(tone.over)} dB over the rest</span>
            <br />
            {sourceWords[tone.source]}
            {tone.follows === true ? ", follows the speed" : ""}
          </li>
        ))}
      </ul>
    </section>
  );
}

interface SpectraPictureProps {
  readonly figures: SoundRecord["figures"];
  readonly page: MotorPageData;
  readonly sound: SoundLine;
  readonly picture: SoundRecord["picture"];
}

/** Both spectra, with and without the motor's own lines. */
function SpectraPicture({ figures, page, sound, picture }: SpectraPictureProps) {
  return (
    <Picture
      title="Spectra"
      words={
        figures.tones
          .map(({ hz }) => `tone at ${hz.map((own) => (own === null ? "none" : hertz(own))).join(" and ")}`)
          .join("; ") || "no tone stands out"
      }
      file={`job-${page.id}-sound`}
      of={sound.id}
      zooms
      configure={(colours) => ({
        type: "line",
        data: {
          datasets: picture.map(({ setting, spectrum: { topHz, decibels } }, i) => ({
            label: `speed ${setting}`,
            data: decibels.map((y, at) => ({ x: ((at + 0.5) * topHz) / decibels.length, y })),
            borderColor: [colours.ink, colours.feed, colours.ground][i] ?? colours.ink,
            borderDash: [[], [6, 3], [2, 3]][i] ?? [],
            borderWidth: 1.5,
            pointRadius: 0,
            parsing: false as const,
          })),
        },
        options: {
          scales: {
            x: { type: "linear", title: { display: true, text: "Hz" } },
            y: { title: { display: true, text: "dB below the tallest" } },
          },
          plugins: { legend: { position: "bottom" }, zoom: zoomX },
        },
      })}
    />
  );
}

interface SoundSourceProps {
  readonly blades: BringSoundProps["blades"];
  readonly setBlades: BringSoundProps["setBlades"];
  readonly input: BringSoundProps["input"];
  readonly add: BringSoundProps["add"];
  readonly working: BringSoundProps["working"];
  readonly files: BringSoundProps["files"];
}

/** The blades of the wheel, and the recordings to listen to. */
function SoundSource({ blades, setBlades, input, add, working, files }: SoundSourceProps) {
  return (
    <div className="flex flex-wrap items-end gap-3">
      <h2 id="bring-sound" className="self-center font-bold">
        Listen to recordings
      </h2>
      <SmallField label="blades of the wheel" value={blades} onChange={setBlades} hint="if counted" />
      <input
        ref={input}
        type="file"
        multiple
        accept=".wav,audio/wav"
        className="sr-only"
        aria-label="WAV recordings of the blower"
        onChange={(event) => {
          add(event.target.files);
          event.target.value = "";
        }}
      />
      <button
        type="button"
        className="btn btn-main"
        disabled={working !== null || files.length >= mostFiles}
        onClick={() => input.current?.click()}
      >
        WAV files
      </button>
    </div>
  );
}

interface SoundFileLineProps {
  readonly i: number;
  readonly file: File;
  readonly page: BringSoundProps["page"];
  readonly setting: string;
  readonly change: BringSoundProps["change"];
  readonly rpm: string;
  readonly predicted: BringSoundProps["predicted"];
  readonly setFiles: BringSoundProps["setFiles"];
  readonly files: BringSoundProps["files"];
}

/** One recording, and the speed it was made at. */
function SoundFileLine({
  i,
  file,
  page,
  setting,
  change,
  rpm,
  predicted,
  setFiles,
  files,
}: SoundFileLineProps) {
  return (
    <div className="flex flex-wrap items-end gap-3">
      <b className="self-center">{file.name}</b>
      <SpeedChoice
        label="speed"
        settings={page.settings.slice(1)}
        value={setting}
        onChange={(own) => change(i, { setting: own })}
      />
      <SmallField
        label="rpm, if known"
        value={rpm}
        onChange={(own) => change(i, { rpm: own })}
        hint={predicted(setting)}
      />
      <button type="button" className="btn" onClick={() => change(i, { rpm: predicted(setting) })}>
        as the circuit predicts
      </button>
      <button type="button" className="btn" onClick={() => setFiles(files.filter((_, at) => at !== i))}>
        Leave it
      </button>
    </div>
  );
}
