import { SmallField } from "../../ui/SmallField";
import type { MotorPageData } from "../motorPageView.server";
import { SpeedChoice } from "../SpeedChoice";
import { WorkingBar } from "../WorkingBar";
import { mostFiles, type useBringSound } from "./useBringSound";

interface BringSoundProps extends ReturnType<typeof useBringSound> {
  readonly page: MotorPageData;
}

/** The form that takes up to three sound recordings and analyses them. */
export function BringSound({
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
        Record ten seconds at each of two or three speeds. Hold the phone at the same place by the duct, with
        the doors shut.
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

interface SoundSourceProps {
  readonly blades: BringSoundProps["blades"];
  readonly setBlades: BringSoundProps["setBlades"];
  readonly input: BringSoundProps["input"];
  readonly add: BringSoundProps["add"];
  readonly working: BringSoundProps["working"];
  readonly files: BringSoundProps["files"];
}

/** The blades on the wheel, and the recordings to listen to. */
function SoundSource({ blades, setBlades, input, add, working, files }: SoundSourceProps) {
  return (
    <div className="flex flex-wrap items-end gap-3">
      <h2 id="bring-sound" className="self-center font-bold">
        Import sound recordings
      </h2>
      <SmallField label="blades on the wheel" value={blades} onChange={setBlades} hint="if counted" />
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

/** One recording, and the speed at which it was made. */
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
        predicted by the circuit
      </button>
      <button type="button" className="btn" onClick={() => setFiles(files.filter((_, at) => at !== i))}>
        Cancel
      </button>
    </div>
  );
}
