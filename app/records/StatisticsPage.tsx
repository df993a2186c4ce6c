import { minutesText, percent } from "@core/units/wording";
import { familyNameText } from "@words/circuitWords";
import { Form } from "react-router";
import { minorDigits, priceText } from "../text/money";
import type { Points } from "../ui/chartParts";
import { Details } from "../ui/Details";
import { Picture } from "../ui/Picture";
import {
  causeSentence,
  faultSentence,
  minutesSentence,
  moneySentence,
  oddsSentence,
} from "./figureSentences";
import type { FiguresData } from "./statisticsView.server";

const symptomWords = {
  dead: "no speed blows",
  "some-speeds": "some speeds dead",
  weak: "blows weakly",
  "never-stops": "never stops",
  noise: "a noise",
  other: "something else",
} as const;
const causeWords: Readonly<Record<string, string>> = {
  found: "root cause found",
  "not-found": "root cause not found",
  unsaid: "root cause not said",
  none: "normal wear",
};

/** Each picture answers one question about the shop's own work. */
export function StatisticsPage({ figures }: { figures: FiguresData }) {
  return (
    <div className="grid items-start gap-4 lg:grid-cols-2">
      <FaultPicture figures={figures} />
      <MinutesPicture figures={figures} />
      <ReliabilityPicture figures={figures} />
      <ComebackTable figures={figures} />
      <MoneyPicture figures={figures} />
    </div>
  );
}

/** What a picture says, in one sentence above it. */
const Sentence = ({ children }: { children: string }) => <p className="text-base">{children}</p>;

/** Fills that differ by more than their colour. */
const shades = (colours: Readonly<Record<string, string>>): string[] =>
  [colours.feed, colours.ground, colours.doubt, colours.good, colours.danger, colours.soft, colours.ink].map(
    (own) => own ?? "",
  );

function FaultPicture({ figures }: { figures: FiguresData }) {
  const { symptoms, faults, families, family } = figures;
  const labels = symptoms.map((own) => symptomWords[own]);
  return (
    <div className="grid gap-2">
      <Form className="flex flex-wrap items-end gap-2">
        <label className="grid gap-0.5 text-base text-soft">
          Circuit family
          <select name="family" defaultValue={family ?? ""} className="field text-ink">
            <option value="">all</option>
            {families.map((own) => (
              <option key={own} value={own}>
                {familyNameText(own)}
              </option>
            ))}
          </select>
        </label>
        <button type="submit" className="btn">
          Show
        </button>
      </Form>
      <Sentence>{faultSentence(faults)}</Sentence>
      <Picture
        title="Faults found, by symptom"
        words={symptoms
          .map(
            (symptom, at) =>
              `${symptomWords[symptom]}: ${faults
                .filter(({ counts }) => (counts[at] ?? 0) > 0)
                .map(({ words, counts }) => `${words} ${counts[at]}`)
                .join(", ")}`,
          )
          .join("; ")}
        file="airway-faults"
        of={JSON.stringify([labels, faults])}
        height={300}
        configure={(colours) => ({
          type: "bar",
          data: {
            labels,
            datasets: faults.map(({ words, counts }, index) => ({
              label: words,
              data: counts,
              backgroundColor: shades(colours)[index % 7] ?? colours.ink,
              borderColor: colours.card,
              borderWidth: 1.5,
            })),
          },
          options: {
            indexAxis: "y",
            scales: {
              x: { stacked: true, title: { display: true, text: "closed jobs" }, ticks: { precision: 0 } },
              y: { stacked: true },
            },
            plugins: { legend: { position: "bottom" } },
          },
        })}
      />
    </div>
  );
}

function MinutesPicture({ figures: { minutes } }: { figures: FiguresData }) {
  const own = minutes.filter(({ chartJobs }) => chartJobs > 0);
  const labels = own.map(({ symptom }) => symptomWords[symptom]);
  return (
    <div className="grid gap-2">
      <Sentence>{minutesSentence(minutes)}</Sentence>
      <Picture
        title="Time to the verdict, compared with a fixed test order"
        words={own
          .map(
            ({ symptom, minutesThere, chartMinutes, chartJobs }) =>
              `${symptomWords[symptom]}: ${minutesText(minutesThere ?? 0)} against ${minutesText(chartMinutes ?? 0)} on ${chartJobs} jobs`,
          )
          .join("; ")}
        file="airway-minutes"
        of={JSON.stringify(own)}
        height={300}
        configure={(colours) => ({
          type: "bar",
          data: {
            labels,
            datasets: [
              {
                label: "this shop, minutes",
                data: own.map(({ minutesThere }) => minutesThere),
                backgroundColor: colours.feed,
              },
              {
                label: "fixed test order, where it finds the right part",
                data: own.map(({ chartMinutes }) => chartMinutes),
                backgroundColor: colours.ground,
              },
            ],
          },
          options: {
            indexAxis: "y",
            scales: { x: { beginAtZero: true, title: { display: true, text: "minutes" } } },
            plugins: { legend: { position: "bottom" } },
          },
        })}
      />
    </div>
  );
}

function ReliabilityPicture({ figures: { odds } }: { figures: FiguresData }) {
  const points: Points = odds.bins.map(({ said, share }) => ({ x: 100 * said, y: 100 * share }));
  const spans: Points[] = odds.bins.map(({ said, low, high }) => [
    { x: 100 * said, y: 100 * low },
    { x: 100 * said, y: 100 * high },
  ]);
  return (
    <div className="grid gap-2">
      <Sentence>{oddsSentence(odds)}</Sentence>
      <Picture
        title="How often a verdict held, by the certainty it gave"
        words={odds.bins
          .map(
            ({ said, hits, trials, low, high }) =>
              `verdicts of ${percent(said)}: ${hits} of ${trials} held (90 % interval ${percent(low)} to ${percent(high)})`,
          )
          .join("; ")}
        file="airway-odds"
        of={JSON.stringify(odds)}
        height={300}
        configure={(colours) => ({
          type: "scatter",
          data: {
            datasets: [
              {
                label: "held, with 90 % interval",
                data: points,
                backgroundColor: colours.feed,
                borderColor: colours.ink,
                pointRadius: 7,
                pointStyle: "rectRot" as const,
                clip: false as const,
              },
              {
                label: "as stated",
                data: [
                  { x: 0, y: 0 },
                  { x: 100, y: 100 },
                ],
                showLine: true,
                borderColor: colours.soft,
                borderDash: [6, 4],
                borderWidth: 1.5,
                pointRadius: 0,
              },
              ...spans.map((span) => ({
                label: "",
                data: span,
                showLine: true,
                borderColor: colours.ink,
                borderWidth: 1.5,
                pointRadius: 0,
              })),
            ],
          },
          options: {
            scales: {
              x: { min: 0, max: 100, title: { display: true, text: "stated certainty, %" } },
              y: { min: 0, max: 100, title: { display: true, text: "held, %" } },
            },
            plugins: {
              legend: { position: "bottom", labels: { filter: ({ text }) => text !== "" } },
            },
          },
        })}
      />
      {odds.trials > 0 && (
        <Details>{`Brier score ${odds.brier.toFixed(3)} (lower is better). Always stating the average would score ${odds.brierOfShare.toFixed(3)}.`}</Details>
      )}
    </div>
  );
}

function ComebackTable({ figures: { causes } }: { figures: FiguresData }) {
  return (
    <section className="sheet-card p-3" aria-labelledby="comebacks">
      <h2 id="comebacks" className="font-semibold">
        Comebacks, by whether the root cause was found
      </h2>
      <Sentence>{causeSentence(causes)}</Sentence>
      <table className="mt-2 w-full text-left text-base">
        <thead>
          <tr>
            <th scope="col">Cause</th>
            <th scope="col" className="text-right">
              came back
            </th>
            <th scope="col" className="text-right">
              90 % interval
            </th>
          </tr>
        </thead>
        <tbody>
          {causes.map(({ cause, jobs, comebacks, share, low, high }) => (
            <tr key={cause} className="border-t border-rule">
              <td className="py-1">
                {causeWords[cause] ?? cause}
                <Span low={low} share={share} high={high} />
              </td>
              <td className="figures py-1 text-right align-top">
                {comebacks} of {jobs}
              </td>
              <td className="figures py-1 text-right align-top">
                {percent(low)} – {percent(high)}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="mt-2 text-base text-soft">Intervals are Wilson 90 % intervals.</p>
    </section>
  );
}

const [width, height] = [240, 16];

/** A share with its confidence interval, on a line from 0 to 1. */
const Span = ({ low, share, high }: { low: number; share: number; high: number }) => (
  <svg
    width={width}
    height={height}
    viewBox={`0 0 ${width} ${height}`}
    className="block max-w-full"
    aria-hidden="true"
  >
    <line x1="0" x2={width} y1="8" y2="8" stroke="var(--rule)" />
    <line x1={low * width} x2={high * width} y1="8" y2="8" stroke="var(--ink)" strokeWidth="4" />
    <circle cx={Math.min(width - 5, Math.max(5, share * width))} cy="8" r="5" fill="var(--danger)" />
  </svg>
);

function MoneyPicture({ figures: { months, currency } }: { figures: FiguresData }) {
  const unit = currency === "XXX" ? "billed" : `billed, ${currency}`;
  const money = (total: number): string =>
    priceText(Math.round(total * 10 ** minorDigits(currency)), currency);
  return (
    <div className="grid gap-2">
      <Sentence>{moneySentence(months, money)}</Sentence>
      <Picture
        title="Billed, month by month"
        words={months.map(({ month, jobs, total }) => `${month}: ${total} on ${jobs} jobs`).join("; ")}
        file="airway-money"
        of={JSON.stringify(months)}
        height={300}
        configure={(colours) => ({
          type: "bar",
          data: {
            labels: months.map(({ month }) => month),
            datasets: [
              { label: unit, data: months.map(({ total }) => total), backgroundColor: colours.good },
            ],
          },
          options: {
            scales: { y: { beginAtZero: true, title: { display: true, text: unit } } },
            plugins: { legend: { display: false } },
          },
        })}
      />
    </div>
  );
}
