// A vehicle without a diagram at a desk, its tests entered by keys alone.
import type { PlaceReading } from "../core/wiring/placeReading";
import { Hand, offeredPlaceTest, startWithout } from "./noDiagramSteps";
import { expect, type Page, test } from "./shop";
import { unknownCar } from "./unknownCar";

const light: Readonly<Record<string, string>> = {
  bright: "b",
  dim: "d",
  dark: "k",
  good: "1",
  blown: "2",
  dead: "3",
};

/** Enters a reading by keys; returns false if this test has no typing for that kind of reading. */
async function typeReading(page: Page, reading: PlaceReading): Promise<boolean> {
  if ("absent" in reading || reading.test === "wires" || reading.test === "ohms") return false;
  if (reading.test === "light" && "at" in reading) {
    for (const seen of Object.values(reading.seen)) await page.keyboard.press(light[seen] ?? "?");
    await page.keyboard.press("Enter");
    return true;
  }
  if ("seen" in reading && typeof reading.seen === "string") {
    const button = page.locator(`#next-place button[name="seen"][value="${reading.seen}"] kbd`);
    await page.keyboard.press((await button.textContent()) ?? "");
    return true;
  }
  return false;
}

test("tests of a vehicle without a diagram are entered, skipped and deleted by keys", async ({ page }) => {
  const car = unknownCar("whimbrel-four-speed", "R1.link:open");
  await page.goto("/");
  await startWithout(page, car, new Hand("click"));
  const active = page.getByTestId("active-readings");
  const settled = () => expect(page.locator('[aria-busy="true"]')).toHaveCount(0);
  await settled();
  const kinds = new Set<string>();
  for (let typed = 0, skipped = 0; typed < 3 && skipped < 12; ) {
    const test = await offeredPlaceTest(page);
    const place = "at" in test && test.at ? test.at : "";
    const pins = page.locator("#pin-count b");
    const fits =
      (await pins.count()) === 0 || Number(await pins.textContent()) === car.labelsAt(place).length;
    const before = Number(await active.textContent());
    if (!fits || !(await typeReading(page, car.answer(test)))) {
      // Another test: N goes on to the next of the list.
      await page.keyboard.press("n");
      await expect
        .poll(async () => JSON.stringify(await offeredPlaceTest(page)))
        .not.toBe(JSON.stringify(test));
      skipped += 1;
      continue;
    }
    await expect(active).toHaveText(String(before + 1));
    await settled();
    kinds.add(test.test);
    typed += 1;
  }
  expect(kinds.has("light")).toBe(true);
  const all = Number(await active.textContent());
  await page.keyboard.press("u");
  await expect(active).toHaveText(String(all - 1));
});

test("pins that are half answered stay while somebody else enters another test", async ({
  page,
  context,
}) => {
  const car = unknownCar("whimbrel-four-speed", "R1.link:open");
  await page.goto("/");
  await startWithout(page, car, new Hand("click"));
  await expect(page.locator('[aria-busy="true"]')).toHaveCount(0);
  const second = await context.newPage();
  await second.goto(page.url());
  await expect(second.locator('[aria-busy="true"]')).toHaveCount(0);
  const untilShown = async (on: Page, what: string): Promise<void> => {
    for (let pressed = 0; pressed < 12 && (await on.locator(what).count()) === 0; pressed++) {
      const before = await offeredPlaceTest(on);
      await on.keyboard.press("n");
      await expect
        .poll(async () => JSON.stringify(await offeredPlaceTest(on)))
        .not.toBe(JSON.stringify(before));
    }
  };
  await untilShown(page, "#pin-count");
  const half = await offeredPlaceTest(page);
  // One pin by the mouse; the keys go on from there.
  await page.locator("#next-place fieldset").first().getByText("bright", { exact: true }).click();
  await page.keyboard.press("k");
  const answered = page.locator("#next-place input[type=radio]:checked");
  await expect(answered).toHaveCount(2);

  await untilShown(second, '#next-place button[name="seen"]');
  await second.keyboard.press("1");
  await expect(page.getByTestId("active-readings")).toHaveText("5");
  await expect(page.locator('[aria-busy="true"]')).toHaveCount(0);
  expect(await offeredPlaceTest(page)).toEqual(half);
  await expect(answered).toHaveCount(2);
});
