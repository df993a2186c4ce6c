import { expect, test } from "./shop";
import { answerByKeys, standing } from "./steps";

test("a point is reached by arrow keys, read out, probed and entered", async ({ page }) => {
  await page.goto("/jobs/4/probe");
  await page.waitForLoadState("networkidle");
  const before = await standing(page);
  const first = page.locator('[data-point][tabindex="0"]');
  await expect(first).toHaveCount(1);
  await first.focus();
  const from = await first.getAttribute("data-point");
  await page.keyboard.press("ArrowDown");
  const focused = page.locator("[data-point]:focus");
  await expect(focused).toHaveAttribute("aria-label", /^\S+: (floating|-?\d+\.\d V)$/);
  expect(await focused.getAttribute("data-point")).not.toBe(from);
  const point = (await focused.getAttribute("data-point")) ?? "";
  await page.keyboard.press("Enter");
  const panel = page.getByRole("region", { name: point });
  await expect(panel.getByText("healthy")).toBeVisible();
  const clip = panel.getByRole("button", { name: /light clipped to/ });
  const words = await clip.textContent();
  await page.keyboard.press("f");
  await expect(clip).not.toHaveText(words ?? "");
  await panel.getByRole("button", { name: "dark" }).click();
  await expect.poll(() => standing(page)).toBe(before + 1);
  await expect(page.locator("[data-reading]").first()).toContainText(`(${point})`);
  await page
    .getByRole("button", { name: /^Delete reading/ })
    .first()
    .click();
  await expect.poll(() => standing(page)).toBe(before);
});

test("volts at a tapped point need a number and are stored for the set-up shown", async ({ page }) => {
  await page.goto("/jobs/4/probe");
  const before = await standing(page);
  await page.getByRole("radio", { name: /^3/ }).click();
  await page.locator('[data-point="X4:1"]').click();
  const panel = page.getByRole("region", { name: "X4:1" });
  await expect(panel).toContainText("key run, speed 3");
  await panel.getByRole("button", { name: "volts" }).click();
  await panel.getByLabel("Reads").fill("plenty");
  await panel.getByRole("button", { name: "Save" }).click();
  await expect(panel.getByRole("alert")).toContainText('volts: expected number, got "plenty"');
  expect(await standing(page)).toBe(before);
  await panel.getByLabel("Reads").fill("12,4");
  await panel.getByRole("button", { name: "Save" }).click();
  await expect.poll(() => standing(page)).toBe(before + 1);
  await expect(page.locator("[data-reading]").first()).toContainText("speed 3");
  await expect(page.locator("[data-reading]").first()).toContainText("12.4 V");
  await page.getByRole("button", { name: "Close the test panel" }).click();
  await expect(panel).toBeHidden();
});

test("the path board opens by its key, marks what every dead speed needs and lights a path", async ({
  page,
}) => {
  await page.goto("/jobs/6/probe");
  await page.waitForLoadState("networkidle");
  await page.keyboard.press("p");
  await expect(page.locator('[data-path="R1.link"]')).toContainText("on every dead speed");
  await expect(page.locator('[data-path="R1.e1"]')).not.toContainText("on every dead speed");
  await expect(page.locator('[data-path="F7"]')).toContainText("cleared");
  const cell = page.getByRole("button", { name: /^R1\.e3 on 3:/ });
  await cell.click();
  await expect(cell).toHaveAttribute("aria-pressed", "true");
  await expect(page.getByRole("radio", { name: /^3/ })).toBeChecked();
  // A vertical wire has no width of its own, so it counts as present, not as visible.
  for (const on of ["R1", "W15", "M1", "F7", "E1"])
    await expect(page.locator(`[data-lit="${on}"]`)).toHaveCount(1);
  await expect(page.locator('[data-lit="W13"]')).toHaveCount(0);
  await page.keyboard.press("p");
  await expect(cell).toBeHidden();
});

test("what the customer noticed changes the odds, and a second tap deletes it", async ({ page }) => {
  await page.goto("/jobs/5/complaint");
  const squeal = page.getByRole("button", { name: "Noise while running: squeal" });
  await squeal.click();
  await expect(squeal).toHaveAttribute("aria-pressed", "true");
  const follows = page.getByRole("button", { name: "Noise while running: follows the speed" });
  await follows.click();
  await expect(follows).toHaveAttribute("aria-pressed", "true");
  await page.getByRole("link", { name: "Continue to Probe" }).click();
  await expect(page.locator("[data-reading]").first()).toContainText("squeal, follows the speed");
  await page.goBack();
  await page.getByRole("button", { name: "Noise while running: squeal" }).click();
  await expect(page.getByRole("button", { name: "Noise while running: squeal" })).toHaveAttribute(
    "aria-pressed",
    "false",
  );
});

test("if a suspect were true, the other tests and what follows", async ({ page }) => {
  await page.goto("/jobs/6/probe");
  await page.waitForLoadState("networkidle");
  await page.getByLabel("Show the drawing as if").selectOption({ index: 1 });
  const asIf = page.getByRole("region", { name: /^If true: R1/ });
  await expect(asIf).toContainText("Every reading fits.");
  await asIf.getByRole("button", { name: "Show healthy circuit" }).click();
  await expect(asIf).toBeHidden();

  await page.getByText("Other tests").click();
  const minutes = page.getByRole("button", { name: "Minutes" });
  await minutes.click();
  await expect(page.getByRole("columnheader", { name: "Minutes" })).toHaveAttribute("aria-sort", "ascending");
  const other = page.getByRole("table").getByRole("button", { pressed: false }).last();
  const before = await page.locator('input[name="look"]').first().inputValue();
  await other.click();
  await expect(page.locator('input[name="look"]').first()).not.toHaveValue(before);

  await page.getByText("What could come next").click();
  const motorFirst = page.getByRole("button", { name: /^motor first/ });
  await motorFirst.click();
  await expect(page.getByRole("button", { name: /^motor first/ })).toHaveAttribute("aria-pressed", "true");
  await page.reload();
  await page.getByText("What could come next").click();
  await expect(page.getByRole("button", { name: /^motor first/ })).toHaveAttribute("aria-pressed", "true");
  await page.getByRole("button", { name: /^least time expected/ }).click();
  await expect(page.getByRole("button", { name: /^least time/ })).toHaveAttribute("aria-pressed", "true");
});

test("two windows on one job show each other's readings and lose none", async ({ page, context }) => {
  const other = await context.newPage();
  for (const window of [page, other]) {
    await window.goto("/jobs/5/probe");
    await window.waitForLoadState("load");
  }
  const before = await standing(page);
  expect(await standing(other)).toBe(before);
  await page.bringToFront();
  await answerByKeys(page);
  await expect.poll(() => standing(other)).toBe(before + 1);
  await other.bringToFront();
  await other.locator('[data-point="F11.in"]').click();
  await other.getByRole("region", { name: "F11.in" }).getByRole("button", { name: "bright" }).click();
  await expect.poll(() => standing(other)).toBe(before + 2);
  await page.bringToFront();
  await expect.poll(() => standing(page)).toBe(before + 2);
  for (let i = 0; i < 2; i++) {
    await page.keyboard.press("u");
    await expect.poll(() => standing(page)).toBe(before + 1 - i);
  }
});
