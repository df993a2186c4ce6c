import type { RecordingChoice } from "@core/recording/recordingFile";
import type { RippleOptions } from "@core/ripple/rippleOptions";
import type { ProbeScale } from "@core/signal/probeScale";
import { typedFigure } from "@core/units/typedFigure";
import { useState } from "react";
import type { MotorPageData } from "../motorPageView.server";

/** A typed figure above 0; undefined if it is not one. */
const typed = (text: string): number | undefined => {
  const value = typedFigure(text);
  return value > 0 ? value : undefined;
};

/** Predicted speed of a healthy motor on this setting; undefined if it would stand still. */
export const predictedRpm = (page: MotorPageData, setting: string): number | undefined =>
  page.draw.setups.find(({ setup }) => setup.setting === setting)?.healthyRpm || undefined;

/** The name of a probe's scale. */
export const scaleWords: Readonly<Record<ProbeScale["kind"], string>> = {
  "volts-per-amp": "clamp, mV per amp",
  "amps-per-volt": "clamp, A per volt",
  shunt: "shunt, mΩ",
  amps: "already in amps",
};

export type ScaleKind = ProbeScale["kind"];
function scaleFrom(kind: ScaleKind, figure: string): ProbeScale | null {
  const value = typed(figure);
  if (kind === "amps") return { kind };
  if (value === undefined) return null;
  if (kind === "volts-per-amp") return { kind, voltsPerAmp: value / 1000 };
  return kind === "shunt" ? { kind, ohms: value / 1000 } : { kind, ampsPerVolt: value };
}

/** The facts of a recording: how it was made, and how the file is to be read. */
export function useRecordingFields(page: MotorPageData) {
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

export type RecordingFields = ReturnType<typeof useRecordingFields>;

export const optionsOf = (page: MotorPageData, fields: RecordingFields): RippleOptions => ({
  bars: typed(fields.bars),
  poles: typed(fields.poles) ?? 2,
  rpm: typed(fields.rpm),
  aboutRpm: predictedRpm(page, fields.setting),
  choppingHz: typed(fields.chopping),
});

/** How the opened file is read; null if the probe's scale is missing. */
export function choiceOf({ kind, scale, column, rate }: RecordingFields): RecordingChoice | null {
  const probe = scaleFrom(kind, scale);
  const rateHz = typed(rate);
  return probe && { valueColumn: column, scale: probe, ...(rateHz === undefined ? {} : { rateHz }) };
}
