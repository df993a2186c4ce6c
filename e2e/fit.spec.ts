import { readFileSync } from "node:fs";
import { AxeBuilder } from "@axe-core/playwright";
import { demoPlans, playPlan } from "./fitSteps";
import { expect, test } from "./shop";

for (const [name, plan] of Object.entries(demoPlans))
  test(`at a desk, to the end: ${name}`, async ({ page }) => {
    await playPlan(page, plan, false);
  });

test("by the book the same motor needs the dash out, hours against minutes, side by side", async ({
  page,
}) => {
  await page.goto("/jobs/13/fit");
  await page.waitForLoadState("networkidle");
  const out = page.locator('[aria-label="Parts to remove, and how"]');
  const motor = out.locator("button.btn", { hasText: /M1$/ });
  if ((await motor.getAttribute("aria-pressed")) === "false") await motor.click();
  await expect(out.getByRole("button", { name: /By the book.*4 h/ })).toBeVisible();
  await expect(out.getByRole("button", { name: /extra work for the next person 5 min/ })).toBeVisible();
});

test("a left-over screw is reported before the panel closes", async ({ page }) => {
  await page.goto("/jobs/6/fit");
  await page.waitForLoadState("networkidle");
  const pack = page.locator("button.btn", { hasText: /R1$/ });
  if ((await pack.getAttribute("aria-pressed")) === "false") await pack.click();
  await expect(pack).toHaveAttribute("aria-pressed", "true");
  for (const step of ["mat", "lower-panel", "x5-off", "pack-screws"]) {
    const line = page.locator(`[data-way="in"] [data-step="${step}"]`);
    await line.getByRole("button", { name: /^Removed\b/ }).click();
    await expect(line.getByRole("button", { name: "undo", exact: true })).toBeVisible();
  }
  await page.getByRole("tab", { name: /^Refitting/ }).click();
  const line = page.locator('[data-way="back"] [data-step="pack-screws"]');
  await line.getByRole("button", { name: /one fewer/ }).click();
  await line.getByRole("button", { name: /^Refitted\b/ }).click();
  await expect(
    page.getByText(/Before you close this: Remove the pack, two screws: 1 screw left over/).first(),
  ).toBeVisible();
  await line.getByRole("button", { name: "undo", exact: true }).click();
  await expect(page.getByText(/Before you close this/)).toHaveCount(0);
});

test("a tick made while the server is away survives a reload and is stored once it answers", async ({
  page,
}) => {
  let away = true;
  await page.route("**/ticks", (route) => (away ? route.abort() : route.continue()));
  page.on("dialog", (dialog) => void dialog.accept());
  await page.goto("/jobs/16/fit");
  await page.waitForLoadState("networkidle");
  const line = page.locator('[data-way="in"] [data-step="flap"]');
  await line.getByRole("button", { name: /^Removed\b/ }).click();
  await expect(page.getByText(/One step is waiting on this device/)).toBeVisible();
  await page.reload();
  await expect(page.getByText(/One step is waiting on this device/)).toBeVisible();
  await expect(line.getByRole("button", { name: "undo", exact: true })).toBeHidden();
  away = false;
  await expect(line.getByRole("button", { name: "undo", exact: true })).toBeVisible();
  await page.reload();
  await line.getByRole("button", { name: "undo", exact: true }).click();
  await expect(line.getByRole("button", { name: /^Removed\b/ })).toBeVisible();
});

test("the new part compared with the old one: adapted, wrong, overridden in words", async ({ page }) => {
  await page.goto("/jobs/6/parts?part=M1");
  await page.waitForLoadState("networkidle");
  await page.getByLabel("New part").selectOption("QR 700 118");
  await page.getByRole("button", { name: "Compare" }).click();
  await expect(page.getByRole("heading", { name: "Fits with modification." })).toBeVisible();
  await expect(page.locator('[data-feature="wheel"]')).toContainText("used again");
  await page.getByLabel("New part").selectOption("QR 700 119");
  await page.getByRole("button", { name: "Compare" }).click();
  await expect(page.getByRole("heading", { name: "Wrong part. Return it." })).toBeVisible();
  const direction = page.locator('[data-feature="direction"]');
  await expect(direction).toContainText("weakly");
  await direction.getByRole("button", { name: "Accept this difference" }).click();
  await direction.getByLabel(/Why/).fill("its leads are swapped in the plug");
  await direction.getByRole("button", { name: "Accept", exact: true }).click();
  await expect(direction).toContainText("its leads are swapped in the plug");
  const { violations } = await new AxeBuilder({ page }).analyze();
  expect(violations.map(({ id }) => id)).toEqual([]);
});

test("leads are spliced colour to colour, and one that would connect the wrong circuit is refused", async ({
  page,
}) => {
  await page.goto("/jobs/6/parts?part=R1");
  await page.waitForLoadState("networkidle");
  await page.getByLabel("New part").selectOption("HW 4410-18");
  await page.getByRole("button", { name: "Compare" }).click();
  await expect(page.locator('[data-pin="2"]')).toContainText("BK/YE 1.5 mm² → W14 BK/YE");
  await page.getByLabel("New part").selectOption("QR 771 421");
  await page.getByRole("button", { name: "Compare" }).click();
  await expect(page.getByText(/Do not splice: BU of the new plug is pin 1/)).toBeVisible();
});

test("a part that is not listed is typed in and compared with the old one", async ({ page }) => {
  await page.goto("/jobs/6/parts?part=R1");
  await page.waitForLoadState("networkidle");
  await page.getByText("Describe a part that is not listed").click();
  await page.getByLabel("Number on it").fill("zx 77-1");
  await page.getByLabel("What the box says").fill("Pack from a box");
  await page.getByLabel("T1 to T2").fill("2,4");
  await page.getByLabel("T2 to T3").fill("1.3");
  await page.getByLabel("T3 to N").fill("0.7");
  await page.getByLabel("Screws", { exact: true }).fill("a few");
  await page.getByRole("button", { name: /^Add it to the list/ }).click();
  await expect(page.getByText(/screws: expected number, got "a few"/)).toBeVisible();
  await expect(page.getByLabel("T1 to T2")).toHaveValue("2,4");
  await page.getByLabel("Screws", { exact: true }).fill("2");
  const { violations } = await new AxeBuilder({ page }).analyze();
  expect(violations.map(({ id }) => id)).toEqual([]);
  await page.getByRole("button", { name: /^Add it to the list/ }).click();
  await expect(page.getByText("Added to the list and chosen as the new part above.")).toBeVisible();
  await expect(page.getByLabel("New part")).toHaveValue("ZX 77-1");
  await expect(page.locator('[data-feature="ohms"]')).toContainText("2.4");
});

test("an estimate is changed, refused, saved, downloaded as PDF and CSV, and billed", async ({ page }) => {
  await page.goto("/jobs/3/estimate");
  await page.waitForLoadState("networkidle");
  await page.locator('[data-offer="part-only"]').getByRole("button", { name: "Estimate this" }).click();
  await expect(page.locator('[data-version="1"]')).toBeVisible();
  const editor = page.locator('[data-editor="estimate"]');
  await editor.getByText(/^The next version/).click();
  const hours = editor.getByLabel("Hours").nth(1);
  await hours.fill("a lot");
  await expect(editor.getByRole("button", { name: "Save as the next version" })).toBeDisabled();
  await hours.fill("0,7");
  await editor.getByRole("button", { name: "Save as the next version" }).click();
  const second = page.locator('[data-version="2"]');
  await expect(second).toContainText("0.7 h");
  await second.getByRole("button", { name: "Approved" }).click();
  await expect(second.getByText(/approved/).first()).toBeVisible();
  for (const kind of ["PDF", "CSV"]) {
    const [download] = await Promise.all([
      page.waitForEvent("download"),
      second.getByRole("link", { name: kind }).click(),
    ]);
    const bytes = readFileSync(await download.path());
    expect(bytes.length).toBeGreaterThan(100);
    if (kind === "PDF") expect(bytes.subarray(0, 5).toString()).toBe("%PDF-");
    else expect(bytes.toString()).toContain("Renew");
  }
  const bill = page.locator('[data-editor="bill"]');
  await bill.getByText(/^The bill/).click();
  await bill.getByLabel("Hours").nth(1).fill("0.9");
  await bill.getByRole("button", { name: "Save the bill" }).click();
  // 0.2 h more at 90.00.
  await expect(
    page.getByRole("heading", { name: /against approved estimate, before tax: \+18\.00/ }),
  ).toBeVisible();
  const { violations } = await new AxeBuilder({ page }).analyze();
  expect(violations.map(({ id }) => id)).toEqual([]);
});

test("an access plan is written for a vehicle without one, drawn, found faulty, corrected and undone", async ({
  page,
}) => {
  await page.goto("/jobs/12/fit");
  await page.waitForLoadState("networkidle");
  await page.getByLabel("It is louder with the bonnet up than with the door open").check();
  await expect(page.getByText("75 %")).toBeVisible();
  await page.getByRole("button", { name: /battery and tray/ }).click();
  await page.waitForURL(/\/way$/);
  await page.waitForLoadState("networkidle");
  await expect(page.getByText("A1: the circuit has this part, but the plan does not reach it")).toBeVisible();
  await page.getByText("Add a step").click();
  const form = page.locator('li[data-step=""]');
  await form.getByLabel("What to remove").fill("Control out of the duct");
  await form.getByLabel("Short name").fill("control");
  await form.getByLabel("Minutes, on average").fill("3");
  await form.getByLabel(/^Steps before it/).fill("nowhere");
  await form.getByRole("button", { name: "Add the step" }).click();
  await expect(form.getByText(/no step "nowhere"/)).toBeVisible();
  await form.getByLabel(/^Steps before it/).fill("tray");
  await form.getByRole("button", { name: "Add the step" }).click();
  await expect(page.locator('li[data-step="control"]')).toBeVisible();
  await expect(
    page.getByText(/Control out of the duct: no other step and no part needs this step/),
  ).toBeVisible();
  await page.getByLabel("Another part").selectOption("A1");
  await page.getByLabel("Last steps before the part is free").last().fill("control");
  await page.getByRole("button", { name: "Add the part" }).click();
  await expect(page.getByText("✓ Every part can be reached")).toBeVisible();
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(
    page.getByText(/Control out of the duct: no other step and no part needs this step/),
  ).toBeVisible();
  await page.reload();
  await page.getByRole("button", { name: "Redo" }).click();
  await expect(page.locator('[data-target="A1"]')).toBeVisible();
  const { violations } = await new AxeBuilder({ page }).analyze();
  expect(violations.map(({ id }) => id)).toEqual([]);
});

test("the repair page and the rates are accessible, and impossible rates are refused with the typed text kept", async ({
  page,
}) => {
  await page.goto("/jobs/14/fit");
  await page.goto("/jobs/8/fit");
  await page.waitForLoadState("networkidle");
  const fit = await new AxeBuilder({ page }).analyze();
  expect(fit.violations.map(({ id }) => id)).toEqual([]);
  await page.goto("/settings");
  await page.waitForLoadState("networkidle");
  await page.getByLabel("Labour rate per hour").fill("ninety");
  await page.getByRole("button", { name: "Save rates and tax" }).click();
  await expect(page.getByText(/must be an amount in XXX, not "ninety"/)).toBeVisible();
  await expect(page.getByLabel("Labour rate per hour")).toHaveValue("ninety");
  const terms = await new AxeBuilder({ page }).analyze();
  expect(terms.violations.map(({ id }) => id)).toEqual([]);
});
