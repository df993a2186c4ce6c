import { reliability, wilsonInterval } from "@core/records/reliability";
import { symptoms } from "@core/records/symptom";
import { shopFigures } from "@db/repositories/figures.server";
import { shopTerms } from "@db/repositories/settings.server";
import { kindWords } from "@words/partName";
import { minorDigits } from "../text/money";

const kindsShown = 6;

/** The shop's figures, each for one question. */
export async function figuresView(family: string | null) {
  const [{ faults, minutes, causes, months, sums }, { currency }] = await Promise.all([
    shopFigures(new Date()),
    shopTerms(),
  ]);
  const families = [...new Set(faults.map((own) => own.family))].sort();
  const chosen = families.find((own) => own === family) ?? null;
  const met = chosen === null ? faults : faults.filter((own) => own.family === chosen);
  const often = new Map<string, number>();
  for (const { kind, n } of met) often.set(kind, n + (often.get(kind) ?? 0));
  const kinds = [...often].sort((a, b) => b[1] - a[1]).map(([kind]) => kind);
  const shown = symptoms.filter((symptom) => met.some((own) => own.symptom === symptom));
  return {
    jobs: minutes.reduce((sum, { jobs }) => sum + jobs, 0),
    families,
    family: chosen,
    symptoms: shown,
    // More kinds than can be told apart at a glance are shown as one.
    faults: [...kinds.slice(0, kindsShown).map((kind) => [kind]), kinds.slice(kindsShown)]
      .filter((together) => together.length > 0)
      .map((together) => ({
        words: together.length === 1 ? kindWords(together[0] ?? "") : `${together.length} others`,
        kinds: together.length,
        counts: shown.map((symptom) =>
          met.reduce(
            (sum, own) => (own.symptom === symptom && together.includes(own.kind) ? sum + own.n : sum),
            0,
          ),
        ),
      })),
    minutes,
    causes: causes.map(({ cause, jobs, comebacks }) => ({
      cause,
      jobs,
      comebacks,
      ...wilsonInterval(comebacks, jobs),
    })),
    months: [...months].reverse().map(({ month, jobs, totalMinor }) => ({
      month,
      jobs,
      total: totalMinor / 10 ** minorDigits(currency),
    })),
    currency,
    odds: reliability(sums),
  };
}

export type FiguresData = Awaited<ReturnType<typeof figuresView>>;
