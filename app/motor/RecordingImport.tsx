import type { RecordingChoice } from "@core/recording/recordingFile";
import type { RecordingSketch } from "@core/recording/recordingSketch";
import type { RippleOptions } from "@core/ripple/rippleOptions";
import type { ProbeScale } from "@core/signal/probeScale";
import { typedFigure } from "@core/units/typedFigure";
import type { Dispatch, RefObject, SetStateAction } from "react";
import { useRef, useState } from "react";
import { SmallField } from "../ui/SmallField";
import { useFileDrop } from "../ui/useFileDrop";
import { askInstrument } from "./InstrumentPanel";
import type { MotorPageData } from "./motorPageView.server";
import type { RippleRead } from "./recordingWorker";
import { SpeedChoice } from "./SpeedChoice";
import { storeRecording, useRecordingWorker } from "./useRecordingWorker";
import { WorkingBar } from "./WorkingBar";

interface RecordingImportProps {
  readonly page: MotorPageData;
  readonly onStored: () => void;
}

interface Opened {
  readonly file: File;
  readonly sketch: RecordingSketch;
}

const mostFileBytes = 400 * 1024 * 1024;
const typed = (text: string): number | undefined => {
  const value = typedFigure(text);
  return value > 0 ? value : undefined;
};

/** Speed the circuit predicts of a healthy motor on this setting; undefined where it would stand. */
const predictedRpm = (page: MotorPageData, setting: string): number | undefined =>
  page.draw.setups.find(({ setup }) => setup.setting === setting)?.healthyRpm || undefined;

type ScaleKind = ProbeScale["kind"];
const scaleWords: Readonly<Record<ScaleKind, string>> = {
  "volts-per-amp": "a clamp, mV an amp",
  "amps-per-volt": "a clamp, A a volt",
  shunt: "a shunt, mΩ",
  amps: "amps already",
};

function scaleFrom(kind: ScaleKind, figure: string): ProbeScale | null {
  const value = typed(figure);
  if (kind === "amps") return { kind };
  if (value === undefined) return null;
  if (kind === "volts-per-amp") return { kind, voltsPerAmp: value / 1000 };
  return kind === "shunt" ? { kind, ohms: value / 1000 } : { kind, ampsPerVolt: value };
}

/** What is said of a recording: how it was made, and how the file is to be read. */
function useRecordingFields(page: MotorPageData) {
  const [setting, setSetting] = useState(page.settings.at(-1) ?? "");
  const [bars, setBars] = useState(page.motor.bars === null ? "" : String(page.motor.bars));
  const [poles, setPoles] = useState(String(page.motor.poles));
  const [rpm, setRpm] = useState("");
  const [chopping, setChopping] = useState("");
  const [kind, setKind] = useState<ScaleKind>("volts-per-amp");
  const [scale, setScale] = useState("10");
  const [column, setColumn] = useState(0);
  const [rate, setRate] = useState("");
  const made = { setting, setSetting, bars, setBars, poles, setPoles, rpm, setRpm, chopping, setChopping };
  return { ...made, kind, setKind, scale, setScale, column, setColumn, rate, setRate };
}

type RecordingFields = ReturnType<typeof useRecordingFields>;

const optionsOf = (page: MotorPageData, fields: RecordingFields): RippleOptions => ({
  bars: typed(fields.bars),
  poles: typed(fields.poles) ?? 2,
  rpm: typed(fields.rpm),
  aboutRpm: predictedRpm(page, fields.setting),
  choppingHz: typed(fields.chopping),
});

/** How the opened file is read; null where the probe's scale is not said. */
function choiceOf({ kind, scale, column, rate }: RecordingFields): RecordingChoice | null {
  const probe = scaleFrom(kind, scale);
  const rateHz = typed(rate);
  return probe && { valueColumn: column, scale: probe, ...(rateHz === undefined ? {} : { rateHz }) };
}

/** What the practice instrument is asked for: two seconds of the motor's current. */
const scopeFields = (page: MotorPageData, setting: string, rateHz: number) => ({
  port: "",
  what: "trace",
  around: page.motor.id,
  key: "run",
  engine: page.engine ? "yes" : "no",
  setting,
  rateHz: String(rateHz),
  samples: String(2 * rateHz),
});

/** Stores what was read of a recording. */
async function keepRecording(
  page: MotorPageData,
  setting: string,
  { figures, picture, kept, milliseconds }: RippleRead,
  name: string,
  source: string,
): Promise<void> {
  performance.measure("airway:analysed", { start: 0, duration: milliseconds });
  const setup = { key: "run", setting, ...(page.engine ? { engine: true } : {}) };
  const record = { kind: "humps", name, motor: page.motor.id, source, setup, figures, picture };
  await storeRecording(page.id, record, kept);
}

/** A file opened and looked at before it is taken. */
function useOpened(fields: RecordingFields, ask: Ask, onProblem: (problem: string) => void) {
  const [opened, setOpened] = useState<Opened | null>(null);
  const open = async (file: File | undefined): Promise<void> => {
    if (!file) return;
    onProblem("");
    setOpened(null);
    if (file.size > mostFileBytes) {
      onProblem(
        `${file.name} is ${Math.round(file.size / 1e6)} MB: at most ${Math.round(mostFileBytes / 1e6)} MB are read. Save a shorter stretch.`,
      );
      return;
    }
    try {
      const { sketch } = await ask<{ sketch: RecordingSketch }>({ do: "sketch", file });
      const { timeColumn, kind, rateHz } = sketch;
      setOpened({ file, sketch });
      fields.setColumn(sketch.valueColumn);
      fields.setKind(sketch.inAmps ? "amps" : "volts-per-amp");
      fields.setRate(
        timeColumn === null && kind === "csv" && rateHz !== null ? String(Math.round(rateHz)) : "",
      );
    } catch (error) {
      onProblem(`${file.name}: ${(error as Error).message}`);
    }
  };
  return { opened, setOpened, open };
}

type Ask = ReturnType<typeof useRecordingWorker>["ask"];

/** A trace from a file, looked at before it is taken, or from the instrument; read on a thread of its own. */
export function RecordingImport({ page, onStored }: RecordingImportProps) {
  const { ask, stop, working } = useRecordingWorker();
  const [problem, setProblem] = useState("");
  const input = useRef<HTMLInputElement>(null);
  const fields = useRecordingFields(page);
  const { opened, setOpened, open } = useOpened(fields, ask, setProblem);
  const { setting } = fields;
  const keep = async (ripple: RippleRead, name: string, source: string): Promise<void> => {
    await keepRecording(page, setting, ripple, name, source);
    setOpened(null);
    onStored();
  };
  const read = async (): Promise<void> => {
    if (!opened) return;
    const { file } = opened;
    const choice = choiceOf(fields);
    setProblem(choice ? "" : "Say what the probe makes of an amp: 10 mV on most clamps.");
    if (!choice) return;
    try {
      const task = { do: "read" as const, file, choice, options: optionsOf(page, fields) };
      const { humps: ripple } = await ask<{ humps: RippleRead }>(task);
      await keep(ripple, file.name.slice(0, 110), "file");
    } catch (error) {
      setProblem(`${file.name}: ${(error as Error).message}`);
    }
  };
  const fromInstrument = async (): Promise<void> => {
    setProblem("");
    try {
      const rateHz = page.chopped ? 80_000 : 20_000;
      const samples = await (await askInstrument(page.id, scopeFields(page, setting, rateHz))).arrayBuffer();
      const task = { do: "samples" as const, samples, rateHz, options: optionsOf(page, fields) };
      const { humps: ripple } = await ask<{ humps: RippleRead }>(task, [samples]);
      await keep(ripple, `scope, speed ${setting}`, "Practice instrument");
    } catch (error) {
      setProblem((error as Error).message);
    }
  };
  const { over, target } = useFileDrop((file) => void open(file));
  return (
    <section
      aria-labelledby="bring-trace"
      className={`sheet-card grid gap-2 p-3 text-base ${over ? "border-dashed !border-ink" : ""}`}
      {...target}
    >
      <ReadRecording {...{ page, input, open, working, fromInstrument }} {...fields} />
      {opened && <Found opened={opened} />}
      {opened && <ColumnChoice {...{ opened, setOpened, working, read }} {...fields} />}
      <WorkingBar working={working} onStop={stop} problem={problem} />
    </section>
  );
}

const delimiterWords: Readonly<Record<string, string>> = {
  ",": "commas",
  ";": "semicolons",
  "\t": "tabs",
  "|": "bars",
  " ": "spaces",
};

/** What the file was found to hold, before it is taken. */
function Found({ opened: { file, sketch } }: { opened: Opened }) {
  const { kind, delimiter, decimal, headerLines, columns, timeColumn, rateHz, samples } = sketch;
  return (
    <div data-testid="found">
      <p>
        <b>{file.name}</b>:{" "}
        {kind === "wav"
          ? `WAV, ${columns.length} channel${columns.length === 1 ? "" : "s"}; full scale counts as one volt, and a sound card keeps no steady part: the mean cannot be trusted`
          : `${delimiterWords[delimiter] ?? delimiter} between columns, decimal ${decimal === "," ? "comma" : "point"}, ${headerLines} line${headerLines === 1 ? "" : "s"} of header`}
        ; some {samples.toLocaleString("en-GB")} samples
        {rateHz === null
          ? ", no times in it: give the samples a second"
          : `, ${Math.round(rateHz).toLocaleString("en-GB")} a second, ${(samples / rateHz).toFixed(2)} s`}
        .
      </p>
      <div className="overflow-x-auto">
        <table className="figures">
          <tbody>
            {columns.map((column, i) => (
              <tr key={i}>
                <th scope="row" className="pr-3 text-left font-normal text-soft">
                  {column.name || `column ${i + 1}`}
                  {column.unit ? ` (${column.unit})` : ""}
                  {i === timeColumn ? ", time" : ""}
                </th>
                {column.first.map((value, j) => (
                  <td key={j} className="pr-3 text-right">
                    {Number.isFinite(value) ? Number(value.toPrecision(6)) : "–"}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </div>
  );
}

interface ReadRecordingProps {
  readonly page: RecordingImportProps["page"];
  readonly setting: string;
  readonly setSetting: Dispatch<SetStateAction<string>>;
  readonly bars: string;
  readonly setBars: Dispatch<SetStateAction<string>>;
  readonly poles: string;
  readonly setPoles: Dispatch<SetStateAction<string>>;
  readonly rpm: string;
  readonly setRpm: Dispatch<SetStateAction<string>>;
  readonly chopping: string;
  readonly setChopping: Dispatch<SetStateAction<string>>;
  readonly input: RefObject<HTMLInputElement | null>;
  readonly open: (file: File | undefined) => Promise<void>;
  readonly working: ReturnType<typeof useRecordingWorker>["working"];
  readonly fromInstrument: () => Promise<void>;
}

/** How the trace was taken, and the file or instrument it comes from. */
function ReadRecording({
  page,
  setting,
  setSetting,
  bars,
  setBars,
  poles,
  setPoles,
  rpm,
  setRpm,
  chopping,
  setChopping,
  input,
  open,
  working,
  fromInstrument,
}: ReadRecordingProps) {
  return (
    <div className="flex flex-wrap items-end gap-3">
      <h2 id="bring-trace" className="self-center font-bold">
        Read a trace
      </h2>
      <SpeedChoice label="taken on speed" settings={page.settings} value={setting} onChange={setSetting} />
      <SmallField label="bars" value={bars} onChange={setBars} hint="if known" />
      <SmallField label="poles" value={poles} onChange={setPoles} />
      <SmallField label="rpm" value={rpm} onChange={setRpm} hint="if known" />
      <SmallField label="chopping, Hz" value={chopping} onChange={setChopping} hint="if known" />
      <input
        ref={input}
        type="file"
        accept=".csv,.txt,.tsv,.wav,text/csv,audio/wav"
        className="sr-only"
        aria-label="A CSV or WAV file of the motor's current"
        onChange={(event) => {
          void open(event.target.files?.[0]);
          event.target.value = "";
        }}
      />
      <button
        type="button"
        className="btn btn-main"
        disabled={working !== null}
        onClick={() => input.current?.click()}
      >
        CSV or WAV file
      </button>
      {page.practice !== null && (
        <button
          type="button"
          className="btn"
          disabled={working !== null}
          onClick={() => void fromInstrument()}
        >
          From the practice scope
        </button>
      )}
    </div>
  );
}

interface ColumnChoiceProps {
  readonly opened: Opened;
  readonly column: number;
  readonly setColumn: Dispatch<SetStateAction<number>>;
  readonly kind: ScaleKind;
  readonly setKind: Dispatch<SetStateAction<ScaleKind>>;
  readonly scale: string;
  readonly setScale: Dispatch<SetStateAction<string>>;
  readonly rate: string;
  readonly setRate: Dispatch<SetStateAction<string>>;
  readonly working: ReturnType<typeof useRecordingWorker>["working"];
  readonly read: () => Promise<void>;
  readonly setOpened: Dispatch<SetStateAction<Opened | null>>;
}

/** Which column of an opened file holds the current, and in which scale. */
function ColumnChoice({
  opened,
  column,
  setColumn,
  kind,
  setKind,
  scale,
  setScale,
  rate,
  setRate,
  working,
  read,
  setOpened,
}: ColumnChoiceProps) {
  return (
    <div className="flex flex-wrap items-end gap-3">
      {opened.sketch.columns.length > 1 && (
        <label className="grid text-soft">
          the current is in
          <select
            className="field text-ink"
            value={column}
            onChange={(event) => setColumn(Number(event.target.value))}
          >
            {opened.sketch.columns.map(({ name, unit }, i) => (
              <option key={i} value={i} disabled={i === opened.sketch.timeColumn}>
                {name || `column ${i + 1}`}
                {unit ? `, ${unit}` : ""}
              </option>
            ))}
          </select>
        </label>
      )}
      <ScaleChoice kind={kind} setKind={setKind} />
      {kind !== "amps" && (
        <SmallField label={scaleWords[kind].split(", ")[1] ?? ""} value={scale} onChange={setScale} />
      )}
      {opened.sketch.timeColumn === null && opened.sketch.kind === "csv" && (
        <SmallField label="samples a second" value={rate} onChange={setRate} />
      )}
      <button type="button" className="btn btn-main" disabled={working !== null} onClick={() => void read()}>
        Read it
      </button>
      <button type="button" className="btn" onClick={() => setOpened(null)}>
        Leave it
      </button>
    </div>
  );
}

interface ScaleChoiceProps {
  readonly kind: ColumnChoiceProps["kind"];
  readonly setKind: ColumnChoiceProps["setKind"];
}

/** What the probe makes of an amp. */
function ScaleChoice({ kind, setKind }: ScaleChoiceProps) {
  return (
    <label className="grid text-soft">
      measured by
      <select
        className="field text-ink"
        value={kind}
        onChange={(event) => setKind(event.target.value as ScaleKind)}
      >
        {(Object.keys(scaleWords) as ScaleKind[]).map((own) => (
          <option key={own} value={own}>
            {scaleWords[own]}
          </option>
        ))}
      </select>
    </label>
  );
}
