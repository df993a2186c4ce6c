// The motor's own evidence: clamped by hand and by an instrument, its ripples from a scope's file, its sound from a
// phone.
import AxeBuilder from "@axe-core/playwright";
import wavefile from "wavefile";
import { drawnRecording } from "../core/testing/rippleRecording";
import { expect, type Page, test } from "./shop";

async function quietToAxe(page: Page): Promise<void> {
  const { violations } = await new AxeBuilder({ page })
    .withTags(["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa"])
    .analyze();
  expect(violations.map(({ id, nodes }) => `${id}: ${nodes[0]?.html}`)).toEqual([]);
}

/** Opens a job of its own on a van with twelve bars, and goes to its motor page. */
async function ownMotor(page: Page, view: string): Promise<string> {
  await page.goto("/jobs/new");
  await page
    .getByLabel("Vehicle", { exact: true })
    .selectOption({ label: "Harrow Whimbrel van, ferry crew van 5" });
  await page.getByRole("button", { name: "Start job" }).click();
  await expect(page).toHaveURL(/\/jobs\/\d+\/complaint/);
  const job = /\/jobs\/(\d+)\//.exec(page.url())?.[1] ?? "";
  await page.goto(`/jobs/${job}/motor?view=${view}`);
  return job;
}

/** A scope's file: semicolons, decimal commas, a clamp of 10 mV per amp. */
function scopeFile(bad: boolean): string {
  const { amps, rateHz } = drawnRecording({
    bars: 12,
    rpm: 2900,
    seconds: 1,
    rateHz: 20_000,
    noise: 0.02,
    heights: (hump) => (bad && hump % 6 === 2 ? 0.1 : 1),
  });
  const rows = Array.from(amps, (value, i) =>
    `${((1000 * i) / rateHz).toFixed(2)};${(10 * value).toFixed(3)}`.replaceAll(".", ","),
  );
  return ["bench recording", "Time (ms);Clamp (mV)", ...rows].join("\n");
}

const csv = (name: string, text: string) => ({ name, mimeType: "text/csv", buffer: Buffer.from(text) });

/** A WAV file of a blower with tones at orders of its speed. */
function wavFile(name: string, rpm: number, orders: Readonly<Record<number, number>>) {
  const rateHz = 16_000;
  const count = 3 * rateHz;
  const samples = new Int16Array(count);
  let seed = 7;
  for (let i = 0; i < count; i++) {
    seed = (seed * 16_807) % 2_147_483_647;
    let value = 0.04 * (seed / 2_147_483_647 - 0.5);
    for (const [order, size] of Object.entries(orders))
      value += size * Math.sin((2 * Math.PI * Number(order) * rpm * i) / 60 / rateHz);
    samples[i] = Math.round(20_000 * value);
  }
  const wav = new wavefile.WaveFile();
  wav.fromScratch(1, rateHz, "16", samples);
  return { name, mimeType: "audio/wav", buffer: Buffer.from(wav.toBuffer()) };
}

test("a scope's file is inspected, read, compared, and entered as evidence", async ({ page }) => {
  const job = await ownMotor(page, "humps");
  const file = page.getByLabel("A CSV or WAV file of the motor's current");
  await file.setInputFiles(csv("before.csv", scopeFile(true)));
  const found = page.getByTestId("found");
  await expect(found).toContainText("semicolons between columns, decimal comma, 2 lines of header");
  await expect(found).toContainText("20,000 per second");
  await page.getByRole("button", { name: "Analyse" }).click();
  await expect(page.getByRole("heading", { name: "Missing ripple" })).toBeVisible();
  await expect(page.getByRole("button", { name: /^speed/ })).toContainText("2900 rpm");
  await expect(page.getByRole("button", { name: /bad ripples/ })).toContainText("1 bar at least");
  await expect(page.getByRole("img", { name: /^ripple 1:/ })).toBeVisible();
  await page.getByRole("button", { name: /bad ripples/ }).click();
  await expect(page.getByRole("button", { name: /bad ripples/ })).toHaveAttribute("aria-pressed", "true");
  // One turn apart, the cursors read the speed from the recording.
  await page.getByRole("button", { name: "cursors", exact: true }).click();
  await expect(page.getByTestId("cursors")).toContainText(/(28|29)\d\d rpm if that is one turn/);
  await page.getByLabel("A", { exact: true }).press("ArrowRight");
  await quietToAxe(page);

  await page.getByRole("button", { name: /Add to the evidence: ripple missing/ }).click();
  await expect(page.getByRole("button", { name: "Added to the evidence" })).toBeVisible();
  await file.setInputFiles(csv("after.csv", scopeFile(false)));
  await page.getByRole("button", { name: "Analyse" }).click();
  await expect(page.getByRole("heading", { name: "Even ripple" })).toBeVisible();
  await page.getByLabel("compare with").selectOption({ index: 1 });
  await page.getByRole("button", { name: "Use as this motor's healthy reference" }).click();
  await expect(page.getByRole("button", { name: "Stop using as the healthy reference" })).toBeVisible();

  // A reload loses nothing; the evidence is on the probe page with its source.
  await page.reload();
  await expect(page.getByRole("heading", { name: "Even ripple" })).toBeVisible();
  await page.goto(`/jobs/${job}/probe`);
  await expect(page.locator("[data-reading]").first()).toContainText("missing");
  await expect(page.locator("[data-reading]").first()).toContainText("(by file)");
  await page.goto(`/jobs/${job}/close`);
  await expect(page.getByRole("img", { name: "One turn: ripple missing" })).toBeVisible();

  // Another job on the same motor part can compare its recording with the healthy one.
  await ownMotor(page, "humps");
  await page
    .getByLabel("A CSV or WAV file of the motor's current")
    .setInputFiles(csv("mine.csv", scopeFile(true)));
  await page.getByRole("button", { name: "Analyse" }).click();
  await expect(page.getByRole("heading", { name: "Missing ripple" })).toBeVisible();
  await expect(page.getByLabel("compare with")).toContainText("healthy reference for this motor: after.csv");
});

test("long work shows its progress and can be stopped; a file that is not a recording is refused by its line", async ({
  page,
}) => {
  await ownMotor(page, "humps");
  const file = page.getByLabel("A CSV or WAV file of the motor's current");
  await file.setInputFiles(csv("odd.csv", "t,v\n0,1\n0.1,2\n0.2,two\n0.3,1\n"));
  await page.getByRole("button", { name: "Analyse" }).click();
  await expect(page.getByRole("alert")).toContainText("odd.csv: line 4: expected two numbers");
  await file.setInputFiles(csv("letter.csv", "dear sir"));
  await expect(page.getByRole("alert")).toContainText("expected two columns of numbers");
  await file.setInputFiles({
    name: "noise.bin",
    mimeType: "application/octet-stream",
    buffer: Buffer.alloc(5000),
  });
  await expect(page.getByRole("alert")).toContainText("neither text nor a WAV file");

  const chunk = Array.from({ length: 100_000 }, (_, i) =>
    (0.15 + 0.01 * Math.abs(Math.sin(i / 12))).toFixed(4),
  ).join("\n");
  await file.setInputFiles(csv("long.csv", `value\n${Array.from({ length: 60 }, () => chunk).join("\n")}\n`));
  await page.getByLabel("samples per second").fill("20000");
  await page.getByRole("button", { name: "Analyse" }).click();
  await expect(page.getByRole("progressbar", { name: "Reading" })).toBeVisible();
  await page.getByRole("button", { name: "Stop" }).click();
  await expect(page.getByRole("alert")).toContainText("Stopped. Nothing was stored.");
  await expect(page.getByText("No recording yet.")).toBeVisible();
  // The next one is read anyway.
  await page.getByRole("button", { name: "Cancel" }).click();
  await file.setInputFiles(csv("again.csv", scopeFile(false)));
  await page.getByRole("button", { name: "Analyse" }).click();
  await expect(page.getByRole("heading", { name: "Even ripple" })).toBeVisible();
});

test("a practice clamp reads a tight motor, by a tap and automatically, and its readings name their source", async ({
  page,
}) => {
  const job = await ownMotor(page, "draw");
  await page.getByText("Network instrument").click();
  await page.getByLabel("practice vehicle with").selectOption({ label: "a tight motor" });
  await page.getByRole("button", { name: "Attach practice instrument" }).click();
  await expect(page.getByText(/Practice instrument attached, port \d+/)).toBeVisible();
  await page.getByLabel("speed during the reading").selectOption("4");
  await page.getByRole("button", { name: "Read", exact: true }).click();
  await expect(page.locator("output")).toContainText(/\d+\.\d\d A/);
  await page.getByRole("button", { name: "Save this reading" }).click();
  await expect(page.locator('tr[data-speed="4"]')).toContainText("too much");
  await page.getByLabel("speed during the reading").selectOption("3");
  await page.getByLabel("save automatically once steady").check();
  await expect(page.locator('tr[data-speed="3"]')).toContainText("too much");
  await expect(page.locator('[aria-labelledby="fits"]')).toContainText("a tight motor");
  await expect(page.locator('[aria-labelledby="hot"]')).toContainText("overheats");
  // A figure entered by hand, and a voltage drop.
  await page.getByLabel("Amps on speed 2", { exact: true }).fill("9,9");
  await page.getByRole("button", { name: "Save amps on speed 2" }).click();
  await expect(page.locator('tr[data-speed="2"]')).toContainText("too much");
  const drop = page.locator('[aria-labelledby="drops"]');
  await drop.getByLabel("red lead").fill("X3:1");
  await drop.getByLabel("black lead").fill("M1.+");
  await drop.getByLabel("volts").fill("0.6");
  await drop.getByRole("button", { name: "Save drop" }).click();
  await expect(drop).toContainText("over the 0.1 V it may have");
  await quietToAxe(page);
  await page.goto(`/jobs/${job}/probe`);
  await expect(
    page.locator("[data-reading]").filter({ hasText: "(by the practice instrument)" }),
  ).toHaveCount(2);
});

test("two recordings from a phone identify a squeal that follows the speed, on a phone", async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await ownMotor(page, "sound");
  const squeal = { 43.7: 0.3, 1: 0.02 };
  await page
    .getByLabel("WAV recordings of the blower")
    .setInputFiles([wavFile("top.wav", 2900, squeal), wavFile("low.wav", 1700, squeal)]);
  const speeds = page.getByLabel("rpm, if known");
  await speeds.nth(0).fill("2900");
  await speeds.nth(1).fill("1700");
  await page.getByRole("button", { name: "Hear them" }).click();
  await expect(page.getByRole("heading", { name: "squeal" })).toBeVisible();
  await expect(page.getByText("It follows the speed.")).toBeVisible();
  await expect(page.locator('[aria-labelledby="tones"]')).toContainText("order 43.7");
  await quietToAxe(page);
  await page.getByRole("button", { name: "Add to the evidence: squeal" }).click();
  await expect(page.getByRole("button", { name: "Added to the evidence" })).toBeVisible();
  const wide = await page.evaluate(() => document.documentElement.scrollWidth);
  expect(wide).toBeLessThanOrEqual(390);
});
