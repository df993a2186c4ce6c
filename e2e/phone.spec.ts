import { brokenVehicle } from "./brokenVehicle";
import { expect, test } from "./shop";
import { byPointer, byTouch, keysPressed, probeToTheEnd } from "./steps";

test("on a phone-sized page: a hatchback dead on every speed, by touch", async ({ page }) => {
  const hatchback = brokenVehicle("godwit-four-speed-feed", "K5:coil-open");
  await page.goto("/jobs/new");
  await page
    .getByLabel("Vehicle", { exact: true })
    .selectOption({ label: "Skerry Godwit hatchback, bakery hatchback" });
  await page.getByRole("button", { name: "Start job" }).tap();
  for (const setting of ["1", "2", "3", "4"]) {
    const cell = page.getByRole("button", { name: `${setting}: nothing` });
    await cell.tap();
    await expect(cell).toHaveAttribute("aria-pressed", "true");
  }
  await page.getByRole("link", { name: "Continue to Probe" }).tap();
  const buttons = page.locator("[data-choice]");
  await expect(page.getByText("Not certain yet.")).toBeVisible();
  const benchWide = await page.evaluate(() => document.documentElement.scrollWidth);
  expect(benchWide).toBeLessThanOrEqual(390);
  for (const button of await buttons.all()) {
    const box = await button.boundingBox();
    expect(box?.height ?? 0).toBeGreaterThanOrEqual(44);
    expect((box?.x ?? 0) + (box?.width ?? 0)).toBeLessThanOrEqual(390);
  }
  await probeToTheEnd(page, hatchback, byPointer, 10);
  await page.getByRole("link", { name: "See the verdict" }).tap();
  await expect(page.getByRole("heading", { name: /^Relay K5/ })).toBeVisible();
  const wide = await page.evaluate(() => document.documentElement.scrollWidth);
  expect(wide).toBeLessThanOrEqual(390);
});

test("from a demo job to a confirmed verdict by touch: at most fifteen taps and nothing typed", async ({
  page,
}) => {
  const van = brokenVehicle("whimbrel-four-speed", "R1.link:open");
  await page.goto("/jobs/new");
  await page
    .getByLabel("Vehicle", { exact: true })
    .selectOption({ label: "Harrow Whimbrel van, ferry crew van 5" });
  await page.getByRole("button", { name: "Start job" }).tap();
  let taps = 0;
  for (const setting of ["1", "2", "3", "4"]) {
    const word = van.airflow(setting) === "none" ? "nothing" : "normal";
    await page.getByRole("button", { name: `${setting}: ${word}` }).tap();
    await expect(page.getByRole("button", { name: `${setting}: ${word}` })).toHaveAttribute(
      "aria-pressed",
      "true",
    );
    taps += 1;
  }
  await page.getByRole("link", { name: "Continue to Probe" }).tap();
  taps += 1;
  await expect(page.getByText("Not certain yet.")).toBeVisible();
  const typed = await keysPressed(page);
  const looks = await probeToTheEnd(page, van, byTouch, 8);
  taps += looks.length;
  await expect(page.getByText("Confirmed:")).toBeVisible();
  expect(taps).toBeLessThanOrEqual(15);
  expect(await typed()).toBe(0);
});
