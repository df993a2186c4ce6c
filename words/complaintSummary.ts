import type { Circuit } from "@core/circuit/circuit";
import type { Reading } from "@core/predict/reading";
import { listed } from "@core/units/wording";
import { airflowWords, patternWords } from "./stateWords";

/** Things with the same words together, in the order in which the words first occur. */
function grouped(
  said: readonly (readonly [thing: string, words: string])[],
): (readonly [string[], string])[] {
  const groups = new Map<string, string[]>();
  for (const [thing, words] of said) groups.set(words, [...(groups.get(words) ?? []), thing]);
  return [...groups].map(([words, things]) => [things, words] as const);
}

/**
 * What a customer told of the speeds and of noises, in one text: `Speeds 1, 2 and 3: nothing. Speed 4: weak.` Empty if
 * nothing was told.
 */
export function complaintSummary({ settings }: Circuit, readings: readonly Reading[]): string {
  const told = readings.filter(({ heard }) => heard);
  const [off] = settings;
  const speeds = told.flatMap((reading): (readonly [string, string])[] => {
    if (reading.test !== "airflow" || reading.key !== "run" || reading.selectors || reading.at) return [];
    const pattern = reading.pattern && patternWords[reading.pattern];
    return [[reading.setting ?? off ?? "", [airflowWords[reading.seen], pattern].filter(Boolean).join(", ")]];
  });
  speeds.sort(([a], [b]) => settings.indexOf(a) - settings.indexOf(b));
  const title = (of: readonly string[]): string =>
    of.length > 1 ? `Speeds ${listed(of)}` : of[0] === off ? "Switched off" : `Speed ${of[0]}`;
  const noises = told.flatMap((own) => (own.test === "listen" && own.seen !== "quiet" ? [own.seen] : []));
  const runsOn = told.some((own) => own.test === "airflow" && own.key !== "run" && own.seen !== "none");
  return [
    ...grouped(speeds.filter(([setting, words]) => setting !== off || words !== airflowWords.none)).map(
      ([of, words]) => `${title(of)}: ${words}.`,
    ),
    ...(runsOn ? ["It blows with the key out."] : []),
    ...(noises.length > 0 ? [`Noise: ${listed([...new Set(noises)])}.`] : []),
  ].join(" ");
}
