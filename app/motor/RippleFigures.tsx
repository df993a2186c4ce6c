import type { JSX } from "react";
import { EnterEvidence } from "./EnterEvidence";
import { amps, hertz, rpm, seconds } from "./figureText";
import type { MotorPageData } from "./motorPageView.server";
import type { RippleLine } from "./rippleLine";

interface HumpFiguresProps {
  readonly page: MotorPageData;
  readonly trace: RippleLine;
  readonly shown: string;
  readonly onShow: (figure: string) => void;
}

const headings = {
  even: "Even ripple",
  uneven: "Uneven ripple",
  missing: "Missing ripple",
  unclear: "Cannot be judged",
} as const;

const advice = {
  even: "The commutator looks healthy. As far as it shows, the motor is not what burns out parts here.",
  uneven:
    "A worn or dirty commutator, or worn brushes. The motor still turns, at times draws too much current, and will fail later.",
  missing:
    "A commutator bar or a coil is dead. The motor may not start from that spot and can burn out the pack and the pins. Replace the motor.",
  unclear: "See below what is needed.",
} as const;

/** What was found in a recording; each figure shows where it is in the pictures. */
export function RippleFigures({ page, trace, shown, onShow }: HumpFiguresProps) {
  const { figures, setup, source } = trace.record;
  const figure = (id: string, title: string, value: string | null) =>
    value === null ? null : (
      <button
        key={id}
        type="button"
        aria-pressed={shown === id}
        className="flex min-h-11 items-center justify-between gap-3 border-t border-rule px-1 text-left aria-pressed:bg-[var(--mark)]"
        onClick={() => onShow(shown === id ? "" : id)}
      >
        <span className="shrink-0">{title}</span>
        <span className="figures text-right font-semibold">{value}</span>
      </button>
    );
  const drift =
    figures.driftHz && figures.humpHz ? (figures.driftHz[1] - figures.driftHz[0]) / figures.humpHz : 0;
  return (
    <div className="grid gap-3">
      <section className="tag-card" aria-labelledby="humps">
        <div className="tag-face">
          <h2 id="humps" className="pr-6 text-xl font-bold">
            {headings[figures.verdict]}
          </h2>
          <p className="text-base">{figures.because}.</p>
          <p className="mt-1 text-base">{advice[figures.verdict]}</p>
          <FigureTable figure={figure} figures={figures} drift={drift} />
          {figures.cannot.length > 0 && (
            <ul className="mt-2 list-disc pl-5 text-base text-soft">
              {figures.cannot.map((reason) => (
                <li key={reason}>{reason}</li>
              ))}
            </ul>
          )}
        </div>
      </section>
      {figures.verdict !== "unclear" && (
        <EnterEvidence
          token={`ripple-${trace.id}`}
          source={source}
          reading={{ test: "ripple", at: page.motor.id, ...setup, seen: figures.verdict }}
        >
          Add to the evidence: ripple {figures.verdict}, speed {setup.setting}
        </EnterEvidence>
      )}
      <EnterEvidence
        plain
        token={`amps-${trace.id}`}
        source={source}
        reading={{ test: "amps", around: page.motor.id, ...setup, amps: Number(figures.meanAmps.toFixed(2)) }}
      >
        Add to the evidence: {amps(figures.meanAmps)} on speed {setup.setting}
      </EnterEvidence>
    </div>
  );
}

interface FigureTableProps {
  readonly figure: (id: string, title: string, value: string | null) => JSX.Element | null;
  readonly figures: HumpFiguresProps["trace"]["record"]["figures"];
  readonly drift: number;
}

/** The figures of a recording, each linked to its place in a picture. */
function FigureTable({ figure, figures, drift }: FigureTableProps) {
  return (
    <div className="mt-2 grid text-base">
      {figure("mean", "mean", amps(figures.meanAmps))}
      {figure("swing", "peak to peak", amps(figures.peakToPeakAmps))}
      {figure("humps", "ripples per second", figures.humpHz === null ? null : hertz(figures.humpHz))}
      {figure("turn", "speed", figures.rpm === null ? null : rpm(figures.rpm))}
      {figure(
        "perTurn",
        "ripples per turn, bars",
        figures.humpsPerTurn === null ? null : `${figures.humpsPerTurn}, ${figures.bars ?? "?"}`,
      )}
      {figure(
        "bad",
        "bad ripples",
        figures.turns === null || figures.verdict === "unclear"
          ? null
          : figures.badHumps.length === 0
            ? "none"
            : `${figures.badHumps.map((hump) => hump + 1).join(", ")}: ${figures.badBars} bar${figures.badBars === 1 ? "" : "s"} at least`,
      )}
      {figure(
        "wander",
        "variation over one turn",
        figures.wanderAmps === null ? null : amps(figures.wanderAmps),
      )}
      {figure(
        "inrush",
        "inrush",
        figures.startUp === null
          ? null
          : `${amps(figures.startUp.inrushAmps)}, settled in ${seconds(figures.startUp.settleSeconds)}`,
      )}
      {figure(
        "dropouts",
        "gaps without current",
        figures.dropoutCount === 0
          ? null
          : `${figures.dropoutCount}, longest ${seconds(Math.max(...figures.dropouts.map((own) => own.seconds)))}`,
      )}
      {figure("chopping", "PWM, removed", figures.chopping === null ? null : hertz(figures.chopping.hz))}
      {drift > 0.005 && (
        <p className="border-t border-rule px-1 py-2 text-soft">
          The speed drifts by {(100 * drift).toFixed(1)} % over the recording; this is corrected.
        </p>
      )}
    </div>
  );
}
