// A symptom that comes and goes: said in the complaint, asked at every test, and kept with the reading.
import { expect, test } from "./shop";
import { probeOwnVan, standing } from "./steps";

test("what comes and goes is said once per speed, and every reading keeps when it was taken", async ({
  page,
}) => {
  await probeOwnVan(page);
  await page.getByRole("button", { name: "It comes and goes" }).click();
  await expect(page.getByRole("button", { name: "failing", pressed: true })).toBeVisible();

  await page.getByRole("link", { name: "Complaint" }).click();
  await page.getByText("It does not do this all the time").click();
  // A working speed has no pattern to choose.
  await expect(page.getByRole("button", { name: "4: only hot" })).toHaveCount(0);
  const hot = page.getByRole("button", { name: "2: only hot" });
  // A slow device shows whether the button falls back to its old state between the answer and the loaded page.
  const device = await page.context().newCDPSession(page);
  await device.send("Emulation.setCPUThrottlingRate", { rate: 10 });
  await hot.evaluate((button) => {
    new MutationObserver(() => {
      button.dataset.shown = `${button.dataset.shown ?? ""} ${button.ariaPressed}`;
    }).observe(button, { attributeFilter: ["aria-pressed"] });
  });
  await hot.click();
  await expect(hot).toHaveAttribute("aria-pressed", "true");
  await expect(hot).toHaveAttribute("aria-busy", "false");
  await page.waitForTimeout(1000);
  await expect(hot).toHaveAttribute("data-shown", " true");
  await device.send("Emulation.setCPUThrottlingRate", { rate: 1 });
  // The word stays when the pattern goes, and the other way round the pattern goes with a working speed.
  await hot.click();
  await expect(hot).toHaveAttribute("aria-pressed", "false");
  await expect(page.getByRole("button", { name: "2: nothing", pressed: true })).toBeVisible();
  await page.getByRole("button", { name: "3: comes and goes" }).click();
  await expect(page.getByRole("button", { name: "3: comes and goes", pressed: true })).toBeVisible();

  await page.getByRole("link", { name: "Continue to Probe" }).click();
  const before = await standing(page);
  await page.getByRole("button", { name: "working", exact: true }).click();
  await page.getByText("Enter another test").click();
  await page.locator('select[name="test"]').selectOption("volts");
  await page.getByLabel("Red on").selectOption("X3:1");
  await page.getByLabel("Black on").selectOption("G1.-");
  await page.getByLabel("Reading (V)").fill("12.1");
  await page.getByRole("button", { name: "Save reading" }).click();
  await expect.poll(() => standing(page)).toBe(before + 1);
  await expect(page.locator("[data-reading]").first()).toContainText("while it worked");
  await expect(page.locator("[data-reading]").first()).toContainText("12.1 V");
  await page.reload();
  await expect(page.locator("[data-reading]").first()).toContainText("while it worked");
  await expect(page.getByText("nothing, comes and goes").first()).toBeVisible();
});
