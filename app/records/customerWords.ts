import { percent } from "@core/units/wording";
import type { CloseData } from "./closeView.server";

/** What was wrong, for somebody who does not know the names: by the kind of thing, some by how it failed. */
const plain: Readonly<Record<string, string>> = {
  link: "A heat fuse inside the fan's resistor had opened, so the speeds that go through it had no current.",
  element: "A coil of the fan's resistor had burnt through.",
  motor: "The fan's motor had failed.",
  "motor tight": "The fan's motor had become stiff and drew more current than it should.",
  "motor seized": "The fan's motor had stuck fast.",
  "motor bearing-dry": "The bearing of the fan's motor had run dry.",
  "motor bearing-worn": "The bearing of the fan's motor was worn.",
  "motor debris": "Something had fallen into the fan's wheel.",
  "motor unbalanced": "The fan's wheel was out of balance.",
  "motor wheel-loose": "The fan's wheel had come loose on its shaft.",
  fuse: "The fan's fuse had blown.",
  relay: "The relay that switches the fan had failed.",
  selector: "A contact in the fan's speed switch had failed.",
  module: "The electronic control of the fan's speed had failed.",
  head: "The control panel no longer sent its command to the fan.",
  pin: "A contact in a plug of the fan's wiring had gone bad.",
  wire: "A wire of the fan's circuit was damaged.",
  ground: "The fan's connection to the body of the car had gone bad.",
  ignition: "A contact in the key switch had failed.",
  battery: "The battery was too weak to drive the fan.",
  CAR: "The air filter or the duct was blocked.",
};

/** One fault of a kind and mode, in plain words. */
export const plainFault = (kind: string, mode: string): string =>
  plain[`${kind} ${mode}`] ?? plain[kind] ?? "The fan's circuit had a fault.";

/** Words as a sentence of their own. */
const sentence = (words: string): string =>
  `${words.charAt(0).toUpperCase()}${words.slice(1)}${/[.!?]$/.test(words) ? "" : "."}`;

/** The customer's page: what was wrong, done, proven, advised and to be paid, in plain words. */
export function customerPage(card: CloseData): { title: string; words: string }[] {
  const { closure, fitted, numbers, bill, odds, advised } = card;
  const steps = card.proof.steps.length;
  const numberText = numbers.length > 0 ? ` (${numbers.join(", ")})` : "";
  const soOften = (p: number): string =>
    percent(p).replace("over ", "more than ").replace("under ", "less than ");
  return [
    { title: "What you told us", words: card.words || "The fan did not work as it should." },
    ...(card.faultPlain ? [{ title: "What was wrong", words: card.faultPlain }] : []),
    ...(closure?.cause === "found" && closure.causeWords
      ? [{ title: "What had caused it", words: sentence(closure.causeWords) }]
      : []),
    {
      title: "What we did",
      words: fitted ? `Replaced or repaired: ${fitted}${numberText}.` : "Nothing yet.",
    },
    {
      title: "How we know it is right",
      words:
        card.proof.whole === "proven"
          ? `Every speed was tried up and down, before and after closing up, with the key on and out: ${steps} steps, all as they should be.`
          : "It is not proven yet.",
    },
    ...(closure?.stopgap
      ? [
          {
            title: "What only holds for a while",
            words: `${sentence(closure.stopgap)} Please come back by ${closure.followUpOn}.`,
          },
        ]
      : []),
    ...(closure?.advice ? [{ title: "What we advise", words: closure.advice }] : []),
    {
      title: "What to expect",
      words: `About ${soOften(odds.plain)} of such repairs come back within ${odds.months} months${
        odds.advised !== null && advised
          ? `; with the ${advised} done too, about ${soOften(odds.advised)}`
          : ""
      }. These are estimates, not a promise.`,
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
