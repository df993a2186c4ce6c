import type { RecordingSketch } from "@core/recording/recordingSketch";
import { useRef, useState } from "react";
import { useFileDrop } from "../../ui/useFileDrop";
import { askInstrument } from "../InstrumentPanel";
import type { MotorPageData } from "../motorPageView.server";
import type { RippleRead } from "../recordingWorker";
import { storeRecording, useRecordingWorker } from "../useRecordingWorker";
import { WorkingBar } from "../WorkingBar";
import { ColumnChoice, Found, type Opened, ReadRecording } from "./RecordingFields";
import { choiceOf, optionsOf, type RecordingFields, useRecordingFields } from "./useRecordingFields";

interface RecordingImportProps {
  readonly page: MotorPageData;
  readonly onStored: () => void;
}

const mostFileBytes = 400 * 1024 * 1024;
/** The request to the practice instrument: two seconds of the motor's current. */
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

/** Stores the result of reading a recording. */
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

/** A file opened for inspection before it is imported. */
function useOpened(fields: RecordingFields, ask: Ask, onProblem: (problem: string) => void) {
  const [opened, setOpened] = useState<Opened | null>(null);
  const open = async (file: File | undefined): Promise<void> => {
    if (!file) return;
    onProblem("");
    setOpened(null);
    if (file.size > mostFileBytes) {
      onProblem(
        `${file.name} is ${Math.round(file.size / 1e6)} MB: at most ${Math.round(mostFileBytes / 1e6)} MB can be read. Save a shorter recording.`,
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

/** A recording from a file, inspected before it is imported, or from the instrument; read on a thread of its own. */
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
    setProblem(choice ? "" : "Enter the scale of the probe: most clamps give 10 mV per amp.");
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
