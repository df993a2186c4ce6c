import { useRef, useState } from "react";
import { useRevalidator } from "react-router";
import type { MotorPageData } from "../motorPageView.server";
import type { ReadSound } from "../recordingWorker";
import { storeRecording, useRecordingWorker } from "../useRecordingWorker";

export interface Chosen {
  readonly file: File;
  readonly setting: string;
  readonly rpm: string;
}

export const mostFiles = 3;
const mostFileBytes = 100 * 1024 * 1024;

/** What the engine found in the recordings. */
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

/** What is stored of the recordings. */
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

/** Added files, the first at the highest speed, up to the number that is compared. */
const withMore = (before: readonly Chosen[], more: readonly File[], speeds: readonly string[]): Chosen[] =>
  [
    ...before,
    ...more.map((file, i): Chosen => {
      const setting = speeds[Math.max(0, speeds.length - 1 - (before.length + i))] ?? speeds[0] ?? "";
      return { file, setting, rpm: "" };
    }),
  ].slice(0, mostFiles);

/** Chooses recordings, reads them in a worker and stores them. */
export function useBringSound(page: MotorPageData, onStored: () => void) {
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
      setProblem("That file is too large. About ten seconds of recording are enough.");
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
