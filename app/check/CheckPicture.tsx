import { airflowSeen } from "@core/predict/observations/airflowSeen";
import { airflowWords } from "@words/stateWords";
import { Picture } from "../ui/Picture";
import type { ProvenBy } from "./CheckLine";
import type { CheckLineData } from "./checkView.server";

interface CheckPictureProps {
  readonly steps: readonly CheckLineData[];
  readonly by: ProvenBy;
}

const titles = {
  airflow: "Air at each speed, expected and found",
  amps: "Amps at each speed, expected and measured",
  volts: "Volts at each speed, expected and measured",
} as const;

const phaseWords = { open: "before the panels", closed: "after the panels" } as const;

/** A step in a few characters: the speed and which way the switch was turned. */
function shortTitle({ does, setting }: CheckLineData): string {
  switch (does) {
    case "up":
      return `${setting} ↑`;
    case "down":
      return `${setting} ↓`;
    case "off":
    case "off-again":
      return "off";
    case "key-out":
      return "key out";
    default:
      return setting ?? "";
  }
}

/** What a finding shows on the picture's scale: amps, volts, or how strong the air is. */
function shownValue({ finding }: CheckLineData, by: ProvenBy): number | null {
  if (finding?.by === "airflow" && by === "airflow") return airflowSeen.indexOf(finding.seen);
  if (finding?.by === "amps" && by === "amps") return finding.amps;
  return finding?.by === "volts" && by === "volts" ? finding.volts : null;
}

/** What a sound vehicle shows: from, to. */
function expectedSpan({ bands, expected }: CheckLineData, by: ProvenBy): [number, number] | null {
  if (by !== "airflow") return bands ? [Math.max(0, bands[by].low), bands[by].high] : null;
  const level = airflowSeen.findIndex((seen) => airflowWords[seen] === expected);
  return [level - 0.12, level + 0.12];
}

/** Each speed's expected range and what was found before and after the panels went back. */
export function CheckPicture({ steps, by }: CheckPictureProps) {
  const air = steps.filter(({ kind }) => kind === "air");
  const rows = air.map((step) => ({
    title: step.title,
    label: shortTitle(step),
    phase: step.phase,
    span: expectedSpan(step, by),
    value: shownValue(step, by),
  }));
  const found = rows.filter(({ value }) => value !== null);
  const words = (value: number): string =>
    by === "airflow"
      ? airflowWords[airflowSeen[value] ?? "none"]
      : `${value.toFixed(1)} ${by === "amps" ? "A" : "V"}`;
  return (
    <Picture
      title={titles[by]}
      words={
        found.length === 0
          ? "Nothing is entered yet; the bars show what to expect."
          : found.map(({ title, value }) => `${title}: ${words(value ?? 0)}`).join("; ")
      }
      file={`airway-check-${by}`}
      of={JSON.stringify([by, rows])}
      height={260}
      configure={(colours) => ({
        type: "bar",
        data: {
          labels: rows.map(({ label }) => label),
          datasets: [
            {
              label: "expected",
              data: rows.map(({ span }) => span),
              backgroundColor: colours.rule,
              borderColor: colours.ink,
              borderWidth: 1,
              borderSkipped: false,
              order: 2,
            },
            ...(["open", "closed"] as const).map((phase) => ({
              type: "line" as const,
              label: `found ${phaseWords[phase]}`,
              data: rows.map((row) => (row.phase === phase ? row.value : null)),
              showLine: false,
              pointStyle: phase === "open" ? ("rectRot" as const) : ("circle" as const),
              pointRadius: 7,
              pointBorderColor: colours.ink,
              backgroundColor: colours.feed,
              order: 1,
            })),
          ],
        },
        options: {
          scales: {
            x: { ticks: { maxRotation: 60 } },
            y: {
              beginAtZero: true,
              ...(by === "airflow"
                ? {
                    min: -0.5,
                    max: airflowSeen.length - 0.5,
                    afterBuildTicks: (axis: { ticks: { value: number }[] }) => {
                      axis.ticks = airflowSeen.map((_, value) => ({ value }));
                    },
                    ticks: {
                      callback: (value: number | string) => {
                        const seen = airflowSeen[Number(value)];
                        return seen === undefined ? "" : airflowWords[seen];
                      },
                    },
                  }
                : { title: { display: true, text: by === "amps" ? "A" : "V" } }),
            },
          },
          plugins: { legend: { position: "bottom", labels: { usePointStyle: true } } },
        },
      })}
    />
  );
}
