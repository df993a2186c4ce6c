// Vehicles whose diagram nobody has, by phone: what can be seen of the vehicle, then the tests that the page proposes,
// answered by a simulated vehicle, to the right verdict and on with the repair.
import { AxeBuilder } from "@axe-core/playwright";
import { Hand, offeredPlaceTest, startWithout, testToTheEnd } from "./noDiagramSteps";
import { expect, test } from "./shop";
import { keysPressed } from "./steps";
import { unknownCar } from "./unknownCar";

const cars = [
  {
    has: "a resistor pack on the ground side",
    circuit: "whimbrel-four-speed",
    fault: "R1.link:open",
    is: "Resistor pack",
  },
  {
    has: "a resistor pack on the feed side",
    circuit: "godwit-four-speed-feed",
    fault: "R2.link:open",
    is: "Resistor pack",
  },
  { has: "a pulse-width control", circuit: "whimbrel-pwm-low", fault: "A1:full-on", is: "Control module" },
  { has: "a relay for the top speed", circuit: "whimbrel-high-relay", fault: "M1:open", is: "Blower motor" },
];

for (const { has, circuit, fault, is } of cars)
  test(`a vehicle without a diagram that has ${has}: to the right verdict, and on with its circuit`, async ({
    page,
  }) => {
    const car = unknownCar(circuit, fault);
    const hand = new Hand("tap");
    await page.goto("/");
    const typed = await keysPressed(page);
    await startWithout(page, car, hand);
    expect(hand.taps).toBeLessThanOrEqual(12);
    expect(await typed()).toBe(0);
    await testToTheEnd(page, car, hand, 12);
    const verdict = page.locator("#seen-verdict");
    await expect(verdict).toContainText(`Confirmed: ${is}`);
    const wide = await page.evaluate(() => document.documentElement.scrollWidth);
    expect(wide).toBeLessThanOrEqual(390);

    await page.getByRole("button", { name: "Go on with this circuit" }).tap();
    await page.waitForURL(/\/jobs\/\d+\/probe$/);
    const suspects = page.locator('[aria-labelledby="suspects"]');
    await expect(suspects.locator("[data-suspect]").first()).toContainText(new RegExp(is, "i"));
  });

for (const colorScheme of ["light", "dark"] as const)
  test(`axe finds nothing serious on a job without a diagram with everything open, ${colorScheme}`, async ({
    page,
  }) => {
    await page.emulateMedia({ colorScheme });
    await page.goto("/");
    await startWithout(page, unknownCar("whimbrel-four-speed", "R1.link:open"), new Hand("tap"));
    for (const fold of [
      "What it may show",
      "Other tests",
      "Drawing of the likeliest wiring",
      "What each speed does",
      "What is seen of the vehicle",
      "Go on without another test",
    ])
      await page.getByText(fold, { exact: true }).tap();
    await expect(page.locator('svg [data-part="M1"]').first()).toBeVisible();
    const { violations } = await new AxeBuilder({ page })
      .withTags(["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa"])
      .analyze();
    expect(violations.map(({ id, nodes }) => `${id}: ${nodes[0]?.html.slice(0, 120)}`)).toEqual([]);
  });

test("a plug that is not there, a reading deleted and restored, a place out of reach", async ({ page }) => {
  const car = unknownCar("whimbrel-four-speed", "R1.link:open");
  const hand = new Hand("tap");
  await page.goto("/");
  await startWithout(page, car, hand);
  const active = page.getByTestId("active-readings");
  await expect(active).toHaveText("4");

  await page.getByText("Other tests", { exact: true }).tap();
  const atPackPlug = page.getByRole("button", { name: /at the resistor pack plug/ }).first();
  await atPackPlug.tap();
  expect(await offeredPlaceTest(page)).toHaveProperty("at", "pack-plug");
  await page.getByRole("button", { name: "It has no resistor pack plug" }).tap();
  await expect(active).toHaveText("5");
  await expect(page.getByText("resistor pack plug: there is none")).toBeVisible();
  // A second page of the job follows without a reload.
  const second = await page.context().newPage();
  await second.goto(page.url());
  await expect(second.locator('[aria-busy="true"]')).toHaveCount(0);
  await expect(second.getByTestId("active-readings")).toHaveText("5");
  await page.getByRole("button", { name: "Delete reading 5" }).tap();
  await expect(active).toHaveText("4");
  await expect(second.getByTestId("active-readings")).toHaveText("4");
  await page.getByRole("button", { name: "Restore reading 5" }).tap();
  await expect(active).toHaveText("5");
  await page.getByRole("button", { name: "Delete reading 5" }).tap();
  await expect(active).toHaveText("4");

  await page.getByText("Other tests", { exact: true }).tap();
  await atPackPlug.tap();
  await page.getByRole("button", { name: "I cannot get at it" }).tap();
  await expect(page.getByRole("button", { name: "I can get at it now" })).toBeVisible();
  await expect(page.locator('#next-place input[value*="pack-plug"]')).toHaveCount(0);
  await page.getByRole("button", { name: "I can get at it now" }).tap();
  await expect(page.getByRole("button", { name: "I can get at it now" })).toHaveCount(0);
});
