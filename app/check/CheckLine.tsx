import { noises } from "@core/motor/mechanicalMode";
import { airflowSeen } from "@core/predict/observations/airflowSeen";
import type { Band } from "@core/proof/proofBand";
import { ampsText, voltsText } from "@core/units/wording";
import { judgedWords } from "@words/proofWords";
import { airflowWords } from "@words/stateWords";
import { QueuedForm, usePending } from "../entries/QueuedForm";
import type { CheckLineData } from "./checkView.server";

export type ProvenBy = "airflow" | "amps" | "volts";

interface ProofLineProps {
  readonly step: CheckLineData;
  readonly by: ProvenBy;
}

const checkWords = {
  drain: "Pour a cup of water into the cowl. It must run out under the car, and the carpet must stay dry.",
  panels: "Every screw is back in, nothing rattles or rubs, and the glove box and its damper move freely.",
} as const;

/** One step of the check: what a sound vehicle does there, and what this one did. */
export function CheckLine({ step, by }: ProofLineProps) {
  const pending = usePending({ step: step.id });
  const measured = step.kind === "air" && by !== "airflow" ? step.bands?.[by] : undefined;
  const instrument = step.kind === "air" ? by : step.kind === "listen" ? "listen" : "check";
  return (
    <li className="grid gap-x-4 gap-y-1 border-t border-rule py-1.5" data-step={step.id}>
      <p className="flex flex-wrap items-baseline gap-x-3">
        <span className="font-semibold">{step.title}</span>
        <span className="text-base text-soft">expected {expectText(step, by, measured)}</span>
        {step.judged && (
          <span className={`text-base font-semibold ${step.judged === "right" ? "" : "text-danger"}`}>
            {step.found}: {judgedWords[step.judged]}
          </span>
        )}
      </p>
      {step.check && <p className="text-base text-soft">{checkWords[step.check]}</p>}
      <QueuedForm
        words={({ seen }) =>
          `${step.title}: ${choicesOf(step).find(([value]) => value === seen)?.[1] ?? seen}`
        }
        className="flex flex-wrap items-center gap-1.5"
      >
        <input type="hidden" name="intent" value="proof" />
        <input type="hidden" name="token" value={step.token} />
        <input type="hidden" name="step" value={step.id} />
        <input type="hidden" name="by" value={instrument} />
        {measured ? (
          <>
            <input
              name="seen"
              inputMode="decimal"
              autoComplete="off"
              aria-label={`${step.title}, ${by === "amps" ? "amps" : "volts"}`}
              className="field figures w-28"
            />
            <button type="submit" className="btn min-h-11 px-3 text-base">
              Save
            </button>
            <BandMark band={measured} value={measuredIn(step, by)} />
          </>
        ) : (
          choicesOf(step).map(([value, words]) => (
            <button
              key={value}
              type="submit"
              name="seen"
              value={value}
              aria-pressed={pending ? pending.seen === value : step.found === words}
              className="btn min-h-11 px-2.5 text-base aria-pressed:border-ink aria-pressed:bg-ink aria-pressed:text-paper"
            >
              <span className="sr-only">{step.title}: </span>
              {words}
            </button>
          ))
        )}
        {measured && pending && <span className="text-base text-soft">{pending.seen}, being stored</span>}
      </QueuedForm>
    </li>
  );
}

function choicesOf(step: CheckLineData): (readonly [string, string])[] {
  if (step.kind === "air") return airflowSeen.map((word) => [word, airflowWords[word]] as const);
  if (step.kind === "listen") return noises.map((word) => [word, word] as const);
  return [
    ["good", "good"],
    ["not good", "not good"],
  ];
}

const unitText = { amps: ampsText, volts: voltsText } as const;

function expectText(step: CheckLineData, by: ProvenBy, band: Band | undefined): string {
  if (!band || by === "airflow") return step.expected;
  return `${unitText[by](band.low)} to ${unitText[by](band.high)} at ${step.bands?.motor}`;
}

const measuredIn = ({ finding }: CheckLineData, by: ProvenBy): number | null =>
  finding?.by === "amps" && by === "amps"
    ? finding.amps
    : finding?.by === "volts" && by === "volts"
      ? finding.volts
      : null;

const width = 180;
const height = 22;

/** A band on a horizontal line, with the mean marked and the measured value as a dot. */
function BandMark({ band, value }: { band: Band; value: number | null }) {
  const reach = Math.max(1e-6, band.high - band.low);
  const from = Math.min(band.low - 0.5 * reach, value ?? band.low);
  const to = Math.max(band.high + 0.5 * reach, value ?? band.high);
  const at = (own: number): number => 7 + ((own - from) / (to - from)) * (width - 14);
  const outside = value !== null && (value < band.low || value > band.high);
  return (
    <svg width={width} height={height} viewBox={`0 0 ${width} ${height}`} aria-hidden="true">
      <line x1="0" x2={width} y1="11" y2="11" stroke="var(--rule)" />
      <rect
        x={at(band.low)}
        y="5"
        width={at(band.high) - at(band.low)}
        height="12"
        fill="none"
        stroke="var(--ink)"
        strokeWidth="1.5"
      />
      <line x1={at(band.usual)} x2={at(band.usual)} y1="3" y2="19" stroke="var(--ink)" />
      {value !== null && (
        <circle cx={at(value)} cy="11" r="5" fill={outside ? "var(--danger)" : "var(--ink)"} />
      )}
    </svg>
  );
}
