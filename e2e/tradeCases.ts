// The trade's own cases (common practice, no source), played in the browser from the complaint to the verdict: its state,
// the failed part with what is wrong with it, and the sentence that proves it.
import type { Test } from "../core/predict/reading";
import { type BrokenVehicle, brokenVehicle } from "./brokenVehicle";
import { expect, type Page } from "./shop";
import { type Enter, probeToTheEnd } from "./steps";

interface TradeCase {
  readonly name: string;
  readonly circuit: string;
  readonly fault: string;
  /** What the complaint's buttons are called. */
  readonly told: readonly string[];
  /** What senses find there, beyond what the circuit says; null where the circuit answers. */
  readonly found?: (test: Test) => string | null;
  readonly title: RegExp;
  readonly proof: RegExp;
}

const speeds = (word: string, count = 4): string[] =>
  Array.from({ length: count }, (_, at) => `${at + 1}: ${word}`);

export const tradeCases: readonly TradeCase[] = [
  {
    name: "only the top speed blows and the plug is melted: the pack and its plug",
    circuit: "whimbrel-four-speed",
    fault: "R1.link:open",
    told: ["1: nothing", "2: nothing", "3: nothing", "4: normal"],
    found: (test) => (test.test === "look" && test.at === "X5" ? "melted" : null),
    title: /^Resistor pack R1 and resistor plug X5: thermal link open/,
    proof:
      /resistor pack R1 has the wrong resistance|resistor pack R1 was seen burnt|What goes into the resistor pack R1/,
  },
  {
    name: "a whistle that stops with a finger over the vent hole: the motor",
    circuit: "whimbrel-four-speed",
    fault: "M1:vent-whistle",
    told: [...speeds("normal"), "Noise while running: whistle"],
    found: (test) => (test.test === "listen" ? (test.ventCovered ? "quiet" : "whistle") : null),
    title: /^Blower motor M1: whistles at its vent hole/,
    proof: /The whistle stops with a finger over the vent hole of the blower motor M1/,
  },
  {
    name: "it never stops, not even with the key out: the control module",
    circuit: "whimbrel-pwm-low",
    fault: "A1:full-on",
    told: [
      "off: too strong",
      ...speeds("too strong", 6),
      "7: normal",
      "Key out, switch still on 7: keeps blowing",
    ],
    title: /^Control module A1: full on/,
    proof: /control module A1 drives the motor although it should be off|blower stops once the plug of/,
  },
  {
    name: "dead on every speed with feed and ground at its plug: the motor",
    circuit: "whimbrel-four-speed",
    fault: "M1:open",
    told: speeds("nothing"),
    title: /^Blower motor M1/,
    proof:
      /Feed and ground reach the blower motor M1, and it still does not run right|Fed straight from the battery, the blower motor M1/,
  },
];

/** Plays a case on a vehicle of its own. */
export async function playTradeCase(
  page: Page,
  own: TradeCase,
  enter: Enter,
  press: (name: string) => Promise<void>,
): Promise<void> {
  const vehicle = brokenVehicle(own.circuit, own.fault);
  const answering: BrokenVehicle = {
    ...vehicle,
    answer: (test) => own.found?.(test) ?? vehicle.answer(test),
  };
  await page.goto("/jobs/new");
  await page.getByLabel("Vehicle", { exact: true }).selectOption({ label: "New vehicle" });
  await page.getByLabel("Nickname or fleet number").fill("quay van 9");
  await page.getByLabel("Make and model").fill("Harrow Whimbrel van");
  await page.getByLabel("Blower circuit").selectOption(own.circuit);
  await press("Start job");
  await page.waitForURL(/\/jobs\/\d+/);
  for (const name of own.told) {
    const cell = page.getByRole("button", { name, exact: true });
    await press(name);
    await expect(cell).toHaveAttribute("aria-pressed", "true");
  }
  await page.getByRole("link", { name: "Continue to Probe" }).click();
  await page.waitForURL(/\/probe$/);
  await expect(page.getByText("Not certain yet.")).toBeVisible();
  await probeToTheEnd(page, answering, enter, 10);
  await page.getByRole("link", { name: "See the verdict" }).click();
  await page.waitForURL(/\/verdict$/);
  await expect(page.getByText("Confirmed:")).toBeVisible();
  await expect(page.getByRole("heading", { level: 2, name: own.title })).toBeVisible();
  await expect(page.getByRole("listitem").filter({ hasText: own.proof }).first()).toBeVisible();
}
