import type { RecordingSketch } from "@core/recording/recordingSketch";
import type { Dispatch, RefObject, SetStateAction } from "react";
import { SmallField } from "../../ui/SmallField";
import type { MotorPageData } from "../motorPageView.server";
import { SpeedChoice } from "../SpeedChoice";
import type { useRecordingWorker } from "../useRecordingWorker";
import { type ScaleKind, scaleWords } from "./useRecordingFields";

interface ReadRecordingProps {
  readonly page: MotorPageData;
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

/** How the recording was made, and the file or instrument it comes from. */
export function ReadRecording({
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
        Import a recording
      </h2>
      <SpeedChoice label="recorded on speed" settings={page.settings} value={setting} onChange={setSetting} />
      <SmallField label="bars" value={bars} onChange={setBars} hint="if known" />
      <SmallField label="poles" value={poles} onChange={setPoles} />
      <SmallField label="rpm" value={rpm} onChange={setRpm} hint="if known" />
      <SmallField label="PWM frequency, Hz" value={chopping} onChange={setChopping} hint="if known" />
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

/** The column that holds the current in the open file, and its scale. */
export function ColumnChoice({
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
          current column
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
        <SmallField label="samples per second" value={rate} onChange={setRate} />
      )}
      <button type="button" className="btn btn-main" disabled={working !== null} onClick={() => void read()}>
        Analyse
      </button>
      <button type="button" className="btn" onClick={() => setOpened(null)}>
        Cancel
      </button>
    </div>
  );
}

interface ScaleChoiceProps {
  readonly kind: ColumnChoiceProps["kind"];
  readonly setKind: ColumnChoiceProps["setKind"];
}

/** The probe's scale. */
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

const delimiterWords: Readonly<Record<string, string>> = {
  ",": "commas",
  ";": "semicolons",
  "\t": "tabs",
  "|": "bars",
  " ": "spaces",
};

/** What the file was found to contain, before it is imported. */
export function Found({ opened: { file, sketch } }: { opened: Opened }) {
  const { kind, delimiter, decimal, headerLines, columns, timeColumn, rateHz, samples } = sketch;
  return (
    <div data-testid="found">
      <p>
        <b>{file.name}</b>:{" "}
        {kind === "wav"
          ? `WAV, ${columns.length} channel${columns.length === 1 ? "" : "s"}; full scale is taken as one volt; a sound card loses the steady part, so the mean cannot be trusted`
          : `${delimiterWords[delimiter] ?? delimiter} between columns, decimal ${decimal === "," ? "comma" : "point"}, ${headerLines} line${headerLines === 1 ? "" : "s"} of header`}
        ; some {samples.toLocaleString("en-GB")} samples
        {rateHz === null
          ? ", no times in it: give the samples per second"
          : `, ${Math.round(rateHz).toLocaleString("en-GB")} per second, ${(samples / rateHz).toFixed(2)} s`}
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

export interface Opened {
  readonly file: File;
  readonly sketch: RecordingSketch;
}
