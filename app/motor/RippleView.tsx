import type { Dispatch, SetStateAction } from "react";
import { useState } from "react";
import { useRevalidator } from "react-router";
import type { MotorPageData } from "./motorPageView.server";
import type { RecordingLine } from "./motorView.server";
import { RecordingActions } from "./RecordingActions";
import { RippleFigures } from "./RippleFigures";
import { RipplePictures } from "./RipplePictures";
import { RecordingImport } from "./recording/RecordingImport";
import type { RippleLine } from "./rippleLine";

const humpsOf = (lines: readonly RecordingLine[]): RippleLine[] =>
  lines.flatMap((line) => (line.record.kind === "humps" ? [{ ...line, record: line.record }] : []));

/** The motor's current bar by bar: imported, inspected, compared, entered as evidence. */
export function RippleView({ page }: { page: MotorPageData }) {
  const traces = humpsOf(page.traces);
  const healthy = humpsOf(page.healthy);
  const [chosen, setChosen] = useState<string | null>(null);
  const [beside, setBeside] = useState<string>("");
  const [shown, setShown] = useState<string>("");
  const { revalidate } = useRevalidator();
  const standing = traces.filter(({ struck }) => !struck);
  const trace = traces.find(({ id }) => id === chosen) ?? standing.at(-1);
  const others = [...traces, ...healthy].filter(({ id }) => id !== trace?.id);
  const other = others.find(({ id }) => id === beside);
  const name = ({ record, when, time, healthy: isHealthy, struck }: RippleLine): string =>
    `${record.name}, speed ${record.setup.setting}, ${when} ${time}${isHealthy ? ", healthy" : ""}${struck ? ", deleted" : ""}`;
  return (
    <div className="grid min-w-0 gap-4">
      <RecordingImport
        page={page}
        onStored={() => {
          setChosen(null);
          void revalidate();
        }}
      />
      {!trace && (
        <p className="text-base text-soft">
          No recording yet. Record the motor's current for a few seconds at a steady speed with a clamp and a
          scope, at about 20,000 samples per second, and save it as CSV or WAV.
        </p>
      )}
      {trace && (
        <>
          <div className="flex flex-wrap items-end gap-3 text-base">
            <RecordingChoice trace={trace} setChosen={setChosen} traces={traces} name={name} />
            <BesideChoice other={other} setBeside={setBeside} others={others} healthy={healthy} name={name} />
            <RecordingActions page={page} trace={trace} />
          </div>
          <div className="grid items-start gap-4 lg:grid-cols-[minmax(0,2fr)_minmax(0,3fr)]">
            <RippleFigures page={page} trace={trace} shown={shown} onShow={setShown} />
            <RipplePictures key={trace.id} trace={trace} other={other ?? null} shown={shown} />
          </div>
        </>
      )}
    </div>
  );
}

interface RecordingChoiceProps {
  readonly trace: RippleLine;
  readonly setChosen: Dispatch<SetStateAction<string | null>>;
  readonly traces: RippleLine[];
  readonly name: (line: RippleLine) => string;
}

/** Which recording is shown. */
function RecordingChoice({ trace, setChosen, traces, name }: RecordingChoiceProps) {
  return (
    <label className="grid min-w-0 text-soft">
      {" "}
      Recording
      <select
        className="field max-w-full text-ink"
        value={trace.id}
        onChange={(event) => setChosen(event.target.value)}
      >
        {traces.map((line) => (
          <option key={line.id} value={line.id}>
            {name(line)}
          </option>
        ))}
      </select>
    </label>
  );
}

interface BesideChoiceProps {
  readonly other: RippleLine | undefined;
  readonly setBeside: Dispatch<SetStateAction<string>>;
  readonly others: RippleLine[];
  readonly healthy: RippleLine[];
  readonly name: (line: RippleLine) => string;
}

/** Which recording is shown for comparison. */
function BesideChoice({ other, setBeside, others, healthy, name }: BesideChoiceProps) {
  return (
    <label className="grid min-w-0 text-soft">
      compare with
      <select
        className="field max-w-full text-ink"
        value={other?.id ?? ""}
        onChange={(event) => setBeside(event.target.value)}
      >
        <option value="">nothing</option>
        {others.map((line) => (
          <option key={line.id} value={line.id}>
            {healthy.includes(line) ? `healthy reference for this motor: ${line.record.name}` : name(line)}
          </option>
        ))}
      </select>
    </label>
  );
}
