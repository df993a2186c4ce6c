import { badShare, usualHeight } from "@core/ripple/judgement";
import type { ChartConfiguration } from "chart.js";
import { useState } from "react";
import type { Colours, Mark } from "../ui/chart";
import { axes, envelopePoints, line, type Points } from "../ui/chartParts";
import { Picture, zoomX } from "../ui/Picture";
import { CloseUp } from "./CloseUp";
import type { RippleLine } from "./rippleLine";

interface HumpPicturesProps {
  readonly trace: RippleLine;
  readonly other: RippleLine | null;
  /** The figure whose place is marked. */
  readonly shown: string;
}

/** A recording's pictures: the whole, a few turns, the mean turn as strip or circle, the bars, the spectrum. */
export function RipplePictures({ trace, other, shown }: HumpPicturesProps) {
  const { figures, picture } = trace.record;
  const marks = marksOf(trace, shown);
  return (
    <div className="grid min-w-0 gap-3">
      <Picture
        title="The whole recording"
        words={`${picture.seconds.toFixed(2)} s of current, mean ${figures.meanAmps.toFixed(2)} A, peak to peak ${figures.peakToPeakAmps.toFixed(2)} A`}
        file={`trace-${trace.record.name}`}
        of={`${trace.id} ${other?.id ?? ""}`}
        marks={marks.whole}
        height={200}
        zooms
        configure={(colours) => wholeTrace(trace, other, colours)}
      />
      <CloseUp trace={trace} />
      {figures.turnAmps.length > 0 && <Turn trace={trace} other={other} marks={marks.turn} />}
      {figures.humpAmps.length > 0 && (
        <Picture
          title="Ripple by ripple"
          words={figures.humpAmps.map((height, i) => `ripple ${i + 1}: ${height.toFixed(2)} A`).join(", ")}
          file={`ripple-${trace.record.name}`}
          of={`${trace.id} ${other?.id ?? ""} ${shown === "bad"}`}
          marks={marks.bars}
          height={200}
          configure={(colours) => bars(trace, other, colours)}
        />
      )}
      {picture.spectrum && (
        <Picture
          title="Spectrum"
          words={`Strongest rhythm ${figures.humpHz === null ? "not found" : `${figures.humpHz.toFixed(1)} ripples per second`}`}
          file={`spectrum-${trace.record.name}`}
          of={trace.id}
          marks={marks.spectrum}
          height={200}
          zooms
          configure={(colours) => spectrum(trace, colours)}
        />
      )}
    </div>
  );
}

function marksOf({ record: { figures, picture } }: RippleLine, shown: string) {
  const whole: Mark[] = [];
  const turn: Mark[] = [];
  const bars: Mark[] = [];
  const spectrum: Mark[] = [];
  const usual = usualHeight(figures.humpAmps);
  switch (shown) {
    case "mean":
      whole.push({ y: figures.meanAmps, label: `mean ${figures.meanAmps.toFixed(2)} A` });
      break;
    case "swing": {
      const steady = picture.low.map((_, i) => ((i + 0.5) * picture.seconds) / picture.low.length);
      const within = (i: number): boolean =>
        (steady[i] as number) >= figures.steadySeconds[0] &&
        (steady[i] as number) <= figures.steadySeconds[1];
      whole.push({ y: Math.min(...picture.low.filter((_, i) => within(i))), label: "lowest" });
      whole.push({ y: Math.max(...picture.high.filter((_, i) => within(i))), label: "highest" });
      break;
    }
    case "humps":
      if (figures.humpHz !== null) spectrum.push({ x: figures.humpHz, label: "ripple" });
      break;
    case "turn":
      if (figures.rpm !== null) spectrum.push({ x: figures.rpm / 60, label: "one turn" });
      if (figures.humpHz !== null) spectrum.push({ x: figures.humpHz, label: "ripple" });
      break;
    case "perTurn":
    case "bad":
      bars.push({ y: badShare * usual, label: "limit" });
      break;
    case "wander":
      if (figures.turnAmps.length > 0) {
        const mean = figures.turnAmps.reduce((sum, value) => sum + value, 0) / figures.turnAmps.length;
        turn.push(
          { y: mean + (figures.wanderAmps ?? 0) / 2, label: "swing" },
          { y: mean - (figures.wanderAmps ?? 0) / 2, label: "" },
        );
      }
      break;
    case "inrush":
      if (figures.startUp)
        whole.push(
          { x: figures.startUp.atSeconds, label: "inrush" },
          { x: figures.steadySeconds[0], label: "steady" },
        );
      break;
    case "dropouts":
      for (const { atSeconds } of figures.dropouts) whole.push({ x: atSeconds, label: "" });
      break;
    case "chopping":
      if (figures.chopping) spectrum.push({ x: figures.chopping.hz, label: "chopping" });
  }
  return { whole, turn, bars, spectrum };
}

function wholeTrace({ record }: RippleLine, other: RippleLine | null, colours: Colours): ChartConfiguration {
  const own = record.picture;
  const datasets = [line(record.name, envelopePoints(own.low, own.high, 0, own.seconds), colours.ink)];
  if (other) {
    const { picture, name } = other.record;
    datasets.push(line(name, envelopePoints(picture.low, picture.high, 0, picture.seconds), colours.feed));
  }
  return {
    type: "line",
    data: { datasets },
    options: {
      scales: axes("seconds", "amps"),
      plugins: { legend: { display: other !== null, position: "bottom" }, zoom: zoomX },
    },
  };
}

/** The mean turn, as a strip, or as a circle like the commutator. */
function Turn({
  trace,
  other,
  marks,
}: {
  trace: RippleLine;
  other: RippleLine | null;
  marks: readonly Mark[];
}) {
  const [round, setRound] = useState(false);
  const { figures } = trace.record;
  return (
    <div className="grid gap-1">
      <Picture
        key={String(round)}
        title={`One turn, averaged over ${figures.turns}`}
        words={`${figures.humpsPerTurn} ripples of one turn`}
        file={`turn-${trace.record.name}`}
        of={`${trace.id} ${other?.id ?? ""} ${round}`}
        marks={round ? [] : marks}
        height={round ? 340 : 200}
        configure={(colours) => (round ? polarTurn(trace, other, colours) : stripTurn(trace, other, colours))}
      />
      <button
        type="button"
        className="btn no-print justify-self-start"
        aria-pressed={round}
        onClick={() => setRound(!round)}
      >
        {round ? "as a strip" : "as a circle"}
      </button>
    </div>
  );
}

const turnPoints = ({ record: { figures } }: RippleLine): Points => {
  const perHump = figures.turnAmps.length / Math.max(1, figures.humpsPerTurn ?? 1);
  return figures.turnAmps.map((y, i) => ({ x: (i + 0.5) / perHump + 0.5, y }));
};

function stripTurn(trace: RippleLine, other: RippleLine | null, colours: Colours): ChartConfiguration {
  const datasets = [line(trace.record.name, turnPoints(trace), colours.ink, 2)];
  if (other && other.record.figures.turnAmps.length > 0)
    datasets.push(line(other.record.name, turnPoints(other), colours.feed, 2));
  return {
    type: "line",
    data: { datasets },
    options: {
      scales: axes("ripple of the turn", "amps"),
      plugins: { legend: { display: datasets.length > 1, position: "bottom" } },
    },
  };
}

function polarTurn(trace: RippleLine, other: RippleLine | null, colours: Colours): ChartConfiguration {
  const round = ({ record: { figures, name } }: RippleLine, colour: string) => ({
    label: name,
    data: [...figures.turnAmps],
    borderColor: colour,
    borderWidth: 2,
    pointRadius: 0,
    fill: false,
  });
  const { turnAmps } = trace.record.figures;
  const all = [...turnAmps, ...(other?.record.figures.turnAmps ?? [])];
  const [low, high] = [Math.min(...all), Math.max(...all)];
  const same = other && other.record.figures.turnAmps.length === turnAmps.length;
  return {
    type: "radar",
    data: {
      labels: turnAmps.map(() => ""),
      datasets: [round(trace, colours.ink), ...(same ? [round(other, colours.feed)] : [])],
    },
    options: {
      scales: {
        r: {
          min: low - (high - low),
          max: high,
          ticks: { display: false },
          grid: { circular: true },
          angleLines: { display: false },
        },
      },
      plugins: { legend: { display: Boolean(same), position: "bottom" } },
    },
  };
}

function bars(
  { record: { figures, name } }: RippleLine,
  other: RippleLine | null,
  colours: Colours,
): ChartConfiguration {
  const usual = usualHeight(figures.humpAmps);
  const colourOf = (hump: number): string =>
    figures.badHumps.includes(hump) ? colours.danger : colours.ground;
  return {
    type: "bar",
    data: {
      labels: figures.humpAmps.map((_, i) => `${i + 1}${figures.badHumps.includes(i) ? " bad" : ""}`),
      datasets: [
        {
          label: name,
          data: [...figures.humpAmps],
          backgroundColor: figures.humpAmps.map((_, hump) => colourOf(hump)),
        },
        ...(other && other.record.figures.humpAmps.length === figures.humpAmps.length
          ? [
              {
                label: other.record.name,
                data: [...other.record.figures.humpAmps],
                backgroundColor: colours.feed,
              },
            ]
          : []),
        {
          type: "line" as const,
          label: "limit",
          data: figures.humpAmps.map(() => badShare * usual),
          borderColor: colours.danger,
          borderDash: [6, 4],
          borderWidth: 1.5,
          pointRadius: 0,
        },
      ],
    },
    options: {
      scales: {
        x: { title: { display: true, text: "ripple" } },
        y: { beginAtZero: true, title: { display: true, text: "amps" } },
      },
      plugins: {
        legend: { position: "bottom" },
        tooltip: {
          callbacks: {
            afterLabel: ({ dataIndex }) =>
              `± ${(2 * (figures.errorAmps[dataIndex] ?? 0)).toFixed(3)} A (95 %)`,
          },
        },
      },
    },
  };
}

function spectrum({ record: { picture, name } }: RippleLine, colours: Colours): ChartConfiguration {
  const { topHz = 1, decibels = [] } = picture.spectrum ?? {};
  const data = decibels.map((y, i) => ({ x: ((i + 0.5) * topHz) / decibels.length, y }));
  return {
    type: "line",
    data: { datasets: [line(name, data, colours.ground, 1.5)] },
    options: {
      scales: axes("Hz", "dB below the strongest"),
      plugins: { legend: { display: false }, zoom: zoomX },
    },
  };
}
