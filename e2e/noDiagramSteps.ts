import type { PlaceReading } from "../core/wiring/placeReading";
import type { PlaceTest } from "../core/wiring/placeTest";
import { expect, type Page } from "./shop";
import type { UnknownCar } from "./unknownCar";

/** Something on the page that can be tapped or clicked. */
interface Target {
  readonly tap: () => Promise<void>;
  readonly click: () => Promise<void>;
}

/** How the technician touches the page, and how often so far. */
export class Hand {
  taps = 0;

  constructor(private readonly way: "tap" | "click") {}

  async touch(target: Target): Promise<void> {
    this.taps += 1;
    await target[this.way]();
  }
}

const word = { none: "nothing", weak: "weak", normal: "normal", strong: "too strong" } as const;

/** The picture or number of a choice on the start page. */
const choice = (page: Page, name: string, value: string) =>
  page.locator(`label:has(input[name="${name}"][value="${value}"])`);

/** From the open board to the first test of a vehicle without a diagram, by what can be seen of it. */
export async function startWithout(page: Page, car: UnknownCar, hand: Hand): Promise<void> {
  await hand.touch(page.getByRole("link", { name: "New job", exact: true }));
  await hand.touch(page.getByRole("link", { name: "Start without a diagram" }));
  await page.waitForLoadState("networkidle");
  const { controls, speeds = 4, speedPart } = car.seen;
  if (controls) await hand.touch(choice(page, "controls", controls));
  if (speedPart) await hand.touch(choice(page, "speedPart", speedPart));
  await hand.touch(choice(page, "speeds", String(speeds)));
  const told = Array.from({ length: speeds }, (_, at) => car.airflow(String(at + 1)));
  const lower = told.slice(0, -1);
  const top = told.at(-1);
  const usual =
    car.airflow("0") !== "none"
      ? "It never stops"
      : top === "none" && lower.every((own) => own === "none")
        ? "Nothing on any speed"
        : top === "normal" && lower.every((own) => own === "none")
          ? "Only the top speed works"
          : top === "none" && lower.every((own) => own === "normal")
            ? "Only the top speed is dead"
            : null;
  if (usual) await hand.touch(page.getByRole("button", { name: usual }));
  else
    for (const [at, own] of told.entries())
      await hand.touch(page.getByRole("button", { name: `${at + 1}: ${word[own]}` }));
  await hand.touch(page.getByRole("button", { name: "Start with the first test" }));
  await expect(page.locator("#next-place-test")).toBeVisible();
}

/** The test on the card, as the page would send it back. */
export const offeredPlaceTest = async (page: Page): Promise<PlaceTest> =>
  JSON.parse(await page.locator('#next-place input[name="test"]').first().inputValue()) as PlaceTest;

const activeReadings = async (page: Page): Promise<number> =>
  Number(await page.getByTestId("active-readings").textContent());

/** Brings the number of lines to what the plug has. */
async function countPins(page: Page, labels: number, hand: Hand): Promise<void> {
  const shown = page.locator("#pin-count b");
  for (let now = Number(await shown.textContent()); now !== labels; now = Number(await shown.textContent())) {
    const button = page.getByRole("button", {
      name: now < labels ? /^One of the .* more$/ : /^One of the .* less$/,
    });
    await hand.touch(button);
    await expect(shown).not.toHaveText(String(now));
  }
}

/** Enters a reading of the test on the card. */
export async function enterReading(
  page: Page,
  reading: PlaceReading,
  labels: readonly string[],
  hand: Hand,
): Promise<void> {
  const before = await activeReadings(page);
  const card = page.locator("#next-place");
  if ("absent" in reading) await hand.touch(card.locator('button[name="absent"]'));
  else if (reading.test === "light" || reading.test === "wires") {
    await countPins(page, labels.length, hand);
    for (const [label, seen] of Object.entries(reading.seen)) {
      const [name, value] =
        reading.test === "wires" ? [`size.${label}`, seen.split(" ").at(-1)] : [`pin.${label}`, seen];
      await hand.touch(card.locator(`label:has(input[name="${name}"][value="${value}"])`));
    }
    await hand.touch(card.getByRole("button", { name: "Save" }));
  } else if (reading.test === "volts" || reading.test === "ohms" || reading.test === "amps") {
    const values: unknown = Reflect.get(reading, reading.test);
    if (typeof values === "object" && values !== null) {
      await countPins(page, labels.length, hand);
      for (const [label, value] of Object.entries(values))
        if (!("from" in reading) || label !== reading.from)
          await card.locator(`input[name="pin.${label}"]`).fill(value === null ? "OL" : String(value));
    } else await card.locator('input[name="value"]').fill(String(values));
    await hand.touch(card.getByRole("button", { name: "Save" }));
  } else await hand.touch(card.locator(`button[name="seen"][value="${reading.seen}"]`));
  await expect(page.getByTestId("active-readings")).toHaveText(String(before + 1));
}

/** Takes every test the page proposes until the verdict no longer asks for one; returns the tests. */
export async function testToTheEnd(
  page: Page,
  car: UnknownCar,
  hand: Hand,
  most: number,
): Promise<PlaceTest[]> {
  const taken: PlaceTest[] = [];
  const verdict = page.locator("#seen-verdict");
  while (taken.length < most) {
    if (!(await verdict.innerText()).startsWith("Not certain yet")) return taken;
    // The next test is in view without scrolling back to it.
    if (taken.length > 0) await expect(page.locator("#next-place-test")).toBeInViewport();
    const test = await offeredPlaceTest(page);
    const place = "at" in test && test.at ? test.at : "";
    await enterReading(page, car.answer(test), car.labelsAt(place), hand);
    taken.push(test);
    // The findings arrive after the reading, so the next test is only read once it is shown.
    await expect(page.locator('[aria-busy="true"]')).toHaveCount(0);
  }
  return taken;
}
