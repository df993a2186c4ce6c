import { percent } from "@core/units/wording";
import type { CloseData } from "./closeView.server";

/** Words as a sentence. */
const sentence = (words: string): string =>
  `${words.charAt(0).toUpperCase()}${words.slice(1)}${/[.!?]$/.test(words) ? "" : "."}`;

/** The customer's page: what was wrong, done, checked, advised and to be paid, in plain words. */
export function customerPage(card: CloseData): { title: string; words: string }[] {
  const { closure, rounds, bill, odds, advised } = card;
  const steps = card.proof.steps.length;
  const soOften = (p: number): string =>
    percent(p).replace("over ", "more than ").replace("under ", "less than ");
  return [
    { title: "What you told us", words: card.words || "The fan did not work as it should." },
    ...(card.faultPlain ? [{ title: "What was wrong", words: card.faultPlain }] : []),
    ...(closure?.cause === "found" && closure.causeWords
      ? [{ title: "What caused it", words: sentence(closure.causeWords) }]
      : []),
    {
      title: "What we did",
      words:
        rounds
          .map(({ plainWords, failed }) =>
            [sentence(plainWords.join("; ")), failed && "The check afterwards showed that there was more."]
              .filter(Boolean)
              .join(" "),
          )
          .join(" ") || "Nothing yet.",
    },
    {
      title: "How we know it is fixed",
      words:
        card.proof.whole === "proven"
          ? `We tried every speed up and down, before and after the panels went back, with the key on and off. All ${steps} checks were good.`
          : "The final check is not finished yet.",
    },
    ...(closure?.stopgap
      ? [
          {
            title: "What is a temporary repair",
            words: `${sentence(closure.stopgap)} Please come back by ${closure.followUp}.`,
          },
        ]
      : []),
    ...(closure?.advice ? [{ title: "What we advise", words: closure.advice }] : []),
    ...(card.warranties.length > 0
      ? [{ title: "Warranty", words: sentence(card.warranties.join("; ")) }]
      : []),
    {
      title: "What to expect",
      words: `About ${soOften(odds.plain)} of such repairs come back within ${odds.months} months${
        odds.advised !== null && advised
          ? `; with the ${advised} done too, about ${soOften(odds.advised)}`
          : ""
      }. This is an estimate, not a promise.`,
    },
    ...(bill
      ? [
          {
            title: "What it costs",
            words: `${bill.kind === "bill" ? "Bill" : "Estimate"} ${bill.number}: ${bill.total}`,
          },
        ]
      : []),
  ];
}
