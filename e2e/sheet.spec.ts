// The sheet's window and what can be done on it: set-ups, parts and wires, zoom, the saved drawing, notes.
import { readFileSync } from "node:fs";
import { expect, type Page, test } from "./shop";
import { probeOwnVan, standing } from "./steps";

const scaleOf = (page: Page): Promise<number> =>
  page.locator(".sheet-content").evaluate((content) => new DOMMatrix(getComputedStyle(content).transform).a);

// With the table's priors, so that the suggested test does not depend on what the demo's shop has learned.
test.beforeEach(async ({ page }) => {
  await page.goto("/records/learnt");
  const off = page.getByRole("button", { name: "Turn learning off" });
  const on = page.getByRole("button", { name: "Turn learning on" });
  await expect(off.or(on)).toBeVisible();
  if (await off.isVisible()) await off.click();
  await expect(on).toBeVisible();
  await probeOwnVan(page);
});

test("larger, closer and all of it; nothing moves when the speed changes; a drag is no tap", async ({
  page,
}) => {
  expect(await scaleOf(page)).toBeCloseTo(1, 2);
  await page.keyboard.press("+");
  await expect.poll(() => scaleOf(page)).toBeGreaterThan(1.2);
  // A clamp has no point to come closer to; the next tests have.
  const tip = page.locator(".airway-sheet [data-probe]");
  for (let passed = 0; passed < 6 && (await tip.count()) === 0; passed++) {
    await page.keyboard.press("n");
    await page.waitForTimeout(300);
  }
  await page.keyboard.press("c");
  await expect.poll(() => scaleOf(page)).toBeGreaterThan(2);
  const sheet = page.locator(".sheet-frame");
  const frame = await sheet.boundingBox();
  const probe = await page.locator(".airway-sheet [data-probe]").boundingBox();
  expect(probe && frame && probe.x > frame.x && probe.x < frame.x + frame.width).toBe(true);
  expect(probe && frame && probe.y > frame.y && probe.y < frame.y + frame.height).toBe(true);

  const { x = 0, y = 0, width = 0, height = 0 } = frame ?? {};
  await page.mouse.move(x + width / 2, y + height / 2);
  await page.mouse.down();
  await page.mouse.move(x + width / 2 - 90, y + height / 2 - 40, { steps: 5 });
  await page.mouse.up();
  await expect(page.getByRole("button", { name: "Close the test panel" })).toBeHidden();

  const places = () =>
    page
      .locator(".airway-sheet [data-part]")
      .evaluateAll((parts) => parts.map((part) => part.getAttribute("transform")));
  const before = await places();
  await page.keyboard.press("[");
  expect(await places()).toEqual(before);
  await page.keyboard.press("a");
  await expect.poll(() => scaleOf(page)).toBeCloseTo(1, 2);
});

test("the saved drawing stands alone: no tokens, no taps, the wires' codes and the set-up in its title", async ({
  page,
}) => {
  const saving = page.waitForEvent("download");
  await page.getByRole("button", { name: "Drawing" }).click();
  await page.getByRole("menuitem", { name: "Save as SVG" }).click();
  const download = await saving;
  expect(download.suggestedFilename()).toMatch(/^whimbrel-four-speed-\w+\.svg$/);
  const text = readFileSync(await download.path(), "utf8");
  // The text is long, so only the difference is printed.
  expect(text.match(/var\([^)]*\)|color-mix|data-point|aria-\w+/g) ?? []).toEqual([]);
  expect(/<title>[^<]*key run/.test(text)).toBe(true);
  expect(["W9", "R1", "12.4", "0.65 Ω"].filter((said) => !text.includes(`>${said}<`))).toEqual([]);
  const drawn = await page.evaluate((source) => {
    const parsed = new DOMParser().parseFromString(source, "image/svg+xml");
    return {
      broken: parsed.querySelector("parsererror") !== null,
      wires: parsed.querySelectorAll("path").length,
    };
  }, text);
  expect(drawn.broken).toBe(false);
  expect(drawn.wires).toBeGreaterThan(40);
});

test("the printed page is the whole sheet and nothing else", async ({ page }) => {
  await page.keyboard.press("c");
  await page.emulateMedia({ media: "print" });
  await expect(page.locator(".airway-sheet")).toBeVisible();
  await expect(page.getByRole("heading", { name: "Suspects" })).toBeHidden();
  await expect(page.getByText("Path board")).toBeHidden();
  expect(await scaleOf(page)).toBeCloseTo(1, 2);
});

test("a wire takes a clamp, a part is tested; the engine runs and a plug comes off", async ({ page }) => {
  const before = await standing(page);
  await page.getByRole("radio", { name: /^4/ }).click();
  await page.locator('[data-wire="W9"]').click({ force: true });
  const wire = page.getByRole("region", { name: "W9" });
  const amps = async () => Number.parseFloat((await wire.locator("dd").first().textContent()) ?? "");
  await expect.poll(amps).toBeGreaterThan(5);
  const resting = await amps();
  await page.getByRole("button", { name: "Engine off" }).click();
  await expect(wire).toContainText("engine running");
  await expect.poll(amps).toBeGreaterThan(resting + 0.5);
  await wire.getByLabel("Reads").fill("18.2");
  await wire.getByRole("button", { name: "Save" }).click();
  await expect.poll(() => standing(page)).toBe(before + 1);
  await expect(page.locator("[data-reading]").first()).toContainText("engine running");

  await page.locator('[data-point="X5:2"]').click();
  const pin = page.getByRole("region", { name: "X5:2" });
  await pin.getByRole("button", { name: "unplug X5" }).click();
  await expect(page.getByRole("button", { name: "X5 unplugged: put back" })).toBeVisible();
  await pin.getByRole("button", { name: /other side/ }).click();
  const terminal = page.getByRole("region", { name: "R1.T2" });
  await terminal.getByRole("button", { name: "ohms" }).click();
  await terminal.getByRole("button", { name: /black lead on/ }).click();
  await page.locator('[data-point="X5:1"]').click();
  await expect(terminal.getByRole("button", { name: "black lead on X5:1" })).toBeVisible();
  await page.getByRole("button", { name: "X5 unplugged: put back" }).click();

  await page.locator('[data-point="X3:1"]').click();
  await page.getByRole("region", { name: "X3:1" }).getByRole("button", { name: "M1", exact: true }).click();
  const motor = page.getByRole("region", { name: "M1" });
  await motor.getByRole("button", { name: "spin" }).click();
  await expect(motor).toContainText("free");
  await motor.getByRole("button", { name: "lamp in place of M1" }).click();
  await expect(page.getByRole("button", { name: "lamp in place of M1: put back" })).toBeVisible();
  await page.keyboard.press("u");
  await expect.poll(() => standing(page)).toBe(before);
});

test("cautions are read once a job", async ({ page }) => {
  await page.locator('[data-point="X5:2"]').click();
  const panel = page.getByRole("region", { name: "X5:2" });
  await expect(panel).toContainText("Let it cool");
  await panel.getByRole("button", { name: "Mark these cautions as read" }).click();
  await expect(page.getByText("Let it cool")).toHaveCount(0);
  await page.reload();
  await page.waitForLoadState("networkidle");
  await page.locator('[data-point="X5:2"]').click();
  await expect(page.getByRole("region", { name: "X5:2" })).toContainText("healthy");
  await expect(page.getByText("Let it cool")).toHaveCount(0);
});

test("a note with a photo stands by its reading, and one that is no picture says so", async ({ page }) => {
  await page.getByRole("button", { name: /^Add a note to reading 1$/ }).click();
  const dialog = page.getByRole("dialog");
  await dialog.getByLabel("Words").fill("Pin 2 has gone brown");
  await dialog
    .getByLabel(/^Photo/)
    .setInputFiles({ name: "a.jpg", mimeType: "image/jpeg", buffer: Buffer.from("no picture") });
  await dialog.getByRole("button", { name: "Save note" }).click();
  await expect(dialog.getByRole("alert")).toContainText("JPEG, PNG or WebP");
  await expect(dialog.getByLabel("Words")).toHaveValue("Pin 2 has gone brown");
  const shot = await page.screenshot({ clip: { x: 0, y: 0, width: 200, height: 100 } });
  await dialog.getByLabel(/^Photo/).setInputFiles({ name: "a.png", mimeType: "image/png", buffer: shot });
  await dialog.getByRole("button", { name: "Save note" }).click();
  await expect(dialog).toBeHidden();
  const note = page.locator("[data-note]");
  await expect(note).toContainText("Pin 2 has gone brown");
  await note.getByRole("img").scrollIntoViewIfNeeded();
  await expect
    .poll(() => note.getByRole("img").evaluate((image) => (image as HTMLImageElement).naturalWidth))
    .toBe(200);
  await note.getByRole("button", { name: /^Delete the note/ }).click();
  await expect(note.getByRole("button", { name: /^Restore the note/ })).toBeVisible();
});
